"""The class in the newer notation: functions in place of decorators, injection without a constructor."""

from __future__ import annotations

import re
from collections.abc import Iterator

from clean_carry.source.javascript.scope import is_write
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.merged import Edit
from clean_carry.syntaxes.decorated_class.members import Input, Members, Output, Query
from clean_carry.syntaxes.decorated_class.recognise import (
    Decorated,
    arguments_of,
    property_of,
    text_of,
)
from clean_carry.syntaxes.decorated_class.renewal.names import Renewed
from clean_carry.syntaxes.decorated_class.renewal.template import TemplateRenewal
from clean_carry.syntaxes.decorated_class.types import plain_type

# Types that a value tells by itself.
_TOLD = {"string": "string", "number": "number", "true": "boolean", "false": "boolean"}


def class_edits(one: Decorated, renewed: Renewed, tree: Tree) -> Iterator[Edit]:
    """The edits of a class, but for its template and the imports."""
    for member in renewed.inputs:
        yield _member(member.node, _input(member))
    for output in renewed.outputs:
        yield _member(output.node, _output(output))
    for query in renewed.queries:
        yield _member(query.node, _query(query))
    yield from _injection(one, renewed, tree)
    yield from _uses(one, renewed, tree)


def host_edits(members: Members, template: TemplateRenewal) -> Iterator[Edit]:
    """The edits of code that the decorator declares for the element itself. Raises `Unread`."""
    nodes = [one.node for one in members.bound] + [one.node for one in members.listening]
    for node in nodes:
        value = node.child("value") if node.type == "pair" else None
        text = text_of(value) if value is not None else None
        key = node.child("key")
        if value is None or text is None or key is None or key.text.strip("'\"")[:1] not in "[(":
            continue
        new = template.spelled(text, set(), value.start)
        if new != text.strip():
            yield Edit(value.start + 1, value.end - 1, new)


def _member(node: Node, text: str) -> Edit:
    end = node.end
    return Edit(node.start, end, f"readonly {node.child('name').text} = {text}")  # type: ignore[union-attr]


def _decorator(node: Node, name: str) -> Node | None:
    return next((c for c in node.children if c.type == "decorator" and name in c.text), None)


def _input(member: Input) -> str:
    type_ = plain_type(member.type)
    default = member.default.text if member.default is not None else ""
    decorator = _decorator(member.node, "Input")
    given = arguments_of(decorator)
    options: list[str] = []
    if member.public != member.name:
        options.append(f"alias: '{member.public}'")
    transform = property_of(given[0], "transform") if given and given[0].type == "object" else None
    if transform is not None:
        options.append(f"transform: {transform.text}")
        if type_:
            type_ = f"{type_}, unknown"
    told = member.default is not None and _TOLD.get(member.default.type) == type_
    types = f"<{type_}>" if type_ and not (told and transform is None) else ""
    more = f"{{ {', '.join(options)} }}" if options else ""
    if member.required:
        return f"input.required{types}({more})"
    if not default and more:
        default = "undefined"
    return f"input{types}({', '.join(part for part in (default, more) if part)})"


def _output(output: Output) -> str:
    value = output.node.child("value")
    assert value is not None
    types = re.search(r"<(.*)>", value.text, re.DOTALL)
    alias = f"{{ alias: '{output.public}' }}" if output.public != output.name else ""
    return f"output{f'<{types[1]}>' if types is not None else ''}({alias})"


def _query(query: Query) -> str:
    type_ = plain_type(query.node.child("type"))
    optional = "undefined" in type_ or query.node.has("?")
    plain = re.sub(r"\s*\|\s*(?:undefined|null)", "", type_)
    types = f"<{plain}>" if plain else ""
    return f"viewChild{'' if optional else '.required'}{types}('{query.reference}')"


def _injection(one: Decorated, renewed: Renewed, tree: Tree) -> Iterator[Edit]:
    node = renewed.constructor
    if node is None or not renewed.services:
        return
    source = tree.source
    body = one.node.child("body")
    assert body is not None
    lines = []
    for name, parameter in renewed.services:
        type_ = parameter.child("type")
        words = [
            c.text for c in parameter.children if c.type in ("accessibility_modifier", "readonly")
        ]
        if "readonly" not in words:
            words.append("readonly")
        assert type_ is not None
        lines.append(f"{' '.join(words)} {name} = inject({type_.text.lstrip(': ')});")
    indent = source.indent_at(node.start)
    text = f"\n{indent}".join(lines)
    inner = node.child("body")
    first = body.named_children[0]
    empty = inner is not None and not inner.named_children
    if first is node and empty:
        yield Edit(node.start, node.end, text)
        return
    yield Edit(first.start, first.start, f"{text}\n\n{indent}")
    if empty:
        line = source.statement_line(node.start, node.end)
        yield Edit(line.start, line.end, "")
    else:
        parameters = node.child("parameters")
        assert parameters is not None
        yield Edit(parameters.start, parameters.end, "()")


def _uses(one: Decorated, renewed: Renewed, tree: Tree) -> Iterator[Edit]:
    """Reads of what is called now, in the class: `this.name` is `this.name()`."""
    called = renewed.called
    for node in tree.of("member_expression"):
        part = node.child("property")
        if node.children[0].type != "this" or part is None or part.text not in called:
            continue
        if one.node.start <= node.start < one.node.end and not is_write(node):
            yield Edit(part.end, part.end, "()")
