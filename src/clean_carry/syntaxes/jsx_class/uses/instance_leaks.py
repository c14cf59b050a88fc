"""The instance passed away, and its elements found by name.

It is passed away to bind a method, to find the element it renders, or to who knows what.

`findDOMNode(this)` is the element a class renders, where that is one plain element whatever it renders.
"""

from __future__ import annotations

import re
from itertools import pairwise

from clean_carry.component.code import (
    FieldUse,
    Gone,
    Member,
    MethodCall,
    MethodValue,
    Operation,
    Picked,
    RootElement,
    WholeRead,
)
from clean_carry.component.spans import Span
from clean_carry.source.javascript.callback_this import given_this
from clean_carry.source.javascript.scope import is_write
from clean_carry.source.javascript.timing import MAKE_ELEMENTS, argument_deferred
from clean_carry.source.javascript.tree import Node
from clean_carry.source.javascript.values import (
    is_identifier,
    last_name,
    member_name,
    property_name,
)
from clean_carry.syntaxes.jsx_class.uses.operations import ClassFacts, add, leave, reader
from clean_carry.syntaxes.jsx_class.uses.receivers import Receiver

DOM = "react-dom"
# A reference given to an element: as an attribute, or as a key of an object.
_MARKED, _NAMED = re.compile(rb"\bref\s*="), re.compile(rb"\bref['\"]?\s*:")
_ELEMENTS = ("jsx_element", "jsx_self_closing_element")


@reader("escape")
def _escape(facts: ClassFacts, use: Receiver, node: Node) -> None:
    if _binds_method(facts, node) or _finds_element(facts, node) or _gives_callback(facts, node):
        return
    if _picks_members(facts, node):
        return
    leave(facts, node, "instance-escapes")


# Values that need no instance once they are inner functions: functions in place, and own methods.
_CALLBACKS = frozenset({"function_expression", "arrow_function", "member_expression"})


def _gives_callback(facts: ClassFacts, node: Node) -> bool:
    """Read the instance as the `this` of a callback: the argument goes; False where it is none."""
    arguments = node.parent
    call = arguments.parent if arguments is not None and arguments.type == "arguments" else None
    callee = call.child("function") if call is not None else None
    if arguments is None or callee is None:
        return False
    for function in (*arguments.named_children[:-1], *callee.children[:1]):
        given = given_this(function)
        own = function.type != "member_expression" or _is_method(facts, function)
        if given is None or given.giver is not node or given.end < 0:
            continue
        if function.type not in _CALLBACKS or not own:
            return False
        _let_go(facts, node, facts.tree.source.span(given.start, given.end))
        return True
    return False


def _let_go(facts: ClassFacts, node: Node, span: Span) -> None:
    """Note that what only gives a callback the instance goes."""
    deferred, rule = facts.deferred(node), "callback-instance"
    add(facts, node, rule, lambda entry: Gone(span, entry, deferred, rule))
    facts.raws[-1].span = span


def _is_method(facts: ClassFacts, node: Node) -> bool:
    """Whether a member expression is an own method."""
    part = node.child("property")
    if node.children[0].type != "this" or part is None:
        return False
    return (property_name(part) or "") in facts.methods


def _binds_method(facts: ClassFacts, node: Node) -> bool:
    """Read `this.method.bind(this)` as one use of the method."""
    arguments = node.parent
    if (
        arguments is None
        or arguments.type != "arguments"
        or arguments.named_children[0] is not node
    ):
        return False
    call = arguments.parent
    callee = call.child("function") if call is not None else None
    if callee is None or callee.type != "member_expression":
        return False
    owner, part = callee.children[0], callee.child("property")
    name = owner.child("property") if owner.type == "member_expression" else None
    return (
        part is not None
        and part.text == "bind"
        and name is not None
        and property_name(name) in facts.methods
        and owner.children[0].type == "this"
    )


def _finds_element(facts: ClassFacts, this: Node) -> bool:
    """Read a call of `findDOMNode(this)` as a read of the root element; False where it is none."""
    arguments = this.parent
    call = arguments.parent if arguments is not None and arguments.type == "arguments" else None
    if call is None or arguments is None or len(arguments.named_children) != 1:
        return False
    callee = call.child("function")
    if callee is None or not is_finder(facts, callee):
        return False
    roots = _roots(facts)
    if roots is None:
        return False
    span, deferred = facts.span(call), facts.deferred(call)
    fresh = not facts.root_element
    if fresh:
        facts.root_element = "root" if "root" not in facts.fields | facts.methods else "rootElement"
    own = facts.root_element
    add(facts, call, "root-element", lambda entry: RootElement(span, entry, deferred, own, False))
    if fresh:
        for name in roots:
            mark = facts.tree.source.span(name.end, name.end)
            _mark(facts, name, mark)
    return True


def mark_named(facts: ClassFacts) -> None:
    """References by a string: the elements that are named so. Read before what uses them.

    The runtime keeps them for the component that is rendering; what a function given to another component
    renders is named for that one.
    """
    body = facts.node.child("body")
    assert body is not None
    # Most files name no element at all: neither these nor objects are looked through then.
    marked = _MARKED.search(facts.tree.view, body.start, body.end)
    for attribute in facts.tree.of("jsx_attribute") if marked is not None else ():
        parts = attribute.named_children
        if not (body.start <= attribute.start < body.end) or not parts or parts[0].text != "ref":
            continue
        if len(parts) > 1 and parts[1].type == "string":
            _name(facts, attribute, parts[1], alone=False)
        elif len(parts) > 1 and parts[1].type == "jsx_expression":
            for text in _results(parts[1].named_children):
                _name(facts, text, text, alone=True)
    named = _NAMED.search(facts.tree.view, body.start, body.end)
    for pair in facts.tree.of("pair") if named is not None else ():
        key, value = pair.child("key"), pair.child("value")
        if not (body.start <= pair.start < body.end) or key is None or value is None:
            continue
        if property_name(key) == "ref" and value.type == "string" and _are_inputs(facts, pair):
            _name(facts, value, value, alone=True)


def _name(facts: ClassFacts, node: Node, text: Node, *, alone: bool) -> None:
    """Note that a node names an element; `alone` where it is the name, else it is all of the attribute."""
    name = text.text[1:-1]
    if not _drawn_by_itself(facts, node) or not is_identifier(name):
        facts.refuse("string-reference", text.text, node.start)
        return
    facts.named_references.add(name)
    span = facts.span(node)
    add(
        facts,
        node,
        "named-reference",
        lambda entry: RootElement(span, entry, False, name, not alone, bare=alone),
    )


def _drawn_by_itself(facts: ClassFacts, node: Node) -> bool:
    """Whether the component itself makes an element, perhaps in a function that is called at once."""
    root = facts.root_of(node)
    for maker in node.up():
        if maker is root:
            return maker.is_function
        if maker.is_function:
            given = maker.parent
            if given is None or given.type != "arguments" or argument_deferred(given, maker):
                return False
    return False


def _results(nodes: list[Node]) -> list[Node]:
    """The strings an expression may come to."""
    found: list[Node] = []
    for node in nodes:
        match node.type:
            case "string":
                found.append(node)
            case "parenthesized_expression":
                found += _results(node.named_children)
            case "ternary_expression":
                found += _results(node.named_children[1:])
            case "binary_expression" if node.has("&&") or node.has("||") or node.has("??"):
                found += _results(node.named_children[1:])
    return found


def _are_inputs(facts: ClassFacts, pair: Node) -> bool:
    """Whether the object a pair stands in is given to an element: as its argument, or spread on it."""
    literal = pair.parent
    above = literal.parent if literal is not None else None
    if literal is None or above is None:
        return False
    if _gives_inputs(literal):
        return True
    name = above.child("name") if above.type == "variable_declarator" else None
    binding = facts.names.scope_at(name).find(name.text) if name is not None else None
    return binding is not None and any(_gives_inputs(ref) for ref in binding.references)


def _gives_inputs(node: Node) -> bool:
    above = node.parent
    if above is not None and above.type == "spread_element" and above.parent is not None:
        # Spread among the attributes of an element, or into the object that is given to it.
        return above.parent.type == "jsx_expression" or _gives_inputs(above.parent)
    call = above.parent if above is not None and above.type == "arguments" else None
    callee = call.child("function") if call is not None else None
    if above is None or callee is None or above.named_children.index(node) != 1:
        return False
    # Both take inputs as their second argument.
    return last_name(callee) in MAKE_ELEMENTS


@reader("named-reference")
def _named_reference(facts: ClassFacts, use: Receiver, node: Node) -> None:
    if _named_pattern(facts, node):
        return
    read = node.parent
    name = member_name(read) if read is not None and node.field == "object" else None
    if read is None or name not in facts.named_references or is_write(read):
        facts.refuse("string-reference", name or "", node.start)
        return
    span, deferred, own = facts.span(read), facts.deferred(read), str(name)
    add(
        facts,
        read,
        "named-reference",
        lambda entry: RootElement(span, entry, deferred, own, False),
    )


def _picks_members(facts: ClassFacts, node: Node) -> bool:
    """Read `const { a, b: c } = this` as a declaration of each own member; False where it is none."""
    declarator = node.parent
    declaration = declarator.parent if declarator is not None else None
    if declarator is None or declaration is None or len(declaration.named_children) != 1:
        return False
    target = declarator.child("name")
    if (
        target is None
        or target.type != "object_pattern"
        or declaration.type != "lexical_declaration"
    ):
        return False
    parts: list[tuple[str, str]] = []
    for part in target.named_children:
        key, value = part.child("key") or part, part.child("value") or part
        name = property_name(key) or ""
        own = name in facts.methods | facts.fields | {"props", "state"}
        if not own or value.type not in ("identifier", "shorthand_property_identifier_pattern"):
            return False
        parts.append((name, value.text))
    keyword, deferred = declaration.children[0].text, facts.deferred(node)
    begins = [target.start, *(part.start for part in target.named_children[1:]), declarator.end]
    for (name, local), (start, end) in zip(parts, pairwise(begins), strict=True):
        span = facts.tree.source.span(start, end)
        more = keyword if end != declarator.end else ""

        def build(
            entry: int, span: Span = span, name: str = name, local: str = local, more: str = more
        ) -> Operation:
            return Picked(
                span, entry, deferred, _member(facts, span, entry, deferred, name), local, more
            )

        add(facts, declarator, "member-pattern", build)
        facts.raws[-1].span, facts.raws[-1].member = span, name
    return bool(parts)


def _member(facts: ClassFacts, span: Span, entry: int, deferred: bool, name: str) -> Operation:
    """Return the meaning of a member that the instance is read for."""
    if name == "props" or name == "state":
        return WholeRead(span, entry, deferred, "props" if name == "props" else "state")
    if name in facts.getters:
        return MethodCall(span, entry, deferred, Member("method", name), True)
    if name in facts.methods and name not in facts.wrapped:
        return MethodValue(span, entry, deferred, Member("method", name), "kept")
    return FieldUse(
        span, entry, deferred, Member("element" if name in facts.elements else "field", name)
    )


def _named_pattern(facts: ClassFacts, node: Node) -> bool:
    """Read `const { a, b: c } = this.refs` as a declaration of each; False where it is none."""
    declarator = node.parent
    declaration = declarator.parent if declarator is not None else None
    if declarator is None or declaration is None or len(declaration.named_children) != 1:
        return False
    target = declarator.child("name")
    if target is None or target.type != "object_pattern":
        return False
    found: list[tuple[str, str]] = []
    for part in target.named_children:
        key, value = part.child("key") or part, part.child("value") or part
        name = property_name(key) or part.text
        if name not in facts.named_references or not is_identifier(value.text):
            return False
        found.append((name, value.text))
    keyword, deferred = declaration.children[0].text, facts.deferred(node)
    begins = [target.start, *(part.start for part in target.named_children[1:]), declarator.end]
    for (name, local), (start, end) in zip(found, pairwise(begins), strict=True):
        span = facts.tree.source.span(start, end)
        more = keyword if end != declarator.end else ""

        def build(
            entry: int, span: Span = span, name: str = name, local: str = local, more: str = more
        ) -> RootElement:
            return RootElement(span, entry, deferred, name, False, local, more)

        add(facts, declarator, "named-reference", build)
        facts.raws[-1].span = span
    return bool(found)


def _mark(facts: ClassFacts, name: Node, mark: Span) -> None:
    own = facts.root_element
    add(facts, name, "root-mark", lambda entry: RootElement(mark, entry, False, own, True))
    facts.raws[-1].span = mark


def is_finder(facts: ClassFacts, callee: Node) -> bool:
    """Whether a callee is the framework's function that finds a component's element."""
    part = callee.child("property") if callee.type == "member_expression" else callee
    base = callee.children[0] if callee.type == "member_expression" else callee
    binding = facts.names.meaning(base)
    if part is None or binding is None or binding.kind != "import":
        return False
    statement = next((up for up in binding.node.up() if up.type == "import_statement"), None)
    source = statement.child("source") if statement is not None else None
    if source is None or source.text[1:-1] != DOM:
        return False
    specifier = binding.node.parent
    if base is callee and specifier is not None and specifier.type == "import_specifier":
        imported = specifier.child("name")
        return imported is not None and imported.text == "findDOMNode"
    return base is not callee and part.text == "findDOMNode"


def _roots(facts: ClassFacts) -> list[Node] | None:
    """The tag names of all elements render may give; None where it may give anything else."""
    body = facts.node.child("body")
    for member in body.named_children if body is not None else ():
        name = member.child("name")
        if name is not None and property_name(name) == "render" and member.is_function:
            break
    else:
        return None
    found: list[Node] = []
    stack = [member.child("body")]
    while stack:
        here = stack.pop()
        if here is None or here.is_function:
            continue
        if here.type == "return_statement":
            if not here.named_children or not _root_names(here.named_children[0], found):
                return None
            continue
        stack.extend(here.named_children)
    return found or None


def _root_names(node: Node, found: list[Node]) -> bool:
    match node.type:
        case "parenthesized_expression":
            return _root_names(node.named_children[0], found)
        case "ternary_expression":
            arms = (node.child("consequence"), node.child("alternative"))
            return all(arm is not None and _root_names(arm, found) for arm in arms)
        case "null":
            return True
        case _ if node.type in _ELEMENTS:
            opening = node.children[0] if node.type == "jsx_element" else node
            name = opening.child("name")
            if name is None or not name.text[:1].islower() or "." in name.text:
                return False
            own = [a.children[0].text for a in opening.children if a.type == "jsx_attribute"]
            if "ref" in own:
                return False
            found.append(name)
            return True
    return False
