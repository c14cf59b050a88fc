"""The template of a component: what was a name of the scope is asked of the controller."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from clean_carry.syntaxes.controller_component.names import MemberNames
from clean_carry.syntaxes.scoped_template.markup import ScopeName, TemplateNames
from clean_carry.syntaxes.scoped_template.model import Directive, NotRead
from clean_carry.syntaxes.scoped_template.templates import Template


def declared_names(directive: Directive) -> set[str]:
    """The names that are its own for sure: bound, given a value by code, or the controller's."""
    written = {name for name, write in directive.scope.members().items() if write}
    return {*directive.bindings, *written, directive.alias} - {""}


def _is_expression(value: str, used: Sequence[ScopeName], declared: set[str]) -> bool:
    """Whether the value of an attribute nobody knows can only be an expression: it asks its own names for
    something, calls, compares or chooses."""
    more = any(sign in value for sign in (".", "(", "!", "==", "&&", "||", "?", "["))
    return more and all(name.name in declared for name in used)


def template_edits(
    directive: Directive, template: Template, found: TemplateNames, names: MemberNames, at: int
) -> Iterator[tuple[int, int, str, str]]:
    """The places to spell anew: (start, end, text, rule), offsets of the template's own text.

    Raises `NotRead` for what the new template could not say.
    """
    members = {*directive.scope.members(), *directive.bindings, *directive.template_names()}
    for what, _ in found.unread:
        raise NotRead("template-unread", what, at)
    for name in sorted(found.lists & {*directive.scope.members(), *directive.bindings}):
        raise NotRead("template-unread", f"a repetition is called like a member: {name}", at)
    taken: list[ScopeName] = []
    for attribute, value, _, used in found.unknown:
        if any(name.name in members or name.name == directive.alias for name in used):
            if not _is_expression(value, used, declared_names(directive)):
                raise NotRead("attribute-unread", f"{attribute}=“{value}”", at)
            taken += used
    for use in (*found.names, *taken):
        if use.name == "this":
            raise NotRead("template-unread", "the scope itself (`this`)", at)
        start = use.above if use.above >= 0 else use.start
        if use.up > use.level:
            continue
        if directive.controller.form == "closed":
            # A watched expression may name it, so its name stays.
            continue
        if directive.alias and use.name == directive.alias:
            if use.up:
                yield start, use.end, directive.alias, "alias-kept"
            continue
        if use.name.startswith("$") and use.name not in directive.scope.members():
            continue
        if use.written and use.level > use.up and not use.path:
            raise NotRead("template-writes-inside", use.name, at)
        text = f"{directive.holder}.{names.of(use.name)}"
        if use.shorthand:
            text = f"{use.name}: {text}"
        yield start, use.end, text, "scope-name"
