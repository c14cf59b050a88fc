"""Props, events, options beside the statements, and exposed members."""

from __future__ import annotations

from clean_carry.component.model import Default, Prop
from clean_carry.component.spans import Span
from clean_carry.source.javascript.tree import Node
from clean_carry.source.javascript.values import is_constant, property_name
from clean_carry.syntaxes.single_file.options.functions import parts_of
from clean_carry.syntaxes.single_file_flat.statements.calls import RuntimeCall, runtime_call
from clean_carry.syntaxes.single_file_flat.statements.name_meanings import Declared
from clean_carry.syntaxes.single_file_flat.statements.types import TypeReader
from clean_carry.syntaxes.uses import Uses

_MEMBERS = ("property_signature", "method_signature")


class InputReader:
    """Reads the macros of one script. `values` are those that stay as they are, by the option they are."""

    def __init__(self, declared: Declared, uses: Uses, types: TypeReader) -> None:
        self.declared, self.uses, self.types = declared, uses, types
        self.props: list[Prop] = []
        self.events: list[str] = []
        self.exposed: list[str] = []
        self.values: dict[str, Span] = {}

    # -- inputs ---------------------------------------------------------------------------------

    def names_of_inputs(self, call: RuntimeCall) -> list[str]:
        """The names a call of `defineProps` declares."""
        if call.name == "withDefaults":
            inner = runtime_call(call.argument(), self.declared.blocks.names)
            return self.names_of_inputs(inner) if inner is not None else []
        first = call.argument()
        if first is None:
            return [name for name, _, _ in self._typed(call) or ()]
        if first.type == "array":
            return [property_name(item) or "" for item in first.named_children]
        return [name or "" for name, _, _ in parts_of(first)]

    def inputs(self, call: RuntimeCall) -> None:
        """Read `defineProps`, also with defaults around it."""
        defaults = dict(self.declared.defaults)
        if call.name == "withDefaults":
            given = call.argument(1)
            inner = runtime_call(call.argument(), self.declared.blocks.names)
            if inner is None or given is None or given.type != "object":
                self.uses.refuse("input-declaration", call.node.text[:60], call.node.start)
                return
            for name, part, value in parts_of(given):
                if name is None or part.type != "pair":
                    self.uses.refuse("input-declaration", part.text[:60], part.start)
                    continue
                self.props.append(self._with_default(name, value, "factory"))
            call = inner
        first = call.argument()
        if first is None:
            self._from_types(call)
        elif first.type == "array":
            self._listed(first, defaults)
        elif first.type == "object":
            self._object(first, defaults)
        else:
            self.uses.refuse("input-declaration", first.text[:60], first.start)

    def _with_default(self, name: str, value: Node, method: str = "") -> Prop:
        uses = self.uses
        entry = uses.ledger.claim("input-default", uses.span(value))
        code = uses.code(uses.span(value))
        form = (
            "constant" if is_constant(value) and value.type not in ("array", "object") else "other"
        )
        return Prop(name, Default(code, form, entry, method=method), entry=entry)  # type: ignore[arg-type]

    def _listed(self, first: Node, defaults: dict[str, Node]) -> None:
        for item in first.named_children:
            name = property_name(item)
            if name is None:
                self.uses.refuse("input-declaration", item.text[:60], item.start)
                continue
            entry = self.uses.ledger.claim("input", self.uses.span(item), "kept")
            self.props.append(Prop(name, None, "", entry=entry))
        if defaults:
            self.uses.refuse("input-declaration", "a default of an input in a list", first.start)
        self.values["props"] = self.uses.span(first)

    def _object(self, first: Node, defaults: dict[str, Node]) -> None:
        for name, item, spec in parts_of(first):
            if name is None:
                self.uses.refuse("input-declaration", item.text[:60], item.start)
                continue
            kind, required = spec.text, False
            if spec.type == "object":
                parts = {key: value for key, _, value in parts_of(spec)}
                kind = parts["type"].text if "type" in parts else ""
                required = "required" in parts and parts["required"].text == "true"
            if name in defaults:
                prop = self._with_default(name, defaults[name])
                entry = self.uses.ledger.claim("input", self.uses.span(item))
                self.props.append(Prop(name, prop.default, spec.text, entry=entry))
                if spec.type == "object":
                    self.uses.refuse("input-declaration", item.text[:60], item.start)
                continue
            entry = self.uses.ledger.claim("input", self.uses.span(item), "kept")
            self.props.append(Prop(name, None, kind, "", required, entry))
        self.values["props"] = self.uses.span(first)

    def _typed(self, call: RuntimeCall) -> list[tuple[str, Node, TypeReader]] | None:
        """The members of the type a call is given: name, member, who reads its type."""
        types = call.node.child("type_arguments")
        given = types.named_children[0] if types is not None and types.named_children else None
        members = self.types.members(given) if given is not None else None
        if members is None:
            return None
        return [(property_name(m.child("name") or m) or "", m, reader) for m, reader in members]

    def _from_types(self, call: RuntimeCall) -> None:
        members = self._typed(call)
        if members is None or any(m.type not in _MEMBERS for _, m, _ in members):
            self.uses.refuse("type-not-followed", call.node.text[:60], call.node.start)
            return
        defaults = {prop.name: prop.default for prop in self.props}
        self.props = []
        for name, member, reader in members:
            annotation = member.child("type")
            given = annotation.named_children[0] if annotation is not None else None
            kind = "Function" if member.type == "method_signature" else None
            if given is not None:
                # A type of another file is called by what it is a part of.
                own = reader.tree is self.types.tree
                kind = reader.declared_type(
                    given, given.text if own else f"{call.type_text}['{name}']"
                )
            if kind is None:
                self.uses.refuse(
                    "type-not-followed", f"{name}: {member.text[:60]}", call.node.start
                )
                continue
            default = defaults.get(name)
            if name in self.declared.defaults:
                default = self._with_default(
                    name, self.declared.defaults[name], "destructured"
                ).default
            optional = member.has("?")
            self.props.append(Prop(name, default, kind, "", not optional))

    def model(self, call: RuntimeCall) -> None:
        """Read `defineModel`: an input, and the event that gives it back."""
        name, _ = model_parts(call)
        self.props.append(Prop(name, None, "", entry=-2))
        self.events.append(f"update:{name}")

    # -- events and what is exposed -----------------------------------------------------------------

    def emits(self, call: RuntimeCall) -> None:
        """Read `defineEmits`."""
        first = call.argument()
        if first is not None:
            if first.type == "array":
                self.events += [property_name(item) or "" for item in first.named_children]
            elif first.type == "object":
                self.events += [name or "" for name, _, _ in parts_of(first)]
            else:
                self.uses.refuse("unknown-option", "emits that are no list", first.start)
            self.values["emits"] = self.uses.span(first)
            return
        members = self._typed(call)
        if members is None:
            self.uses.refuse("type-not-followed", call.node.text[:60], call.node.start)
            return
        for name, member, _ in members:
            if member.type != "call_signature":
                self.events.append(name)
                continue
            words = self._first_words(member)
            if not words:
                self.uses.refuse("type-not-followed", member.text[:60], member.start)
            self.events += words

    def _first_words(self, signature: Node) -> list[str]:
        parameters = signature.child("parameters")
        first = parameters.named_children[0] if parameters and parameters.named_children else None
        annotation = first.child("type") if first is not None else None
        words = (
            [n for n in annotation.walk() if n.type == "string"] if annotation is not None else []
        )
        return [property_name(word) or "" for word in words]

    def options(self, call: RuntimeCall) -> None:
        """Read `defineOptions`."""
        first = call.argument()
        if first is None or first.type != "object":
            self.uses.refuse("unknown-option", call.node.text[:60], call.node.start)
            return
        for name, part, _ in parts_of(first):
            if (
                name is None
                or name in self.values
                or part.type not in ("pair", "method_definition")
            ):
                self.uses.refuse("unknown-option", part.text[:60], part.start)
                continue
            self.values[name] = self.uses.span(part)

    def expose(self, call: RuntimeCall) -> None:
        """Read `defineExpose`: members under their own names."""
        first = call.argument()
        for name, part, value in (
            parts_of(first) if first is not None and first.type == "object" else ()
        ):
            held = self.declared.held.get(value.text if part.type == "pair" else part.text)
            if name is None or held is None or held.member != name or held.kind not in _EXPOSED:
                self.uses.refuse("exposed-otherwise", part.text.split("\n")[0][:60], part.start)
                continue
            self.exposed.append(name)
        if first is None or first.type != "object":
            self.uses.refuse("exposed-otherwise", call.node.text[:60], call.node.start)


def model_parts(call: RuntimeCall) -> tuple[str, Node | None]:
    """The input that `defineModel` declares, and what it is declared as."""
    first = call.argument()
    if first is not None and first.type == "string":
        return property_name(first) or "", call.argument(1)
    return "modelValue", first


_EXPOSED = ("state", "derived", "method", "shared", "prop", "field")
