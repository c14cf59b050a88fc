"""Directives of a template that look names up in the scope of whoever uses them.

A directive without an isolated scope finds the names of the scope around it, and any code can go up by
`$parent`. Once those names are a controller's, they are not found there any more.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator

from clean_carry.component.errors import InputError
from clean_carry.source.javascript.tree import Node
from clean_carry.syntaxes.scoped_template.definition import Definition, link_functions
from clean_carry.syntaxes.scoped_template.markup import names_of
from clean_carry.syntaxes.scoped_template.meaning import Meaning
from clean_carry.syntaxes.scoped_template.registrations import Registrations, parameters_of, text_of
from clean_carry.syntaxes.scoped_template.scope_uses import uses_of
from clean_carry.syntaxes.scoped_template.templates import Templates

# Templates in templates are followed so deep.
_DEEP = 3


def found_by_children(
    elements: Iterable[str], members: set[str], meaning: Meaning, depth: int = 0
) -> Iterator[tuple[str, list[str]]]:
    """The directives among the elements and attributes of a template that find some of these members
    in the scope around them: (directive, names)."""
    for name in sorted(elements):
        definition = meaning.directive(name)
        if definition is None or definition.registration.kind != "directive":
            continue
        taken = {n for n in _gone_up(definition) if n in members}
        inner: set[str] = set()
        if not definition.isolated:
            used, inner = _looked_up(definition, meaning)
            taken |= used & members
        if taken:
            yield name, sorted(taken)
        if inner and depth < _DEEP:
            yield from found_by_children(inner - {name}, members, meaning, depth + 1)


def _functions(definition: Definition) -> Iterator[Node]:
    yield from (function for _, function in link_functions(definition))
    value = definition.value("controller")
    if value is None or definition.names is None:
        return
    registrations = Registrations(definition.names.tree, definition.names)
    name = text_of(value)
    if name is not None:
        found = registrations.of("controller", name.split(" as ")[0].strip())
        function = found[-1].function if found else None
    else:
        function = registrations.followed(value)[0]
    if function is not None:
        yield function


def _gone_up(definition: Definition) -> Iterator[str]:
    """The names that code asks a scope around for: `scope.$parent.tide`."""
    for function in _functions(definition):
        for member in function.walk():
            inner, asked = member.child("object"), member.child("property")
            if member.type != "member_expression" or inner is None or asked is None:
                continue
            up = inner.child("property") if inner.type == "member_expression" else None
            if up is not None and up.text == "$parent":
                yield asked.text


def _looked_up(definition: Definition, meaning: Meaning) -> tuple[set[str], set[str]]:
    """The names a directive looks up in the scope it shares, and the elements of its templates."""
    names = definition.names
    if names is None:
        return set(), set()
    scopes = [
        p for f in _functions(definition) for p in parameters_of(f)[:1] if p.type == "identifier"
    ]
    found = set(uses_of(names, scopes).members())
    inner: set[str] = set()
    try:
        templates, _ = Templates(names.tree, names, meaning.file).of(definition)
        for template in templates:
            used = names_of(template.source, meaning.kind)
            found |= {name.name for name in used.names if name.up <= name.level}
            inner |= used.elements
    except InputError:
        pass
    return found, inner
