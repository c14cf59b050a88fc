"""Run one trial on both versions and compare: the smallest piece every verdict is made of."""

from __future__ import annotations

from collections import Counter
from dataclasses import dataclass, field
from typing import Any

from clean_carry.component.interface import InterfaceMap
from clean_carry.verify.client import WorkerFailed
from clean_carry.verify.compare import Difference, differences, draws_or_calls
from clean_carry.verify.normalise import OBJECTION, Normaliser, Tree, styles_in
from clean_carry.verify.normalise_controllers import ControllerNormaliser
from clean_carry.verify.normalise_decorated import CheckedNormaliser, DecoratedNormaliser
from clean_carry.verify.normalise_scoped import ScopedNormaliser
from clean_carry.verify.strict import once
from clean_carry.verify.trials import Trial
from clean_carry.verify.worker_pool import Bench, Bundle, Lane, Side

# Points whose trees are kept with a trial that differs.
MOST_TREES = 4
MARKS = {
    "vue": ("data-v-*",),
    "livewire/livewire": ("wire:*",),
    "@angular/core": ("_ngcontent-*", "_nghost-*", "ng-version", "trial-host"),
}


@dataclass(frozen=True)
class TrialResult:
    """The verdict of one trial; `reason` says why it was not run, `note` what is worth knowing.

    `moved` says that some step changed the tree the old side had rendered; `trees` are (step, old's
    normalised tree, new's) where something differs.
    """

    name: str
    verdict: str
    steps: tuple[str, ...] = ()
    differences: tuple[Difference, ...] = ()
    reason: str = ""
    note: str = ""
    moved: bool = False
    trees: tuple[tuple[int, Tree, Tree], ...] = ()

    def as_json(self) -> dict[str, Any]:
        """The JSON shape of `verify --json`."""
        return {
            "name": self.name,
            "verdict": self.verdict,
            "steps": list(self.steps),
            "differences": [d.as_json() for d in self.differences],
            "reason": self.reason,
            "note": self.note,
        }


@dataclass
class Pair:
    """Two versions, bundled, with what comparing them needs.

    `strict` are the bundles for strict trials, where the runtime has them, `used` counts what normalising
    rules changed, `accepted` the differences the project accepts. `needed` are inputs that are declared as
    required, where the new runtime throws without one (its reference, "Required inputs").
    """

    old: Side
    new: Side
    bundles: tuple[Bundle, Bundle]
    baselines: tuple[dict[str, Any], dict[str, Any]]
    interface: InterfaceMap | None
    component: str = ""
    strict: tuple[Bundle, Bundle] | None = None
    used: Counter[str] = field(default_factory=Counter)
    accepted: Counter[str] = field(default_factory=Counter)
    needed: frozenset[str] = frozenset()

    @classmethod
    def of(
        cls, bench: Bench, old: Side, new: Side, bundles: tuple[Bundle, Bundle],
        interface: InterfaceMap | None, component: str = "",
    ) -> Pair:  # fmt: skip
        """The pair of two built versions."""
        baselines = (bench.baseline(old.runtime), bench.baseline(new.runtime))
        return cls(old, new, bundles, baselines, interface, component)

    def bundles_for(self, trial: Trial) -> tuple[Bundle, Bundle]:
        """The bundles a trial runs on."""
        return self.strict if trial.strict and self.strict is not None else self.bundles

    @property
    def one_runtime(self) -> bool:
        """Whether both versions run in the same runtime, so that paints can be compared. A version
        that was carried through another runtime has an interface map, and counts as between two; so does
        one that renders components of another runtime through a bridge."""
        bridged = self.new.bridged is not None
        return self.old.runtime == self.new.runtime and self.interface is None and not bridged

    def normalisers(
        self, second: dict[str, Any], *, itself: bool = False
    ) -> tuple[Normaliser, Normaliser]:
        """New normalisers of both sides, `second` being what the new one answered; with `itself`, both are
        the old one's."""
        across = not self.one_runtime
        old = normaliser(self.old, across=across)
        new = normaliser(self.old if itself else self.new, across=across)
        old.lifted = new.lifted = self.new.lifted
        if self.old.runtime.framework == "page":
            old.styles = {style for point in second["points"] for style in styles_in(point["tree"])}
            for side in (old, new):
                # A path that the component has as a value is the page's own, and not the bundler's.
                side.folder, side.imported = self.old.place.parent.as_posix(), self.bundles[1].files
        return old, new

    def compare(
        self, trial: Trial, first: dict[str, Any], second: dict[str, Any]
    ) -> list[Difference]:
        """The differences between what both versions did that the project does not accept."""
        sides = self.normalisers(second)
        if trial.strict:
            first, second = once(first), once(second)
        found = differences(
            trial.name, first, second, self.baselines, sides, one_runtime=self.one_runtime
        )
        for side in sides:
            self.used.update(side.used)
        return self.unaccepted(found)

    def unaccepted(self, found: list[Difference]) -> list[Difference]:
        """The differences that the project does not accept; the others are counted."""
        kept: list[Difference] = []
        for difference in found:
            reasons = [
                a.reason
                for a in self.old.settings.accepted
                if a.fits(self.component, difference.what, difference.place)
            ]
            if reasons:
                self.accepted[reasons[0]] += 1
            else:
                kept.append(difference)
        return kept

    def trees(
        self, first: dict[str, Any], second: dict[str, Any], steps: set[int]
    ) -> tuple[tuple[int, Tree, Tree], ...]:
        """Return (step, old's normalised tree, new's) of some points, at most `MOST_TREES`."""
        sides = self.normalisers(second)
        points = list(zip(first["points"], second["points"], strict=False))
        return tuple(
            (step, sides[0].tree(points[step][0]["tree"]), sides[1].tree(points[step][1]["tree"]))
            for step in sorted(steps)[:MOST_TREES]
            if step < len(points)
        )

    def both_refuse(self, first: dict[str, Any], second: dict[str, Any]) -> bool:
        """Whether both versions fail first of the same while they are made, of inputs that the declarations
        of both object to.

        Output rendered in spite of that is an accident of each form.
        """
        said = _objections(first)
        failed = [
            normaliser(side).errors(answer["points"][0]["errors"][:1])
            for side, answer in ((self.old, first), (self.new, second))
        ]
        return bool(said and failed[0]) and failed[0] == failed[1] and said == _objections(second)

    def lacks(self, trial: Trial) -> str:
        """An input the new version cannot do without, and that a trial does not give all the time; "" for
        none."""
        given = {*trial.inputs, *trial.functions}
        taken = {name for step in trial.steps for name in step.get("change", {}).get("without", ())}
        return next((name for name in sorted(self.needed) if name not in given - taken), "")

    def steady(self, trial: Trial, first: dict[str, Any], again: dict[str, Any]) -> bool:
        """Whether the old version did the same twice."""
        sides = (normaliser(self.old), normaliser(self.old))
        twice = (self.baselines[0], self.baselines[0])
        if trial.strict:
            first, again = once(first), once(again)
        return not differences(trial.name, first, again, twice, sides, one_runtime=True)


# The normalisers of runtimes with an element around each template, for sides of different runtimes.
_ACROSS: dict[str, type[Normaliser]] = {
    "@angular/core": DecoratedNormaliser,
    "angular": ControllerNormaliser,
}
_WITHIN: dict[str, type[Normaliser]] = {"@angular/core": CheckedNormaliser}


def normaliser(side: Side, *, across: bool = False) -> Normaliser:
    """The normaliser of one side; `across`: the other one runs in another runtime."""
    if side.application is not None and not across:
        return ScopedNormaliser(side.application.replaced, side.application.aliases)
    bridged = side.bridged.framework if side.bridged is not None else ""
    kinds = _ACROSS if across else _WITHIN
    kind = kinds.get(side.runtime.framework, Normaliser)
    marks = (*MARKS.get(side.runtime.framework, ()), *MARKS.get(bridged, ()), *side.marks)
    # A runtime that is there for the bridged component alone listens at the page as well.
    alone = across and side.application is not None
    stays = side.runtime.listens_for_page or bool(bridged) or alone
    return kind(marks, across=across, stays=stays, bridged=bool(bridged))


# The error of a runtime that renders no list with two items of one key.
_DUPES = "[ngRepeat:dupes]"


@dataclass(frozen=True)
class Judged:
    """A trial's result with what both versions reached."""

    trial: Trial
    result: TrialResult
    reach: tuple[frozenset[str], frozenset[str]]


NOTHING: frozenset[str] = frozenset()


def judge(lane: Lane, pair: Pair, trial: Trial, first: dict[str, Any] | None = None) -> Judged:
    """Run OLD twice, then NEW, and compare every point. `first` is OLD's first run, if it ran."""
    request = trial.request()
    bundles = pair.bundles_for(trial)
    try:
        if first is None:
            first = lane.trial(bundles[0], pair.old.exported, request)
        again = lane.trial(bundles[0], pair.old.exported, request)
    except WorkerFailed as error:
        reason = f"the old side failed: {error.reason}"
        return Judged(trial, TrialResult(trial.name, "not run", reason=reason), (NOTHING, NOTHING))
    reached = frozenset(first["reach"])
    if not pair.steady(trial, first, again):
        reason = "the old side differs from itself"
        return Judged(trial, TrialResult(trial.name, "void", reason=reason), (reached, NOTHING))
    if restless(first):
        reason = "the old side never comes to rest"
        return Judged(trial, TrialResult(trial.name, "not run", reason=reason), (reached, NOTHING))
    steps = tuple(point["name"] for point in first["points"])
    try:
        second = _new_side(lane, pair, trial)
    except WorkerFailed as error:
        gap = Difference(trial.name, 0, "shown", "end", "", "came to rest", error.reason)
        return Judged(trial, TrialResult(trial.name, "differs", steps, (gap,)), (reached, NOTHING))
    found = pair.compare(trial, first, second)
    if found and pair.both_refuse(first, second):
        reason = f"both fail with inputs they declare otherwise: {_objections(first)[0]}"
        return Judged(trial, TrialResult(trial.name, "void", reason=reason), (reached, NOTHING))
    if found and not pair.one_runtime and any(_DUPES in error for error in errors_of(first)):
        reason = "items of a list have one key, for which the old side renders none of them"
        return Judged(trial, TrialResult(trial.name, "void", reason=reason), (reached, NOTHING))
    if found and pair.lacks(trial):
        reason = f"an input that is required is not given: {pair.lacks(trial)}"
        return Judged(trial, TrialResult(trial.name, "void", reason=reason), (reached, NOTHING))
    if found and trial.strict and not _minds_not(lane, pair, trial, first):
        reason = "in strict mode the old side itself does something else"
        return Judged(trial, TrialResult(trial.name, "void", reason=reason), (reached, NOTHING))
    errors = errors_of(first)
    if not found and not draws_or_calls(first):
        reason = "the old side draws no element and calls nothing"
        if errors:
            reason += f" ({errors[0]})"
        return Judged(trial, TrialResult(trial.name, "not run", reason=reason), (reached, NOTHING))
    note = f"both threw {errors[0]}" if errors and not found else ""
    trees = [point["tree"] for point in first["points"] if point["name"] != "remove"]
    moved = any(tree != trees[0] for tree in trees)
    verdict = "differs" if found else "same"
    shown = pair.trees(first, second, {one.step for one in found})
    result = TrialResult(
        trial.name, verdict, steps, tuple(found), note=note, moved=moved, trees=shown
    )
    return Judged(trial, result, (reached, frozenset(second["reach"])))


def _new_side(lane: Lane, pair: Pair, trial: Trial) -> dict[str, Any]:
    """Run the new version, once more where its worker was lost: that may be the machine's fault."""
    bundle, request = pair.bundles_for(trial)[1], trial.request(pair.interface)
    try:
        return lane.trial(bundle, pair.new.exported, request)
    except WorkerFailed as error:
        if not error.ended:
            raise
    return lane.trial(bundle, pair.new.exported, request)


def _minds_not(lane: Lane, pair: Pair, trial: Trial, strictly: dict[str, Any]) -> bool:
    """Whether the old version does the same in strict mode as without it, so that the new one must too."""
    try:
        plain = lane.trial(pair.bundles[0], pair.old.exported, trial.request() | {"strict": False})
    except WorkerFailed:
        return False
    return pair.steady(trial, strictly, plain)


def _objections(answer: dict[str, Any]) -> list[str]:
    return [str(call[1]) for call in answer["points"][0]["calls"] if call[0] == OBJECTION]


def errors_of(answer: dict[str, Any]) -> list[str]:
    """The errors a version made, in order."""
    return [error for point in answer["points"] for error in point["errors"]]


# How a runtime, or the page, says that it stopped a component that would have gone on for ever
# (react's errors 185 and 301, their long wordings, and the single-file runtime's warning).
_RESTLESS = (
    "Minified React error #185",
    "Minified React error #301",
    "Maximum update depth exceeded",
    "Too many re-renders",
    "Maximum recursive updates exceeded",
    "the page never came to rest",
)


def restless(answer: dict[str, Any]) -> bool:
    """Whether a version was stopped because it renders or runs without end.

    Its output depends on where it is stopped: nothing can be compared with it.
    """
    return any(error.find(words) >= 0 for error in errors_of(answer) for words in _RESTLESS)
