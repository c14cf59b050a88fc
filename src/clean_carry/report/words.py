"""How a verdict was reached, and what a trial does, in words: the same in the terminal and on a page."""

from __future__ import annotations

import json
from collections.abc import Iterator
from typing import TYPE_CHECKING, Any

if TYPE_CHECKING:
    from clean_carry.verify.browser.browser_run import Seen
    from clean_carry.verify.reach import Reach
    from clean_carry.verify.trials import Trial
    from clean_carry.verify.verify import Verification


def facts(verification: Verification) -> Iterator[tuple[str, str]]:
    """(what, sentence) of how the verdict was reached."""
    if verification.cached:
        yield "cache", "answered from the cache: neither side, nor what they import, has changed"
    if verification.seen is not None:
        yield from _in_browser(verification.seen)
    if verification.reach is not None and verification.tried:
        old, new = verification.reach
        yield "reach", f"code that ran: {reached(old)} of old, {reached(new, '')} of new"
    if verification.verdict == "unproven":
        yield from _unproven(verification)
    if verification.stopped:
        yield "ended", f"the search ended because {verification.stopped}"
    if verification.mounted and verification.generated:
        inside = f", inside {verification.around}" if verification.around else ""
        yield "mounted", f"mounted: the export {verification.mounted}{inside}"
    if verification.stand_in:
        yield "stand-in", f"rendered by {verification.stand_in}"
    if verification.outside:
        named = ", ".join(verification.outside[:4])
        more = len(verification.outside) - 4
        named += f" and {more} more" if more > 0 else ""
        yield "outside", f"imported from outside of the project: {named}"
    if verification.void:
        void = many(verification.void, "trial")
        yield "void", f"void, because old differed from itself or both rejected the props: {void}"
    for reason, count in verification.accepted.items():
        yield "accepted", f"accepted by the project file ×{count}: {reason}"
    if verification.normalised:
        rules = ", ".join(f"{rule} ×{count}" for rule, count in verification.normalised.items())
        yield "normalised", f"normalised, so not counted as differences: {rules}"


def _in_browser(looked: Seen) -> Iterator[tuple[str, str]]:
    ran = many(sum(r.verdict in ("same", "differs") for r in looked.results), "run")
    yield (
        "browser",
        f"in the browser: {looked.verdict}, {ran}, {many(looked.points, 'point')}"
        f", at {'; '.join(looked.views)} ({looked.stopped})",
    )
    if looked.unlooked:
        count = many(looked.unlooked, "element")
        yield "unlooked", f"not compared, because there are too many: {count}"
    for file, package in looked.uncompiled:
        name = file.replace("\\", "/").rpartition("/")[2]
        yield "uncompiled", f"styles left out, because the project has no {package}: {name}"


def _unproven(verification: Verification) -> Iterator[tuple[str, str]]:
    yield "unproven", f"unproven: {unproven(verification)}"
    for side, found in zip(("old", "new"), verification.reach or (), strict=False):
        missed = never_ran(found)
        if missed:
            yield "never", f"never ran in {side}: {missed}"
    if verification.uncalled:
        yield "never", f"never called by a child: {', '.join(verification.uncalled[:8])}"
    for hint in verification.hints:
        yield "hint", f"to run more code, write a trial: {hint}"


def reached(reach: Reach, what: str = " branches and functions") -> str:
    """How many branches and functions, and the first lines that were not reached."""
    if not reach.total:
        return "nothing countable"
    text = f"{reach.covered} of {reach.total}{what}"
    lines = sorted({row["line"] for row in reach.unreached if row["line"]})
    if lines:
        more = f" and {len(lines) - 8} more" if len(lines) > 8 else ""
        text += f" (not line {', '.join(map(str, lines[:8]))}{more})"
    return text


def unproven(verification: Verification) -> str:
    """Why a verdict over trials that were all the same is none."""
    if verification.percent >= verification.least:
        return "nothing differed, but no child ever called a handler that it was passed"
    return (
        f"nothing differed, but only {verification.percent:.0f} % of one version's own code ran, "
        f"less than {verification.least:g} %"
    )


def never_ran(reach: Reach) -> str:
    """The functions that never ran, by name or by line."""
    missed = [row for row in reach.unreached if row["kind"] == "function"]
    named = [row["name"] or f"the function in line {row['line']}" for row in missed]
    more = f" and {len(named) - 8} more" if len(named) > 8 else ""
    return ", ".join(named[:8]) + more


def given(trial: Trial) -> Iterator[str]:
    """Yield the props, functions, slots and replies of a trial, a line for each kind."""
    if trial.strict:
        yield "mounted in the strict mode of the development build"
    for what, value in (
        ("props", trial.inputs),
        ("functions", trial.functions),
        ("slots", trial.slots),
        ("replies", trial.replies),
    ):
        if value:
            yield f"{what}: {short(value)}"


def step(step: dict[str, Any]) -> str:
    """A step in words: what is done, on which element, with what."""
    (kind, given), *_ = step.items()
    if not isinstance(given, dict):
        return kind if given is True else f"{kind} {given} ms"
    rest = dict(given)
    what = rest.pop("role", None) or rest.pop("tag", None) or rest.pop("place", None)
    words = [kind]
    if kind == "key":
        key = str(rest.pop("key"))
        words.append("Space" if key == " " else key)
    words += ["on", str(what)] if what else []
    if "name" in rest:
        words.append(f"“{rest.pop('name')}”")
    if "position" in rest:
        words.append(f"number {rest.pop('position')}")
    words += [f"{name} {short(value)}" for name, value in rest.items()]
    return " ".join(words)


def value(what: str, value: object, most: int = 160) -> str:
    """One side of a difference: calls as calls, anything else as it is."""
    if what == "calls" and isinstance(value, list) and all(_is_call(one) for one in value):
        calls = (f"{name}({json.dumps(given, ensure_ascii=False)[1:-1]})" for name, *given in value)
        return short(", ".join(calls) or "no call", most)
    return short(value, most)


def _is_call(value: object) -> bool:
    return isinstance(value, list) and bool(value) and isinstance(value[0], str)


def many(number: int, thing: str) -> str:
    """`1 trial`, `2 trials`."""
    return f"{number} {thing}{'' if number == 1 else 's'}"


def short(value: object, most: int = 160) -> str:
    """A value on one line of at most `most` characters."""
    text = value if isinstance(value, str) else json.dumps(value, ensure_ascii=False)
    text = " ".join(text.split()) or "(nothing)"
    return text if len(text) <= most else text[: most - 3] + "…"
