"""Which child components keep what they are given, and may call it later than the render that made it.

A closure of a function component sees the values of its render. A child that compares props without it,
copies it into its own state or a field, or uses it in an effect that does not name it, calls an old one.
A class's functions see the latest state in any case, so what such a child is given must look through a
reference.
"""

from __future__ import annotations

import re
from collections.abc import Iterable, Iterator
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
_TAGS = frozenset({"jsx_opening_element", "jsx_self_closing_element"})
# Calls that JSX is compiled to (the runtime's `createElement`, and `jsx` since 17).
_MAKERS = frozenset({"createElement", "jsx", "jsxs", "_jsx", "_jsxs"})
# Components of the runtime itself.
_FRAMES = (".Provider", "Fragment", "Suspense")
_HOOK = re.compile(r"use[A-Z]")
_HOLDING = frozenset({"useState", "useRef", "useReducer"})
_MADE_ONCE = frozenset(
    {"constructor", "componentDidMount", "componentWillMount", "UNSAFE_componentWillMount"}
)


class Kept(NamedTuple):
    """The known facts of a component: the props it keeps, and those it passes on to components that
    cannot be followed (`*` for all in each)."""

    props: frozenset[str] = frozenset()
    lost: frozenset[str] = frozenset()

    def keeps(self, prop: str) -> bool:
        """Whether a prop is seen to be kept."""
        return bool({prop, EVERY} & self.props)

    def loses(self, prop: str) -> bool:
        """Whether a prop goes where it is not known what becomes of it."""
        return bool({prop, EVERY} & self.lost)


_UNKNOWN = Kept(lost=frozenset({EVERY}))


class Keepers:
    """The props that each component rendered in a file keeps, found on first use of a tag."""

    def __init__(self, tree: Tree, names: Names, workspace: Workspace) -> None:
        self._file = (tree, names, workspace)
        self._known: dict[str, Kept] = {}

    def of(self, tag: Node) -> Kept:
        """Return the props that the component of a tag name keeps."""
        if tag.text not in self._known:
            self._known[tag.text] = _of_tag(tag, *self._file)
        return self._known[tag.text]


def _of_tag(name: Node, tree: Tree, names: Names, workspace: Workspace) -> Kept:
    if name.text.endswith(_FRAMES):
        return _of_frame(name.text)
    if name.type != "identifier":
        return _UNKNOWN
    binding = names.meaning(name)
    if binding is None or binding.kind == "param":
        return _UNKNOWN
    found = declared(name.text, tree, workspace.file, workspace)
    if found is None and binding.kind in ("function", "class", "const"):
        value = binding.node.parent.child("value") if binding.node.parent is not None else None
        node = value or binding.node.parent
        found = Declared(node, tree, workspace.file) if node is not None else None
    return _kept(found, workspace, 0) if found is not None else _UNKNOWN


def _of_frame(name: str) -> Kept:
    """Return the props that a runtime's own component keeps; readers of a context are not seen here."""
    return Kept(frozenset({"value"}) if name.endswith(".Provider") else frozenset())


def _kept(found: Declared, workspace: Workspace, steps: int) -> Kept:
    """Return the props that a component keeps; all of them if it is not seen to be a component."""
    node = found.node
    if node.type in _CLASSES:
        return _by_class(node, found, workspace, steps)
    if node.is_function:
        return _by_function(node, found, workspace, steps)
    if node.type == "call_expression" and last_name(node.child("function")) in _WRAPPERS:
        arguments = node.child("arguments")
        given = arguments.named_children if arguments is not None else []
        if len(given) > 1 and last_name(node.child("function")) == "memo":
            return Kept(frozenset({EVERY}))
        inner = given[0] if given else None
        if inner is not None and inner.type == "identifier":
            named = declared(inner.text, found.tree, found.file, workspace)
            return _kept(named, workspace, steps + 1) if named and steps < _MOST_STEPS else _UNKNOWN
        if inner is not None:
            return _kept(Declared(inner, found.tree, found.file), workspace, steps)
    return _UNKNOWN


def _by_class(node: Node, found: Declared, workspace: Workspace, steps: int) -> Kept:
    """Props that a class takes once: while it is made or mounted, not called but kept. All of them where it
    decides by itself when to render."""
    body = node.child("body")
    kept: set[str] = set()
    for member in body.named_children if body is not None else ():
        name_node = member.child("name")
        name = property_name(name_node) if name_node is not None else ""
        if name == "shouldComponentUpdate":
            return Kept(frozenset({EVERY}))
        value = member.child("value")
        initial = value is not None and not value.is_function and not member.has("static")
        if name in _MADE_ONCE or initial:
            code = value if value is not None else member
            kept |= {*_values_of_props(code), *_taken_apart(code)}
    handed = _handed_on(_Props("this.props", {}, node), node, found, workspace, steps)
    return Kept(handed.props | kept, handed.lost)


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


def _by_function(function: Node, found: Declared, workspace: Workspace, steps: int) -> Kept:
    parameters, body = function.child("parameters"), function.child("body")
    single = function.child("parameter")
    first = single or (
        parameters.named_children[0] if parameters and parameters.named_children else None
    )
    if body is None:
        return _UNKNOWN
    if first is None:
        return Kept()
    pattern = first.child("pattern") or first
    whole = pattern.text if pattern.type == "identifier" else ""
    props = _Props(whole, _names_of(pattern), body, _rest_of(pattern))
    handed = _handed_on(props, body, found, workspace, steps)
    kept = {p for call in body.walk() for p in _kept_by_hook(call, props)}
    return Kept(handed.props | kept, handed.lost)


def _rest_of(pattern: Node) -> set[str]:
    return {n.named_children[0].text for n in pattern.walk() if n.type == "rest_pattern"}


class _Props:
    """The local names of a component's props: the parameter's, and those its code gives them."""

    def __init__(
        self, whole: str, names: dict[str, str], code: Node, rest: set[str] | None = None
    ) -> None:
        self.whole = whole
        self.locals = names
        # The names that stand for many props: all of them, or the rest.
        self.many = {whole} - {""} | (rest or set())
        # A class asks its instance anew wherever a function is called.
        self._asks_later = whole == "this.props"
        for declarator in code.walk():
            value, named = declarator.child("value"), declarator.child("name")
            if declarator.type != "variable_declarator" or value is None or named is None:
                continue
            if value.text == self.whole and self.whole:
                self.locals.update(_names_of(named))
                self.many |= _rest_of(named)
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
        """The props used below a node, as they are now."""
        found = set()
        for below in node.walk():
            name = self.name(below)
            later = self._asks_later and below.type == "member_expression"
            if name and not (later and _is_inside(below, node)):
                found.add(name)
        return found


def _kept_by_hook(call: Node, props: _Props) -> set[str]:
    if call.type != "call_expression":
        return set()
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


def _handed_on(
    props: _Props, code: Node, found: Declared, workspace: Workspace, steps: int
) -> Kept:
    """The props passed to other components: those that keep them, and those that cannot be followed."""
    kept: set[str] = set()
    lost: set[str] = set()
    for tag, attributes, spread in _elements(code):
        given = {(name, prop) for name, value in attributes for prop in props.within(value)}
        all_of_them = bool(props.many & spread)
        if not given and not all_of_them:
            continue
        inner = _of_name(tag, found, workspace, steps)
        kept |= {prop for name, prop in given if inner.keeps(name)}
        lost |= {prop for name, prop in given if inner.loses(name)}
        if all_of_them:
            kept |= inner.props
            lost |= inner.lost
    return Kept(frozenset(kept), frozenset(lost))


def _elements(code: Node) -> Iterator[tuple[Node, list[tuple[str, Node]], set[str]]]:
    """Yield the components rendered below a node, as JSX or as calls: each with its attributes and
    the texts of spread objects."""
    for node in code.walk():
        if node.type in _TAGS:
            tag = node.child("name")
            if tag is None or not is_component_name(tag.text):
                continue
            named = [(a.children[0].text, a) for a in node.children if a.type == "jsx_attribute"]
            yield tag, named, _spread(a for a in node.children if a.type == "jsx_expression")
        elif node.type == "call_expression" and last_name(node.child("function")) in _MAKERS:
            arguments = node.child("arguments")
            given = arguments.named_children if arguments is not None else []
            if len(given) < 2 or not is_component_name(given[0].text):
                continue
            tag, *rest = given
            pairs = [pair for pair in rest[0].named_children if pair.type == "pair"]
            named = [(property_name(p.children[0]) or "", p.children[-1]) for p in pairs]
            yield tag, named, _spread(rest[:1])


def _spread(parts: Iterable[Node]) -> set[str]:
    """Yield the objects spread into an element: by a spread, by a copying call, or passed as they
    are."""
    found = set()
    for part in parts:
        if part.type in ("identifier", "member_expression"):
            found.add(part.text)
        elif part.type == "call_expression":
            arguments = part.child("arguments")
            found |= {n.text for n in (arguments.named_children if arguments is not None else ())}
        else:
            found |= {
                inner.named_children[0].text
                for inner in part.named_children
                if inner.type == "spread_element"
            }
    return found


def _of_name(tag: Node, found: Declared, workspace: Workspace, steps: int) -> Kept:
    if tag.text.endswith(_FRAMES):
        return _of_frame(tag.text)
    if tag.type != "identifier" or steps >= _MOST_STEPS:
        return _UNKNOWN
    inner = declared(tag.text, found.tree, found.file, workspace)
    return _kept(inner, workspace, steps + 1) if inner is not None else _UNKNOWN
