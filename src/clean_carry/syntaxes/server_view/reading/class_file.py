"""The class of a view: its public members are what the view is given."""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import dataclass, field
from pathlib import Path

from clean_carry.source.expressions.model import Expr, Unsayable
from clean_carry.source.expressions.types import (
    ANY,
    FLAG,
    NUMBER,
    TEXT,
    WHOLE,
    Type,
    list_of,
    record_of,
)
from clean_carry.source.php.reading import PhpReader
from clean_carry.source.php.tree import PhpNode, parsed
from clean_carry.source.php.uses import Uses
from clean_carry.syntaxes.server_view.reading.names import Input

_TYPES = {
    "string": TEXT, "int": WHOLE, "integer": WHOLE, "float": NUMBER, "bool": FLAG, "boolean": FLAG,
    "array": ANY, "mixed": ANY, "iterable": ANY,
}  # fmt: skip
_PARAM = re.compile(r"@param\s+(?P<type>(?:[^\s<{]|<[^$]*>|\{[^$]*\})+)\s+\$(?P<name>\w+)")
_VAR = re.compile(r"@var\s+(?P<type>(?:[^\s<{]|<.*?>(?!>)|\{.*\})+)")


@dataclass
class ViewClass:
    """The parts of a class that a view sees: its inputs, and methods that give a value, by name."""

    name: str
    inputs: dict[str, Input] = field(default_factory=dict)
    values: dict[str, PhpNode] = field(default_factory=dict)


def class_beside(view: Path) -> Path | None:
    """The script of a view's class: beside it, or where the framework's folders put it."""
    name = view.name.removesuffix(".blade.php")
    wanted = re.sub(r"[^a-z0-9]", "", name.lower())
    folders = [view.parent]
    parts = view.parts
    if "resources" in parts and "components" in parts:
        root = Path(*parts[: parts.index("resources")])
        below = parts[parts.index("components") + 1 : -1]
        folders.append(root.joinpath("app", "View", "Components", *(_pascal(one) for one in below)))
    for folder in folders:
        if not folder.is_dir():
            continue
        for path in sorted(folder.glob("*.php")):
            if ".blade" not in path.name and path.stem.lower() == wanted:
                return path
    return None


def _pascal(name: str) -> str:
    return "".join(part[:1].upper() + part[1:] for part in name.split("-"))


def read_class(data: bytes) -> ViewClass:
    """The class of a script. Raises `Unsayable` for a member that no template has."""
    begin = re.match(rb"\s*<\?php", data)
    if begin is None:
        raise Unsayable("a class without its opening tag", 0)
    root = parsed(data[begin.end() :], begin.end())
    found = [one for one in root.walk() if one.type == "class_declaration"]
    if len(found) != 1:
        raise Unsayable("a script without one class", begin.end())
    node = found[0]
    made = ViewClass(node.part("name").text)
    body = node.part("body")
    for comment, member in _with_comments(body):
        _member(member, comment, made)
    return made


def _with_comments(body: PhpNode) -> Iterator[tuple[str, PhpNode]]:
    """The members of a class, each with the comment above it."""
    comment = ""
    for raw in body.raw.named_children:
        one = PhpNode(raw, body.base)
        if one.type == "comment":
            comment = one.text
            continue
        yield comment, one
        comment = ""


def _member(node: PhpNode, comment: str, made: ViewClass) -> None:
    if node.type == "property_declaration":
        _property(node, comment, made)
        return
    if node.type != "method_declaration":
        raise Unsayable(f"the member `{node.text.splitlines()[0][:40]}` of the class", node.start)
    name = node.part("name").text
    public = not any(one.text in ("private", "protected") for one in node.named)
    if name == "__construct":
        _constructor(node, comment, made)
    elif name == "render":
        _render(node)
    elif public:
        statements = node.part("body").named
        given = node.part("parameters").named
        if given or len(statements) != 1 or statements[0].type != "return_statement":
            raise Unsayable(f"the method {name} of the class", node.start)
        made.values[name] = statements[0].named[0]
    else:
        raise Unsayable(f"the method {name} of the class", node.start)


def _property(node: PhpNode, comment: str, made: ViewClass) -> None:
    words = {one.text for one in node.named if one.type.endswith("modifier")}
    told = _VAR.search(comment)
    for one in node.named:
        if one.type != "property_element":
            continue
        name = one.named[0].text[1:]
        if "public" not in words or "static" in words or len(one.named) < 2:
            raise Unsayable(f"the property {name} of the class", one.start)
        type_ = _type(node.child("type"), told["type"] if told is not None else "")
        made.inputs[name] = _input(name, type_, one.named[1])


def _constructor(node: PhpNode, comment: str, made: ViewClass) -> None:
    told = {found["name"]: found["type"] for found in _PARAM.finditer(comment)}
    if node.part("body").named:
        raise Unsayable("statements of the constructor", node.part("body").named[0].start)
    for one in node.part("parameters").named:
        name = one.part("name").text[1:]
        if one.type != "property_promotion_parameter" or not one.text.startswith("public"):
            raise Unsayable(f"the parameter {name} of the constructor", one.start)
        type_ = _type(one.child("type"), told.get(name, ""))
        made.inputs[name] = _input(name, type_, one.child("default_value"))


def _input(name: str, type_: Type, default: PhpNode | None) -> Input:
    if default is None:
        return Input(name, type_)
    value = PhpReader(lambda node: None, Uses()).read(default)
    return Input(name, refined(type_, value), value)


def refined(type_: Type, default: Expr) -> Type:
    """The type of an input, by what is declared and by its default."""
    own = default.type
    if own.kind == "nothing":
        return type_.or_missing("null") if type_.kind != "any" else ANY.or_missing("null")
    if type_.kind != "any":
        return type_
    if own.kind == "list" and own.item is None:
        return ANY
    return Type("number", missing=own.missing) if own.kind == "number" else own


def _render(node: PhpNode) -> None:
    """`render` may give the view alone."""
    statements = node.part("body").named
    value = statements[0].named[0] if len(statements) == 1 and statements[0].named else None
    plain = value is not None and re.fullmatch(r"view\(\s*(['\"])[\w.:-]+\1\s*\)", value.text)
    if not plain:
        raise Unsayable("what `render` passes to the view", node.start)


def _type(node: PhpNode | None, told: str) -> Type:
    """A declared type, refined by the one of a comment."""
    text = node.text if node is not None else "mixed"
    missing = text.startswith("?") or "null" in text.split("|")
    bare = "|".join(one for one in text.lstrip("?").split("|") if one != "null")
    type_ = _TYPES.get(bare, ANY)
    if told:
        by_comment = _of_comment(re.sub(r"\s+|\*", "", told))
        type_ = by_comment if by_comment.kind != "any" else type_
    return type_.or_missing("null") if missing and type_.kind != "any" else type_


def _of_comment(text: str) -> Type:
    """A type as comments write it: `list<…>`, `array{…}`, `string[]`."""
    missing = text.startswith("?")
    text = text.lstrip("?")
    made = _TYPES.get(text, ANY)
    if text.endswith("[]"):
        made = list_of(_of_comment(text[:-2]))
    elif found := re.fullmatch(r"(?:list|array|iterable)<(?:int,)?([^,]+|array\{.*\})>", text):
        made = list_of(_of_comment(found[1]))
    elif found := re.fullmatch(r"array<string,(.+)>", text):
        made = Type("record", item=_of_comment(found[1]))
    elif found := re.fullmatch(r"(?:array|object)\{(.*)\}", text):
        fields = {}
        for part in _parted(found[1]):
            name, _, own = part.partition(":")
            type_ = _of_comment(own)
            optional = name.endswith("?")
            fields[name.rstrip("?")] = type_.or_missing("undefined") if optional else type_
        made = record_of(fields)
    return made.or_missing("null") if missing and made.kind != "any" else made


def _parted(text: str) -> Iterator[str]:
    """The parts between commas that stand in no brackets."""
    depth, part = 0, ""
    for sign in text:
        depth += (sign in "<{") - (sign in ">}")
        if sign == "," and depth == 0:
            yield part
            part = ""
        else:
            part += sign
    if part:
        yield part
