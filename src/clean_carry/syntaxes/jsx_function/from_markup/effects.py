"""Effects that follow what they read, as effects that name it."""

from __future__ import annotations

from dataclasses import dataclass, field

from clean_carry.component.code import Member
from clean_carry.component.fragment import Fragment, new, settled
from clean_carry.component.members import Followed
from clean_carry.syntaxes.jsx_function.from_markup.text import FunctionText
from clean_carry.syntaxes.unsaid import Unsaid


@dataclass
class EffectWriter(FunctionText):
    """Writes the effects of one component; raises `Unsaid` for one that writes what it reads."""

    notes: list[tuple[str, str, int]] = field(default_factory=list)

    def sources(self, one: Followed) -> list[Member]:
        """Return the members that an effect reads while it runs; refs and elements are not reactive."""
        found = self.speller.times.dependencies(one.text, deferred=False)
        return [member for member in found if member.kind not in ("field", "element")]

    def written(self, one: Followed) -> Fragment:
        """One effect as a statement."""
        sources, times = self.sources(one), self.speller.times
        told = {name for op in one.text.all() for name in times.told(op)}
        again = sorted(told & {name for m in sources for name in self._fields_behind(m)})
        at = one.text.span.start
        if again:
            raise Unsaid("not-in-target", f"an effect that writes what it reads: {again[0]}", at)
        if one.branching:
            self.notes.append(("effect-runs-more", ", ".join(m.name for m in sources), at))
        names = list(dict.fromkeys(self.speller.names.of(member) for member in sources))
        effect = self.speller.hook("useLayoutEffect")
        with self.speller.mode(drawing=False):
            text = self._level(one.text, 1)
        if one.expression:
            inner = f"{self.line}{self.unit}"
            text = new(inner) + text + new(f"{self.end}{self.line}")
        head = settled(one.entry, "effect-to-hook") + new(f"{effect}(() => {{")
        return self._noted(one.comments, head + text + new(f"}}, [{', '.join(names)}]){self.end}"))

    def _fields_behind(self, member: Member) -> set[str]:
        if member.kind == "derived":
            return self.speller.times.state_behind(member.name, frozenset())
        return {member.name} if member.kind == "state" else set()
