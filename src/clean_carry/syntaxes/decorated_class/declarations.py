"""Lists of declarations: of modules, and of tests that set one up."""

from __future__ import annotations

from collections.abc import Collection, Iterator, Mapping

from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.merged import Edit
from clean_carry.syntaxes.contract import Relinked
from clean_carry.syntaxes.decorated_class.recognise import decorated_in, property_of

_DECLARED, _IMPORTED = "declarations", "imports"


def stands_alone(tree: Tree, name: str) -> bool:
    """Whether a class of a script belongs to no module: all do that do not say otherwise."""
    one = next((each for each in decorated_in(tree) if each.name == name), None)
    told = property_of(one.options, "standalone") if one is not None else None
    return one is not None and (told is None or told.text != "false")


def imported_instead(tree: Tree, names: Collection[str]) -> Iterator[Edit]:
    """The edits by which lists of declarations give up classes that stand alone now: the list of imports
    beside each takes them in."""
    for literal in tree.of("object"):
        listed = property_of(literal, _DECLARED)
        if listed is None or listed.type != "array":
            continue
        moved = [one.text for one in listed.named_children if one.text in names]
        if not moved:
            continue
        kept = [one for one in listed.named_children if one.text not in names]
        taking = property_of(literal, _IMPORTED)
        if taking is None:
            text = f"{_IMPORTED}: [{', '.join(moved)}]"
            pair = listed.parent
            assert pair is not None
            if kept:
                yield from _without(tree, listed, names)
                yield Edit(pair.start, pair.start, f"{text},{_gap(tree, pair)}")
            else:
                yield Edit(pair.start, pair.end, text)
            continue
        yield from _without(tree, listed, names)
        if taking.type == "array":
            yield _with(tree, taking, moved)


def relinked(tree: Tree, taken: Mapping[str, tuple[Tree, str]]) -> Relinked:
    """The edits of a script for classes that it takes from new files, by their names in it: modules and
    tests import those that stand alone, and no longer declare them. A module cannot start with one."""
    alone = {name for name, (new, there) in taken.items() if stands_alone(new, there)}
    left = tuple(
        (
            f"{one.text} stands alone now, and a module cannot start the application with it",
            "Start it by a function: bootstrapApplication",
            one.start,
        )
        for literal in tree.of("object")
        for listed in [property_of(literal, "bootstrap")]
        for one in (listed.named_children if listed is not None else ())
        if one.text in alone
    )
    return Relinked(tuple(imported_instead(tree, alone)), left)


def _gap(tree: Tree, pair: Node) -> str:
    """The white space in front of a property."""
    data = tree.source.data
    start = pair.start
    while start and data[start - 1 : start] in (b" ", b"\n", b"\t"):
        start -= 1
    return tree.source.slice(start, pair.start) or " "


def _without(tree: Tree, listed: Node, names: Collection[str]) -> Iterator[Edit]:
    """A list without some of its parts; one that stood by itself in a line goes with the line."""
    parts = listed.named_children
    kept = [one for one in parts if one.text not in names]
    if not kept:
        yield _property_gone(listed)
        return
    for at, one in enumerate(parts):
        if one.text not in names:
            continue
        if at + 1 < len(parts):
            yield Edit(one.start, parts[at + 1].start, "")
            continue
        # A comma behind the last part stays.
        last = next(each for each in reversed(parts[:at]) if each.text not in names)
        yield Edit(last.end, one.end, "")


def _property_gone(value: Node) -> Edit:
    """The edit that takes a property away, with what parts it from the next one."""
    pair = value.parent
    assert pair is not None and pair.parent is not None
    pairs = pair.parent.named_children
    at = next(number for number, one in enumerate(pairs) if one.start == pair.start)
    if at + 1 < len(pairs):
        return Edit(pair.start, pairs[at + 1].start, "")
    return Edit(pairs[at - 1].end if at else pair.start, pair.end, "")


def _with(tree: Tree, listed: Node, names: list[str]) -> Edit:
    """A list with more parts at its end, in lines of their own where the others are."""
    parts = listed.named_children
    own = [one for one in names if one not in {each.text for each in parts}]
    if not parts:
        return Edit(listed.start, listed.end, f"[{', '.join(own)}]")
    gap = _gap(tree, parts[-1]) if len(parts) > 1 or "\n" in _gap(tree, parts[-1]) else " "
    text = "".join(f",{gap if gap.strip(' ') else ' '}{one}" for one in own)
    return Edit(parts[-1].end, parts[-1].end, text)
