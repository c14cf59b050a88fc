"""Checks of a written component: whether it works in its place, and shows values correctly."""

from __future__ import annotations

from collections.abc import Iterator

from clean_carry.syntaxes.scoped_template.directives import dashed
from clean_carry.syntaxes.scoped_template.model import Directive

# Attributes that mean a class or a label's target in markup that is written in scripts.
_OF_SCRIPTS = frozenset({"classname", "htmlfor"})


def preflight(
    directive: Directive, outer: list[str], prefix: str
) -> Iterator[tuple[str, str, int]]:
    """Findings about a written component: rule, detail, offset in its script.

    `outer` are names bound from the scope around, `prefix` what the project's element names begin with.
    """
    at = directive.definition.registration.at
    tag = dashed(directive.name)
    if tag.startswith("-"):
        yield "registration-name", directive.name, at
    elif (prefix and not tag.startswith(f"{prefix}-")) or "-" not in tag:
        yield "element-name", f"<{tag}>", at
    yield from _undeclared(directive, outer, at)
    yield from _shown_whole(directive, at)
    for _, found in directive.templates:
        for name in sorted({name for _, name, _, _ in found.values if name.lower() in _OF_SCRIPTS}):
            yield "attribute-of-scripts", name, at


def _undeclared(directive: Directive, outer: list[str], at: int) -> Iterator[tuple[str, str, int]]:
    """Names of the template that nothing binds and no code gives a value."""
    scope = directive.scope
    if any(use.kind in ("computed", "fill", "escape") for use in scope.uses):
        return
    if directive.instance.listed or directive.controller.form == "declared":
        return
    given = {name for name, written in scope.members().items() if written}
    given |= {name for name, written in directive.instance.members.items() if written}
    given |= {*directive.bindings, *outer}
    for _, found in directive.templates:
        given |= {name.name for name in found.names if name.written and not name.path}
    missing = sorted(directive.template_names() - given)
    if missing:
        yield "name-undeclared", ", ".join(missing), at


def _shown_whole(directive: Directive, at: int) -> Iterator[tuple[str, str, int]]:
    """Yield bindings that are shown as text while code reads members of them."""
    for _, found in directive.templates:
        asked = {name.name for name in found.names if name.path and name.path[0][0] != "length"}
        shown = {name.name for name in found.names if name.shown}
        for name in sorted(asked & shown & set(directive.bindings)):
            yield "object-shown", name, at
