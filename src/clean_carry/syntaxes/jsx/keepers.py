"""Which child components keep what they are given, and may call it later than the render that made it.

A closure of a function component sees the values of its render. A child that compares props without it,
copies it into its own state or a field, or uses it in an effect that does not name it, calls an old one.
A class's functions see the latest state in any case, so what such a child is given must look through a
reference.
"""

from __future__ import annotations

import re
from collections.abc import Iterator
from typing import NamedTuple

from clean_carry.source.exports import Declared, declared
from clean_carry.source.javascript.scope import Names, is_component_name
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.javascript.values import last_name, property_name
from clean_carry.source.workspace import Workspace

# All props, where a component keeps whatever it is given.
EVERY = "*"
# Through so many components a prop that is passed on is followed.
_MOST_STEPS = 3
_CLASSES = frozenset({"class", "class_declaration", "abstract_class_declaration"})
_WRAPPERS = frozenset({"memo", "forwardRef", "observer"})
# Hooks whose callback is made once for as long as the values listed behind it are the same (their
# reference).
_LISTING = frozenset(
    ("useEffect useLayoutEffect useInsertionEffect useMemo useCallback useImperativeHandle").split()
)
_HOOK = re.compile(r"use[A-Z]")
_HOLDING = frozenset({"useState", "useRef", "useReducer"})
_MADE_ONCE = frozenset(
    {"constructor", "componentDidMount", "componentWillMount", "UNSAFE_componentWillMount"}
)


class Kept(NamedTuple):
    """What is known of a tag: the props it keeps (`*` for all), None where it cannot be followed."""

    props: frozenset[str] | None

    def keeps(self, prop: str) -> bool:
        """Whether a prop is seen to be kept."""
        return self.props is not None and bool({prop, EVERY} & self.props)


class Keepers:
    """What each component rendered in a file keeps; found out for a tag when it is first asked for."""

    def __init__(self, tree: Tree, names: Names, workspace: Workspace) -> None:
        self._file = (tree, names, workspace)
        self._known: dict[str, Kept] = {}

    def of(self, tag: Node) -> Kept:
        """What the component of a tag name keeps."""
        if tag.text not in self._known:
            self._known[tag.text] = _of_tag(tag, *self._file)
        return self._known[tag.text]


def _of_tag(name: Node, tree: Tree, names: Names, workspace: Workspace) -> Kept:
    if name.text.endswith(".Provider"):
        # Who reads a context is not seen here.
        return Kept(frozenset({"value"}))
    if name.text.endswith("Fragment") or name.text.endswith("Suspense"):
        return Kept(frozenset())
    if name.type != "identifier":
        return Kept(None)
    binding = names.meaning(name)
    if binding is None or binding.kind == "param":
        return Kept(None)
    found = declared(name.text, tree, workspace.file, workspace)
    if found is None and binding.kind in ("function", "class", "const"):
        value = binding.node.parent.child("value") if binding.node.parent is not None else None
        node = value or binding.node.parent
        found = Declared(node, tree, workspace.file) if node is not None else None
    return Kept(_kept(found, workspace, 0) if found is not None else None)


def _kept(found: Declared, workspace: Workspace, steps: int) -> frozenset[str] | None:
    """The props a component keeps; None where it is not seen to be one."""
    node = found.node
    if node.type in _CLASSES:
        return _by_class(node)
    if node.is_function:
        return _by_function(node, found, workspace, steps)
    if node.type == "call_expression" and last_name(node.child("function")) in _WRAPPERS:
        arguments = node.child("arguments")
        given = arguments.named_children if arguments is not None else []
        if len(given) > 1 and last_name(node.child("function")) == "memo":
            return frozenset({EVERY})
        inner = given[0] if given else None
        if inner is not None and inner.type == "identifier":
            named = declared(inner.text, found.tree, found.file, workspace)
            return _kept(named, workspace, steps + 1) if named and steps < _MOST_STEPS else None
        if inner is not None:
            return _kept(Declared(inner, found.tree, found.file), workspace, steps)
    return None


def _by_class(node: Node) -> frozenset[str]:
    """Props that a class takes once: while it is made or mounted, not called but kept. All of them where it
    decides by itself when to render."""
    body = node.child("body")
    kept: set[str] = set()
    for member in body.named_children if body is not None else ():
        name_node = member.child("name")
        name = property_name(name_node) if name_node is not None else ""
        if name == "shouldComponentUpdate":
            return frozenset({EVERY})
        value = member.child("value")
        initial = value is not None and not value.is_function and not member.has("static")
        if name in _MADE_ONCE or initial:
            code = value if value is not None else member
            kept |= {*_values_of_props(code), *_taken_apart(code)}
    return frozenset(kept)


def _values_of_props(node: Node) -> Iterator[str]:
    """The props that are taken as a value, not called where they stand."""
    for below in node.walk():
        if below.type != "member_expression" or below.field == "function":
            continue
        part = below.child("property")
        if part is not None and below.children[0].text in ("this.props", "props"):
            yield part.text


def _taken_apart(code: Node) -> Iterator[str]:
    """The props that `const { onTick } = this.props` gives a name, and that are kept under that name: used
    as a value, or called by a function inside."""
    for declarator in code.walk():
        value, pattern = declarator.child("value"), declarator.child("name")
        if declarator.type != "variable_declarator" or value is None or pattern is None:
            continue
        if value.text not in ("this.props", "props"):
            continue
        for local, prop in _names_of(pattern).items():
            uses = [n for n in code.walk() if n.type == "identifier" and n.text == local]
            if any(use.field != "function" or _is_inside(use, code) for use in uses):
                yield prop


def _is_inside(node: Node, code: Node) -> bool:
    """Whether a node stands in a function within code."""
    for above in node.up():
        if above is code:
            return False
        if above.is_function:
            return True
    return False


def _names_of(pattern: Node) -> dict[str, str]:
    """The local names an object pattern makes, each with the prop it stands for."""
    found: dict[str, str] = {}
    for part in pattern.named_children if pattern.type == "object_pattern" else ():
        inner = part.child("left") or part
        if inner.type == "shorthand_property_identifier_pattern":
            found[inner.text] = inner.text
        elif part.type == "pair_pattern":
            key, value = part.child("key"), part.child("value")
            local = (value.child("left") or value) if value is not None else None
            if key is not None and local is not None:
                found[local.text] = property_name(key) or ""
    return found


def _by_function(
    function: Node, found: Declared, workspace: Workspace, steps: int
) -> frozenset[str] | None:
    parameters, body = function.child("parameters"), function.child("body")
    single = function.child("parameter")
    first = single or (
        parameters.named_children[0] if parameters and parameters.named_children else None
    )
    if body is None:
        return None
    if first is None:
        return frozenset()
    props = _Props(first.child("pattern") or first, body)
    kept = props.kept_at_once
    for call in body.walk():
        if call.type == "call_expression":
            kept |= _kept_by_hook(call, props)
        elif (
            call.type in ("jsx_opening_element", "jsx_self_closing_element") and steps < _MOST_STEPS
        ):
            kept |= _passed_on(call, props, found, workspace, steps)
    return frozenset(kept)


class _Props:
    """The local names of a function's props, those its body gives them included."""

    def __init__(self, pattern: Node, body: Node) -> None:
        self.whole = pattern.text if pattern.type == "identifier" else ""
        self.locals = _names_of(pattern)
        # The names that stand for many props: all of them, or the rest.
        self.many = {self.whole} - {""}
        for part in pattern.walk():
            if part.type == "rest_pattern":
                self.many.add(part.named_children[0].text)
        self.kept_at_once: set[str] = set()
        for declarator in body.walk():
            value, named = declarator.child("value"), declarator.child("name")
            if declarator.type != "variable_declarator" or value is None or named is None:
                continue
            if value.text == self.whole and self.whole:
                self.locals.update(_names_of(named))
            elif named.type == "identifier" and (prop := self.name(value)):
                self.locals[named.text] = prop

    def name(self, node: Node) -> str:
        """The prop that a node is the value of; "" where it is none."""
        if node.type == "member_expression" and node.children[0].text == self.whole and self.whole:
            part = node.child("property")
            return part.text if part is not None else ""
        is_name = node.type in ("identifier", "shorthand_property_identifier")
        return self.locals.get(node.text, "") if is_name else ""

    def within(self, node: Node) -> set[str]:
        """The props used below a node."""
        return {name for below in node.walk() if (name := self.name(below))}


def _kept_by_hook(call: Node, props: _Props) -> set[str]:
    hook = last_name(call.child("function"))
    arguments = call.child("arguments")
    given = arguments.named_children if arguments is not None else []
    if hook in _LISTING and len(given) > 1 and given[-1].type == "array":
        if any(part.text == props.whole for part in given[-1].named_children):
            return set()
        return props.within(given[-2]) - props.within(given[-1])
    if hook in _HOLDING and given:
        used = {name for argument in given if (name := props.name(argument))}
        first = given[-1]
        return used | (props.within(first) if first.is_function else set())
    if hook not in _LISTING | _HOLDING and _HOOK.match(hook or ""):
        # A hook of somebody's own may keep whatever it is given.
        return {name for argument in given for name in props.within(argument)}
    return set()


def _passed_on(
    element: Node, props: _Props, found: Declared, workspace: Workspace, steps: int
) -> set[str]:
    """Props handed to another component of the project that keeps them."""
    tag = element.child("name")
    if tag is None or tag.type != "identifier" or not is_component_name(tag.text):
        return set()
    given = {
        (attribute.children[0].text, name)
        for attribute in element.children
        if attribute.type == "jsx_attribute"
        for name in props.within(attribute)
    }
    spread = any(
        part.type == "spread_element" and part.named_children[0].text in props.many
        for attribute in element.children
        if attribute.type == "jsx_expression"
        for part in attribute.named_children
    )
    if not given and not spread:
        return set()
    inner = declared(tag.text, found.tree, found.file, workspace)
    kept = _kept(inner, workspace, steps + 1) if inner is not None else None
    named = {name for attribute, name in given if kept and {attribute, EVERY} & kept}
    return named | (set(kept) if kept and spread else set())
