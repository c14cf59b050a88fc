"""Verify a pair of versions: with the trials passed, or with generated trials."""

from __future__ import annotations

import re
from collections.abc import Callable, Iterable
from dataclasses import asdict, dataclass, field, replace
from pathlib import Path
from typing import TYPE_CHECKING, Any, Literal

from clean_carry.component.errors import InputError
from clean_carry.component.interface import InterfaceMap
from clean_carry.source.text import require_file
from clean_carry.verify.client import WorkerFailed
from clean_carry.verify.compare import Difference
from clean_carry.verify.judge import Judged, Pair, TrialResult, judge
from clean_carry.verify.outside import outside_of
from clean_carry.verify.passed_handlers import never_called
from clean_carry.verify.reach import Reach, hints, reach_of
from clean_carry.verify.search.inputs.inputs import Inputs
from clean_carry.verify.search.inputs.read_inputs import read_inputs
from clean_carry.verify.search.values.shape import Shape
from clean_carry.verify.search.walks.novelty import as_in_use
from clean_carry.verify.search.walks.search import Effort, Search
from clean_carry.verify.strict import strict_bundles
from clean_carry.verify.trials import Trial
from clean_carry.verify.unresolved import explained
from clean_carry.verify.uses.model import AROUND
from clean_carry.verify.views import asks_for_data, texts_of
from clean_carry.verify.worker_pool import Bench, Bundle, Side

if TYPE_CHECKING:
    from clean_carry.verify.browser.browser_run import Seen

Verdict = Literal["same", "differs", "unproven", "not run"]
Progress = Callable[[str], None]


@dataclass(frozen=True)
class Verification:
    """The verdict over one pair of versions, and how it was reached.

    `tried` counts the trials that ran on both versions, `points` the points compared; where
    trials found themselves, `trials` are those that reached something new and the one that differs.
    `clean_starts` is the share of mountings of the old side that went without an error, `around` the
    parents it was mounted in, `looks` are the trials worth a look in a browser, those that render most that
    is new first, `seen` is what it showed, where one was asked. `uncalled` are the handlers it hands to
    children, where none of them was ever called, `hints` say what would reach lines that never ran, and
    `outside` are files from outside of the project that it rests on, and `least` is how much of either
    side's code must have run for `same`, in percent. `stand_in` names what rendered in the place of a
    library that is not open.
    """

    trials: tuple[TrialResult, ...]
    normalised: dict[str, int] = field(default_factory=dict)
    reason: str = ""
    tried: int = 0
    points: int = 0
    void: int = 0
    generated: bool = False
    stopped: str = ""
    mounted: str = ""
    reach: tuple[Reach, Reach] | None = None
    accepted: dict[str, int] = field(default_factory=dict)
    sources: tuple[Trial, ...] = ()
    cached: bool = False
    clean_starts: float = 1.0
    around: str = ""
    interrupted: bool = False
    looks: tuple[Trial, ...] = ()
    seen: Seen | None = None
    uncalled: tuple[str, ...] = ()
    hints: tuple[str, ...] = ()
    outside: tuple[str, ...] = ()
    least: float = 0.0
    stand_in: str = ""

    @property
    def verdict(self) -> Verdict:
        """`same` only where a trial ran and none differed, in the browser too, where it was asked.

        It is `unproven` where less of either side's own code ran than `least` percent, or where a child
        never called any of the handlers it is given.
        """
        verdicts = {trial.verdict for trial in self.trials}
        if self.seen is not None and "differs" not in verdicts:
            verdicts = {self.seen.verdict} if verdicts else verdicts
        if "differs" in verdicts:
            return "differs"
        if "same" not in verdicts:
            return "not run"
        missed = self.percent < self.least or (self.least and self.uncalled)
        return "unproven" if missed else "same"

    @property
    def percent(self) -> float:
        """How much of its own code ran, of the side of which less did."""
        return min((side.percent for side in self.reach or ()), default=100.0)

    def measured(self, least: float) -> Verification:
        """The same, `unproven` where less of either side's code ran than `least` percent."""
        return replace(self, least=least)

    @property
    def known(self) -> dict[str, Trial]:
        """All trials it can report, by name."""
        return {trial.name: trial for trial in (*self.looks, *self.sources)}

    @property
    def failing(self) -> Trial | None:
        """The first trial that differs."""
        names = [t.name for t in self.trials if t.verdict == "differs"]
        return next((s for s in self.sources if names and s.name == names[0]), None)

    def as_json(self) -> dict[str, Any]:
        """The JSON shape of `verify --json`."""
        return {
            "verdict": self.verdict,
            "reason": self.reason,
            "mounted": self.mounted,
            "stand_in": self.stand_in,
            "around": self.around,
            "generated": self.generated,
            "tried": self.tried,
            "points": self.points,
            "void": self.void,
            "stopped": self.stopped,
            "cached": self.cached,
            "interrupted": self.interrupted,
            "trials": [trial.as_json() for trial in self.trials],
            "reach": None
            if self.reach is None
            else {"old": self.reach[0].as_json(), "new": self.reach[1].as_json()},
            "normalised": self.normalised,
            "accepted": self.accepted,
            "uncalled": list(self.uncalled),
            "hints": list(self.hints),
            "outside": list(self.outside),
            "browser": None if self.seen is None else self.seen.as_json(),
        }

    def kept(self) -> dict[str, Any]:
        """All of it but what a browser showed, as plain data, for the cache."""
        return asdict(replace(self, seen=None, least=0.0))

    @classmethod
    def restored(cls, kept: dict[str, Any]) -> Verification:
        """From plain data, marked as answered from the cache."""
        trials = tuple(
            TrialResult(
                **{
                    **t,
                    "steps": tuple(t["steps"]),
                    "differences": tuple(Difference(**d) for d in t["differences"]),
                    "trees": tuple(tuple(shown) for shown in t["trees"]),
                }
            )
            for t in kept["trials"]
        )
        reach = kept["reach"]
        if reach is not None:
            old, new = (Reach.of(tuple(row) for row in side["rows"]) for side in reach)
            reach = (old, new)
        told = {name: tuple(kept[name]) for name in ("uncalled", "hints", "outside")}
        sources, looks = (tuple(Trial(**s) for s in kept[name]) for name in ("sources", "looks"))
        more = {"trials": trials, "reach": reach, "sources": sources, "looks": looks, **told}
        return cls(**{**kept, **more, "cached": True})


def verify(
    bench: Bench,
    old: Side,
    new: Side,
    trials: Iterable[Trial],
    interface: InterfaceMap | None = None,
    progress: Progress = lambda text: None,
) -> Verification:
    """Run every trial: OLD twice, then NEW; compare every point."""
    built = _built(bench, old, new)
    if isinstance(built, Verification):
        return built
    pair = Pair.of(bench, old, new, built, interface, component_of(old))
    trials = list(trials)
    if any(trial.strict for trial in trials):
        pair.strict = strict_bundles(bench, old, new)
    judged: list[Judged] = []
    with bench.lane() as lane:
        for trial in trials:
            progress(trial.name)
            judged.append(judge(lane, pair, trial))
    ran = [j for j in judged if j.result.verdict in ("same", "differs")]
    reach = _reach(pair, [j.reach for j in judged])
    result = Verification(
        tuple(j.result for j in judged),
        _counted(pair),
        tried=len(ran),
        points=sum(len(j.result.steps) for j in ran),
        void=sum(j.result.verdict == "void" for j in judged),
        mounted=old.exported,
        stand_in=_stand_in(new),
        reach=reach,
        uncalled=never_called(old.text, str(old.place), reach[0]),
        accepted=dict(pair.accepted),
        outside=outside_of(old.place, pair.bundles),
        sources=tuple(j.trial for j in judged),
    )
    return _looked_at(bench, pair, result, progress)


def explore(
    bench: Bench,
    old: Side,
    new: Side,
    effort: Effort,
    interface: InterfaceMap | None = None,
    progress: Progress = lambda text: None,
) -> Verification:
    """Find trials and run them until the budget is used up, nothing new is found, or one differs.

    An unchanged pair is answered from the bench's store.
    """
    built = _built(bench, old, new)
    if isinstance(built, Verification):
        return built
    key = _key(built, old, new, effort, interface)
    kept = bench.store.value(key)
    pair = Pair.of(bench, old, new, built, interface, component_of(old))
    if kept is not None:
        return _looked_at(bench, pair, Verification.restored(kept), progress)
    pair.strict = strict_bundles(bench, old, new)
    result = _explored(bench, pair, effort, progress)
    if not result.interrupted:
        bench.store.keep(key, result.kept())
    return _looked_at(bench, pair, result, progress)


def _looked_at(bench: Bench, pair: Pair, result: Verification, progress: Progress) -> Verification:
    """The same with what a browser shows of the trials that ran, where one is asked."""
    ran = {trial.name for trial in result.trials if trial.verdict in ("same", "differs")}
    failing = result.failing
    first = [failing] if failing is not None else []
    every = [*first, *result.looks, *(one for one in result.sources if one.name in ran)]
    trials = list({trial.name: trial for trial in every}.values())
    if bench.gaze is None or not trials or result.interrupted:
        return result
    from clean_carry.verify.browser.browser_run import seen

    with bench.browser() as browser:
        found = seen(browser, pair, trials, bench.gaze, progress, whole=not result.generated)
    return replace(result, seen=found, accepted=dict(pair.accepted) or result.accepted)


# Bindings that an element without their attribute never gets: of text, and optional ones.
_AS_TEXT = re.compile(r"([\w$]+)\s*:\s*['\"](?:@|<\?)")


def _forget_known(other: Inputs, inputs: Inputs) -> None:
    """Forget what the new side's helpers look for in values, which says nothing of what is given."""
    for name in set(other.shapes) & set(inputs.shapes):
        if not other.shapes[name].declared:
            del other.shapes[name]


def _leave_to_scope(pair: Pair, inputs: Inputs) -> None:
    """Leave out inputs that only the scope around an element has, or other runtimes give to any element."""
    pair.needed = frozenset(_AS_TEXT.findall(pair.old.text)) & frozenset(inputs.shapes)
    for name in ("class", "children", *(n for n in inputs.shapes if n.startswith(AROUND))):
        inputs.shapes.pop(name, None)


def _explored(bench: Bench, pair: Pair, effort: Effort, progress: Progress) -> Verification:
    old, new, interface = pair.old, pair.new, pair.interface
    back = {b: a for a, b in (interface.inputs if interface is not None else ())}
    inputs = read_inputs(old.text, str(old.place), old.exported)
    other = read_inputs(new.text, str(new.place), new.exported)
    if interface is not None:
        # A slot or an event of the old side is given as such.
        for _, made in (*interface.slots, *interface.events):
            other.shapes.pop(made.removesuffix("()"), None)
    if old.application is not None and not pair.one_runtime:
        _forget_known(other, inputs)
    inputs = inputs.join(other, back, across=not pair.one_runtime)
    if back.get("className") == "class" and "class" in inputs.shapes:
        # The class attribute of a component is text in one runtime; the other takes more forms of it.
        inputs.shapes["class"] = Shape({"string"}, declared=True)
    if old.uses is not None:
        inputs.uses = old.uses.count
        for name, values in (old.uses.inputs | old.uses.elements).items():
            if name in inputs.shapes:
                inputs.shapes[name].used = values
    if old.application is not None and old.application.pages.count:
        ways = [str(way) for way in range(1, old.application.pages.count + 1)]
        inputs.shapes[AROUND + "page"] = Shape({"string"}, ["", *ways], declared=True, listed=True)
    for name, shape in old.outer.items():
        inputs.shapes.setdefault(AROUND + name, shape)
    if (new.runtime.needs_required or old.runtime.typed) and not pair.one_runtime:
        pair.needed = frozenset(name for name, one in inputs.shapes.items() if one.required)
    if old.application is not None and not pair.one_runtime:
        _leave_to_scope(pair, inputs)
    search = Search(bench, pair, inputs, effort, progress)
    found = search.run()
    judged = list(found.kept)
    if found.failing is not None:
        judged.append(found.failing)
    reason = "" if judged else "in no situation tried does the old side draw or call anything"
    reach = _reach(pair, [(frozenset(found.reach[0]), frozenset(found.reach[1]))])
    return Verification(
        tuple(j.result for j in judged),
        _counted(pair),
        reason,
        found.tried,
        found.points,
        found.void,
        True,
        found.stopped,
        old.exported,
        reach,
        dict(pair.accepted),
        tuple(j.trial for j in judged),
        clean_starts=found.clean / max(found.tried, 1),
        interrupted=found.interrupted,
        looks=as_in_use(found.looks.ordered(), inputs.shapes),
        uncalled=never_called(old.text, str(old.place), reach[0]),
        hints=hints(reach[0], search.aims.hangs_on),
        outside=outside_of(old.place, pair.bundles),
        stand_in=_stand_in(new),
    )


def _built(bench: Bench, old: Side, new: Side) -> tuple[Bundle, Bundle] | Verification:
    bundles: list[Bundle] = []
    for side, called in ((old, "old"), (new, "new")):
        try:
            bundles.append(bench.build(side))
        except WorkerFailed as error:
            why = explained(error.reason, side.place)
            return Verification((), reason=f"the {called} side cannot be built: {why}")
    return bundles[0], bundles[1]


def _stand_in(side: Side) -> str:
    if not side.runtime.stands_in:
        return ""
    if asks_for_data(texts_of(side.place, side.text, side.extra)):
        return f"{side.runtime.summary}; replies of the trials stand for the data, no query was run"
    return side.runtime.summary


def _counted(pair: Pair) -> dict[str, int]:
    return {rule: count for rule, count in sorted(pair.used.items()) if count}


def component_of(side: Side) -> str:
    """The name of what is mounted: that of the export, or of the file."""
    exported = side.exported
    return exported if exported not in ("", "default") else side.place.name.split(".")[0]


def _reach(pair: Pair, hits: list[tuple[frozenset[str], frozenset[str]]]) -> tuple[Reach, Reach]:
    old = frozenset[str]().union(*(h[0] for h in hits))
    new = frozenset[str]().union(*(h[1] for h in hits))
    first, second = pair.bundles
    return reach_of(first, old, pair.old.lines), reach_of(second, new, pair.new.lines)


def _key(
    bundles: tuple[Bundle, Bundle],
    old: Side,
    new: Side,
    effort: Effort,
    interface: InterfaceMap | None,
) -> tuple[Any, ...]:
    """Return the values that an explored verdict depends on."""
    accepted = [asdict(a) for a in old.settings.accepted]
    return (
        "verdict, with strict trials",
        [b.digest for b in bundles],
        [[s.exported, s.marks, s.runtime.name] for s in (old, new)],
        asdict(effort),
        accepted,
        interface.as_json() if interface is not None else None,
    )


def read_text(path: Path) -> str:
    """The text of a version. Raises `InputError`."""
    if not path.is_dir():
        require_file(path, str(path))
    try:
        return path.read_text("utf-8-sig")
    except FileNotFoundError:
        raise InputError("there is no such file", file=str(path)) from None
    except IsADirectoryError:
        raise InputError("is a folder", advice="Name a file", file=str(path)) from None
    except UnicodeDecodeError:
        raise InputError("is not UTF-8", file=str(path)) from None
    except OSError as error:
        raise InputError(f"cannot be read ({error.strerror})", file=str(path)) from None


__all__ = [
    "Bench",
    "Effort",
    "Side",
    "Verification",
    "component_of",
    "explore",
    "read_text",
    "verify",
]
