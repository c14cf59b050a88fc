"""Uses of a component that a bridge would not render alike: what they pass does not cross it."""

from __future__ import annotations

from collections.abc import Iterator

from clean_carry.project.index.links import Index
from clean_carry.project.passed import Passed, passed_at
from clean_carry.project.walk.edits import Left
from clean_carry.project.walk.pairs import Pair

_WHAT = {
    "slot": "the named slot {name} does not cross a bridge",
    "elements": "content that holds elements does not cross a bridge",
    "ref": "a reference to the component does not cross a bridge",
}


def uncrossable(index: Index, pair: Pair) -> dict[str, list[Left]]:
    """The uses that a bridge cannot serve, by the file that imports the old component for them.

    A bridge passes props, events and text. Where a use stands in a file that takes the component from
    another one, all files that export the old file onward are named as well.
    """
    old = pair.old.as_posix()
    importing = {
        file: any(one.how == "re-export" for one in taken)
        for file, facts in index.files.items()
        if (taken := [one for one in facts.imports if index.resolve(one.request, file) == old])
    }
    found: dict[str, list[Left]] = {}
    for use in _left_uses(index, pair):
        through = [file for file, is_passed_on in importing.items() if is_passed_on]
        for file in [use.file] if use.file in importing else through:
            found.setdefault(file, []).append(use)
    return found


def _left_uses(index: Index, pair: Pair) -> Iterator[Left]:
    users = [
        use
        for key in index.in_file(pair.old.as_posix())
        for use in index.components[key].users
        if use.file not in pair.own
    ]
    for one in passed_at(users):
        what = _kind(one)
        if what:
            advice = f"Carry this user first, or render {pair.new.name} in it by hand"
            yield Left(one.use.file, one.line, _WHAT[what].format(name=one.name), advice)


def _kind(one: Passed) -> str:
    if one.kind == "slot":
        if one.name not in ("children", "default"):
            return "slot"
        return "" if one.is_text else "elements"
    return {"ref": "ref", "children": "elements"}.get(one.name, "") if one.kind == "prop" else ""
