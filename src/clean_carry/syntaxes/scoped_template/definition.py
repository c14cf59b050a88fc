"""The definition object of a directive: its options, wherever the factory writes them."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field

from clean_carry.source.javascript.scope import Names
from clean_carry.source.javascript.tree import Node
from clean_carry.syntaxes.scoped_template.registrations import (
    Registration,
    plain,
    text_of,
    value_of,
)


@dataclass(frozen=True)
class Option:
    """One option: its key, its value, and the whole of how it stands (a pair, a method, an assignment)."""

    name: str
    value: Node
    whole: Node


@dataclass
class Definition:
    """One directive as it is defined.

    `object` is the object of its options, `given` the statement that returns it; `link_alone` is the
    function a factory gives in place of an object. `unread` says why there is no object to read; `names`
    are those of its file.
    """

    registration: Registration
    object: Node | None = None
    given: Node | None = None
    options: dict[str, Option] = field(default_factory=dict)
    link_alone: Node | None = None
    unread: str = ""
    names: Names | None = None

    @property
    def name(self) -> str:
        """The name it is registered by."""
        return self.registration.name

    def value(self, name: str) -> Node | None:
        """The value of an option, None where it is not given."""
        option = self.options.get(name)
        return option.value if option is not None else None

    def function(self, node: Node | None) -> Node | None:
        """The function a node is, or names."""
        inner = plain(node)
        if inner is not None and inner.type in ("identifier", "shorthand_property_identifier"):
            names = self.names
            if names is None:
                return None
            inner = value_of(names.meaning(inner) or names.scope_at(inner).find(inner.text))
        return inner if inner is not None and inner.is_function else None

    def text(self, name: str) -> str | None:
        """The value of an option that is a string."""
        return text_of(self.value(name))

    def true(self, name: str) -> bool:
        """Whether an option is given and is something (`true`, an object, a text)."""
        value = self.value(name)
        return value is not None and value.text not in (
            "false",
            "null",
            "undefined",
            "0",
            "''",
            '""',
        )

    @property
    def restrict(self) -> str:
        """The forms of use: letters of E, A, C, M."""
        return self.text("restrict") or "EA"

    @property
    def isolated(self) -> bool:
        """Whether it has a scope of its own that inherits nothing."""
        value = self.value("scope")
        return value is not None and value.type == "object"


def returned(function: Node) -> tuple[Node | None, Node | None]:
    """Return the result at the end of a function: (the expression, the statement); None if it
    returns nothing there."""
    body = function.child("body")
    if body is None:
        return None, None
    if body.type != "statement_block":
        return plain(body), body
    for statement in reversed(body.named_children):
        if statement.type == "return_statement":
            value = statement.named_children
            return (plain(value[0]) if value else None), statement
        if statement.type not in ("function_declaration", "empty_statement"):
            break
    return None, None


def define(registration: Registration, names: Names) -> Definition:
    """Read the definition a registration's factory gives."""
    found = Definition(registration, names=names)
    factory = registration.function
    if factory is None:
        found.unread = "its factory stands in another file, or is made by a call"
        return found
    if factory.type.startswith("class"):
        found.unread = "its factory is a class"
        return found
    value, found.given = returned(factory)
    if value is not None and value.type == "identifier":
        binding = names.meaning(value)
        declared = value_of(binding)
        for ref in binding.references if binding is not None and declared is not None else []:
            _assigned(found, ref)
        value = declared
    if value is None:
        found.unread = "its factory does not end by giving its definition"
    elif value.is_function:
        found.link_alone = value
    elif value.type == "object":
        found.object = value
        _options(found, value)
    elif value.type == "call_expression":
        found.unread = "its definition is made by a call"
    else:
        found.unread = "its definition is no object"
    return found


def _options(found: Definition, node: Node) -> None:
    for part in node.named_children:
        match part.type:
            case "pair":
                key, value = part.child("key"), part.child("value")
                inner = plain(value)
                if key is not None and inner is not None and key.type != "computed_property_name":
                    name = text_of(key) or key.text
                    found.options[name] = Option(name, inner, part)
                    continue
                found.unread = "an option under a computed name"
            case "method_definition":
                name_node = part.child("name")
                assert name_node is not None
                found.options[name_node.text] = Option(name_node.text, part, part)
            case "shorthand_property_identifier":
                found.options[part.text] = Option(part.text, part, part)
            case _:
                found.unread = "options that come from another object"


def _assigned(found: Definition, ref: Node) -> None:
    """An option given by a statement of its own: `definition.link = …`."""
    member = ref.parent
    if member is None or member.type != "member_expression" or ref.field != "object":
        return
    key, statement = member.child("property"), member.parent
    if key is None or statement is None or statement.type != "assignment_expression":
        return
    value = plain(statement.child("right"))
    if value is not None and member.field == "left":
        found.options[key.text] = Option(key.text, value, statement)


def link_functions(definition: Definition) -> Iterator[tuple[str, Node]]:
    """The functions that link: ("pre" or "post", function); those a `compile` option gives as well."""
    if definition.link_alone is not None:
        yield "post", definition.link_alone
    value = definition.value("link")
    compiled = definition.function(definition.value("compile"))
    if compiled is not None:
        value = returned(compiled)[0]
    function = definition.function(value)
    if function is not None:
        yield "post", function
    elif value is not None and value.type == "object":
        for part in value.named_children:
            key = part.child("key") or part.child("name") or part
            inner = part if part.is_function else definition.function(part.child("value") or part)
            if inner is not None:
                yield key.text, inner
