"""The signature of a function with markup: its parameters, their defaults, and their types."""

from __future__ import annotations

from dataclasses import dataclass, field

from clean_carry.component.code import Member, Read
from clean_carry.component.fragment import Fragment, joined, new, settled
from clean_carry.component.markup import SlotOutlet, walk
from clean_carry.component.members import Injected, Model
from clean_carry.component.model import Component, Prop
from clean_carry.source.javascript.script_style import ScriptStyle
from clean_carry.source.javascript.values import is_identifier
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.jsx_function.from_markup.spelling import Speller
from clean_carry.syntaxes.jsx_function.from_markup.types import props_type
from clean_carry.syntaxes.prop_types import type_of
from clean_carry.syntaxes.unsaid import Unsaid


@dataclass
class Signature:
    """Writes the signature of one component; raises `Unsaid`. `constants` are values of the module that
    defaults need."""

    component: Component
    speller: Speller
    source: SourceText
    style: ScriptStyle
    constants: Fragment = field(default_factory=Fragment)

    def __post_init__(self) -> None:
        self.unit, self.end = self.style.unit, self.style.semicolon

    def write(self, takes_root: bool) -> Fragment:
        names = self.speller.names
        parts: list[Fragment] = []
        models = {one.prop for one in self.component.members if isinstance(one, Model)}
        for prop in self.component.inputs.props:
            local = names.of(Member("prop", prop.name))
            key = prop.name if is_identifier(prop.name) else f"'{prop.name}'"
            head = new(key if key == local else f"{key}: {local}")
            # Whether a parent gives a value it binds both ways must be seen: its default stands elsewhere.
            default = Fragment() if prop.name in models else self._default(prop, local)
            parts.append(head + default)
        for part in self.component.members:
            if isinstance(part, Injected):
                parts.append(self._injected(part))
        parts += [new(local) for local in names.events.values()]
        for local in names.slots.values():
            parts.append(new(local))
        uses_others = takes_root or "others" in names.made
        if takes_root:
            parts.append(new("className"))
        if uses_others:
            parts.append(new(f"...{names.others}"))
        if not parts:
            return Fragment()
        flat = joined(parts, ", ")
        width = sum(
            len(p.text) if p.span is None else p.span.end - p.span.start for p in flat.pieces
        )
        if width + len(self.component.name) + 30 <= self.style.fit.width:
            return new("{ ") + flat + new(" }")
        last = "" if uses_others else self.style.last
        return new(f"{{\n{self.unit}") + joined(parts, f",\n{self.unit}") + new(f"{last}\n}}")

    def _injected(self, part: Injected) -> Fragment:
        """Return an injected value as a prop."""
        local = self.speller.names.of(Member("injected", part.name))
        head = new(part.name if part.name == local else f"{part.name}: {local}")
        if part.fallback is None:
            return head
        if part.made:
            raise Unsaid("context-not-in-target", part.key, part.fallback.span.start)
        with self.speller.mode(drawing=True):
            return head + new(" = ") + self.speller.code(part.fallback)

    def _default(self, prop: Prop, local: str) -> Fragment:
        default = prop.default
        if default is None:
            return new(" = false") if prop.kind == "Boolean" else Fragment()
        if "Boolean" in prop.kind and prop.kind != "Boolean":
            raise Unsaid("input-declaration", prop.name, default.code.span.start)
        settle = (
            settled(default.entry, "default-to-parameter") if default.entry >= 0 else Fragment()
        )
        with self.speller.mode(drawing=True):
            value = self.speller.code(default.code)
        if any(isinstance(one, Read) for one in default.code.operations):
            raise Unsaid("input-declaration", prop.name, default.code.span.start)
        if default.method or default.kind == "other":
            raise Unsaid("input-declaration", prop.name, default.code.span.start)
        if default.kind in ("constant", "name"):
            return new(" = ") + settle + value
        # The same list or object at every rendering, or whoever compares would see another one each time.
        name = self.speller.names.choose(f"NO_{_upper(local)}", f"EMPTY_{_upper(local)}")
        text = self.source.slice(default.code.span.start, default.code.span.end).strip()
        if text not in ("[]", "{}"):
            name = self.speller.names.choose(f"DEFAULT_{_upper(local)}", f"GIVEN_{_upper(local)}")
        levels = -len(self.source.indent_at(default.code.span.start)) // max(1, len(self.unit))
        held = value.shifted(levels)
        kind = f": {type_of(prop)}" if self.component.language.typed else ""
        self.constants += settle + new(f"const {name}{kind} = ") + held + new(f"{self.end}\n\n")
        return new(f" = {name}")

    def props_type(self, signature: Fragment, takes_root: bool) -> str:
        """The interface of what the function is given, in a file with types."""
        if not self.component.language.typed or not signature.pieces:
            return ""
        names, scoped = self.speller.names, self.scoped()
        slots = {name: (local, name in scoped) for name, local in names.slots.items()}
        others = takes_root or "others" in names.made
        given = f"{self.component.name}Props"
        return props_type(self.component, given, names.events, slots, others, self.unit, self.end)

    def scoped(self) -> set[str]:
        """The slots that are given values."""
        outlets = (n for n in walk(self.component.view.markup) if isinstance(n, SlotOutlet))
        return {node.name for node in outlets if node.given}


def _upper(name: str) -> str:
    return "".join(f"_{c}" if c.isupper() else c for c in name).upper()
