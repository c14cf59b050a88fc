"""Compare what two pages look like: styles, boxes, focus order, roles, neighbours, pixels.

A look holds the browser's readings of a point: `elements` with their style (what differs
from an unstyled element of the kind), box and matching rules, by number; the numbers stand in the
tree of the point as the attribute `trial-look`.
"""

from __future__ import annotations

import re
from collections import Counter
from collections.abc import Iterator
from difflib import SequenceMatcher
from typing import Any

from clean_carry.verify.normalise import Normaliser, Tree

NUMBER = "trial-look"
# Layout gives the same numbers for the same page; sizes in ems may be rounded apart.
TOLERANCE = 0.06
MOST = 12
# The state of a page that sets inherited properties, and how a difference in it is reported.
INHERITED, IN_A_PAGE = "inherited", "where the page sets what is inherited"

# (what, place, old, new, cause)
Found = tuple[str, str, Any, Any, str]
_STATE = re.compile(r":(hover|focus|focus-visible|focus-within|active)(?![\w-])")
_SCOPE = re.compile(r"\[data-v-[0-9a-f]+\]|\[data-[a-z]+-scope[^\]]*\]")


def without_numbers(tree: Tree) -> Tree:
    """A tree without the numbers of its elements."""
    return [
        [n[0], {k: v for k, v in n[1].items() if k != NUMBER}, n[2], without_numbers(n[3])]
        if isinstance(n, list)
        else n
        for n in tree
    ]


def plain(answer: dict[str, Any]) -> dict[str, Any]:
    """An answer of the browser as the simulated page would give it."""
    points = [
        {**{k: v for k, v in p.items() if k != "look"}, "tree": without_numbers(p["tree"])}
        for p in answer["points"]
    ]
    return {**answer, "points": points}


def looks_of(answer: dict[str, Any]) -> list[dict[str, Any]]:
    """The look of each point; one that looks like an earlier point has the look of that one."""
    found: list[dict[str, Any]] = []
    for point in answer["points"]:
        look = point.get("look") or {}
        found.append(found[look["as"]] if "as" in look else look)
    return found


Pairs = list[tuple[int, int, str, int]]


def matched(old: Tree, new: Tree) -> Pairs:
    """(number of old, number of new, place, position of its parent in the list or -1) of elements.

    Both trees are normalised; what has no counterpart is no part of the list.
    """
    found: Pairs = []

    def walk(a: Tree, b: Tree, place: str, parent: int) -> None:
        ours = [n for n in a if isinstance(n, list)]
        theirs = [n for n in b if isinstance(n, list)]
        if [n[0] for n in ours] != [n[0] for n in theirs]:
            return
        counts: Counter[str] = Counter()
        for one, other in zip(ours, theirs, strict=True):
            counts[one[0]] += 1
            here = f"{place}/{one[0]}[{counts[one[0]]}]"
            at = parent
            numbers = one[1].get(NUMBER), other[1].get(NUMBER)
            if numbers[0] is not None and numbers[1] is not None:
                found.append((_number(numbers[0]), _number(numbers[1]), here, parent))
                at = len(found) - 1
            walk(one[3], other[3], here, at)

    walk(old, new, "", -1)
    return found


def _number(text: str) -> int:
    """The number in a number attribute. A component's element and the root of its template may have been
    merged into one element; it then has the numbers of both, and the root's, which is the last, counts."""
    return int(text.split()[-1])


def look_differences(
    old: dict[str, Any], new: dict[str, Any], trees: tuple[Tree, Tree],
    sides: tuple[Normaliser, Normaliser],
) -> list[Found]:  # fmt: skip
    """The differences between two looks at one point, at most `MOST` of each kind.

    `trees` are the trees of the point, with numbers.
    """
    if not old.get("elements") and not new.get("elements"):
        return []
    pairs = matched(sides[0].tree(trees[0]), sides[1].tree(trees[1]))
    found = [*_first(_styles(old, new, pairs)), *_first(_states(old, new, pairs))]
    found += _first(_boxes(old, new, pairs))
    found += _first(_order(old, new, pairs))
    names = _first(_accessible(old, new))
    if names and not _first(_accessible(old, new, space=" ")):
        sides[0].used["flat-name"] += 1
        names = []
    elif names and sides[0].across and not _first(_accessible(old, new, space="")):
        sides[0].used["split-text"] += 1
        names = []
    found += names
    near = _first(_neighbours(old, new))
    if near and sides[0].folder and not _reaches_more(old, new):
        sides[0].used["page-alone"] += 1
        near = []
    return [*found, *near]


def _reaches_more(old: dict[str, Any], new: dict[str, Any]) -> bool:
    """Whether the new side's rules reach something beside it that the old one's do not."""
    ours, theirs = old.get("neighbours") or (), new.get("neighbours") or ()
    if len(ours) != len(theirs):
        return any(element["rules"] for element in theirs)
    return any(
        set(map(_unscoped, _texts(new, other))) - set(map(_unscoped, _texts(old, one)))
        for one, other in zip(ours, theirs, strict=True)
    )


def _first(found: Iterator[Found]) -> list[Found]:
    return [one for one, _ in zip(found, range(MOST), strict=False)]


def _styles(old: dict[str, Any], new: dict[str, Any], pairs: Pairs) -> Iterator[Found]:
    a, b = old["elements"], new["elements"]
    shown: list[dict[str, tuple[Any, Any]]] = []
    for i, j, place, parent in pairs:
        if i >= len(a) or j >= len(b):
            shown.append({})
            continue
        differing = _differing(a[i]["style"], b[j]["style"])
        shown.append(differing)
        # An inherited property is reported where it begins.
        above = shown[parent] if parent >= 0 else {}
        for name, (before, after) in differing.items():
            if above.get(name) != (before, after):
                yield "style", f"{place} {name}", before, after, _cause(old, new, a[i], b[j])


def _states(old: dict[str, Any], new: dict[str, Any], pairs: Pairs) -> Iterator[Found]:
    """Styles in a state (under the pointer, with the focus), or in a page with styles of its own."""
    for state in sorted({*old["states"], *new["states"]}):
        a, b = _in_state(old, state), _in_state(new, state)
        shown: list[dict[str, tuple[Any, Any]]] = []
        for i, j, place, parent in pairs:
            if i >= len(a) or j >= len(b):
                shown.append({})
                continue
            differing = _differing(a[i], b[j])
            plainly = _differing(old["elements"][i]["style"], new["elements"][j]["style"])
            shown.append(differing)
            above = shown[parent] if parent >= 0 else {}
            for name, values in differing.items():
                if plainly.get(name) != values and above.get(name) != values:
                    cause = _cause(old, new, old["elements"][i], new["elements"][j], state)
                    where = (
                        f"{place} {name} {IN_A_PAGE}"
                        if state == INHERITED
                        else f"{place}:{state} {name}"
                    )
                    yield "style", where, *values, cause


def _in_state(look: dict[str, Any], state: str) -> list[dict[str, Any]]:
    """The styles of the elements in a state; 0 stands for those that are as without it."""
    plain = [element["style"] for element in look["elements"]]
    given = look["states"].get(state) or [0] * len(plain)
    return [own or without for own, without in zip(given, plain, strict=True)]


def _differing(a: dict[str, Any], b: dict[str, Any]) -> dict[str, tuple[Any, Any]]:
    """Return {property: (old, new)} of an element and of its pseudo-elements (`::before color`)."""
    found: dict[str, tuple[Any, Any]] = {}
    for part in ("own", *sorted({*a, *b} - {"own"})):
        one, other = a.get(part), b.get(part)
        shown = "" if part == "own" else f"{part} "
        if one is None or other is None:
            found[shown.strip()] = ("drawn" if one else "none", "drawn" if other else "none")
            continue
        if one == other:
            continue
        for name in sorted({*one, *other}):
            if one.get(name) != other.get(name):
                found[shown + name] = (one.get(name, "as unstyled"), other.get(name, "as unstyled"))
        # Colours that are not set follow the text's (css-color-4, `currentcolor`).
        text = found.get(f"{shown}color")
        for name in [n for n in found if n.endswith("-color") and n.startswith(shown)]:
            if found[name] == text:
                del found[name]
    return found


def _cause(
    old: dict[str, Any], new: dict[str, Any], one: dict[str, Any], other: dict[str, Any],
    state: str = "",
) -> str:  # fmt: skip
    """The rules that match the element on one side alone, those of other states left out."""

    def of(look: dict[str, Any], element: dict[str, Any]) -> Counter[str]:
        texts = [_unscoped(text) for text in _texts(look, element)]
        return Counter(t for t in texts if {f[1] for f in _STATE.finditer(t)} <= {state})

    ours, theirs = of(old, one), of(new, other)
    parts = [f"only old has {text}" for text in (ours - theirs)]
    parts += [f"only new has {text}" for text in (theirs - ours)]
    if not parts and ours:
        parts = ["the rules " + ", ".join(list(ours)[-3:])]
    return "; ".join(parts[:3])


def _unscoped(selector: str) -> str:
    return _SCOPE.sub("", selector)


def _boxes(old: dict[str, Any], new: dict[str, Any], pairs: Pairs) -> Iterator[Found]:
    """Boxes whose size, or place in the box around them, differs."""
    a, b = old["elements"], new["elements"]
    for i, j, place, parent in pairs:
        if i >= len(a) or j >= len(b) or place.startswith("/trial-outside"):
            continue
        one, other = a[i]["box"], b[j]["box"]
        if parent >= 0:
            up = a[pairs[parent][0]]["box"], b[pairs[parent][1]]["box"]
            one = [one[0] - up[0][0], one[1] - up[0][1], *one[2:]]
            other = [other[0] - up[1][0], other[1] - up[1][1], *other[2:]]
        if any(abs(x - y) > TOLERANCE for x, y in zip(one, other, strict=True)):
            yield "box", place, _box(one), _box(other), ""


def _box(box: list[float]) -> str:
    x, y, width, height = (f"{value:g}" for value in (round(v, 2) for v in box))
    return f"{width} × {height} at {x}, {y}"


def _order(old: dict[str, Any], new: dict[str, Any], pairs: Pairs) -> Iterator[Found]:
    places = {i: place for i, _, place, _ in pairs}
    back = {j: place for _, j, place, _ in pairs}
    ours = [places.get(n, f"element {n}") for n in old["order"]]
    theirs = [back.get(n, f"element {n}") for n in new["order"]]
    if ours != theirs:
        yield "focus order", "", " → ".join(ours[:12]), " → ".join(theirs[:12]), ""


def _accessible(
    old: dict[str, Any], new: dict[str, Any], *, space: str | None = None
) -> Iterator[Found]:
    """Differences in roles, names and states; `space` is put for white space in names."""
    ours = [_told(node, space) for node in old.get("accessible") or ()]
    theirs = [_told(node, space) for node in new.get("accessible") or ()]
    if ours == theirs:
        return
    for tag, i, i2, j, j2 in SequenceMatcher(None, ours, theirs, autojunk=False).get_opcodes():
        if tag != "equal":
            yield "accessibility", "", ours[i:i2], theirs[j:j2], ""


def _told(node: list[Any], space: str | None) -> str:
    role, name, states = node
    if space is not None:
        name = space.join(name.split())
    shown = " ".join(f"{k}={v}" for k, v in sorted(states.items()) if v not in (False, "false"))
    return f"{role} “{name}”{' ' + shown if shown else ''}"


def _neighbours(old: dict[str, Any], new: dict[str, Any]) -> Iterator[Found]:
    """Elements beside the component that its styles reach on one side alone."""
    ours, theirs = old.get("neighbours"), new.get("neighbours")
    if ours is None or theirs is None:
        # A side without rules reaches nothing.
        for look, near in ((old, ours), (new, theirs)):
            for element in near or ():
                if element["rules"]:
                    told = f"reached by {', '.join(_texts(look, element)[:3])}"
                    values = (told, "untouched") if look is old else ("untouched", told)
                    yield "neighbour", _near(element), *values, ""
        return
    if len(ours) != len(theirs):
        return
    for one, other in zip(ours, theirs, strict=True):
        differing = _differing(one["style"], other["style"])
        reach = [_unscoped(t) for t in _texts(old, one)], [_unscoped(t) for t in _texts(new, other)]
        if differing and sorted(reach[0]) != sorted(reach[1]):
            name, values = next(iter(differing.items()))
            cause = _cause(old, new, one, other)
            yield "neighbour", f"{_near(one)} {name}", *values, cause


def _texts(look: dict[str, Any], element: dict[str, Any]) -> list[str]:
    return [look["rules"][at] for at in element["rules"]]


def _near(element: dict[str, Any]) -> str:
    words = element["class"].split()
    return f"<{element['tag']}{' class=' + '.'.join(words) if words else ''}>"
