"""The inputs of a component in a script: declared, annotated or read; what it gives out and exports."""

from __future__ import annotations

import re

from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.javascript.values import property_name
from clean_carry.source.template.tree import VOID
from clean_carry.syntaxes.jsx_class.bases.heritage import OF_DEFAULTS_TOO
from clean_carry.verify.passed_handlers import callable_by_children, handed_in
from clean_carry.verify.search.inputs.inputs import Inputs, merged, note_default
from clean_carry.verify.search.inputs.methods import given_to
from clean_carry.verify.search.inputs.signals import signals_of
from clean_carry.verify.search.inputs.statics import parts_of, static_objects
from clean_carry.verify.search.values.functions import functions_of
from clean_carry.verify.search.values.replies import names_of, reply_of
from clean_carry.verify.search.values.shape import Shape
from clean_carry.verify.search.values.shapes import Shapes
from clean_carry.verify.search.values.types import declared_type, runtime_type

_CLASSES = ("class_declaration", "class", "abstract_class_declaration")
_DECLARED = ("propTypes", "props")
_DEFAULTS = ("defaultProps",)
# Fields of the old context are inputs under this prefix; the renderer gives them through a parent.
CONTEXT = "$context."
# Members of a class that the runtime calls, and those that are private by their name.
_CALLED = re.compile(
    r"[_#]|(constructor|render|componentDid\w+|shouldComponentUpdate|getChildContext)$"
    r"|(UNSAFE_)?componentWill\w+$|getSnapshotBeforeUpdate$"
)
_FORWARDING = ("forwardRef<", "React.forwardRef<")
# Names under which an instance is kept for functions of their own `this`.
_SELF = frozenset({"self", "that", "_this"})


def script_inputs(tree: Tree, component: str) -> Inputs:
    """Read the props of one component of a file."""
    shapes = Shapes([tree])
    own = _own_node(tree, component)
    found = Inputs(reply=reply_of(tree, shapes), exports=exports_of(tree))
    tags = _passed_on_to(own)
    found.passes_on, found.childless = bool(tags), bool(VOID.intersection(tags))
    functions = functions_of([tree])
    found.methods = {n: given_to(functions.get(n), shapes) for n in _methods(tree, own)}
    found.handed = callable_by_children(
        handed_in(tree), lambda function: given_to(function, shapes)
    )
    found.signals = list(signals_of(tree, functions, lambda function: given_to(function, shapes)))
    names: dict[str, None] = {}
    declared: dict[str, Shape] = {}
    for _, value in static_objects(tree, component, ("contextTypes",)):
        for key, kind, owner in parts_of(value, tree):
            found.shapes[f"{CONTEXT}{key}"] = merged(
                runtime_type(kind, owner), shapes.of(key) if key in shapes else Shape()
            )
    for name, value in static_objects(tree, component, _DECLARED):
        for key, kind, owner in parts_of(value, tree):
            if name == "propTypes":
                declared[key] = runtime_type(kind, owner)
                declared[key].passed = owner is not tree
    for shown, shape in _annotated(tree, own).items():
        declared.setdefault(shown, shape)
    names.update(dict.fromkeys(declared))
    defaults: dict[str, Node] = {}
    for _, value in static_objects(tree, component, _DEFAULTS):
        defaults.update({key: given for key, given, _ in parts_of(value, tree)})
    names.update(dict.fromkeys(defaults))
    names.update(dict.fromkeys(_read_inputs(tree, own)))
    for name in names:
        shape = shapes.of(name) if name in shapes else Shape()
        if name in declared:
            shape = merged(declared[name], shape)
        if name in defaults:
            note_default(shape, defaults[name])
        found.shapes[name] = shape
    return found


def default_name(tree: Tree) -> str:
    """The name of what a file exports by default, inside whatever wraps it."""
    for statement in tree.of("export_statement"):
        if not statement.has("default"):
            continue
        value = statement.child("value") or statement.child("declaration")
        while value is not None and value.type == "call_expression":
            arguments = value.child("arguments")
            given = arguments.named_children if arguments is not None else []
            value = given[0] if given else None
        name = value.child("name") if value is not None and value.type != "identifier" else value
        return name.text if name is not None else ""
    return ""


def _methods(tree: Tree, own: Node) -> list[str]:
    """The methods and getters given out by a reference.

    Of a function the keys of the object its handle makes; of a class the methods nothing inside uses
    and that are not private by their name.
    """
    found: list[str] = []
    body = own.child("body") if own.type in _CLASSES else None
    used = {n.named_children[-1].text for n in tree.of("member_expression") if _asks_itself(n)}
    used |= {
        part.text
        for pattern in tree.of("object_pattern")
        for part in pattern.named_children
        if pattern.parent is not None and pattern.parent.text.endswith("= this")
    }
    for member in body.named_children if body is not None else ():
        key, value = member.child("name"), member.child("value")
        method = member.is_function or (value is not None and value.is_function)
        name = property_name(key) if key is not None and method else None
        hidden = member.has("static") or member.has("set")
        if name is not None and not hidden and name not in used and not _CALLED.match(name):
            found.append(name)
    for call in tree.of("call_expression"):
        callee, arguments = call.child("function"), call.child("arguments")
        if not own.start <= call.start < own.end:
            continue
        if callee is None or arguments is None or not callee.text.endswith("useImperativeHandle"):
            continue
        for part in arguments.walk():
            if part.type == "object":
                keys = [p.child("key") or p.child("name") or p for p in part.named_children]
                found += [name for key in keys if (name := property_name(key)) is not None]
                break
    return found


def _asks_itself(node: Node) -> bool:
    """Whether an instance reads a member, and not only to bind it."""
    holder = node.children[0]
    itself = holder.type == "this" or holder.text in _SELF
    return itself and not _only_bound(node)


def _only_bound(node: Node) -> bool:
    """Whether a member is named only to bind a method to its instance: `this.m = this.m.bind(this)`."""
    for above in node.up():
        if above.type == "assignment_expression":
            return bool(re.fullmatch(r"this\.(\w+)\s*=\s*this\.\1\.bind\(this\)", above.text))
        if above.type.endswith("_statement"):
            return False
    return False


def _passed_on_to(own: Node) -> list[str]:
    """The elements over which what is left of the inputs, or all of them, is spread, by their tags."""
    found = []
    for node in own.walk():
        if node.type == "spread_element" and node.parent is not None:
            if node.parent.type == "jsx_expression":
                tag = node.parent.parent.child("name") if node.parent.parent is not None else None
                found.append(tag.text if tag is not None else "")
    for node in own.walk():
        # An element that is made of what is given, of `img` where nothing is.
        if node.type in ("object_assignment_pattern", "assignment_pattern"):
            name, given = node.child("left"), node.child("right")
            if name is not None and given is not None and name.text in found:
                found.append(given.text.strip("'\"`"))
    return found


def _own_node(tree: Tree, component: str) -> Node:
    """Return the class or function of the component; the whole file if it is unclear."""
    for node in tree.of(*_CLASSES, "function_declaration"):
        name = node.child("name")
        if name is not None and name.text == component:
            return node
    for node in tree.of("variable_declarator"):
        name, value = node.child("name"), node.child("value")
        if name is not None and value is not None and name.text == component:
            return node
    return tree.root


def _annotated(tree: Tree, own: Node) -> dict[str, Shape]:
    """Inputs by the TypeScript type of a class's base, of a function's first parameter, or of what forwards
    a reference to it: `forwardRef<Element, Props>(…)`."""
    node: Node | None = None
    for clause in own.walk():
        if clause.type == "extends_clause":
            arguments = [c for c in clause.children if c.type == "type_arguments"]
            given = arguments[0].named_children if arguments else []
            # A base that is given three types was once given that of its defaults first.
            node = given[len(given) == OF_DEFAULTS_TOO] if given else _field_type(own)
            break
        if clause.type == "call_expression" and clause.text.startswith(_FORWARDING):
            types = clause.child("type_arguments")
            if types is not None and len(types.named_children) == 2:
                node = types.named_children[1]
                break
        if clause.type == "formal_parameters" and clause.named_children:
            kind = clause.named_children[0].child("type")
            node = kind.named_children[0] if kind is not None else None
            break
    if node is None:
        return {}
    return declared_type(node, tree).fields


def _field_type(own: Node) -> Node | None:
    """The type an annotated script gives the inputs by a field of the class."""
    body = own.child("body")
    for member in body.named_children if body is not None else ():
        name, kind = member.child("name"), member.child("type")
        if name is not None and name.text == "props" and kind is not None:
            return kind.named_children[0] if kind.named_children else None
    return None


def _read_inputs(tree: Tree, own: Node) -> list[str]:
    """Names taken from `this.props`, from `props`, or by the pattern of the first parameter."""
    found: dict[str, None] = {}
    parameter = _first_parameter(own)
    if parameter is not None and parameter.type == "object_pattern":
        names_of(parameter, found)
    holders = {"props", "nextProps", "prevProps", "newProps"}
    if parameter is not None and parameter.type == "identifier":
        holders.add(parameter.text)
    for node in own.walk():
        if node.type == "member_expression":
            holder, part = node.children[0], node.child("property")
            if part is not None and _is_holder(holder, holders):
                found.setdefault(part.text)
        elif node.type == "variable_declarator":
            target, value = node.child("name"), node.child("value")
            if target is not None and value is not None and target.type == "object_pattern":
                if _is_holder(value, holders):
                    names_of(target, found)
    return [name for name in found if name not in ("children", "key", "ref")] + (
        ["children"] if "children" in found else []
    )


def _is_holder(node: Node, holders: set[str]) -> bool:
    if node.type == "identifier":
        return node.text in holders
    part = node.child("property") if node.type == "member_expression" else None
    return (
        part is not None
        and part.text in ("props", "nextProps")
        and (node.children[0].type == "this" or node.children[0].text in _SELF)
    )


def _first_parameter(own: Node) -> Node | None:
    for node in own.walk():
        if node.type == "class_body":
            return None
        if node.is_function:
            single = node.child("parameter")
            if single is not None:
                return single
            parameters = node.child("parameters")
            given = parameters.named_children if parameters is not None else []
            return (given[0].child("pattern") or given[0]) if given else None
    return None


# Names that are exported for their type alone.
_OF_TYPES = ("interface_declaration", "type_alias_declaration")


def exports_of(tree: Tree) -> list[str]:
    """The names a file exports, the default one first."""
    found: list[str] = []
    for node in tree.root.named_children:
        if node.type != "export_statement":
            continue
        if node.has("default"):
            found.insert(0, "default")
            continue
        for part in node.walk():
            if part.type == "export_specifier":
                found.append((part.child("alias") or part.child("name") or part).text)
        declaration = node.child("declaration")
        if declaration is not None and declaration.type not in _OF_TYPES:
            name = declaration.child("name")
            if name is not None:
                found.append(name.text)
            found += [
                d.child("name").text  # type: ignore[union-attr]
                for d in declaration.named_children
                if d.type == "variable_declarator"
            ]
    return ["default" if name == "default" else name for name in dict.fromkeys(found)]
