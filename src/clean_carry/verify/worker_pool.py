"""The rendering bench: a builder, a pool of renderers, and what they made kept in the cache."""

from __future__ import annotations

import threading
from collections.abc import Callable, Iterator, Sequence
from contextlib import contextmanager, suppress
from dataclasses import dataclass, field, replace
from pathlib import Path
from queue import Empty, SimpleQueue
from types import TracebackType
from typing import TYPE_CHECKING, Any

from clean_carry.project.settings import Settings
from clean_carry.verify.application import Application
from clean_carry.verify.client import Worker, WorkerFailed, builder, renderer
from clean_carry.verify.runtimes import RUNTIMES, WORKBENCH, WORKER, Runtime, ensure
from clean_carry.verify.search.inputs.signals import hub_name
from clean_carry.verify.search.values.shape import Shape
from clean_carry.verify.store import Store
from clean_carry.verify.uses.model import Uses
from clean_carry.verify.views import ASKED, STATEFUL, Kept, Prepared, Views, ViewTexts, texts_of
from clean_carry.verify.views import FRAMEWORK as VIEWS

if TYPE_CHECKING:
    from clean_carry.verify.browser.browser_run import Gaze
    from clean_carry.verify.browser.engine import Browser

Say = Callable[[str], None]
_BUILD_PATIENCE = 120.0


@dataclass(frozen=True)
class Side:
    """One version of a component: the place it stands at, its text, and its runtime.

    `exported` is the export that is mounted ("" for the one the renderer picks), `marks` are
    attributes that only scope its styles, `extra` files that belong to it and are not on the disk,
    `uses` what the project's uses of it tell, `around` the module of the parents it is mounted in,
    `outer` what is known of the inputs of the innermost of them,
    `hubs` the objects of other modules that trials send signals by: (file, name there), `application`
    the rest of the application it is part of, where components are registered and not imported,
    `lines` the stretches (first, last) of the file that are this component's own; none means all, and
    `beside` says that it stands beside the file at `place`, which others go on importing; `bridged` is the
    runtime of another framework whose components it renders through a bridge; `lifted` says that blocks of
    it became components.
    """

    place: Path
    text: str
    runtime: Runtime
    exported: str = ""
    marks: tuple[str, ...] = ()
    settings: Settings = field(default_factory=Settings)
    extra: tuple[tuple[Path, str], ...] = ()
    uses: Uses | None = None
    around: Path | None = None
    outer: dict[str, Shape] = field(default_factory=dict)
    hubs: tuple[tuple[str, str], ...] = ()
    application: Application | None = None
    lines: tuple[tuple[int, int], ...] = ()
    beside: bool = False
    bridged: Runtime | None = None
    lifted: bool = False


@dataclass(frozen=True)
class Bundle:
    """A version bundled: its code and styles, and the counters of its own file.

    `counters` are {"id", "line", "kind"} of every branch and function, None where the file could not
    be instrumented. `digest` names the content of everything it was made of, `files` are the files
    among that, the component's own left out, `uncompiled` (file, package) of styles for which the
    project has no such compiler. `views` are the texts of a component that a server renders.
    """

    code: str
    css: str
    counters: tuple[dict[str, Any], ...] | None
    digest: str
    files: tuple[str, ...] = ()
    uncompiled: tuple[tuple[str, str], ...] = ()
    views: ViewTexts | None = None


class Lane:
    """One renderer and what it has loaded. Used by one thread at a time."""

    def __init__(self, workbench: Path) -> None:
        self._worker: Worker = renderer(workbench)
        self._loaded: set[str] = set()
        self._generation = 0
        self._runs = 0
        # Processes that render views, by bundle, and what open runs are given.
        self._views: dict[str, Views] = {}
        self._prepared: dict[int, Prepared] = {}

    def close(self) -> None:
        """End the process."""
        self._worker.close()
        for views in self._views.values():
            views.close()

    def _rendering(self, bundle: Bundle, texts: ViewTexts) -> Views:
        if bundle.digest not in self._views:
            self._views[bundle.digest] = Views(texts)
        return self._views[bundle.digest]

    def _played(self, bundle: Bundle, exported: str, request: dict[str, Any]) -> dict[str, Any]:
        """A trial of a stateful view, step by step: whatever the page asks for is answered at once."""
        assert bundle.views is not None
        kept = Kept(self._rendering(bundle, bundle.views), request.get("inputs", {}))
        first = {**request.get("inputs", {}), **kept.given()}
        opened = {**request, "inputs": first, "steps": []}
        self._runs += 1
        run = self._runs
        message = {"op": "open", "exported": exported, "trial": opened, "run": run, "reuse": False}
        points = [self._settled(run, self._ask(bundle, message)["point"], kept)]
        for step in request.get("steps", ()):
            if "change" in step:
                step = {"change": _changed(step["change"], kept)}
            answer = self._worker.ask({"op": "step", "run": run, "step": step})
            points.append(self._settled(run, answer["point"], kept))
        return {"points": points, **self._worker.ask({"op": "end", "run": run, "reuse": False})}

    def _settled(self, run: int, point: dict[str, Any], kept: Kept) -> dict[str, Any]:
        """A point after the answers to all calls of the page."""
        asked = [one[1] for one in point["calls"] if one[0] == ASKED]
        point["calls"] = [one for one in point["calls"] if one[0] != ASKED]
        while asked:
            if not kept.asked(asked.pop(0)):
                continue
            answer = {"op": "step", "run": run, "step": {"change": {"inputs": kept.given()}}}
            later = self._worker.ask(answer)["point"]
            asked += [one[1] for one in later["calls"] if one[0] == ASKED]
            for part in ("calls", "requests", "errors"):
                later[part] = [*point[part], *(one for one in later[part] if one[0] != ASKED)]
            point = {**later, **{part: point[part] for part in ("name", "prevented", "missing")}}
        return point

    def _prepare(
        self, bundle: Bundle, request: dict[str, Any]
    ) -> tuple[dict[str, Any], Prepared | None]:
        """A trial with what a server renders for it."""
        if bundle.views is None:
            return request, None
        prepared = Prepared(self._rendering(bundle, bundle.views), request)
        return prepared.request(request), prepared

    def trial(
        self, bundle: Bundle, exported: str, request: dict[str, Any], *, reuse: bool = False
    ) -> dict[str, Any]:
        """Run a whole trial, in a fresh page unless `reuse` allows one put back as it was found.

        Raises `WorkerFailed`.
        """
        if bundle.views is not None and bundle.views.stateful:
            return self._played(bundle, exported, request)
        request, _ = self._prepare(bundle, request)
        message = {"op": "trial", "exported": exported, "trial": request, "reuse": reuse}
        return self._ask(bundle, message)

    def empty(self, bundle: Bundle) -> dict[str, Any]:
        """Run an empty component of the bundle's runtime."""
        return self._ask(bundle, {"op": "trial", "empty": True, "trial": {}})

    def open(
        self, bundle: Bundle, exported: str, request: dict[str, Any]
    ) -> tuple[int, dict[str, Any]]:
        """Mount a component for stepping: (run, answer with `point` and `actions`)."""
        self._runs += 1
        request, prepared = self._prepare(bundle, request)
        if prepared is not None:
            self._prepared[self._runs] = prepared
        message = {"op": "open", "exported": exported, "trial": request}
        return self._runs, self._ask(
            bundle, {**message, "run": self._runs, "look": True, "reuse": True}
        )

    def step(self, run: int, step: dict[str, Any]) -> dict[str, Any]:
        """Do one step of an open run; the answer has `point` and `actions`."""
        if run in self._prepared:
            step = self._prepared[run].step(step)
        return self._worker.ask({"op": "step", "run": run, "step": step, "look": True})

    def end(self, run: int) -> dict[str, Any]:
        """Remove the component; the answer has `left`, `last` and `reach`."""
        self._prepared.pop(run, None)
        return self._worker.ask({"op": "end", "run": run, "reuse": True})

    def _ask(self, bundle: Bundle, request: dict[str, Any]) -> dict[str, Any]:
        worker = self._worker
        if worker.ended or worker.generation != self._generation:
            self._loaded.clear()
        key = bundle.digest
        if key not in self._loaded:
            worker.ask({"op": "load", "key": key, "code": bundle.code, "css": bundle.css})
            self._generation = worker.generation
            self._loaded.add(key)
        return worker.ask({**request, "key": key})


class Crew:
    """The renderers of one search: one of its own, and others while nobody else needs them.

    A search that keeps to its own renderer keeps its code warm there; where several searches run at
    once none loads its bundles into the renderers of the others. Safe to share between threads.
    """

    def __init__(self, lane: Lane, free: SimpleQueue[Lane]) -> None:
        self._own: SimpleQueue[Lane] = SimpleQueue()
        self._own.put(lane)
        self._free = free

    @contextmanager
    def lane(self) -> Iterator[Lane]:
        """A renderer for the calling thread alone: its own one first, else one that is free."""
        home = self._own
        try:
            lane = home.get_nowait()
        except Empty:
            home = self._free
            try:
                lane = home.get_nowait()
            except Empty:
                home = self._own
                lane = home.get()
        try:
            yield lane
        finally:
            home.put(lane)

    def warm(self, bundles: Sequence[Bundle]) -> None:
        """Start its own renderer and those that are free, and load bundles into each."""
        lanes = [(self._own, self._own.get())]
        with suppress(Empty):
            while True:
                lanes.append((self._free, self._free.get_nowait()))

        def load(home: SimpleQueue[Lane], lane: Lane) -> None:
            with suppress(WorkerFailed):
                for bundle in bundles:
                    lane.empty(bundle)
            home.put(lane)

        threads = [threading.Thread(target=load, args=pair) for pair in lanes]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join()


class Bench:
    """A builder and `size` renderers, kept for many verifications. Safe to share between threads.

    With a `gaze` what is verified is also looked at in a browser, which is started on first need.
    Set `stopped` to have the searches under way end with what they found.
    """

    def __init__(
        self,
        *,
        offline: bool = False,
        say: Say = lambda text: None,
        size: int = 2,
        store: Store | None = None,
        gaze: Gaze | None = None,
    ) -> None:
        self._offline, self._say = offline, say
        self.store = store if store is not None else Store(None)
        self.size = size
        self.gaze = gaze
        self._browser: Browser | None = None
        self._looking = threading.Lock()
        self.stopped = threading.Event()
        self._workbench = ensure(RUNTIMES[WORKBENCH], offline=offline, say=say)
        self._builder: Worker = builder(self._workbench)
        self._lanes = [Lane(self._workbench) for _ in range(size)]
        self._free: SimpleQueue[Lane] = SimpleQueue()
        for lane in self._lanes:
            self._free.put(lane)
        self._lock = threading.Lock()
        self._bundles: dict[str, Bundle] = {}
        self._changed: set[str] = set()
        self._empty: dict[str, dict[str, Any]] = {}

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
        if self._browser is not None:
            self._browser.close()
        for lane in self._lanes:
            lane.close()

    @contextmanager
    def lane(self) -> Iterator[Lane]:
        """A renderer for the calling thread alone; waits until one is free."""
        lane = self._free.get()
        try:
            yield lane
        finally:
            self._free.put(lane)

    @contextmanager
    def browser(self) -> Iterator[Browser]:
        """The browser for the calling thread alone; waits until it is free.

        Raises `RuntimeMissing` where there is none.
        """
        from clean_carry.verify.browser.engine import Browser

        with self._looking:
            if self._browser is None:
                self._browser = Browser(offline=self._offline, say=self._say)
            yield self._browser

    @contextmanager
    def crew(self) -> Iterator[Crew]:
        """A renderer for one search, and whichever others are free; waits until there is one."""
        with self.lane() as lane:
            yield Crew(lane, self._free)

    @property
    def files(self) -> set[Path]:
        """The files that what was built so far imports."""
        with self._lock:
            return {Path(name) for bundle in self._bundles.values() for name in bundle.files}

    def build(self, side: Side, *, development: bool = False) -> Bundle:
        """Bundle a version. Raises `WorkerFailed` where it cannot be built."""
        return self._build(side.runtime, side, development=development)

    def shipped(self, place: Path, runtime: Runtime, settings: Settings) -> tuple[int, int]:
        """The size of a file and its imports from the project in a browser, packages left out: bytes when
        minified, and bytes when compressed too. Raises `WorkerFailed` where it cannot be built."""
        folder = ensure(runtime, offline=self._offline, say=self._say)
        request = {"op": "size", "file": str(place), "runtime": str(folder)}
        answer = self._builder.ask({**request, **settings.for_builder()}, _BUILD_PATIENCE)
        return int(answer["bytes"]), int(answer["compressed"])

    def baseline(self, runtime: Runtime, *, development: bool = False) -> dict[str, Any]:
        """Return the leftovers of an empty component of the runtime."""
        bundle = self._build(runtime, None, development=development)
        with self._lock:
            known = self._empty.get(bundle.digest)
        if known is None:
            known = self.store.value(("empty", bundle.digest))
            if known is None:
                with self.lane() as lane:
                    known = dict(lane.empty(bundle)["left"])
                self.store.keep(("empty", bundle.digest), known)
            with self._lock:
                self._empty[bundle.digest] = known
        return known

    def _build(self, runtime: Runtime, side: Side | None, *, development: bool) -> Bundle:
        folder = ensure(runtime, offline=self._offline, say=self._say)
        request: dict[str, Any] = {
            "op": "build",
            "adapter": str(WORKER / "adapters" / runtime.adapter),
            "runtime": str(folder),
            "packages": list(runtime.packages),
            "mode": "development" if development else "production",
            "defines": {},
            "project": str(side.place.parent if side is not None else folder),
        }
        if side is not None:
            request.update(file=str(side.place), text=side.text, beside=side.beside)
            request.update(side.settings.for_builder())
            request["extra"] = {str(path): text for path, text in side.extra}
            request["hubs"] = [[hub_name(*hub), *hub] for hub in side.hubs]
            if side.application is not None:
                request["companions"] = [str(path) for path in side.application.scripts]
                request["application"] = side.application.for_page()
            if side.bridged is not None:
                bridged = ensure(side.bridged, offline=self._offline, say=self._say)
                request["bridged"] = str(bridged)
                # Single files are compiled by their own framework, whichever side it is on.
                request["single"] = str(bridged if side.bridged.framework == "vue" else folder)
            if side.around is not None:
                request["around"] = str(side.around)
            if side.uses is not None and side.uses.text:
                request["uses"] = str(side.uses.place)
                request["extra"][request["uses"]] = side.uses.text
        key = self.store.digest(("bundle", request))
        with self._lock:
            if key in self._changed or key not in self._bundles:
                made = self._stored(key, request) or self._built(key, request)
                if side is not None and runtime.framework in (VIEWS, STATEFUL):
                    texts = texts_of(side.place, side.text, side.extra)
                    made = replace(made, views=texts, digest=f"{made.digest}-{texts.digest}")
                self._bundles[key] = made
                self._changed.discard(key)
            return self._bundles[key]

    def forget(self, paths: set[Path]) -> None:
        """Build anew whatever imports one of these files, which have changed."""
        names = {str(path) for path in paths}
        with self._lock:
            self._changed |= {
                key for key, bundle in self._bundles.items() if not names.isdisjoint(bundle.files)
            }

    def _stored(self, key: str, request: dict[str, Any]) -> Bundle | None:
        kept = self.store.value(("bundle", key))
        if kept is None or self.store.digest_of_files(kept["inputs"]) != kept["files"]:
            return None
        if self.store.digest_of_places(_places(kept["inputs"], request)) != kept.get("places"):
            # Something resolves elsewhere now.
            return None
        return _bundle(kept, key)

    def _built(self, key: str, request: dict[str, Any]) -> Bundle:
        answer = self._builder.ask(request, _BUILD_PATIENCE)
        own = {request.get("file"), *request.get("extra", ())}
        inputs = sorted(name for name in answer["inputs"] if name not in own)
        kept = {
            "code": answer["code"],
            "css": answer["css"],
            "inputs": inputs,
            "files": self.store.digest_of_files(inputs),
            "places": self.store.digest_of_places(_places(inputs, request)),
            "uncompiled": answer["uncompiled"],
            "counters": None
            if answer["branches"] is None
            else [*answer["branches"], *answer["functions"]],
        }
        self.store.keep(("bundle", key), kept)
        return _bundle(kept, key)


def _changed(change: dict[str, Any], kept: Kept) -> dict[str, Any]:
    """A change of inputs with the pages that it leads to; changes at once are one request."""
    inputs: dict[str, Any] = {}
    without: dict[str, None] = {}
    one: dict[str, Any] | None = change
    while one is not None:
        inputs.update(one.get("inputs", {}))
        without = {n: None for n in without if n not in one.get("inputs", {})}
        without.update(dict.fromkeys(one.get("without", ())))
        one = one.get("then")
    kept.changed({n: value for n, value in inputs.items() if n not in without}, list(without))

    def given(part: dict[str, Any]) -> dict[str, Any]:
        made = {**part, "inputs": {**part.get("inputs", {}), **kept.given()}}
        return {**made, "then": given(part["then"])} if "then" in part else made

    return given(change)


def _places(inputs: list[str], request: dict[str, Any]) -> list[str]:
    """The files whose places decide what a bundle is made of."""
    return [*inputs, *(name for name in (request.get("file"),) if name)]


def _bundle(kept: dict[str, Any], key: str) -> Bundle:
    counters = kept["counters"]
    return Bundle(
        kept["code"],
        kept["css"],
        tuple(counters) if counters is not None else None,
        f"{key}-{kept['files']}",
        tuple(kept["inputs"]),
        tuple((file, package) for file, package in kept["uncompiled"]),
    )


__all__ = ["Bench", "Bundle", "Crew", "Lane", "Side", "WorkerFailed"]
