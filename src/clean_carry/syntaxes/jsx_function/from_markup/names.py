"""The names of a function that is written from a component with a template: all of them meet in its one
scope."""

from __future__ import annotations

import re
from dataclasses import dataclass, field
from typing import TYPE_CHECKING

from clean_carry.component.code import Member
from clean_carry.component.model import Component
from clean_carry.source.javascript.values import is_identifier
from clean_carry.syntaxes.jsx_function.from_markup.events import event_property, pascal
from clean_carry.syntaxes.naming import Edits

if TYPE_CHECKING:
    from clean_carry.syntaxes.jsx_function.from_markup.spelling import Speller


@dataclass
class Names:
    """Names of one component; `taken` are those of the module, of the world and of locals. Events and slots
    are inputs: `events` and `slots` say under which names."""

    edits: Edits
    taken: set[str]
    members: dict[Member, str] = field(default_factory=dict)
    events: dict[str, str] = field(default_factory=dict)
    slots: dict[str, str] = field(default_factory=dict)
    made: dict[str, str] = field(default_factory=dict)
    after_used: bool = False
    redraw_used: bool = False

    def choose(self, wish: str, other: str) -> str:
        """A name that is still free: `wish`, or else `other`, with a number if that is taken too."""
        for name in (wish, other, f"{other}Here", *(f"{other}{n}" for n in range(2, 99))):
            if name not in self.taken and is_identifier(name):
                self.taken.add(name)
                return name
        raise AssertionError(wish)

    def _made(self, key: str, wish: str, other: str) -> str:
        if key not in self.made:
            self.made[key] = self.choose(wish, other)
        return self.made[key]

    def of(self, member: Member) -> str:
        """The name of a member."""
        if member not in self.members:
            plain = member.name.lstrip("_$") or member.name
            wish = {"element": f"{plain}Ref", "field": f"{plain}Box"}.get(
                member.kind, f"{plain}Value"
            )
            self.members[member] = self.choose(plain, wish)
        return self.members[member]

    def setter(self, name: str) -> str:
        """Return the setter of a state field."""
        return self._made(f"set {name}", f"set{pascal(name)}", f"write{pascal(name)}")

    def now(self, name: str) -> str:
        """The box of a field's newest value."""
        return self._made(f"now {name}", f"{name}Now", f"{name}NowBox")

    def reader(self, name: str) -> str:
        """Return the function that computes a derived value anew."""
        return self._made(f"read {name}", f"read{pascal(name)}", f"work{pascal(name)}")

    @property
    def latest(self) -> str:
        """The box of the newest inputs."""
        return self._made("latest", "latest", "latestInputs")

    @property
    def listeners(self) -> str:
        """The box of the newest listeners."""
        return self._made("listeners", "listeners", "newestListeners")

    @property
    def reference(self) -> str:
        """The reference a parent gives."""
        return self._made("reference", "ref", "ownRef")

    @property
    def others(self) -> str:
        """The inputs that are not declared."""
        return self._made("others", "others", "otherInputs")

    def after(self, speller: Speller) -> str:
        """Return the function that calls back after the next render."""
        self.after_used = True
        speller.helper("useAfterRender")
        return self._made("after", "afterRender", "onceRendered")

    def redraw(self, speller: Speller) -> str:
        """Return the function that re-renders the component."""
        speller.hook("useReducer")
        self.redraw_used = True
        return self._made("redraw", "rerender", "renderAgain")

    def event(self, event: str) -> str:
        """The input that is called for an event."""
        return self.events.get(event, event_property(event))

    def slot(self, name: str) -> str:
        """The input that holds the content of a slot."""
        return self.slots.get(name, name or "children")


def function_name(name: str) -> str:
    """The name of a component's function: in Pascal case, since an element of a lower one is the page's."""
    if is_identifier(name) and not name[0].islower():
        return name
    words = "".join(word[:1].upper() + word[1:] for word in re.findall(r"[A-Za-z0-9$]+", name))
    return words if is_identifier(words) else f"Component{words}"


def names_of(component: Component, edits: Edits, taken: set[str]) -> Names:
    """The names of a component; inputs keep theirs."""
    names = Names(edits, taken)
    for prop in component.inputs.props:
        if prop.name in taken or not is_identifier(prop.name):
            other = names.choose(f"{prop.name}Input", f"given{pascal(prop.name)}")
            names.members[Member("prop", prop.name)] = other
        else:
            taken.add(prop.name)
            names.members[Member("prop", prop.name)] = prop.name
    return names
