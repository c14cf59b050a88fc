"""The inputs of a component and what is known of each: declared, defaulted or only used."""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import dataclass, field
from pathlib import Path

from clean_carry.component.errors import InputError
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.javascript.values import property_name
from clean_carry.source.template.tree import TemplateNode, read_blocks
from clean_carry.source.text import SourceText
from clean_carry.source.workspace import Workspace
from clean_carry.syntaxes.single_file.expressions import read_code
from clean_carry.verify.search.shapes import Shape, Shapes, kind_of, literal_of
from clean_carry.verify.search.types import declared_type, runtime_type

_CLASSES = ("class_declaration", "class", "abstract_class_declaration")
_DECLARED = ("propTypes", "props")
_DEFAULTS = ("defaultProps",)
# Members of a class that the runtime calls, and those that are private by their name.
_CALLED = re.compile(
    r"[_#]|(constructor|render|componentDid\w+|shouldComponentUpdate|getChildContext)$"
    r"|(UNSAFE_)?componentWill\w+$|getSnapshotBeforeUpdate$"
)
# How many files declared inputs are followed through.
MOST_SPREAD = 3
# Names under which an instance is kept for functions of their own `this`.
_SELF = frozenset({"self", "that", "_this"})


@dataclass
class Inputs:
    """What the code says of its inputs, slots, events, replies and exports.

    `passes_on` says that inputs it does not name may reach an element of its own; `uses` how many
    contents the project itself gives the component; `methods` are those it gives out by a reference.
    """

    shapes: dict[str, Shape] = field(default_factory=dict)
    slots: list[str] = field(default_factory=list)
    events: list[str] = field(default_factory=list)
    reply: Shape | None = None
    exports: list[str] = field(default_factory=list)
    passes_on: bool = False
    uses: int = 0
    methods: list[str] = field(default_factory=list)

    def join(self, other: Inputs, names: dict[str, str]) -> Inputs:
        """These and those of the other side; `names` maps the other side's names to ours."""
        shapes = dict(self.shapes)
        for name, shape in other.shapes.items():
            own = names.get(name, name)
            shapes[own] = merged(shapes[own], shape) if own in shapes else shape
        return Inputs(
            {name: shape for name, shape in shapes.items() if name not in self.slots},
            self.slots,
            self.events,
            self.reply or other.reply,
            self.exports,
            self.passes_on or other.passes_on,
            methods=list(dict.fromkeys([*self.methods, *other.methods])),
        )


def merged(one: Shape, other: Shape) -> Shape:
    """What both sides say of one input; what is declared wins."""
    if other.declared and not one.declared:
        one, other = other, one
    kinds = set(one.kinds) if one.declared else one.kinds | other.kinds
    if "reference" in one.kinds | other.kinds:
        # What ends as an element's reference is a function or an object, whatever is declared.
        kinds = {"reference", "function"}
    result = Shape(
        kinds,
        list(one.literals),
        {**other.fields, **one.fields},
        _items(one, other),
        one.result or other.result,
        one.tested or other.tested,
        one.declared,
        one.required,
        one.default or other.default,
        list(dict.fromkeys([*one.hints, *other.hints])),
        passed=one.passed,
    )
    for literal in other.literals:
        result.note(literal)
    return result


def _items(one: Shape, other: Shape) -> Shape | None:
    """What both say of the items of a list: declared ones that say nothing are as good as none."""
    if one.items is None or not (one.items.kinds or one.items.fields or one.items.literals):
        return other.items or one.items
    for name, part in one.items.fields.items():
        used = other.items.fields.get(name) if other.items is not None else None
        for literal in used.literals if used is not None and not part.literals else ():
            if kind_of(literal) in part.kinds:
                part.used.append(literal)
    return one.items


def read_inputs(text: str, path: str, component: str = "") -> Inputs:
    """Read a version's inputs. What cannot be parsed has none that are known."""
    source = SourceText(path, text.encode())
    try:
        if path.endswith(".vue"):
            return _single_file(source)
        tree = Tree(source)
        if component in ("", "default"):
            component = _default_name(tree) or Path(path).name.split(".")[0]
        return _script(tree, component)
    except InputError:
        return Inputs()


def _script(tree: Tree, component: str) -> Inputs:
    shapes = Shapes([tree])
    own = _own_node(tree, component)
    found = Inputs(reply=_reply(tree, shapes), exports=exports_of(tree))
    found.passes_on = _passes_on(own)
    found.methods = _methods(tree, own)
    names: dict[str, None] = {}
    declared: dict[str, Shape] = {}
    for name, value in _static_objects(tree, component, _DECLARED):
        for key, kind, owner in _parts(value, tree):
            if name == "propTypes":
                declared[key] = runtime_type(kind, owner)
                declared[key].passed = owner is not tree
    for shown, shape in _annotated(tree, own).items():
        declared.setdefault(shown, shape)
    names.update(dict.fromkeys(declared))
    defaults: dict[str, Node] = {}
    for _, value in _static_objects(tree, component, _DEFAULTS):
        defaults.update({key: given for key, given, _ in _parts(value, tree)})
    names.update(dict.fromkeys(defaults))
    names.update(dict.fromkeys(_read_inputs(tree, own)))
    for name in names:
        shape = shapes.of(name) if name in shapes else Shape()
        if name in declared:
            shape = merged(declared[name], shape)
        if name in defaults:
            _default(shape, defaults[name])
        found.shapes[name] = shape
    return found


def _default_name(tree: Tree) -> str:
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
    """The methods given out by a reference.

    Of a function the keys of the object its handle makes; of a class the methods nothing inside uses
    and that are not private by their name.
    """
    found: list[str] = []
    body = own.child("body") if own.type in _CLASSES else None
    used = {n.named_children[-1].text for n in tree.of("member_expression")}
    for member in body.named_children if body is not None else ():
        key, value = member.child("name"), member.child("value")
        method = member.is_function or (value is not None and value.is_function)
        name = property_name(key) if key is not None and method else None
        hidden = member.has("static") or member.has("get") or member.has("set")
        if name is not None and not hidden and name not in used and not _CALLED.match(name):
            found.append(name)
    for call in tree.of("call_expression"):
        callee, arguments = call.child("function"), call.child("arguments")
        if callee is None or arguments is None or not callee.text.endswith("useImperativeHandle"):
            continue
        for part in arguments.walk():
            if part.type == "object":
                keys = [p.child("key") or p for p in part.named_children]
                found += [name for key in keys if (name := property_name(key)) is not None]
                break
    return found


def _passes_on(own: Node) -> bool:
    """Whether what is left of the inputs, or all of them, is spread over an element."""
    for node in own.walk():
        if node.type == "spread_element" and node.parent is not None:
            if node.parent.type == "jsx_expression":
                return True
    return False


def _default(shape: Shape, value: Node) -> None:
    known, literal = literal_of(value)
    shape.default = (literal,)
    if known:
        if literal is not None and not shape.declared:
            shape.kinds.add(kind_of(literal))
    elif value.is_function and not shape.declared:
        shape.kinds.add("function")
    elif value.type in ("object", "array") and not shape.declared:
        shape.kinds.add(value.type)


def _own_node(tree: Tree, component: str) -> Node:
    """The class or function of the component, the whole file where it cannot be told."""
    for node in tree.of(*_CLASSES, "function_declaration"):
        name = node.child("name")
        if name is not None and name.text == component:
            return node
    for node in tree.of("variable_declarator"):
        name, value = node.child("name"), node.child("value")
        if name is not None and value is not None and name.text == component:
            return node
    return tree.root


def _static_objects(tree: Tree, component: str, wanted: tuple[str, ...]) -> list[tuple[str, Node]]:
    """(name, object literal) of static members: in the class, or assigned after it."""
    found: list[tuple[str, Node]] = []
    for node in tree.of("assignment_expression"):
        left, right = node.child("left"), node.child("right")
        if left is None or right is None or left.type != "member_expression":
            continue
        part = left.child("property")
        if part is None or part.text not in wanted:
            continue
        owners = tree.of("class_declaration", "function_declaration")
        if left.children[0].text != component and len(owners) > 1:
            continue
        value = _resolved(tree, right)
        if value is not None:
            found.append((part.text, value))
    for node in tree.of("public_field_definition"):
        name, given = node.child("name"), node.child("value")
        if name is not None and given is not None and name.text in wanted and node.has("static"):
            value = _resolved(tree, given)
            if value is not None:
                found.append((name.text, value))
    return found


def _parts(value: Node, tree: Tree, depth: int = 0) -> Iterator[tuple[str, Node, Tree]]:
    """(name, value, its file) of the parts of an object, with what is spread in from other files."""
    for part in value.named_children:
        key, given = part.child("key"), part.child("value")
        shown = property_name(key) if key is not None else None
        if shown is not None and given is not None:
            yield shown, given, tree
        elif part.type == "spread_element" and depth < MOST_SPREAD:
            for spread, owner in _spread(part.named_children[0], tree):
                yield from _parts(spread, owner, depth + 1)


def _spread(node: Node, tree: Tree) -> Iterator[tuple[Node, Tree]]:
    """The objects `...X.propTypes` or `...propTypes` may mean."""
    own = node.type == "member_expression"
    base = node.children[0] if own else node
    statement = next((s for s in tree.of("import_statement") if _gives(s, base.text)), None)
    if statement is None:
        found = _resolved(tree, node)
        if found is not None:
            yield found, tree
        return
    source = statement.child("source")
    workspace = Workspace(Path(tree.source.path).resolve())
    path = workspace.resolve(source.text[1:-1]) if source is not None else None
    other = workspace.tree(path) if path is not None else None
    if other is None:
        return
    if own:
        wanted = node.named_children[-1].text
        for _, value in _static_objects(other, base.text, (wanted,)):
            yield value, other
        for assigned in other.of("assignment_expression"):
            left, right = assigned.child("left"), assigned.child("right")
            named = right is not None and right.type == "identifier"
            if not named or right is None or left is None:
                continue
            if left.text == f"{base.text}.{wanted}" and _resolved(other, right) is None:
                yield from _spread(right, other)
    else:
        for declarator in other.of("variable_declarator"):
            name, made = declarator.child("name"), declarator.child("value")
            if name is not None and made is not None and name.text == base.text:
                if made.type == "object":
                    yield made, other


def _gives(statement: Node, name: str) -> bool:
    return any(n.type == "identifier" and n.text == name for n in statement.walk())


def _resolved(tree: Tree, node: Node) -> Node | None:
    while node.type in ("as_expression", "satisfies_expression", "parenthesized_expression"):
        node = node.named_children[0]
    if node.type == "identifier":
        for declarator in tree.of("variable_declarator"):
            name, value = declarator.child("name"), declarator.child("value")
            if name is not None and value is not None and name.text == node.text:
                return value if value.type == "object" else None
    return node if node.type == "object" else None


def _annotated(tree: Tree, own: Node) -> dict[str, Shape]:
    """Inputs by the TypeScript type of a class's base or of a function's first parameter."""
    node: Node | None = None
    for clause in own.walk():
        if clause.type == "extends_clause":
            arguments = [c for c in clause.children if c.type == "type_arguments"]
            node = arguments[0].named_children[0] if arguments else None
            break
        if clause.type == "formal_parameters" and clause.named_children:
            kind = clause.named_children[0].child("type")
            node = kind.named_children[0] if kind is not None else None
            break
    if node is None:
        return {}
    return declared_type(node, tree).fields


def _read_inputs(tree: Tree, own: Node) -> list[str]:
    """Names taken from `this.props`, from `props`, or by the pattern of the first parameter."""
    found: dict[str, None] = {}
    parameter = _first_parameter(own)
    if parameter is not None and parameter.type == "object_pattern":
        _names_of(parameter, found)
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
                    _names_of(target, found)
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


def _names_of(pattern: Node, found: dict[str, None]) -> None:
    for part in pattern.named_children:
        if part.type == "shorthand_property_identifier_pattern":
            found.setdefault(part.text)
        elif part.type in ("object_assignment_pattern", "pair_pattern"):
            key = part.child("left") or part.child("key")
            name = property_name(key) if key is not None else None
            if name is not None:
                found.setdefault(name)


def _reply(tree: Tree, shapes: Shapes) -> Shape | None:
    """What the code takes from the JSON of a reply."""
    for node in tree.of("call_expression"):
        callee = node.child("function")
        part = callee.child("property") if callee is not None else None
        if part is None or callee is None or part.text not in ("json", "parse"):
            continue
        if part.text == "parse" and callee.children[0].text != "JSON":
            continue
        shape = Shape({"object"}, declared=True)
        for name, local in _taken_from(node):
            if name == "":
                return shapes.of(local)
            shape.fields[name] = shapes.of(local)
        return shape
    return None


def _taken_from(call: Node) -> list[tuple[str, str]]:
    """(field, local name) of what becomes of a value; an empty field is the value itself."""
    for above in call.up():
        if above.type in ("await_expression", "parenthesized_expression", "arrow_function"):
            continue
        if above.type == "variable_declarator":
            target = above.child("name")
            if target is not None and target.type == "identifier":
                return [("", target.text)]
            return [] if target is None else [(n, n) for n in _flat_names(target)]
        if above.type == "arguments":
            chain = above.parent.parent if above.parent is not None else None
            then = chain.parent if chain is not None else None
            arguments = then.child("arguments") if then is not None else None
            if arguments is not None and arguments.named_children:
                return _parameter_names(arguments.named_children[0])
        if above.type == "pair":
            key = above.child("key")
            return [("", key.text)] if key is not None else []
        if above.type == "member_expression":
            part = above.child("property")
            then = above.parent
            arguments = then.child("arguments") if then is not None else None
            if part is not None and part.text == "then" and arguments is not None:
                return _parameter_names(arguments.named_children[0])
            return [(part.text, part.text)] if part is not None else []
        return []
    return []


def _parameter_names(function: Node) -> list[tuple[str, str]]:
    parameter = function.child("parameter")
    if parameter is None:
        parameters = function.child("parameters")
        given = parameters.named_children if parameters is not None else []
        parameter = (given[0].child("pattern") or given[0]) if given else None
    if parameter is None:
        return []
    if parameter.type == "identifier":
        return [("", parameter.text)]
    return [(name, name) for name in _flat_names(parameter)]


def _flat_names(pattern: Node) -> list[str]:
    found: dict[str, None] = {}
    _names_of(pattern, found)
    return list(found)


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
        if declaration is not None:
            name = declaration.child("name")
            if name is not None:
                found.append(name.text)
            found += [
                d.child("name").text  # type: ignore[union-attr]
                for d in declaration.named_children
                if d.type == "variable_declarator"
            ]
    return ["default" if name == "default" else name for name in dict.fromkeys(found)]


# -- single files -----------------------------------------------------------------------------


def _single_file(source: SourceText) -> Inputs:
    blocks = [node for node in read_blocks(source) if node.kind == "element"]
    script = next((b for b in blocks if b.tag == "script"), None)
    template = next((b for b in blocks if b.tag == "template"), None)
    trees: list[Tree] = []
    if script is not None:
        trees.append(Tree(source, bytes(source.blanked([script.inner]))))
    found = Inputs(exports=["default"])
    found.passes_on = True
    if template is not None:
        trees.append(read_code(source, template).tree)
        found.slots = _slots(source, template)
    shapes = Shapes(trees)
    for tree in trees[: 1 if script is not None else 0]:
        found.reply = _reply(tree, shapes)
        _options(tree, shapes, found)
    return found


def _slots(source: SourceText, template: TemplateNode) -> list[str]:
    names: dict[str, None] = {}
    for node in template.walk():
        if node.tag == "slot":
            named = node.attribute("name")
            value = named.value if named is not None else None
            names.setdefault(source.slice(*value) if value is not None else "default")
    return list(names)


def _options(tree: Tree, shapes: Shapes, found: Inputs) -> None:
    for key, value in _declarations(tree):
        if key in ("emits", "defineEmits"):
            for item in value.named_children:
                name = property_name(item.child("key") or item)
                if name is not None:
                    found.events.append(name)
            continue
        for item in value.named_children:
            name = property_name(item.child("key") or item)
            if name is None:
                continue
            declared = _declared_option(item)
            used = shapes.of(name) if name in shapes else Shape()
            found.shapes[name] = merged(declared, used) if declared is not None else used


def _declarations(tree: Tree) -> list[tuple[str, Node]]:
    """(option, list or object) of declared inputs and events, in either form."""
    found: list[tuple[str, Node]] = []
    for node in tree.of("pair"):
        key, value = node.child("key"), node.child("value")
        if key is not None and value is not None and key.text in ("props", "emits"):
            if value.type in ("object", "array"):
                found.append((key.text, value))
    for node in tree.of("call_expression"):
        callee, given = node.child("function"), node.child("arguments")
        if (
            callee is not None
            and given is not None
            and callee.text in ("defineProps", "defineEmits")
        ):
            found += [
                (callee.text, v) for v in given.named_children if v.type in ("object", "array")
            ]
    return found


def _declared_option(item: Node) -> Shape | None:
    """The declared type and default of one input of a single file."""
    value = item.child("value")
    if value is None:
        return None
    parts = {"type": value} if value.type != "object" else {}
    for part in value.named_children if value.type == "object" else ():
        key, given = part.child("key"), part.child("value")
        if key is not None and given is not None:
            parts[key.text] = given
    shape = Shape(declared=True)
    kinds = parts.get("type")
    for name in kinds.walk() if kinds is not None else ():
        if name.type == "identifier":
            shape.kinds.add(name.text.lower())
    if not shape.kinds:
        shape.declared = False
    if "default" in parts:
        _default(shape, parts["default"])
    shape.required = "required" in parts and parts["required"].text == "true"
    return shape
