"""Compare the behaviour of two versions in one trial, point by point."""

from __future__ import annotations

import re
from collections import Counter
from dataclasses import asdict, dataclass
from typing import Any

from clean_carry.verify.moved_focus import stands_among_moved
from clean_carry.verify.normalise import OBJECTION, Normaliser, Tree
from clean_carry.verify.trials import THROWN


@dataclass(frozen=True)
class Difference:
    """One difference: trial, step (0 is the first display), what, place, old and new.

    `cause` names what makes it, where that is known: the style rules that match on one side alone.
    """

    trial: str
    step: int
    step_name: str
    what: str
    place: str
    old: Any
    new: Any
    cause: str = ""

    def as_json(self) -> dict[str, Any]:
        """The JSON shape of `verify --json`."""
        return asdict(self)


MOST = 20
# The place of an element that has the focus.
_STANDS = re.compile(r"[\w-]+\[\d+\](?:/|$)")


def differences(
    trial: str,
    old: dict[str, Any],
    new: dict[str, Any],
    baseline: tuple[dict[str, Any], dict[str, Any]],
    sides: tuple[Normaliser, Normaliser],
    *,
    one_runtime: bool,
) -> list[Difference]:
    """All differences between two answers of the renderer, at most `MOST`.

    `baseline` are the leftovers of an empty component of each side's runtime.
    """
    compared = _Compared(trial, [point["name"] for point in old["points"]], sides, one_runtime)
    for step, (a, b) in enumerate(zip(old["points"], new["points"], strict=False)):
        if not one_runtime and _failed(a, b):
            sides[0].ended()
            compared.why(step, a["errors"], b["errors"])
            return compared.found[:MOST]
        compared.point(step, a, b)
        if len(compared.found) >= MOST:
            return compared.found[:MOST]
    compared.end(old, new, baseline)
    return compared.found[:MOST]


def _failed(a: dict[str, Any], b: dict[str, Any]) -> bool:
    """Whether both sides failed in this step, and a runtime took one of them away; or whether a function
    failed that one of them was given: who hears of that is up to the runtime."""
    if any(THROWN in error for error in (*a["errors"], *b["errors"])):
        return True
    return bool(a["errors"] and b["errors"]) and (_gone(a["tree"]) or _gone(b["tree"]))


def _gone(tree: Tree) -> bool:
    """Whether nothing is rendered, in the page or in the place of a second instance."""
    return not any(tree) or any(
        isinstance(node, list) and node[0] == "trial-place" and not node[3] for node in tree
    )


class _Compared:
    """The differences of one trial so far."""

    def __init__(
        self, trial: str, names: list[str], sides: tuple[Normaliser, Normaliser], one_runtime: bool
    ) -> None:
        self.trial, self.names, self.sides, self.one_runtime = trial, names, sides, one_runtime
        self.found: list[Difference] = []
        self.drawn = False
        self.before: tuple[Tree, Tree] = ([], [])

    def _note(self, step: int, what: str, place: str, before: Any, after: Any) -> None:
        name = self.names[step] if step < len(self.names) else "the end"
        self.found.append(Difference(self.trial, step, name, what, place, before, after))

    def point(self, step: int, a: dict[str, Any], b: dict[str, Any]) -> None:
        """Compare one point."""
        one, other = self.sides
        if a["missing"] != b["missing"]:
            place = _sought(a["missing"] or b["missing"])
            self._note(step, "target", place, _found(a["missing"]), _found(b["missing"]))
        trees = one.tree(a["tree"]), other.tree(b["tree"])
        for place, before, after in tree_differences(*trees):
            self._note(step, "tree", place, before, after)
        if self.one_runtime and trees[0] == trees[1]:
            frames_a = _frames(a["frames"], trees[0], one)
            frames_b = _frames(b["frames"], trees[1], other)
            if frames_a != frames_b:
                self._note(step, "before paint", "", _brief(frames_a), _brief(frames_b))
        self._errors(step, a["errors"], b["errors"], trees)
        for what in ("calls", "requests", "prevented"):
            before, after = a[what], b[what]
            if what == "prevented" and not self.one_runtime:
                before, after = one.unwatched(before), other.unwatched(after)
            elif what == "calls" and not self.one_runtime:
                before, after = one.unchecked(before), other.unchecked(after)
            if one.values(before) != other.values(after):
                self._note(step, what, "", before, after)
        places = one.place(a["focus"]), other.place(b["focus"])
        if places[0] != places[1]:
            if self._moved(trees, places):
                one.moved()
            else:
                self._note(step, "focus", "", a["focus"], b["focus"])
        self.before = trees

    def _moved(self, trees: tuple[Tree, Tree], places: tuple[str, str]) -> bool:
        """Whether one side lost the focus because it put what had it elsewhere in the page."""
        if self.one_runtime or all(map(_STANDS.match, places)):
            return False
        place = next((one for one in places if _STANDS.match(one)), "")
        return any(
            stands_among_moved(before, now, place)
            for before, now in zip(self.before, trees, strict=True)
        )

    def _errors(self, step: int, old: list[str], new: list[str], trees: tuple[Tree, Tree]) -> None:
        """Errors; of a component that fails as it is mounted the runtimes tell the first ones alike."""
        errors = self.sides[0].errors(old), self.sides[1].errors(new)
        anew = step == 0 or self.names[step] == "return"
        gone = not any(trees[0]) and not any(trees[1]) and (anew or self.drawn)
        self.drawn = any(trees[0]) and any(trees[1])
        if self.one_runtime and gone and errors[0] != errors[1] and errors[0] and errors[1]:
            least = min(map(len, errors))
            if errors[0][:least] == errors[1][:least]:
                errors = self.sides[0].failed(errors[0]), self.sides[1].failed(errors[1])
        if errors[0] != errors[1]:
            self._note(step, "errors", "", *errors)

    def why(self, step: int, old: list[str], new: list[str]) -> None:
        """Return why a component failed on both sides: the first error."""
        first = self.sides[0].errors(old)[:1], self.sides[1].errors(new)[:1]
        if first[0] != first[1] and not any(THROWN in error for error in (*old, *new)):
            self._note(step, "errors", "", *first)

    def end(
        self,
        old: dict[str, Any],
        new: dict[str, Any],
        baseline: tuple[dict[str, Any], dict[str, Any]],
    ) -> None:
        """Compare what comes when the component is gone, and what is left of it."""
        end, (one, other) = len(self.names), self.sides
        errors = one.errors(old["last"]["errors"]), other.errors(new["last"]["errors"])
        if errors[0] != errors[1]:
            self._note(end, "errors", "", *errors)
        for what in ("calls", "requests"):
            if one.values(old["last"][what]) != other.values(new["last"][what]):
                self._note(end, what, "", old["last"][what], new["last"][what])
        for what in ("timers", "listeners"):
            left_a = _minus(old["left"][what], baseline[0][what])
            left_b = _minus(new["left"][what], baseline[1][what])
            if not self.one_runtime:
                left_a, left_b = one.of_component(left_a), other.of_component(left_b)
            if left_a != left_b:
                self._note(end, f"{what} left", "", left_a, left_b)
        elements = [side["left"].get("elements", 0) for side in (old, new)]
        if elements[0] != elements[1]:
            self._note(end, "elements left", "", *elements)


def _sought(target: Any) -> str:
    """The element a step looked for, in words: its role or tag, its name and its position."""
    if not isinstance(target, dict):
        return str(target)
    words = [str(target.get("role") or target.get("tag") or "element")]
    words += [f"“{target['name']}”"] if target.get("name") else []
    words += [f"number {target['position']}"] if target.get("position") else []
    return " ".join(words)


def _found(missing: Any) -> str:
    return "not found" if missing else "found"


def _minus(own: list[str], common: list[str]) -> list[str]:
    left = Counter(own)
    left.subtract(Counter(common))
    return sorted(name for name, count in left.items() for _ in range(max(0, count)))


def _frames(frames: list[Tree], final: Tree, side: Normaliser) -> list[Tree]:
    """Return the states that were painted in between, without repeats and without the final tree."""
    result: list[Tree] = []
    for frame in [*(side.tree(frame) for frame in frames), final]:
        if not result or result[-1] != frame:
            result.append(frame)
    return result[:-1]


def _brief(frames: list[Tree]) -> str:
    return f"{len(frames)} state(s): " + " | ".join(_text(frame)[:200] for frame in frames)


def _text(tree: Any) -> str:
    if isinstance(tree, str):
        return tree
    if isinstance(tree, list) and len(tree) == 4 and isinstance(tree[1], dict):
        return f"<{tree[0]}>" + "".join(_text(child) for child in tree[3])
    return "".join(_text(node) for node in tree) if isinstance(tree, list) else ""


def tree_differences(old: Tree, new: Tree, place: str = "") -> list[tuple[str, Any, Any]]:
    """(place, old, new) of each place where two normalised trees differ."""
    found: list[tuple[str, Any, Any]] = []
    if len(old) != len(new):
        found.append((place or "/", _shape(old), _shape(new)))
        return found
    counts: Counter[str] = Counter()
    for a, b in zip(old, new, strict=True):
        if isinstance(a, str) or isinstance(b, str):
            counts["text"] += 1
            if a != b:
                here = f"{place}/text[{counts['text']}]"
                found.append((here, _shape([a]), _shape([b])))
            continue
        counts[a[0]] += 1
        here = f"{place}/{a[0]}[{counts[a[0]]}]"
        if a[0] != b[0]:
            found.append((here, _shape([a]), _shape([b])))
            continue
        for key in sorted({*a[1], *b[1]}):
            if a[1].get(key) != b[1].get(key):
                found.append((f"{here}@{key}", a[1].get(key), b[1].get(key)))
        if a[2] != b[2]:
            found.append((f"{here} (form state)", a[2], b[2]))
        found.extend(tree_differences(a[3], b[3], here))
    return found


def _shape(nodes: Tree) -> str:
    parts = []
    for node in nodes[:12]:
        if isinstance(node, str):
            parts.append(repr(node[:60]))
        else:
            parts.append(f"<{node[0]}>")
    return " ".join(parts) or "nothing"


def _draws(node: list[Any]) -> bool:
    """Whether an element is the component's: the place of a second one is the trial's."""
    if node[0] != "trial-place":
        return True
    return any(isinstance(child, list) for child in node[3])


def draws_or_calls(answer: dict[str, Any]) -> bool:
    """Whether a version rendered an element or called out at any point."""
    for point in answer["points"]:
        if any(isinstance(node, list) and _draws(node) for node in point["tree"]):
            return True
        if point["requests"] or any(call[0] != OBJECTION for call in point["calls"]):
            return True
    return False
