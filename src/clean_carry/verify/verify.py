"""Render old and new, step by step, in the real runtime, and compare."""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable, Iterable
from dataclasses import dataclass, field
from pathlib import Path
from types import TracebackType
from typing import Any, Literal

from clean_carry.component.errors import InputError
from clean_carry.component.interface import Interface
from clean_carry.verify.client import Worker, WorkerFailed, builder, renderer
from clean_carry.verify.compare import Difference, differences, draws_or_calls
from clean_carry.verify.normalise import Normaliser
from clean_carry.verify.runtimes import RUNTIMES, WORKBENCH, WORKER, Runtime, ensure
from clean_carry.verify.trials import Trial

Verdict = Literal["same", "differs", "not run"]
Say = Callable[[str], None]
_BUILD_PATIENCE = 120.0
_MARKS = {"vue": ("data-v-*",), "react": ()}


@dataclass(frozen=True)
class Side:
    """One version of a component: the place it stands at, its text, and its runtime."""

    place: Path
    text: str
    runtime: Runtime
    exported: str = ""
    marks: tuple[str, ...] = ()


@dataclass(frozen=True)
class TrialResult:
    """The verdict of one trial; `reason` says why it was not run, `note` what is worth knowing.

    `moved` says that some step changed the tree the old side had drawn.
    """

    name: str
    verdict: str
    steps: tuple[str, ...] = ()
    differences: tuple[Difference, ...] = ()
    reason: str = ""
    note: str = ""
    moved: bool = False

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


@dataclass(frozen=True)
class Verification:
    """All trials of one pair of versions."""

    trials: tuple[TrialResult, ...]
    normalised: dict[str, int] = field(default_factory=dict)
    reason: str = ""

    @property
    def verdict(self) -> Verdict:
        """`same` only where a trial ran and none differed."""
        verdicts = {trial.verdict for trial in self.trials}
        if "differs" in verdicts:
            return "differs"
        return "same" if "same" in verdicts else "not run"

    def as_json(self) -> dict[str, Any]:
        """The JSON shape of `verify --json`."""
        return {
            "verdict": self.verdict,
            "reason": self.reason,
            "trials": [trial.as_json() for trial in self.trials],
            "normalised": self.normalised,
        }


class Bench:
    """A builder and a renderer, kept for many verifications."""

    def __init__(self, *, offline: bool = False, say: Say = lambda text: None) -> None:
        self._offline, self._say = offline, say
        self._workbench = ensure(RUNTIMES[WORKBENCH], offline=offline, say=say)
        self._builder: Worker = builder(self._workbench)
        self._renderer: Worker = renderer(self._workbench)
        self._loaded: set[str] = set()
        self._generation = 0
        self._bundles: dict[str, tuple[str, str]] = {}
        self._empty: dict[str, dict[str, Any]] = {}
        self._keys = 0

    def __enter__(self) -> Bench:
        return self

    def __exit__(
        self,
        kind: type[BaseException] | None,
        value: BaseException | None,
        tb: TracebackType | None,
    ) -> None:
        self.close()

    def close(self) -> None:
        """End the workers."""
        self._builder.close()
        self._renderer.close()

    def build(self, side: Side) -> str:
        """Bundle a version; returns its key. Raises `WorkerFailed` where it cannot be built."""
        return self._build(side.runtime, side.place, side.text)

    def _build(self, runtime: Runtime, place: Path | None, text: str) -> str:
        folder = ensure(runtime, offline=self._offline, say=self._say)
        request: dict[str, Any] = {
            "op": "build",
            "adapter": str(WORKER / "adapters" / runtime.adapter),
            "runtime": str(folder),
            "packages": list(runtime.packages),
            "defines": {},
            "project": str(place.parent if place is not None else folder),
        }
        if place is not None:
            request.update(file=str(place), text=text)
        answer = self._builder.ask(request, _BUILD_PATIENCE)
        self._keys += 1
        key = f"{runtime.name}-{self._keys}"
        self._bundles[key] = (answer["code"], answer["css"])
        return key

    def forget(self, *keys: str) -> None:
        """Drop bundles that are no longer needed."""
        for key in keys:
            self._bundles.pop(key, None)

    def render(self, key: str, exported: str, request: dict[str, Any]) -> dict[str, Any]:
        """Run one trial of one version. Raises `WorkerFailed`."""
        if self._renderer.generation != self._generation or self._renderer_gone():
            self._loaded.clear()
        if key not in self._loaded:
            code, css = self._bundles[key]
            self._renderer.ask({"op": "load", "key": key, "code": code, "css": css})
            self._generation = self._renderer.generation
            self._loaded.add(key)
        return self._renderer.ask(
            {"op": "trial", "key": key, "exported": exported, "trial": request}
        )

    def _renderer_gone(self) -> bool:
        return self._renderer.ended

    def baseline(self, runtime: Runtime) -> dict[str, Any]:
        """What an empty component of the runtime leaves behind."""
        if runtime.name not in self._empty:
            key = self._build(runtime, None, "")
            code, css = self._bundles[key]
            self._renderer.ask({"op": "load", "key": key, "code": code, "css": css})
            answer = self._renderer.ask({"op": "trial", "key": key, "empty": True, "trial": {}})
            self._empty[runtime.name] = answer["left"]
            self.forget(key)
        return self._empty[runtime.name]


def verify(
    bench: Bench,
    old: Side,
    new: Side,
    trials: Iterable[Trial],
    interface: Interface | None = None,
    progress: Callable[[str], None] = lambda name: None,
) -> Verification:
    """Run every trial: OLD twice, then NEW; compare at every settled point."""
    keys: list[str] = []
    for side, called in ((old, "old"), (new, "new")):
        try:
            keys.append(bench.build(side))
        except WorkerFailed as error:
            return Verification((), reason=f"the {called} side cannot be built: {error.reason}")
    results: list[TrialResult] = []
    used: Counter[str] = Counter()
    for trial in trials:
        progress(trial.name)
        results.append(_run(bench, old, new, keys, trial, interface, used))
    bench.forget(*keys)
    return Verification(tuple(results), dict(sorted(used.items())))


def _run(
    bench: Bench,
    old: Side,
    new: Side,
    keys: list[str],
    trial: Trial,
    interface: Interface | None,
    used: Counter[str],
) -> TrialResult:
    request = trial.request()
    baseline = (bench.baseline(old.runtime), bench.baseline(new.runtime))
    try:
        first = bench.render(keys[0], old.exported, request)
        again = bench.render(keys[0], old.exported, request)
    except WorkerFailed as error:
        return TrialResult(trial.name, "not run", reason=f"the old side failed: {error.reason}")
    sides = (_normaliser(old), _normaliser(old))
    twice = (baseline[0], baseline[0])
    if differences(trial.name, first, again, twice, sides, one_runtime=True):
        return TrialResult(trial.name, "void", reason="the old side differs from itself")
    if not draws_or_calls(first):
        reason = "the old side draws no element and calls nothing"
        errors = _errors(first)
        if errors:
            reason += f" ({errors[0]})"
        return TrialResult(trial.name, "not run", reason=reason)
    steps = tuple(point["name"] for point in first["points"])
    try:
        second = bench.render(keys[1], new.exported, trial.request(interface))
    except WorkerFailed as error:
        gap = Difference(trial.name, 0, "shown", "end", "", "came to rest", error.reason)
        return TrialResult(trial.name, "differs", steps, (gap,))
    sides = (_normaliser(old), _normaliser(new))
    one_runtime = old.runtime.framework == new.runtime.framework
    found = differences(trial.name, first, second, baseline, sides, one_runtime=one_runtime)
    for side in sides:
        used.update(side.used)
    errors = _errors(first)
    note = f"both threw {errors[0]}" if errors and not found else ""
    trees = [point["tree"] for point in first["points"] if point["name"] != "remove"]
    moved = any(tree != trees[0] for tree in trees)
    verdict = "differs" if found else "same"
    return TrialResult(trial.name, verdict, steps, tuple(found), note=note, moved=moved)


def _normaliser(side: Side) -> Normaliser:
    return Normaliser((*_MARKS.get(side.runtime.framework, ()), *side.marks))


def _errors(answer: dict[str, Any]) -> list[str]:
    return [error for point in answer["points"] for error in point["errors"]]


def read_text(path: Path) -> str:
    """The text of a version. Raises `InputError`."""
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
