"""Differences between copies, as props: values, conditions and lists, and where each stands."""

from __future__ import annotations

import re
from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field
from typing import Any

from clean_carry.crossing.lift.align import Part, Place
from clean_carry.crossing.lift.block import Block
from clean_carry.crossing.lift.code import is_code, is_open, named_alike
from clean_carry.crossing.lift.wording import (
    PLACING,
    attribute_name,
    camel,
    free,
    part_name,
    plural,
    state_name,
    text_name,
)
from clean_carry.source.css.declarations import declarations
from clean_carry.source.html.attributes import BOOLEAN
from clean_carry.source.html.display import BLOCKS, SPACE

Values = dict[Place, Any]


@dataclass
class Prop:
    """A prop with its value in each copy that has one. `type` is String, Boolean, Number or Array, and Any
    where a copy gives code."""

    name: str
    type: str
    values: Values
    required: bool = True
    # Whether it is a part of class names, and never a text.
    of_class: bool = False

    def as_json(self) -> dict[str, Any]:
        """The JSON shape: {"name", "type", "required"}."""
        return {"name": self.name, "type": self.type, "required": self.required}


@dataclass
class Looped:
    """A list: the expression that gives it, the name of an item, its key, and the plan of an item."""

    items: str
    name: str
    key: str
    plan: Plan


@dataclass
class Plan:
    """The props of a template, and what stands in place of what differs, by the part it stands in.

    Texts are expressions; attributes are (name, expression), with "" for attributes that stay as they are
    in the copied text; conditions and lists are as a template writes them.
    """

    props: list[Prop] = field(default_factory=list)
    texts: dict[int, str] = field(default_factory=dict)
    attributes: dict[int, list[tuple[str, str]]] = field(default_factory=dict)
    conditions: dict[int, str] = field(default_factory=dict)
    lists: dict[int, Looped] = field(default_factory=dict)


def planned(part: Part, renamed: Mapping[str, str] = {}) -> Plan:
    """The plan of a template; `renamed` gives props other names than those chosen here."""
    return _Planner(part, "", set(), renamed).plan


class _Planner:
    """Plans one template; `item` is the name of an item of a list, "" for a component."""

    def __init__(self, root: Part, item: str, taken: set[str], renamed: Mapping[str, str]) -> None:
        self.root, self.item, self.renamed = root, item, renamed
        self.taken = taken if item == "" else set()
        self.outer = taken
        self.plan = Plan()
        self.places = frozenset(root.blocks)
        self.used: list[tuple[Part, Prop]] = []
        # Texts have the best names; attributes with the same values share their props.
        self._texts(root)
        self._element(root)
        order = {id(part): at for at, part in enumerate(root.walk())}
        first: dict[str, int] = {}
        for part, prop in self.used:
            first[prop.name] = min(order[id(part)], first.get(prop.name, order[id(part)]))
        self.plan.props.sort(key=lambda prop: first[prop.name])
        for prop in self.plan.props:
            prop.required = prop.type != "Boolean" and self.places <= prop.values.keys()

    # -- props ---------------------------------------------------------------------------

    def _spelled(self, prop: Prop) -> str:
        return f"{self.item}.{prop.name}" if self.item else prop.name

    def _prop(
        self,
        part: Part,
        wishes: list[str],
        type_: str,
        values: Values,
        *,
        of_class: bool = False,
    ) -> Prop:
        """A new prop, or the one that has the same values in all copies."""
        for known in self.plan.props:
            if known.type == type_ and known.values == values and known.of_class == of_class:
                self.used.append((part, known))
                return known
        name = free(wishes, self.taken)
        made = Prop(self.renamed.get(name, name), type_, values, of_class=of_class)
        self.plan.props.append(made)
        self.used.append((part, made))
        return made

    # -- parts ---------------------------------------------------------------------------

    def _texts(self, part: Part) -> None:
        for child in part.children:
            if child.item is None and not child.tag:
                self._text(child, part)
            elif child.item is None:
                self._texts(child)

    def _element(self, part: Part) -> None:
        self._attributes(part)
        for child in part.children:
            if child.item is not None:
                self._list(child)
            elif child.tag:
                self._element(child)
            if child.optional and child.item is None:
                self._condition(child, part)

    def _text(self, part: Part, parent: Part) -> None:
        values = {place: shown_text(block.text) for place, block in part.blocks.items()}
        told = parent.optional or part.optional
        alone = len(parent.children) == 1 and told and len(values) < len(self.places)
        if _are_same(values.values()) and not alone:
            return
        if text_ends(part) is not None:
            values = {place: one.strip(SPACE) for place, one in values.items()}
        wishes = [named_alike(values.values()), *text_name(part, parent)]
        prop = self._prop(part, wishes, _type(values.values()), values)
        self.plan.texts[id(part)] = self._spelled(prop)

    def _condition(self, part: Part, parent: Part) -> None:
        """An optional part is shown where one of its values is given, or by a flag."""
        inside = {id(one) for one in part.walk()}
        for owner, prop in self.used:
            values = prop.values
            if id(owner) in inside and frozenset(values) == frozenset(part.blocks):
                if prop.type == "String" and all(values.values()):
                    self.plan.conditions[id(part)] = self._spelled(prop)
                    return
        name = part_name(part.base) if part.tag else "text"
        flags: Values = dict.fromkeys(part.blocks, True)
        wishes = [f"with{name[:1].upper()}{name[1:]}"]
        prop = self._prop(part, wishes, "Boolean", flags)
        self.plan.conditions[id(part)] = self._spelled(prop)

    def _list(self, part: Part) -> None:
        item = part.item
        assert item is not None
        if is_constant(part, self.places):
            return
        word = part_name(item.base)
        wish = word if word not in ("part", "active") else "item"
        around = item.base.parent
        holder = part_name(around) if around is not None else ""
        longer = f"{holder}{wish[:1].upper()}{wish[1:]}"
        item_name = free([wish, longer, f"{wish}Entry"], self.outer)
        plan = _Planner(item, item_name, self.outer, self.renamed).plan
        values: Values = {}
        only = plan.props[0] if len(plan.props) == 1 else None
        plain = only is not None and only.type == "String" and only.required
        if only is not None and plain:
            plan = _plain_items(plan, item_name, only.name)
            for place, run in part.runs.items():
                values[place] = [only.values[(*place, at)] for at in range(len(run))]
        for place, run in part.runs.items() if not plain else ():
            values[place] = [
                {
                    prop.name: prop.values[(*place, at)]
                    for prop in plan.props
                    if (*place, at) in prop.values
                }
                for at in range(len(run))
            ]
        for place in self.places - values.keys():
            values[place] = []
        wishes = [plural(item_name), f"{item_name}List"]
        if not plan.props and not plain:
            counts: Values = {place: len(items) for place, items in values.items()}
            prop = self._prop(part, [f"{item_name}Count"], "Number", counts)
            self.plan.lists[id(part)] = Looped(self._spelled(prop), item_name, item_name, plan)
            return
        prop = self._prop(part, wishes, "Array", values)
        if plain:
            unique = all(len(set(items)) == len(items) for items in values.values())
            key = item_name if unique else ""
        else:
            field = _key(values.values(), plan)
            key = f"{item_name}.{field}" if field else ""
        self.plan.lists[id(part)] = Looped(self._spelled(prop), item_name, key, plan)

    # -- attributes ----------------------------------------------------------------------

    def _attributes(self, part: Part) -> None:
        names = dict.fromkeys(
            name for block in (part.base, *part.blocks.values()) for name in block.attributes
        )
        found: list[tuple[str, str]] = []
        for name in names:
            if _HANDLER.match(name):
                continue
            values = {
                place: block.attributes[name]
                for place, block in part.blocks.items()
                if name in block.attributes
            }
            if len(values) == len(part.blocks) and _are_same(values.values()):
                continue
            code = self._attribute(part, name, values)
            if code:
                found.append((name, code))
        if found:
            self.plan.attributes[id(part)] = found

    def _attribute(self, part: Part, name: str, values: dict[Place, str | None]) -> str:
        if any(is_code(value) for value in values.values()):
            given: Values = {place: True if v is None else v for place, v in values.items()}
            if _LISTENER.match(name):
                wishes = [name]
            else:
                wishes = [named_alike(values.values()), *attribute_name(part, name, [])]
            return self._spelled(self._prop(part, wishes, "Any", given))
        if name == "class":
            return self._classes(part, values)
        if name == "style" and (written := self._style(part, values)):
            return written
        if any(value is None or value == "" for value in values.values()):
            if all(value is None or value in ("", name) for value in values.values()):
                flags: Values = dict.fromkeys(values, True)
                prop = self._prop(part, attribute_name(part, name, []), "Boolean", flags)
                spelled = self._spelled(prop)
                known = name.lower() in BOOLEAN
                return spelled if known else f"{spelled} ? '' : undefined"
        texts: Values = {place: value or "" for place, value in values.items()}
        for other in self.plan.props:
            if other.type == "String" and not other.of_class and _links(texts, other.values):
                self.used.append((part, other))
                return f"`#${{{self._spelled(other)}}}`"
        prop = self._prop(part, attribute_name(part, name, list(values.values())), "String", texts)
        return self._spelled(prop)

    def _classes(self, part: Part, values: dict[Place, str | None]) -> str:
        """The class names that all have, and what of the others differs, as one text."""
        given = {place: (values.get(place) or "").split() for place in part.blocks}
        every = [word for word in given[min(given)] if all(word in one for one in given.values())]
        other = {place: [w for w in words if w not in every] for place, words in given.items()}
        pieces: list[str] = []
        for word in dict.fromkeys(word for words in other.values() for word in words):
            state = state_name(word)
            if state is not None and any(word not in words for words in other.values()):
                flags: Values = {place: True for place, words in other.items() if word in words}
                prop = self._prop(part, [state], "Boolean", flags)
                lead = " " if every or pieces else ""
                pieces.append(f"${{{self._spelled(prop)} ? '{lead}{word}' : ''}}")
                other = {place: [w for w in words if w != word] for place, words in other.items()}
        if not any(other.values()) and not pieces:
            # The same names in another order.
            return ""
        if any(other.values()):
            lead = " " if every else ""
            pieces.insert(0, self._variant(part, other, lead=lead, alone=not (every or pieces)))
        text = " ".join(every) + "".join(pieces)
        simple = re.fullmatch(r"\$\{([\w.]+)\}", text)
        return simple[1] if simple else f"`{text}`"

    def _variant(self, part: Part, other: dict[Place, list[str]], *, lead: str, alone: bool) -> str:
        values: Values = {place: " ".join(words) for place, words in other.items() if words}
        stem = _stem(values.values()) if len(values) == len(other) else ""
        short: Values = {place: text[len(stem) :] for place, text in values.items()}
        wishes = attribute_name(part, "class", [f"{stem}{one}" for one in short.values()])
        word = stem.rstrip("-").rpartition("-")[2]
        if part is not self.root and len(word) > 2 and word not in PLACING:
            wishes = [camel(word), *wishes]
        prop = self._prop(part, wishes, "String", short, of_class=True)
        spelled = self._spelled(prop)
        if len(values) == len(other) or alone:
            return f"{lead}{stem}${{{spelled}}}"
        return f"${{{spelled} ? `{lead}${{{spelled}}}` : ''}}"

    def _style(self, part: Part, values: dict[Place, str | None]) -> str:
        """An object of the style's properties; "" where no object says the same."""
        parsed = {place: _declared(value or "") for place, value in values.items()}
        names = list(dict.fromkeys(name for one in parsed.values() for name in one))
        if not names or any(
            "!important" in text for one in parsed.values() for text in one.values()
        ):
            return ""
        pairs = []
        for name in names:
            texts: Values = {place: one[name] for place, one in parsed.items() if name in one}
            if len(texts) == len(part.blocks) and len(set(texts.values())) == 1:
                value = "'" + texts[min(texts)].replace("'", "\\'") + "'"
            else:
                value = self._spelled(
                    self._prop(part, attribute_name(part, name, []), "String", texts)
                )
            pairs.append(f"{_property(name)}: {value}")
        return "{ " + ", ".join(pairs) + " }"


_HANDLER = re.compile(r"on[a-z]+$")
_LISTENER = re.compile(r"on[A-Z]")


def _are_same(values: Iterable[Any]) -> bool:
    """Whether all copies have one value, and one that belongs to nothing around them."""
    every = set(values)
    return len(every) == 1 and not is_open(next(iter(every)))


def _type(values: Iterable[Any]) -> str:
    return "Any" if any(map(is_code, values)) else "String"


def shown_text(text: str) -> str:
    """A text as a page shows it: white space collapsed, one space kept at either end."""
    return re.sub(r"[ \t\n\f\r]+", " ", text)


def text_ends(part: Part) -> tuple[bool | None, bool | None] | None:
    """Whether white space shows before and behind a text, None where nobody sees it; None for both where
    the copies differ in it, so that it is part of the values.

    At either end of a block nobody sees white space (CSS Text 3, §4.1.2).
    """
    found: list[bool | None] = []
    for at in (0, -1):
        seen = set()
        for block in part.blocks.values():
            parent = block.parent
            if parent is None or parent.tag not in BLOCKS or parent.children[at] is not block:
                seen.add(shown_text(block.text)[at:][:1] == " ")
        if len(seen) > 1:
            return None
        found.append(seen.pop() if seen else None)
    return found[0], found[1]


def _plain_items(plan: Plan, item: str, field_name: str) -> Plan:
    """The plan of items that are their only field."""
    spelled = re.compile(rf"\b{item}\.{field_name}\b")
    return Plan(
        [],
        {at: spelled.sub(item, code) for at, code in plan.texts.items()},
        {
            at: [(name, spelled.sub(item, code)) for name, code in codes]
            for at, codes in plan.attributes.items()
        },
        {at: spelled.sub(item, code) for at, code in plan.conditions.items()},
        plan.lists,
    )


def odd_spaces(part: Part) -> set[Place]:
    """The copies in which white space shows where it does not in most others, or the other way round.

    Nobody sees white space beside a block, nor at either end of one.
    """
    odd: set[Place] = set()
    for one in part.walk():
        if not one.tag or one.item is not None:
            continue
        for child in one.children:
            seen: dict[tuple[bool, bool], list[Place]] = {}
            for place, block in child.blocks.items():
                seen.setdefault(_shown_spaces(block), []).append(place)
            for places in sorted(seen.values(), key=len)[:-1]:
                odd.update(place[:1] for place in places)
    return odd


def _shown_spaces(block: Block) -> tuple[bool, bool]:
    parent = block.parent
    assert parent is not None
    inline = parent.tag not in BLOCKS
    at = next(n for n, one in enumerate(parent.children) if one is block)
    if block.tag in BLOCKS:
        return False, False
    before = parent.children[at - 1] if at else None
    shown = inline if before is None else before.tag not in BLOCKS
    last = at == len(parent.children) - 1
    return block.space_before and shown, block.space_behind and last and inline


def is_constant(part: Part, places: frozenset[Place]) -> bool:
    """Whether a list is the same in all copies, so that it is no prop."""
    runs = list(part.runs.values())
    if part.runs.keys() != places or len({len(run) for run in runs}) > 1:
        return False
    return all(_same(one, first) for run in runs for one, first in zip(run, runs[0], strict=True))


def _same(a: Block, b: Block) -> bool:
    return (
        a.key == b.key
        and a.attributes == b.attributes
        and shown_text(a.text) == shown_text(b.text)
        and not any(map(is_open, (a.text, *a.attributes.values())))
        and all(_same(x, y) for x, y in zip(a.children, b.children, strict=True))
    )


def _key(lists: Iterable[list[dict[str, Any]]], plan: Plan) -> str:
    """The field that tells the items of each list apart; "" where none does."""
    every = list(lists)
    for prop in plan.props:
        if prop.type == "String" and all(
            len({item.get(prop.name) for item in items}) == len(items)
            and all(item.get(prop.name) for item in items)
            for items in every
        ):
            return prop.name
    return ""


def _links(texts: Values, known: Values) -> bool:
    """Whether texts are links to the ids that a prop gives: `#fares` for `fares`."""
    return texts.keys() == known.keys() and all(
        texts[place] == f"#{known[place]}" for place in texts
    )


def _stem(texts: Iterable[str]) -> str:
    """The start up to a dash that single class names share: `bg-` of `bg-info` and `bg-danger`."""
    every = list(texts)
    if any(" " in one for one in every):
        return ""
    stem = every[0].rpartition("-")[0] + "-"
    while len(stem) > 1 and not all(one.startswith(stem) and len(one) > len(stem) for one in every):
        stem = stem[:-1].rpartition("-")[0] + "-"
    return stem if len(stem) > 1 else ""


def _declared(text: str) -> dict[str, str]:
    return {
        name: f"{value} !important" if important else value
        for name, value, important in declarations(text)
    }


def _property(name: str) -> str:
    if name.startswith("--"):
        return f"'{name}'"
    return re.sub(r"-([a-z])", lambda found: found[1].upper(), name)
