"""The meaning of each top-level statement of a script, and of the names it declares."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass, field
from typing import Literal

from clean_carry.source.javascript.mutations import changes_insides
from clean_carry.source.javascript.scope import Binding, is_write
from clean_carry.source.javascript.tree import Node
from clean_carry.source.javascript.values import is_constant, property_name, runs_code
from clean_carry.source.template.tree import TemplateNode
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.single_file_flat.statements.calls import (
    INSTANCE,
    MOMENTS,
    STATE,
    UNBOXED,
    RuntimeCall,
    bare,
    imported,
    runtime_call,
)
from clean_carry.syntaxes.single_file_flat.statements.scripts import FlatBlocks

Kind = Literal[
    "state", "derived", "prop", "props", "method", "field", "element", "injected", "emit", "runtime",
    "shared",
]  # fmt: skip
StatementKind = Literal[
    "module", "state", "element", "derived", "method", "field", "props", "emits", "options", "expose",
    "model", "slots", "injected", "provided", "watch", "moment", "made", "gone", "shared", "unread",
]  # fmt: skip
_TYPES = (
    "import_statement type_alias_declaration interface_declaration enum_declaration "
    "ambient_declaration empty_statement"
).split()
_DECLARES = ("lexical_declaration", "variable_declaration")
_FUNCTIONS = ("function_declaration", "generator_function_declaration")


@dataclass(frozen=True)
class Held:
    """The meaning of a name of the script: a `member`, or (kinds `props`, `emit`, `runtime`) a part of
    every instance. The value of a `boxed` name is read at `.value`."""

    kind: Kind
    member: str
    boxed: bool = False


@dataclass(frozen=True)
class Statement:
    """One top-level statement, or one declarator of it: `node` is all of it, `value` what it declares its
    `name` as, `call` the call of the runtime it is."""

    kind: StatementKind
    node: Node
    name: str = ""
    value: Node | None = None
    call: RuntimeCall | None = None
    detail: str = ""


@dataclass
class Declared:
    """The statements of a script, and what its names stand for.

    `elements` are the names the template gives elements, and whether those are always there, `drawn` all
    names it uses; `defaults` are those of inputs that are taken apart, `refused` why the file cannot be
    read.
    """

    source: SourceText
    blocks: FlatBlocks
    elements: dict[str, bool]
    drawn: frozenset[str]
    held: dict[str, Held] = field(default_factory=dict)
    statements: list[Statement] = field(default_factory=list)
    defaults: dict[str, Node] = field(default_factory=dict)
    refused: list[tuple[str, str, int]] = field(default_factory=list)

    def read(self) -> None:
        """Say of every statement what it is."""
        for node in self.blocks.of(self.blocks.setup):
            for one in self._statements(node):
                self.statements.append(one)
        self._share()

    def refuse(self, rule: str, detail: str, at: int) -> None:
        """Note why the file cannot be read."""
        self.refused.append((rule, detail, at))

    def _statements(self, node: Node) -> Iterator[Statement]:
        if node.type in _TYPES:
            yield Statement("module", node)
        elif node.type in _FUNCTIONS:
            yield self._function(node)
        elif node.type in _DECLARES:
            declarators = node.named_children
            if len(declarators) > 1 and any(
                runtime_call(one.child("value"), self.blocks.names) for one in declarators
            ):
                self.refuse(
                    "unread-statement",
                    "several values of the runtime in one declaration",
                    node.start,
                )
            for one in declarators:
                yield self._declarator(node, one)
        elif node.type == "expression_statement":
            yield self._expression(node)
        elif node.type in ("class_declaration", "export_statement"):
            self.refuse("unread-statement", node.text.split("\n")[0][:60], node.start)
            yield Statement("unread", node)
        else:
            yield Statement("made", node)

    def _function(self, node: Node) -> Statement:
        name = (node.child("name") or node).text
        self.held[name] = Held("method", name)
        return Statement("method", node, name, node)

    def _declarator(self, node: Node, one: Node) -> Statement:
        pattern, value = one.child("name"), one.child("value")
        assert pattern is not None
        if any(n.type == "await_expression" and _at_top(n) for n in one.walk()):
            self.refuse("awaits-at-top", one.text.split("\n")[0][:60], one.start)
            return Statement("unread", node)
        call = runtime_call(value, self.blocks.names)
        if call is not None:
            reader = _CALLS.get(call.name)
            if reader is not None:
                return reader(self, node, pattern, call)
            if call.name not in ("nextTick", "toRaw", "markRaw", "unref", "isRef", "h"):
                return self._shared(node, pattern, value)
        if value is not None and pattern.type == "identifier" and bare(value).is_function:  # type: ignore[union-attr]
            self.held[pattern.text] = Held("method", pattern.text)
            return Statement("method", node, pattern.text, bare(value))
        if value is not None and self._is_shared(value):
            return self._shared(node, pattern, value)
        if pattern.type != "identifier":
            names = {n.text for n in pattern.walk() if n.type.endswith("identifier_pattern")}
            if not names & self.drawn and not node.has("let"):
                return self._shared(node, pattern, value)
            return self._shared(node, pattern, value)
        self.held[pattern.text] = Held("field", pattern.text)
        return Statement("field", node, pattern.text, value)

    def _is_shared(self, value: Node) -> bool:
        """Whether a value is what shared code of the project gives: a call of a function that is named as
        such, `use…`."""
        call = bare(value)
        callee = (
            call.child("function") if call is not None and call.type == "call_expression" else None
        )
        if callee is None or callee.type != "identifier":
            return False
        return callee.text.startswith("use") and callee.text[3:4].isupper()

    def _shared(self, node: Node, pattern: Node, value: Node | None) -> Statement:
        declared = [n for n in pattern.walk() if self._declares(n)]
        for name in declared:
            self.held[name.text] = Held("shared", name.text, self._is_boxed(name.text))
        return Statement("shared", node, ",".join(n.text for n in declared), value)

    def _declares(self, node: Node) -> bool:
        binding = self.blocks.names.module.names.get(node.text)
        return binding is not None and binding.node is node

    def _is_boxed(self, name: str) -> bool:
        """Whether code asks a name for its `.value`."""
        binding = self.binding(name)
        return any(boxed(ref) is not None for ref in binding.references) if binding else False

    def binding(self, name: str) -> Binding | None:
        """The top-level name of the scripts."""
        return self.blocks.names.module.names.get(name)

    def _expression(self, node: Node) -> Statement:
        value = node.named_children[0] if node.named_children else None
        if value is not None and any(
            n.type == "await_expression" and _at_top(n) for n in value.walk()
        ):
            self.refuse("awaits-at-top", node.text.split("\n")[0][:60], node.start)
            return Statement("unread", node)
        call = runtime_call(value, self.blocks.names)
        if call is None:
            package, name = self._imported_callee(value)
            if name in MOMENTS and package == "vue-router" and value is not None:
                arguments = value.child("arguments")
                given = tuple(arguments.named_children) if arguments is not None else ()
                return Statement("moment", node, call=RuntimeCall(name, value, given))
            return Statement("made", node)
        if call.name in MOMENTS:
            return Statement("moment", node, call=call)
        kind = _STATEMENTS.get(call.name)
        if kind is None:
            return Statement("made", node, call=call)
        return Statement(kind, node, call=call)

    def _imported_callee(self, value: Node | None) -> tuple[str, str]:
        callee = (
            value.child("function")
            if value is not None and value.type == "call_expression"
            else None
        )
        if callee is None or callee.type != "identifier":
            return "", ""
        return imported(callee, self.blocks.names)

    # -- what goes in and out ---------------------------------------------------------------------

    def take_apart(self, pattern: Node, kind: Kind, *, boxed: bool = False) -> bool:
        """Names that a pattern takes from the inputs, with their defaults; False where it holds more."""
        for part in pattern.named_children:
            key, local, default = part, part, None
            if part.type == "object_assignment_pattern":
                key = local = part.child("left") or part
                default = part.child("right")
            elif part.type == "pair_pattern":
                key, local = part.child("key") or part, part.child("value") or part
                if local.type == "assignment_pattern":
                    local, default = local.child("left") or local, local.child("right")
            name = property_name(key) or key.text
            if local.type not in ("identifier", "shorthand_property_identifier_pattern"):
                return False
            self.held[local.text] = Held(kind, name, boxed)
            if default is not None:
                self.defaults[name] = default
        return True

    # -- what shared code is given ----------------------------------------------------------------

    def _share(self) -> None:
        """Keep the arguments of shared code with its call, and all code that uses them."""
        known = {name: one for one in self.statements for name in one.name.split(",") if name}
        queue = [one for one in self.statements if one.kind == "shared"]
        staying = {id(one) for one in queue}
        while queue:
            for ref, binding in self.blocks.names.references_in(queue.pop().node):
                one = known.get(ref.text)
                top = binding is not None and binding.scope is self.blocks.names.module
                if one is None or not top or id(one) in staying or one.kind in ("props", "emits"):
                    continue
                if one.kind in _MAY_STAY:
                    staying.add(id(one))
                    queue.append(one)
        for at, one in enumerate(self.statements):
            if id(one) in staying and one.kind != "shared":
                # An input under another name is one outside of the call all the same.
                named = "" if one.kind == "gone" else one.name
                self.statements[at] = Statement("shared", one.node, named, one.value)
                if not named:
                    continue
                for name in one.name.split(","):
                    self.held[name] = Held("shared", name, self.held[name].boxed)


_MAY_STAY = ("element", "injected", "method", "field", "derived", "state", "gone")


def boxed(ref: Node) -> Node | None:
    """The place of `x.value` around a name; None where it stands alone."""
    above = ref.parent
    if above is None or above.type != "member_expression" or ref.field != "object":
        return None
    part = above.child("property")
    return above if part is not None and part.text == "value" else None


def _at_top(node: Node) -> bool:
    return not any(up.is_function for up in node.up())


# -- calls of the runtime whose value gets a name -----------------------------------------------------


def _state(declared: Declared, node: Node, pattern: Node, call: RuntimeCall) -> Statement:
    name, first = pattern.text, call.argument()
    if pattern.type != "identifier":
        return declared._shared(node, pattern, call.node)
    empty = first is None or first.text == "null" or first.text == "[]"
    if call.name in ("ref", "shallowRef") and name in declared.elements and empty:
        declared.held[name] = Held("element", name, True)
        return Statement("element", node, name, call=call)
    binding = declared.binding(name)
    if call.name in UNBOXED and (binding is None or binding.written):
        declared.refuse("unread-statement", f"{name}, which is given another object", node.start)
    if not STATE[call.name] and _changed_inside(binding, call.name):
        declared.refuse("shallow-changed", name, node.start)
    declared.held[name] = Held("state", name, call.name not in UNBOXED)
    return Statement("state", node, name, first, call)


def _changed_inside(binding: Binding | None, function: str) -> bool:
    """Whether the insides of a shallow value are changed, which shows nothing then."""
    for ref in binding.references if binding is not None else ():
        here = boxed(ref) if function == "shallowRef" else ref
        if here is None:
            continue
        if function == "shallowRef" and changes_insides(here):
            return True
        above = here.parent
        inside = above is not None and above.type in ("member_expression", "subscript_expression")
        if function != "shallowRef" and inside and above is not None and changes_insides(above):
            return True
    return False


def _derived(declared: Declared, node: Node, pattern: Node, call: RuntimeCall) -> Statement:
    first = bare(call.argument())
    functions = first is not None and (first.is_function or first.type == "object")
    if pattern.type != "identifier" or not functions or len(call.given) > 1:
        return declared._shared(node, pattern, call.node)
    declared.held[pattern.text] = Held("derived", pattern.text, True)
    return Statement("derived", node, pattern.text, first, call)


def _readonly(declared: Declared, node: Node, pattern: Node, call: RuntimeCall) -> Statement:
    """A value that is only read: of a name, what that stands for; of a constant, a value of its own."""
    first = call.argument()
    binding = declared.binding(pattern.text)
    known = declared.held.get(first.text) if first is not None else None
    places = [boxed(ref) or ref for ref in binding.references] if binding is not None else []
    if pattern.type == "identifier" and not any(map(changes_insides, places)):
        if known is not None and known.kind in ("state", "derived", "prop"):
            declared.held[pattern.text] = known
            return Statement("gone", node, pattern.text)
        if first is not None and (is_constant(first) or not runs_code(first)):
            declared.held[pattern.text] = Held("state", pattern.text)
            return Statement("state", node, pattern.text, first, call)
    return declared._shared(node, pattern, call.node)


def _props(declared: Declared, node: Node, pattern: Node, call: RuntimeCall) -> Statement:
    if pattern.type == "identifier":
        declared.held[pattern.text] = Held("props", "$props")
    elif not declared.take_apart(pattern, "prop"):
        declared.refuse("input-declaration", pattern.text[:60], pattern.start)
    return Statement("props", node, call=call)


def _model(declared: Declared, node: Node, pattern: Node, call: RuntimeCall) -> Statement:
    if pattern.type != "identifier":
        declared.refuse("unread-statement", node.text.split("\n")[0][:60], node.start)
        return Statement("unread", node)
    declared.held[pattern.text] = Held("shared", pattern.text, True)
    return Statement("model", node, pattern.text, call=call)


def _emits(declared: Declared, node: Node, pattern: Node, call: RuntimeCall) -> Statement:
    declared.held[pattern.text] = Held("emit", "$emit")
    return Statement("emits", node, call=call)


def _instance(declared: Declared, node: Node, pattern: Node, call: RuntimeCall) -> Statement:
    if pattern.type != "identifier":
        return declared._shared(node, pattern, call.node)
    declared.held[pattern.text] = Held("runtime", INSTANCE[call.name][1])
    return Statement("gone", node, pattern.text)


def _slots(declared: Declared, node: Node, pattern: Node, call: RuntimeCall) -> Statement:
    declared.held[pattern.text] = Held("runtime", "$slots")
    return Statement("gone", node, pattern.text)


def _injected(declared: Declared, node: Node, pattern: Node, call: RuntimeCall) -> Statement:
    if pattern.type != "identifier" or not call.given:
        return declared._shared(node, pattern, call.node)
    name = pattern.text
    binding = declared.binding(name)
    refs = binding.references if binding is not None else []
    asked = [boxed(ref) is not None for ref in refs]
    if any(asked) and not all(asked):
        return declared._shared(node, pattern, call.node)
    declared.held[name] = Held("injected", name, any(asked))
    return Statement("injected", node, name, call=call)


def _element(declared: Declared, node: Node, pattern: Node, call: RuntimeCall) -> Statement:
    first = call.argument()
    name = property_name(first) if first is not None and first.type == "string" else None
    if pattern.type != "identifier" or name is None:
        return declared._shared(node, pattern, call.node)
    declared.held[pattern.text] = Held("element", name, True)
    return Statement("element", node, pattern.text, call=call)


def _of_input(declared: Declared, node: Node, pattern: Node, call: RuntimeCall) -> Statement:
    """`toRef(props, 'fares')`, `toRef(() => props.fares)` and `toRefs(props)`: inputs under other names."""
    first, second = bare(call.argument()), call.argument(1)
    holder = declared.held.get(first.text) if first is not None else None
    of_props = holder is not None and holder.kind == "props"
    if call.name == "toRefs" and of_props and pattern.type == "object_pattern":
        if declared.take_apart(pattern, "prop", boxed=True):
            return Statement("gone", node, ",".join(n.text for n in pattern.named_children))
    name = property_name(second) if second is not None and second.type == "string" else None
    if first is not None and first.is_function and second is None:
        body = first.child("body")
        asked = (
            body.child("object") if body is not None and body.type == "member_expression" else None
        )
        known = declared.held.get(asked.text) if asked is not None else None
        of_props = known is not None and known.kind == "props"
        name = (body.child("property") or body).text if of_props and body is not None else None
    if call.name == "toRef" and of_props and name and pattern.type == "identifier":
        declared.held[pattern.text] = Held("prop", name, True)
        return Statement("gone", node, pattern.text)
    return declared._shared(node, pattern, call.node)


def _watched(declared: Declared, node: Node, pattern: Node, call: RuntimeCall) -> Statement:
    """`const stop = watch(…)`: what ends it is kept in a field."""
    declared.held[pattern.text] = Held("field", pattern.text)
    return Statement("field", node, pattern.text, call.node)


_CALLS: dict[str, Callable[[Declared, Node, Node, RuntimeCall], Statement]] = {
    **dict.fromkeys(STATE, _state),
    **dict.fromkeys(INSTANCE, _instance),
    "computed": _derived,
    "readonly": _readonly,
    "shallowReadonly": _readonly,
    "defineProps": _props,
    "withDefaults": _props,
    "defineEmits": _emits,
    "defineModel": _model,
    "defineSlots": _slots,
    "inject": _injected,
    "useTemplateRef": _element,
    "toRef": _of_input,
    "toRefs": _of_input,
    "watch": _watched,
    "watchEffect": _watched,
    "watchPostEffect": _watched,
    "watchSyncEffect": _watched,
}  # fmt: skip
_STATEMENTS: dict[str, StatementKind] = {
    "watch": "watch",
    "provide": "provided",
    "defineProps": "props",
    "withDefaults": "props",
    "defineEmits": "emits",
    "defineExpose": "expose",
    "defineOptions": "options",
    "defineSlots": "slots",
}


_SOMETIMES = ("v-if", "v-else-if", "v-else", "v-for")


def element_names(source: SourceText, template: TemplateNode | None) -> dict[str, bool]:
    """The names a template gives its elements, and whether the element is always there."""
    found: dict[str, bool] = {}
    stack = [(node, True) for node in (template.children if template is not None else ())]
    while stack:
        node, always = stack.pop()
        always = always and not any(node.attribute(name) for name in _SOMETIMES)
        attribute = node.attribute("ref")
        if attribute is not None and attribute.value is not None:
            name = source.slice(*attribute.value)
            found[name] = always and name not in found
        inside = always and (node.tag.islower() and "-" not in node.tag)
        stack += [(child, inside) for child in node.children]
    return found


def is_written(binding: Binding | None) -> bool:
    """Whether a name is given another value, or its insides are changed."""
    refs = binding.references if binding is not None else ()
    return any(is_write(ref) or changes_insides(ref) for ref in refs)
