"""The names of a class that is written from a component with a template, and of what it sends."""

from __future__ import annotations

import re
from dataclasses import dataclass, field

from clean_carry.component.code import Member
from clean_carry.component.model import Component
from clean_carry.source.javascript.values import is_identifier

# Members that the runtime calls by their names, and those of every object.
_RESERVED = frozenset(
    "constructor toString valueOf hasOwnProperty ngOnChanges ngOnInit ngDoCheck ngAfterContentInit "
    "ngAfterContentChecked ngAfterViewInit ngAfterViewChecked ngOnDestroy".split()
)
# Events of the page that bubble, or that elements have: an output of such a name would be heard twice.
_OF_THE_PAGE = frozenset(
    "abort blur cancel change click close contextmenu copy cut dblclick drag dragend dragenter dragleave "
    "dragover dragstart drop error focus focusin focusout input invalid keydown keypress keyup load "
    "mousedown mouseenter mouseleave mousemove mouseout mouseover mouseup paste pointercancel pointerdown "
    "pointerenter pointerleave pointermove pointerout pointerover pointerup reset resize scroll search "
    "select submit toggle touchcancel touchend touchmove touchstart wheel".split()
)


def camel(name: str) -> str:
    """A name in one word: `row-picked` is `rowPicked`."""
    head, *rest = re.split(r"[-:.]+", name)
    return head + "".join(part[:1].upper() + part[1:] for part in rest)


def output_of(event: str) -> str:
    """The output for an event: in one word, and not called like an event of the page.

    The event for a new value of an input has the name by which a parent binds it both ways.
    """
    if event.startswith("update:"):
        return f"{camel(event.removeprefix('update:'))}Change"
    name = camel(event)
    if name not in _OF_THE_PAGE:
        return name
    return f"{name}{'d' if name.endswith('e') else 'ed'}" if name in _PAST else f"{name}Told"


# Events whose past tense is regular.
_PAST = frozenset("abort cancel change click close error focus load paste toggle scroll".split())


def class_name(name: str) -> str:
    """The name of a class for a component: in Pascal case."""
    words = "".join(word[:1].upper() + word[1:] for word in re.findall(r"[A-Za-z0-9$]+", name))
    return words if is_identifier(words) else f"Component{words}"


def tag_of(name: str, prefix: str) -> str:
    """The tag of a class: its words, behind the project's prefix or the usual one of applications."""
    words = re.sub(r"(?<=[a-z0-9])(?=[A-Z])|(?<=[A-Z])(?=[A-Z][a-z])", "-", name).lower()
    own = prefix or "app"
    return words if words.startswith(f"{own}-") else f"{own}-{words}"


@dataclass
class ClassNames:
    """Names of one class: members by what they are of, outputs by event; `taken` are all of them."""

    taken: set[str] = field(default_factory=lambda: set(_RESERVED))
    members: dict[Member, str] = field(default_factory=dict)
    outputs: dict[str, str] = field(default_factory=dict)
    made: dict[str, str] = field(default_factory=dict)

    def choose(self, wish: str, *others: str) -> str:
        """A name that is still free: `wish`, or else `other`, with a number if that is taken too."""
        for name in (wish, *others, *(f"{wish}{n}" for n in range(2, 99))):
            if name not in self.taken and is_identifier(name):
                self.taken.add(name)
                return name
        raise AssertionError(wish)

    def of(self, member: Member) -> str:
        """The name of a member."""
        if member not in self.members:
            plain = member.name.lstrip("_$") or member.name
            other = {
                "element": f"{plain}Element",
                "field": f"{plain}Box",
                "method": f"on{plain[:1].upper()}{plain[1:]}",
            }.get(member.kind, f"{plain}Value")
            self.members[member] = self.choose(camel(plain), camel(other))
        return self.members[member]

    def output(self, event: str) -> str:
        """The output that stands for an event."""
        if event not in self.outputs:
            name = output_of(event)
            self.outputs[event] = self.choose(name, f"{name}Event")
        return self.outputs[event]

    def helper(self, key: str, wish: str) -> str:
        """A member of the class that only new code needs."""
        if key not in self.made:
            self.made[key] = self.choose(wish, f"{wish}Here")
        return self.made[key]


def names_of(component: Component, events: list[str]) -> ClassNames:
    """The names of a class: what parents use keeps its own, then state and all else."""
    names = ClassNames()
    for prop in component.inputs.props:
        names.of(Member("prop", prop.name))
    for name in component.outward.exposed:
        if any(one.name == name for one in component.methods()):
            names.of(Member("method", name))
    for event in events:
        names.output(event)
    state = component.state
    for field_ in (state.fields or ()) if state is not None else ():
        names.of(Member("state", field_.name))
    for derived in component.derived:
        names.of(Member("derived", derived.name))
    for method in component.methods():
        names.of(Member("method", method.name))
    return names
