"""The members of a component whose markup was code, as statements of a script."""

from __future__ import annotations

from dataclasses import dataclass, field

from clean_carry.component.code import Code, Member
from clean_carry.component.fragment import (
    Fragment,
    between,
    copy,
    joined,
    new,
    settled,
    with_comments,
)
from clean_carry.component.members import (
    Derived,
    Effect,
    InstanceField,
    LeftMember,
    Method,
    Reducer,
    StateField,
    Static,
)
from clean_carry.component.model import Component, Prop
from clean_carry.component.moments import Moment, Previous
from clean_carry.source.javascript.values import is_identifier
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.single_file.names import input_name
from clean_carry.syntaxes.single_file_flat.from_code.effects import EffectWriter
from clean_carry.syntaxes.single_file_flat.from_code.spelling import CodeSpeller
from clean_carry.syntaxes.single_file_flat.write import MOMENTS as BY_MOMENT
from clean_carry.syntaxes.unsaid import Unsaid

# Code that runs before an element is removed still sees it, as in the family it comes from.
MOMENTS = {"displayed": BY_MOMENT["displayed"], "removed": BY_MOMENT["before removal"]}
_TYPES = {"String", "Number", "Boolean", "Function", "Array", "Object"}


@dataclass
class Statements:
    """Writes the statements of one component; raises `Unsaid` for what has no statement.

    `typed` says that the script has types; `notes` are what is to be known of what was written.
    """

    component: Component
    source: SourceText
    speller: CodeSpeller
    unit: str
    end: str
    quote: str
    last: str
    typed: bool
    notes: list[tuple[str, str, int]] = field(default_factory=list)

    def write(self) -> Fragment:
        """All of them, in the order values come to be."""
        component = self.component
        settle = Fragment()
        for entry in component.entries.values():
            settle += settled(entry, "class-to-statements")
        for _, entry, rule in component.place.moved:
            settle += settled(entry, rule)
        fields = [self._field(one) for one in component.fields if not one.element]
        elements = [self._element(one) for one in component.fields if one.element]
        derived = [self._derived(one) for one in component.derived]
        own = [m for m in component.methods() if not m.name.endswith("=")]
        getters = [self._method(m) for m in own if m.name in self.speller.computed]
        methods = [m for m in own if m.name not in self.speller.computed]
        functions = [self._method(m) for m in methods if m.form == "declared"]
        constants = [self._method(m) for m in methods if m.form != "declared"]
        made = [self._made(m) for m in component.moments("made")]
        effects = EffectWriter(
            self.speller, self.unit, self.end, self.quote, self._level, self.typed
        )
        later = []
        for one in component.members:
            if isinstance(one, Moment) and one.when != "made":
                later.append(self._moment(one))
            elif isinstance(one, Effect):
                later.append(self._noted(one.comments, effects.written(one)))
            elif isinstance(one, Reducer):
                functions.append(effects.dispatch(one))
        handing = self._handing()
        self._refuse_others()
        state = self._state()
        exposed = self._exposed()
        # Attributes that are no inputs go where the markup says, and nowhere by themselves.
        options = new(f"defineOptions({{ inheritAttrs: false }}){self.end}")
        if component.view.falls_through:
            options = Fragment()
        contract = self._contract()
        helpers = self._helpers()
        blocks = [
            options, contract, helpers, _lines(elements), state, _lines(fields), *getters, *derived,
            *constants, *functions, *self._told(), *handing, *made, *later, exposed,
        ]  # fmt: skip
        return settle + joined((b for b in blocks if b), "\n\n")

    def _refuse_others(self) -> None:
        component = self.component
        for member in component.members:
            if isinstance(member, LeftMember):
                raise Unsaid(member.rule, member.detail, member.span.start)
            if isinstance(member, Static) and (member.method or not is_identifier(member.name)):
                raise Unsaid("static-not-in-target", member.name, member.code.span.start)
        if component.context is not None:
            raise Unsaid("context-not-in-target", component.context.text, component.span.start)
        if component.inputs.defaults_kept is not None:
            kept = component.inputs.defaults_kept
            raise Unsaid(kept.rule, kept.detail, kept.at)
        if component.place.decorators or component.facts.looked_into or component.facts.handed_on:
            raise Unsaid("wrapped-in-target", component.name, component.span.start)

    def statics(self, written: frozenset[str]) -> Fragment:
        """Values of the component itself, as exports of the module; those that are `written` may change."""
        lines = []
        for one in self.component.statics:
            word = "let" if one.name in written else "const"
            head = new(f"export {word} {one.name} = ", one.entry, "static-to-export")
            text = head + self._level(one.code, 0) + new(self.end)
            lines.append(self._noted(one.comments, text))
            self.notes.append(("static-exported", one.name, one.code.span.start))
        return _lines(lines)

    # -- inputs and events ----------------------------------------------------------------------

    def _contract(self) -> Fragment:
        lines = []
        props = self._props()
        if props:
            lines.append(props)
        events = self.component.outward.events
        if events:
            q = self.quote
            names = ", ".join(f"{q}{event}{q}" for event in map(_event, events))
            local = self.speller.names.helper("emit")
            lines.append(new(f"const {local} = defineEmits([{names}]){self.end}"))
        return _lines(lines)

    def _props(self) -> Fragment:
        props = self.component.inputs.props
        if not props:
            return Fragment()
        used = "props" in self.speller.takes
        head = f"const {self.speller.names.helper('props')} = " if used else ""
        known = {prop.name: input_name(prop.name) for prop in props}
        for name, other in known.items():
            if other != name and (not is_identifier(other) or other in known):
                raise Unsaid("not-in-target", name, self.component.span.start)
        if self.typed and self.component.inputs.type_text and all(map(is_identifier, known)):
            return self._typed_props(head)
        if all(not p.kind and p.default is None and not p.required for p in props):
            names = ", ".join(f"{self.quote}{name}{self.quote}" for name in known.values())
            return new(f"{head}defineProps([{names}]){self.end}")
        inner = f"\n{self.unit}"
        parts = [new(f"{known[prop.name]}: ") + self._prop(prop) for prop in props]
        body = joined((part.shifted(0) for part in parts), f",{inner}")
        return new(f"{head}defineProps({{{inner}") + body + new(f"{self.last}\n}}){self.end}")

    def _prop(self, prop: Prop) -> Fragment:
        kind = prop.kind if prop.kind in _TYPES else ""
        said: list[Fragment] = [new(f"type: {kind or 'null'}")] if kind or not prop.default else []
        if prop.required and prop.default is None:
            said.append(new("required: true"))
        if prop.default is not None:
            said.append(new("default: ") + self._default(prop))
        elif kind == "Boolean" and not prop.required:
            # A boolean prop that is not given would be false here.
            said.append(new("default: undefined"))
        if len(said) == 1 and not prop.default:
            return new(kind or "null")
        return new("{ ") + joined(said, ", ") + new(" }")

    def _default(self, prop: Prop) -> Fragment:
        default = prop.default
        assert default is not None
        settle = settled(default.entry, "default-declared") if default.entry >= 0 else Fragment()
        for note in default.comments:
            settle += copy(note) + new(" ") if False else settled(-1, "")
        if default.text:
            return settle + new(default.text)
        if default.method:
            raise Unsaid("default-as-method", prop.name, default.code.span.start)
        code = self._level(default.code, 1)
        if default.kind in ("constant", "name"):
            return settle + code
        if default.kind == "function":
            # A function is taken for the value itself only where the input is declared one.
            return settle + (code if prop.kind == "Function" else new("() => ") + code)
        text = self.source.slice(default.code.span.start, default.code.span.end)
        return (
            settle
            + new("() => (" if text.startswith("{") else "() => ")
            + code
            + new(")" if text.startswith("{") else "")
        )

    def _typed_props(self, head: str) -> Fragment:
        type_text = self.component.inputs.type_text
        defaults = [prop for prop in self.component.inputs.props if prop.default is not None]
        flags = [
            prop.name
            for prop in self.component.inputs.props
            if prop.kind == "Boolean" and not prop.required and prop.default is None
        ]
        if not defaults and not flags:
            return new(f"{head}defineProps<{type_text}>(){self.end}")
        inner = f"\n{self.unit}"
        parts = [new(f"{_key(prop.name)}: ") + self._default(prop) for prop in defaults]
        parts += [new(f"{_key(name)}: undefined") for name in flags]
        if len(parts) == 1:
            inside = new("{ ") + parts[0] + new(" }")
        else:
            inside = new(f"{{{inner}") + joined(parts, f",{inner}") + new(f"{self.last}\n}}")
        return (
            new(f"{head}withDefaults(defineProps<{type_text}>(), ") + inside + new(f"){self.end}")
        )

    def _helpers(self) -> Fragment:
        if "attrs" in self.speller.takes:
            call = self.speller.run("useAttrs")
            return new(f"const {self.speller.names.helper('attrs')} = {call}(){self.end}")
        if "instance" in self.speller.takes:
            call = self.speller.run("getCurrentInstance")
            return new(f"const {self.speller.names.helper('instance')} = {call}(){self.end}")
        return Fragment()

    # -- what it holds --------------------------------------------------------------------------

    def _state(self) -> Fragment:
        state = self.component.state
        if state is None:
            return Fragment()
        if state.fields is None:
            raise Unsaid(
                "state-not-listed",
                "",
                state.whole.span.start if state.whole else self.component.span.start,
            )
        result = settled(state.entry, "state-to-references")
        for note in state.comments:
            result += copy(note) + new("\n")
        if self.speller.whole:
            return result + self._whole_state(list(state.fields))
        return result + _lines([self._reference(one) for one in state.fields])

    def _reference(self, one: StateField) -> Fragment:
        above = copy(one.comment) + new("\n") if one.comment is not None else Fragment()
        name = self.speller.names.of(Member("state", one.name))
        plain = one.code is None or _is_plain(self.source.slice(*one.code.span[:2]))
        call = self.speller.run("ref" if plain else "shallowRef")
        kind = self._type_of_state(one.name) if self.typed else ""
        if self.typed and one.type_text:
            kind = f"<{one.type_text}>"
        head = new(f"const {name} = {call}{kind}(", one.entry, "state-field-to-ref")
        value = self._level(one.code, 0) if one.code is not None else new("undefined")
        return above + head + value + new(f"){self.end}")

    def _type_of_state(self, name: str) -> str:
        kind = self.component.state.type_text if self.component.state is not None else ""
        return f"<{kind}['{name}']>" if is_identifier(kind) else ""

    def _whole_state(self, fields: list[StateField]) -> Fragment:
        parts = []
        for one in fields:
            above = (
                copy(one.comment) + new(f"\n{self.unit}") if one.comment is not None else Fragment()
            )
            value = self._level(one.code, 1) if one.code is not None else new("undefined")
            parts.append(
                above + new(f"{_key(one.name)}: ", one.entry, "state-field-to-part") + value
            )
        kind = (
            self.component.state.type_text
            if self.component.state is not None and self.typed
            else ""
        )
        kind = f"<{kind}>" if kind else ""
        head = f"const {self.speller.whole} = {self.speller.run('shallowReactive')}{kind}({{\n{self.unit}"
        return new(head) + joined(parts, f",\n{self.unit}") + new(f"{self.last}\n}}){self.end}")

    def _field(self, one: InstanceField) -> Fragment:
        name = self.speller.names.of(Member("field", one.name))
        settle = settled(one.entry, "field-to-variable") if one.entry >= 0 else Fragment()
        kind = f": {one.type_text}" if self.typed and one.type_text else ""
        if self.typed and one.code is None and not kind:
            kind = ": any"
        value = new(" = ") + self._level(one.code, 0) if one.code is not None else Fragment()
        written = one.name in self.written_fields
        word = "let" if written or one.code is None else "const"
        return self._noted(
            one.comments, settle + new(f"{word} {name}{kind}") + value + new(self.end)
        )

    written_fields: frozenset[str] = frozenset()

    def _element(self, one: InstanceField) -> Fragment:
        name = self.speller.names.of(Member("element", one.name))
        kind = f"<{one.type_text} | null>" if self.typed and one.type_text else ""
        settle = settled(one.entry, "element-reference") if one.entry >= 0 else Fragment()
        text = new(f"const {name} = {self.speller.run('ref')}{kind}(null){self.end}")
        return self._noted(one.comments, settle + text)

    # -- behaviour ------------------------------------------------------------------------------

    def _derived(self, one: Derived) -> Fragment:
        name = self.speller.names.of(Member("derived", one.name))
        head = new(
            f"const {name} = {self.speller.run('computed')}(() => ", one.entry, "local-to-computed"
        )
        text = self.source.slice(*one.text.span[:2])
        value = self._level(one.text, 1 if one.gives else 0)
        if one.gives:
            line = f"\n{self.unit}"
            end = "" if text.endswith(("}", ";")) else self.end
            value = new(f"{{{line}") + value + new(f"{end}{line}return {one.gives}{self.end}\n}}")
        if text.startswith("{") and one.returned is not None:
            value = new("(") + value + new(")")
        return self._noted(one.comments, head + value + new(f"){self.end}"))

    def _method(self, one: Method) -> Fragment:
        if one.shared is not None:
            raise Unsaid("not-in-target", one.name, one.text.span.start)
        name = self.speller.names.of(Member("method", one.name))
        if one.name in self.speller.computed:
            return self._noted(one.comments, self._computed(one, name))
        if one.form == "declared":
            opening = new(f"{one.prefix} {name}", one.entry, "method-to-function")
            return self._noted(one.comments, opening + self._level(one.text, 0))
        typed = one.prefix == "typed"
        head = new(f"const {name}" + ("" if typed else " = "), one.entry, "method-to-function")
        return self._noted(one.comments, head + self._level(one.text, 0) + new(self.end))

    def _computed(self, one: Method, name: str) -> Fragment:
        """A getter, with the setter of its name, as a value that is worked out."""
        text = new(
            f"const {name} = {self.speller.run('computed')}(", one.entry, "getter-to-computed"
        )
        setter = next((m for m in self.component.methods() if m.name == f"{one.name}="), None)
        if setter is None:
            return text + self._arrow(one, 0) + new(f"){self.end}")
        inner = f"\n{self.unit}"
        text += settled(setter.entry, "setter-to-computed")
        text += new(f"{{{inner}get: ") + self._arrow(one, 1) + new(f",{inner}set: ")
        return text + self._arrow(setter, 1) + new(f"{self.last}\n}}){self.end}")

    def _arrow(self, one: Method, depth: int) -> Fragment:
        """A method as an arrow function."""
        first = [o for o in one.text.operations if o.span.start < one.body_at]
        rest = [o for o in one.text.operations if o.span.start >= one.body_at]
        head = between(one.text.span._replace(end=one.body_at), first, self.speller.spell)
        body = between(one.text.span._replace(start=one.body_at), rest, self.speller.spell)
        return (head + new("=> ") + body).shifted(depth - self._levels(one.text.span.start))

    def _told(self) -> list[Fragment]:
        """Functions that are called once with an element, when it is added and when it is removed."""
        found = []
        one = f"\n{self.unit}"
        kind, given = (": Element | null", "el: any") if self.typed else ("", "el")
        for method, name in self.speller.told.items():
            last = self.speller.names.helper(f"{method}Last")
            text = f"let {last}{kind} = null{self.end}\n"
            text += f"function {name}({given}) {{{one}if (el === {last}) return{self.end}"
            text += f"{one}{last} = el{self.end}{one}{method}(el){self.end}\n}}"
            found.append(new(text))
        return found

    def _handing(self) -> list[Fragment]:
        """Return the call of a parent's refs for an element that is mounted or unmounted."""
        found = []
        one = f"\n{self.unit}"
        kind, given = (": any", "el: any") if self.typed else ("", "el")
        hand = self.speller.names.helper("handReference") if self.speller.handed else ""
        if hand:
            word = f"{self.quote}function{self.quote}"
            any_ = ": any" if self.typed else ""
            text = f"function {hand}(reference{any_}, el{any_}) {{{one}"
            text += f"if (typeof reference === {word}) reference(el){self.end}{one}"
            text += f"else if (reference) reference.current = el{self.end}\n}}"
            found.append(new(text))
        for name, local in self.speller.handed.items():
            value = self.speller.value(Member("prop", name))
            last = self.speller.names.helper(f"{local}Last")
            text = f"let {last}{kind} = null{self.end}\n"
            text += f"function {local}({given}) {{{one}if (el === {last}) return{self.end}"
            text += f"{one}{last} = el{self.end}{one}{hand}({value}, el){self.end}\n}}\n"
            text += f"{self.speller.run('watch')}(() => {value}, (now, before) => {{{one}"
            text += f"{hand}(before, null){self.end}{one}{hand}(now, {last}){self.end}\n"
            text += f"}}, {{ flush: {self.quote}post{self.quote} }}){self.end}"
            found.append(new(text))
        return found

    def _made(self, one: Moment) -> Fragment:
        head = settled(one.entry, "constructor-to-statements")
        return self._noted(
            one.comments, head + self._level(one.body, 0) + new(self.end * one.single_expression)
        )

    def _moment(self, one: Moment) -> Fragment:
        if one.when in MOMENTS:
            head = new(f"{self.speller.run(MOMENTS[one.when])}(", one.entry, "hook-to-call")
            arrow = "async () => " if one.asynchronous else "() => "
            return self._noted(
                one.comments, head + new(arrow) + self._body(one) + new(f"){self.end}")
            )
        if one.when == "updated":
            return self._noted(one.comments, self._updated(one))
        raise Unsaid("moment-not-in-target", one.when, one.body.span.start)

    def _body(self, one: Moment) -> Fragment:
        if one.expression:
            return self._level(one.body, 0)
        return new("{") + self._level(one.body, 0) + new("}")

    def _updated(self, one: Moment) -> Fragment:
        """Return code after a change: a watcher of the compared values, or of all that may change."""
        run = self.speller.run("watch")
        self._note_numbers(one)
        post = f"{{ flush: {self.quote}post{self.quote} }}"
        if one.guard is not None and len(one.guard.sources) == 1:
            source = one.guard.sources[0]
            value = self.speller.value(source)
            watched = self._watched(source, value)
            settle = settled(one.guard.entry, "guard-to-watch") + settled(
                one.entry, "hook-to-watch"
            )
            inner = one.guard.body.span
            for operation in one.body.operations:
                if not inner.start <= operation.span.start < inner.end:
                    settle += settled(operation.entry, "guard-to-watch")
            notes = Fragment()
            for note in one.guard.comments:
                notes += copy(note) + new("\n")
            body = self._level(one.guard.body, 0)
            return (
                notes
                + settle
                + new(f"{run}({watched}, () => {{")
                + body
                + new(f"}}, {post}){self.end}")
            )
        if not one.compares_only:
            # It runs after every render; here a render that changes nothing does not happen.
            raise Unsaid("runs-at-every-draw", "", one.body.span.start)
        props = self._before(one.previous_props, "prop")
        state = self._before(one.previous_state, "state")
        names = [one.previous_props.parameter if one.previous_props else "_props"]
        if one.previous_state:
            names.append(one.previous_state.parameter)
        sources = [props] + ([state] if one.previous_state or state else [])
        if not one.previous_props and one.previous_state:
            names[0] = "_"
        given = ", ".join(names)
        if one.previous_props and not one.previous_state:
            given = names[0]
        opening = f"{run}(\n{self.unit}() => [{', '.join(sources)}],\n{self.unit}"
        opening += f"{'async ' if one.asynchronous else ''}(_now, [{given}]) => "
        text = new(opening, one.entry, "hook-to-watch") + self._body(one).shifted(1)
        if one.guard is not None:
            text = settled(one.guard.entry, "", "kept") + text
        return text + new(f",\n{self.unit}{post}{self.last or ''}\n){self.end}")

    def _note_numbers(self, one: Moment) -> None:
        """Note that NaN differs from itself where it is compared, and is no change for a watcher."""
        numbers = {p.name for p in self.component.inputs.props if p.kind == "Number"}
        before = one.previous_props
        for name in before.names or () if before is not None else ():
            if name in numbers:
                self.notes.append(("compared-not-a-number", name, one.body.span.start))
                return

    def _watched(self, source: Member, value: str) -> str:
        if source.kind == "state" and not self.speller.whole:
            return self.speller.names.of(source)
        return f"() => {value}"

    def _before(self, previous: Previous | None, kind: str) -> str:
        """The inputs or the state as one object, which the old values come from."""
        if kind == "prop":
            if previous is None or previous.names is None:
                return f"{{ ...{self.speller.take('props')} }}"
            names = previous.names
        else:
            state = self.component.state
            every = tuple(f.name for f in (state.fields or ())) if state is not None else ()
            if previous is None and not every:
                return ""
            names = previous.names if previous is not None and previous.names is not None else every
        member = "prop" if kind == "prop" else "state"
        parts = [
            f"{_key(name)}: {self.speller.value(Member(member, name))}"  # type: ignore[arg-type]
            for name in names
        ]
        return f"{{ {', '.join(parts)} }}"

    def _exposed(self) -> Fragment:
        names = [
            name
            for name in self.component.outward.exposed
            if any(method.name == name for method in self.component.methods())
        ]
        others = [name for name in self.component.outward.exposed if name not in names]
        if others:
            raise Unsaid("reached-from-outside", ", ".join(others), self.component.span.start)
        if not names:
            return Fragment()
        parts = []
        for name in names:
            local = self.speller.names.of(Member("method", name))
            parts.append(name if name == local else f"{name}: {local}")
        return new(f"defineExpose({{ {', '.join(parts)} }}){self.end}")

    # -- text -----------------------------------------------------------------------------------

    def _noted(self, notes: tuple, line: Fragment) -> Fragment:  # type: ignore[type-arg]
        return with_comments(line, notes, lambda at: -self._levels(at), "\n")

    def _level(self, code: Code, depth: int) -> Fragment:
        return self.speller.code(code).shifted(depth - self._levels(code.span.start))

    def _levels(self, at: int) -> int:
        indent = self.source.indent_at(at).replace("\t", self.unit)
        return len(indent) // max(1, len(self.unit))


def _lines(parts: list[Fragment]) -> Fragment:
    return joined((part for part in parts if part), "\n")


def _key(name: str) -> str:
    return name if is_identifier(name) else f"'{name}'"


def _event(prop: str) -> str:
    return prop[2].lower() + prop[3:]


def _is_plain(text: str) -> bool:
    """Whether a value has no insides: what is inside of others stays as it is given."""
    return (
        text[:1] in "'\"`"
        or text in ("true", "false")
        or text.lstrip("-").replace(".", "").isdigit()
    )
