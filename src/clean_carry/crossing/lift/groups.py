"""Groups of blocks that repeat: which a developer would lift, and why the others not."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable
from dataclasses import dataclass, field
from functools import cached_property

from clean_carry.crossing.lift.align import aligned, looseness
from clean_carry.crossing.lift.block import Block, alike_placed, compatible, likeness
from clean_carry.source.html.display import KEEP_SPACE

# Blocks from this likeness on are copies of one.
ALIKE = 0.72
# A copy has so many elements where there are three or more of it, or two.
_LEAST, _LEAST_OF_TWO = 2, 6
# A container of a list gives way to its items where it has fewer elements of its own.
_OWN = 4
# Items of a list that have so many elements at most are part of the list's container.
_SMALL = 3
# Elements that are no block of their own: parts of texts, tables, forms and of the page.
_NEVER = frozenset(
    (
        "html body head td th thead tbody tfoot colgroup option optgroup p h1 h2 h3 h4 h5 h6 dt dd "
        "b i strong "
        "em small code sup sub br hr img input textarea main script style template svg path g address"
    ).split()
)
_CONTAINERS = frozenset("ul ol nav dl".split())
# Elements that show something without text in them.
_SHOWN = frozenset("img input textarea select video iframe canvas picture audio table".split())
# Class names of what only holds columns.
_FRAMES = frozenset({"row", "container", "container-fluid", "wrapper"})
_WORDS = frozenset("b strong em small code i span sup sub".split())
_INLINE = frozenset("a span button label b strong em small code".split())


@dataclass
class Group:
    """Blocks that align. `reason` says why a group is not lifted; "" where it is."""

    copies: list[Block]
    reason: str = ""
    name: str = ""
    # How many copies stand inside of copies of lifted groups.
    held: int = 0
    # The groups whose copies stand in lists inside of copies of this one.
    inner: list[Group] = field(default_factory=list)

    @property
    def lifted(self) -> bool:
        """Whether the group is lifted."""
        return not self.reason

    @cached_property
    def largest(self) -> int:
        """The elements of the largest copy."""
        return max(one.size for one in self.copies)

    @property
    def saved(self) -> int:
        """The elements that need not be written again."""
        return sum(one.size for one in self.copies[1:])


def find_groups(roots: Iterable[Block], *, least: int = 2) -> list[Group]:
    """The groups of alike blocks below some roots, those first that save most; `least` copies at least.

    Groups that are not lifted have a reason; of those that are, none is a fixed part of another one.
    """
    found = [Group(copies) for copies in _clusters(roots) if len(copies) > 1]
    for group in found:
        group.reason = _too_little(group.copies, least)
    for group in found:
        group.reason = group.reason or _loose(group)
    rest = [group for group in found if group.lifted]
    _choose_levels(rest)
    return sorted(found, key=lambda group: (not group.lifted, -group.saved))


def _clusters(roots: Iterable[Block]) -> list[list[Block]]:
    """Blocks by what they are alike to: each joins the first leader that it is like enough."""
    leaders: dict[tuple[str, str], list[list[Block]]] = defaultdict(list)
    by_key: dict[int, list[Block]] = {}
    found: list[list[Block]] = []
    for root in roots:
        for one in root.walk():
            if not one.tag or one.tag in _NEVER or one.size < _LEAST or one.parent is None:
                continue
            if not one.tag[0].islower() or "." in one.tag:
                # A use of a component, or code around markup.
                continue
            if _is_head(one) or (not one.names and not _FRAMES.isdisjoint(one.classes)):
                continue
            same = by_key.get(one.key)
            if same is None:
                same = _joined(one, leaders)
                if same is None:
                    same = []
                    found.append(same)
                    for mark in _marks(one):
                        leaders[mark].append(same)
                by_key[one.key] = same
            # A block within a copy of the same group is part of that copy.
            if not same or not _is_inside(one, same):
                same.append(one)
    return found


def _marks(one: Block) -> list[tuple[str, str]]:
    """The marks that alike blocks share: the tag, with each name of what it is."""
    cells = f"{len(one.elements)} cells" if one.tag == "tr" else ""
    return [(one.tag, name) for name in sorted(one.names)] or [(one.tag, cells)]


def _joined(one: Block, leaders: dict[tuple[str, str], list[list[Block]]]) -> list[Block] | None:
    best, most = None, ALIKE
    seen: set[int] = set()
    for mark in _marks(one):
        for cluster in leaders[mark][-_MOST_LEADERS:]:
            if id(cluster) in seen:
                continue
            seen.add(id(cluster))
            leader = cluster[0]
            low, high = sorted((leader.weight, one.weight))
            if 2 * low / (low + high) <= most or not (
                compatible(leader, one) and alike_placed(leader, one)
            ):
                continue
            like = likeness(leader, one)
            if like > most:
                best, most = cluster, like
    return best


_MOST_LEADERS = 16


def _is_head(one: Block) -> bool:
    return one.tag == "tr" and one.parent is not None and one.parent.tag == "thead"


def _is_inside(one: Block, copies: list[Block]) -> bool:
    last = copies[-1]
    return any(around is last for around in one.above())


def _too_little(copies: list[Block], least: int) -> str:
    """Why so few or so small blocks are not lifted; "" where they are enough."""
    size = max(one.kinds for one in copies)
    if len(copies) < least:
        return f"there are {len(copies)} copies, and {least} are asked for"
    if len(copies) == 2 and size < _LEAST_OF_TWO:
        return f"two copies of {size} elements save little"
    if any(part.tag in KEEP_SPACE and part.children for one in copies for part in one.walk()):
        return "it holds a text in which white space counts"
    stays = next((part.stays for one in copies for part in one.walk() if part.stays), "")
    if any(part.conditional for one in copies for part in one.walk() if part is not one):
        stays = stays or "conditions or loops of its own"
    if stays:
        return f"it holds {stays}"
    if 2 * sum(map(_shows, copies)) <= len(copies):
        return "most of it shows neither text nor a field or picture"
    if all(_places(one) and _only_child(one) and one.tag != "li" for one in copies):
        return "it only places what is in it"
    if all(map(_is_line, copies)):
        return "it is a line of text"
    return ""


def _is_line(one: Block) -> bool:
    child = _only_child(one)
    return child is not None and child.tag in _WORDS and not child.elements


def _loose(group: Group) -> str:
    """Whether the copies are alike only around content that differs."""
    kinds = {one.key: one for one in group.copies}
    sample = list(kinds.values())[:_SAMPLE]
    most = _LOOSE if len(group.copies) > 2 else _LOOSE_OF_TWO
    if looseness(aligned({(at,): one for at, one in enumerate(sample)})) >= most:
        return "its copies are alike only around content that differs"
    return ""


# A template of which so much is one thing or another is no block; so many kinds of copies are looked at.
_LOOSE, _LOOSE_OF_TWO = 0.3, 0.1
_SAMPLE = 40


def _shows(one: Block) -> bool:
    return any(not part.tag or part.tag in _SHOWN for part in one.walk())


# -- which level -------------------------------------------------------------------------


def _choose_levels(groups: list[Group]) -> None:
    """Give groups that stand inside of others, or around them, their reason not to be lifted."""
    of: dict[int, Group] = {id(one): group for group in groups for one in group.copies}
    by_size = sorted(groups, key=lambda g: g.largest)
    for group in by_size:
        _strip(group, of)
    for group in by_size:
        if group.lifted:
            _contain(group, of)
    for group in reversed(by_size):
        if group.lifted:
            _within(group, of)


def _strip(group: Group, of: dict[int, Group]) -> None:
    """A wrapper that only places a block stays with the page."""
    placed = 0
    filled: dict[int, tuple[Group, int]] = {}
    for one in group.copies:
        child = _only_child(one)
        inner = of.get(id(child)) if child is not None else None
        if child is None or inner is None or not inner.lifted:
            continue
        if one.tag == "li" and child.tag in _INLINE:
            filled[id(inner)] = (inner, filled.get(id(inner), (inner, 0))[1] + 1)
        elif _places(one):
            placed += 1
    if placed >= _MOST * len(group.copies):
        group.reason = "it places another block that is lifted"
    for inner, count in filled.values():
        if 2 * count >= len(inner.copies):
            inner.reason = "it fills a list item that is lifted"


# A property of so many copies is a property of the group.
_MOST = 0.8


def _only_child(one: Block) -> Block | None:
    return one.elements[0] if len(one.children) == 1 and one.elements else None


def _places(one: Block) -> bool:
    """Whether an element only places its content: it is a column, or has no names of its own."""
    is_column = any(name.startswith("col-") for name in one.classes)
    return one.tag in ("div", "li", "section", "span") and (is_column or not one.names)


def _contain(group: Group, of: dict[int, Group]) -> None:
    """Of a container and the items of its list one is lifted."""
    hollow = 0
    small: dict[int, Group] = {}
    for copy in group.copies:
        listed, rest = _items(copy, group, of)
        for inner in listed:
            if _is_list(copy) and inner.largest <= _SMALL and len(group.copies) > 2:
                small[id(inner)] = inner
        if listed and not small and len(rest) <= _OWN and not any(map(_is_content, rest)):
            hollow += 1
    if hollow >= _MOST * len(group.copies):
        group.reason = "it only holds a list of another block that is lifted"
        return
    for inner in small.values():
        inner.reason = f"it is an item of a list in <{group.copies[0].tag}>, which is lifted"


def _is_content(one: Block) -> bool:
    return one.tag in _SHOWN or any(not child.tag for child in one.children)


def _items(copy: Block, group: Group, of: dict[int, Group]) -> tuple[list[Group], list[Block]]:
    """The lifted groups of which a copy holds two or more, and the elements beside those."""
    inside: dict[int, list[Block]] = defaultdict(list)
    stack = list(copy.elements)
    while stack:
        part = stack.pop()
        other = of.get(id(part))
        if other is not None and other is not group and other.lifted:
            inside[id(other)].append(part)
        else:
            stack += part.elements
    covered: set[int] = set()
    found = []
    for parts in inside.values():
        if len(parts) > 1:
            found.append(of[id(parts[0])])
            for part in parts:
                covered |= {id(one) for one in part.walk()}
                for around in part.above():
                    if around is copy or _only_child(around) is None:
                        break
                    covered.add(id(around))
    return found, [one for one in copy.walk() if one.tag and id(one) not in covered]


def _is_list(copy: Block) -> bool:
    """Whether a block is a container of items in HTML's own terms, or a `nav` around one."""
    inner = _only_child(copy)
    return copy.tag in _CONTAINERS or (inner is not None and inner.tag in _CONTAINERS)


def _within(group: Group, of: dict[int, Group]) -> None:
    """Groups whose copies are fixed parts of lifted ones are not lifted; items of their lists are."""
    inside: dict[int, list[Block]] = defaultdict(list)
    for copy in group.copies:
        for part in copy.walk():
            other = of.get(id(part))
            if other is not None and other is not group and other.lifted:
                inside[id(other)].append(part)
    for parts in inside.values():
        other = of[id(parts[0])]
        other.held += len(parts)
        if other.largest >= _SMALL and _is_listed(parts, group):
            group.inner.append(other)
        elif other.held >= (_MOST if parts[0].tag not in _INLINE else 0.5) * len(other.copies):
            other.reason = "it is a part of another block that is lifted"


def _is_listed(parts: list[Block], group: Group) -> bool:
    """Whether copies hold several of these parts, not each the same small number."""
    held = {id(copy): 0 for copy in group.copies}
    for one in parts:
        holder = next((id(around) for around in one.above() if id(around) in held), None)
        if holder is not None:
            held[holder] += 1
    counts = list(held.values())
    return max(counts) > 1 and (len(set(counts)) > 1 or counts[0] > 2)
