"""From two files to two sides: runtimes, settings, interface map, the export that is mounted, trials."""

from __future__ import annotations

import posixpath
import re
from collections import Counter
from collections.abc import Iterable
from dataclasses import dataclass, replace
from pathlib import Path
from typing import TYPE_CHECKING

from clean_carry.component.errors import CarryError
from clean_carry.component.interface import InterfaceMap
from clean_carry.component.result import NewFile, Result
from clean_carry.crossing.carry import Request, carry_file
from clean_carry.project.settings import Settings, settings_for
from clean_carry.source.text import SourceText
from clean_carry.source.workspace import Workspace, package_version
from clean_carry.syntaxes.jsx_function.from_markup.names import function_name
from clean_carry.syntaxes.jsx_function.from_markup.styles import scope_mark
from clean_carry.syntaxes.registered_object.as_single_file import as_single_file
from clean_carry.syntaxes.registered_object.syntax import SYNTAX as REGISTERED
from clean_carry.syntaxes.registry import crossings, declared, recognise
from clean_carry.syntaxes.scoped_template.registrations import registers
from clean_carry.syntaxes.single_file.stands_for import NotAFile
from clean_carry.syntaxes.written import beside as place_of_new
from clean_carry.verify.application import application_of, made_of
from clean_carry.verify.frameworks import MANNERS, manner_of
from clean_carry.verify.reach import Reach
from clean_carry.verify.runtimes import RUNTIMES, Runtime, runtime_for
from clean_carry.verify.search.inputs.read_inputs import read_inputs
from clean_carry.verify.search.inputs.signals import hubs_of
from clean_carry.verify.told import told_of
from clean_carry.verify.trials import Trial, beside, load
from clean_carry.verify.verify import (
    Effort,
    Progress,
    Verification,
    explore,
    read_text,
    verify,
)
from clean_carry.verify.views import FRAMEWORK as VIEWS
from clean_carry.verify.views import STATEFUL
from clean_carry.verify.worker_pool import Bench, Side

if TYPE_CHECKING:
    from clean_carry.verify.browser.browser_run import Seen

_SCRIPTS = frozenset({".js", ".jsx", ".ts", ".tsx"})


@dataclass(frozen=True)
class Trials:
    """Trials and the export they mount; `trials` is None if they are to be generated."""

    trials: tuple[Trial, ...] | None
    exported: str = ""


def pair_of(
    old: Path, new: Path, runtime_name: str | None = None
) -> tuple[Side, Side, InterfaceMap | None]:
    """The two sides, and the interface map where they are of different frameworks.

    Raises `CarryError` for files that cannot be read and runtimes that do not exist.
    """
    return sides_of(old, read_text(old), new, read_text(new), runtime_name)


def sides_of(
    old: Path,
    old_text: str,
    new: Path,
    new_text: str,
    runtime_name: str | None = None,
    *,
    new_alone: bool = False,
) -> tuple[Side, Side, InterfaceMap | None]:
    """The same for texts that need not stand on the disk; where `new_alone`, the runtime of that name is
    the new side's, and the old one runs where the project has it."""
    settings = settings_for(old)
    written = old
    old, old_text = _as_run(old, old_text)
    frameworks = [_framework(path, text) for path, text in ((old, old_text), (new, new_text))]
    folder = old.resolve().parent
    runtimes = [_runtime(framework, folder, settings) for framework in frameworks]
    if runtime_name is not None:
        if runtime_name not in RUNTIMES:
            raise CarryError(
                f"there is no runtime “{runtime_name}”", advice="`clean-carry runtimes` lists them"
            )
        chosen = RUNTIMES[runtime_name]
        fits = [one.framework == chosen.framework for one in runtimes]
        kept = new_alone and package_version(folder, chosen.framework) is not None
        runtimes = [
            chosen if fit and not (kept and at == 0) else one
            for at, (one, fit) in enumerate(zip(runtimes, fits, strict=True))
        ]
    place = old.resolve()
    new_place = _place_of_new(old, new, frameworks[1])
    hubs = hubs_of(old_text, str(place))
    before = Side(place, old_text, runtimes[0], settings=settings, hubs=hubs)
    beside = new.resolve() != place
    after = Side(new_place, new_text, runtimes[1], settings=settings, hubs=hubs, beside=beside)
    if MANNERS[frameworks[0]].registered:
        application = application_of(place, old_text, new_text)
        before = replace(before, application=application)
        if frameworks[0] == frameworks[1]:
            made = made_of(application.scripts, new, new_text) if new.resolve() != place else ()
            after = replace(after, application=application, extra=made)
    if frameworks[0] == frameworks[1]:
        return before, after, None
    target = MANNERS[frameworks[1]].target
    told = told_of(written, old_text) if declared(target).typed else ""
    results = carry_file(Request(written, str(written), target, assume_carried=True, told=told))
    found = next((one for one in results if one.status != "refused"), None)
    interface = found.interface if found is not None else InterfaceMap()
    mark = (
        scope_mark(function_name(found.component))
        if found is not None and target == "jsx-function"
        else ""
    )
    marks = (mark,) if mark and f'{mark}=""' in new_text else ()
    return before, replace(after, marks=marks), interface


def _place_of_new(old: Path, new: Path, framework: str) -> Path:
    """Where the new text stands in for the old one, or beside it where that has another language."""
    place = old.resolve()
    if framework in (VIEWS, STATEFUL):
        return place.with_name(new.name)
    gains_types = new.suffix != old.suffix and new.suffix in (".ts", ".tsx")
    # Classes with decorators are compiled from scripts with types alone.
    scripts = {old.suffix, new.suffix} <= _SCRIPTS and not gains_types
    scripts = scripts and framework != "@angular/core"
    return place if scripts else place.with_suffix(new.suffix)


def _as_run(old: Path, text: str) -> tuple[Path, str]:
    """A file as its runtime compiles it: a script that registers a component as the single file it stands
    for, its lines where they are."""
    source = SourceText(str(old), text.encode())
    if old.suffix not in _SCRIPTS or recognise(source) != REGISTERED.id:
        return old, text
    try:
        made = as_single_file(source, lead="")
    except NotAFile:
        return old, text
    return old.with_suffix(".vue"), made.data.decode()


def sides_of_result(
    old: Path, result: Result, major: int | None = None
) -> tuple[Side, Side, InterfaceMap | None]:
    """The old side, and what it was carried to, which need not stand on the disk yet.

    `major` is the version of the target's runtime to render in, None for the project's own.
    """
    first, *others = result.files
    new = Path(first.path)
    name = f"{declared(result.target).runtime.name}-{major}" if major is not None else None
    sides = sides_of(old, read_text(old), old.with_name(new.name), first.text, name, new_alone=True)
    folder = old.resolve().parent
    extra = tuple((folder / Path(file.path).name, file.text) for file in others)
    if sides[1].application is not None:
        # A template stands beside the old one; a script that holds templates takes the old one's place.
        known = {
            place_of_new(script.as_posix(), declared(result.target).suffix): script
            for script in sides[1].application.scripts
        }
        places = [(file, _resolved(file, first, folder)) for file in others]
        extra = tuple((known[at], file.text) for file, at in places if at in known)
        more = {
            Path(file.path).as_posix().lstrip("/"): file.text
            for file, at in places
            if at not in known
        }
        application = sides[1].application.with_templates(more)
        return sides[0], replace(sides[1], application=application, extra=extra), sides[2]
    if sides[2] is None and sides[0].runtime != sides[1].runtime:
        extra += tuple(_upgraded(sides[1], result.target, major).items())
    return sides[0], replace(sides[1], extra=extra), sides[2]


def _upgraded(new: Side, target: str, major: int | None) -> dict[Path, str]:
    """Return the project's components that a new side renders, written for its version as well.

    A file that cannot be written stays as it is: the new side fails of it then.
    """
    found: dict[Path, str] = {}
    open_ = [(new.place.resolve(), new.text)]
    while open_:
        place, text = open_.pop()
        workspace = Workspace(place, dict(settings_for(place).aliases))
        for request in _SINGLE_FILES.findall(text):
            child = workspace.resolve(request, place)
            if child is None or child in found or child == new.place.resolve():
                continue
            try:
                made = carry_file(Request(child, str(child), target, runtime=major))[0]
            except CarryError:
                continue
            if made.files:
                found[child] = made.files[0].text
                open_.append((child, made.files[0].text))
    return found


# Endings that imports of scripts leave out.
_ENDINGS = (".jsx", ".tsx", ".js", ".ts")


def with_drawn(new: Side, written: Iterable[tuple[Path, str]]) -> Side:
    """A new side with those of other new files that it imports, and that those import."""
    known = {place.resolve(): text for place, text in written}
    found = dict(new.extra)
    if new.place.name.endswith(".blade.php"):
        # Views name each other by tags: all that stand beside this one may be used.
        beside = {
            path: text for path, text in known.items() if path.parent == new.place.resolve().parent
        }
        return replace(new, extra=tuple({**beside, **found}.items()))
    open_ = [(new.place.resolve(), new.text), *found.items()]
    while open_:
        place, text = open_.pop()
        for request in (*_IMPORTED.findall(text), *_PARTS.findall(text)):
            named = (place.parent / request).resolve()
            places = (named, *(named.with_name(named.name + ending) for ending in _ENDINGS))
            child = next((one for one in places if one in known), named)
            if child in known and child not in found and child != new.place.resolve():
                found[child] = known[child]
                open_.append((child, known[child]))
    return replace(new, extra=tuple(found.items()))


def _resolved(file: NewFile, first: NewFile, folder: Path) -> str:
    """Return the path of another new file, from the path of the first one in `folder`."""
    way = posixpath.relpath(
        posixpath.dirname(file.path) or ".", posixpath.dirname(first.path) or "."
    )
    return posixpath.normpath(posixpath.join(folder.as_posix(), way, posixpath.basename(file.path)))


def carried_as(old: Path, new_text: str) -> tuple[Result, ...]:
    """The results of the crossing that makes exactly this text of a file; none where no crossing does."""
    for origin, target in crossings():
        try:
            results = carry_file(Request(old, str(old), target, origin))
        except CarryError:
            continue
        if any(file.text == new_text for result in results for file in result.files):
            return tuple(results)
    return ()


def _runtime(framework: str, folder: Path, settings: Settings) -> Runtime:
    wanted = settings.runtimes.get(framework)
    if wanted is not None:
        name = f"{framework}-{wanted.split('.')[0]}"
        if name in RUNTIMES:
            return RUNTIMES[name]
        raise CarryError(
            f"there is no runtime “{name}”", advice="`clean-carry runtimes` lists them"
        )
    return runtime_for(framework, folder)


def _framework(path: Path, text: str) -> str:
    if path.suffix in (".html", ".htm"):
        return "page"
    if path.name.endswith(".blade.php"):
        return STATEFUL if "wire:" in text else VIEWS
    if path.suffix == ".vue":
        return "vue"
    if path.suffix == ".ts" and _DECORATED.search(text):
        return "@angular/core"
    return "angular" if registers(text.encode()) else "react"


# A class that the runtime of decorated classes renders.
_DECORATED = re.compile(r"@Component\s*\(")


# The files that a new file imports by path.
_SINGLE_FILES = re.compile(r"""from\s+['"]([^'"]+\.vue)['"]""")
_IMPORTED = re.compile(r"""\b(?:from|import)\s+['"](\.[^'"]+)['"]""")
# The files that a class with a decorator names for its template and its styles.
_PARTS = re.compile(r"""\b(?:templateUrl|styleUrl)\s*:\s*['"](\.[^'"]+)['"]""")
# Names of components, and of functions that make components.
_MOUNTED = re.compile(r"[^a-z]|with[A-Z]")
# A component that is mounted without an error less often is tried inside its parents too.
_SELDOM = 0.5
_MAKER = re.compile(r"with[A-Z]")


def mounts_of(old: Side, new: Side) -> list[str]:
    """The exports both sides have that could be the component, the likeliest first.

    The default export comes first; then the one named like the file; then others that are named as
    components are, with a capital.
    """
    stem = old.place.name.split(".")[0]
    ours = read_inputs(old.text, str(old.place)).exports
    theirs = read_inputs(new.text, str(new.place)).exports
    if manner_of(old).registered:
        return [name for name in ours if name in theirs]
    if "default" not in ours and theirs == ["default"] and new.place.suffix == ".vue":
        return [name for name in ours if _MOUNTED.match(name)]
    shared = [name for name in ours if name in theirs and _MOUNTED.match(name)]
    shared.sort(key=lambda name: (_MAKER.match(name) is not None, name != stem))
    return (["default"] if "default" in ours and "default" in theirs else []) + shared


def trials_for(old: Path, trial_file: Path | None) -> Trials:
    """Return the trials of a file: those passed, or those beside the old component; None to
    generate them."""
    if trial_file is None and beside(old).is_file():
        trial_file = beside(old)
    if trial_file is not None:
        found = load(trial_file)
        return Trials(found.trials, found.component or "")
    return Trials(None)


def verified(
    bench: Bench,
    sides: tuple[Side, Side],
    interface: InterfaceMap | None,
    trials: Trials,
    effort: Effort,
    progress: Progress = lambda text: None,
) -> Verification:
    """Verify with the trials there are, or with generated trials.

    Where no export is named and the likeliest one renders nothing, the next one is mounted.
    """
    old, new = sides
    manner = manner_of(old)
    if trials.trials is None and old.runtime.framework == "page":
        # A page takes nothing and does nothing: it is shown.
        trials = Trials((Trial("shown"),), trials.exported)
    if trials.trials is not None:
        old, new = (manner_of(side).mounted(side, trials.exported) for side in (old, new))
        if any(trial.in_use for trial in trials.trials):
            old, new = _as_used(old, new)
        return verify(bench, old, new, trials.trials, interface, progress)
    names = [trials.exported] if trials.exported else mounts_of(old, new) or [""]
    result = Verification((), reason="neither side exports a component of the same name")
    for name in names[:4]:
        mounted = manner.mounted(old, name), manner_of(new).mounted(new, name)
        one_family = old.runtime.framework == new.runtime.framework and interface is None
        if one_family and not manner.registered:
            result, mounted = _in_use(bench, mounted, effort, progress)
        else:
            result = explore(bench, *mounted, effort, interface, progress)
        if result.reason.startswith("the "):
            return result
        if not manner.registered and _seldom_clean(result):
            result = _inside(bench, mounted, effort, interface, progress) or result
        if result.verdict != "not run":
            return result
    return result


def verified_each(
    bench: Bench,
    sides: tuple[Side, Side],
    names: list[str],
    trials: Trials,
    effort: Effort,
    progress: Progress = lambda text: None,
) -> Verification:
    """Verify every component that a file registers: the first verdict that is not `same`, else all.

    Given trials mount what they name; every other component is searched.
    """
    found: list[Verification] = []
    for name in names:
        own = (
            trials if trials.trials is not None and trials.exported == name else Trials(None, name)
        )
        result = verified(bench, sides, None, own, effort, progress)
        if result.verdict != "same" or len(names) == 1:
            return result
        found.append(result)
    used = Counter[str]()
    for result in found:
        used.update(result.normalised)
    last = found[-1]
    return replace(
        last,
        trials=tuple(t for result in found for t in result.trials),
        sources=tuple(s for result in found for s in result.sources),
        looks=tuple(s for result in found for s in result.looks),
        normalised=dict(sorted(used.items())),
        reach=_together(found),
        tried=sum(result.tried for result in found),
        points=sum(result.points for result in found),
        mounted=", ".join(result.mounted for result in found),
        seen=_seen(found),
    )


def _together(found: list[Verification]) -> tuple[Reach, Reach] | None:
    """Return the reach of all components of a file together."""
    every = [result.reach for result in found if result.reach is not None]
    if not every:
        return None
    return Reach.joined([old for old, _ in every]), Reach.joined([new for _, new in every])


def _seen(found: list[Verification]) -> Seen | None:
    """Return the browser's results for all of them, if one was wanted."""
    every = [result.seen for result in found if result.seen is not None]
    if not every:
        return None
    return replace(
        every[-1],
        results=tuple(one for seen in every for one in seen.results),
        views=tuple(dict.fromkeys(view for seen in every for view in seen.views)),
        points=sum(seen.points for seen in every),
        shots=tuple(shot for seen in every for shot in seen.shots),
        unlooked=max(seen.unlooked for seen in every),
        uncompiled=tuple(dict.fromkeys(one for seen in every for one in seen.uncompiled)),
    )


def _in_use(
    bench: Bench, sides: tuple[Side, Side], effort: Effort, progress: Progress
) -> tuple[Verification, tuple[Side, Side]]:
    """With the content and inputs the project gives the component, where that content can be shown."""
    old, new = sides = _as_used(*sides)
    uses = old.uses
    result = explore(bench, *sides, effort, None, progress)
    if uses is not None and uses.text and (result.verdict == "not run" or not result.clean_starts):
        plain = uses.plain()
        sides = replace(old, uses=plain), replace(new, uses=plain)
        other = explore(bench, *sides, effort, None, progress)
        if other.verdict != "not run" or result.verdict == "not run":
            result = other
    return result, sides


def _seldom_clean(result: Verification) -> bool:
    """Whether a component may lack the parents it is made for: it fails by itself, or nearly always."""
    if result.verdict == "not run" or not result.clean_starts:
        return True
    return result.verdict == "same" and result.clean_starts < _SELDOM


def _as_used(old: Side, new: Side) -> tuple[Side, Side]:
    """Both sides with what the project's uses of the old one tell."""
    uses = manner_of(old).uses(old)
    return replace(old, uses=uses), replace(new, uses=uses)


def _inside(
    bench: Bench,
    sides: tuple[Side, Side],
    effort: Effort,
    interface: InterfaceMap | None,
    progress: Progress,
) -> Verification | None:
    """Once more inside the parents that the project's own uses put around the component."""
    old, new = sides
    if old.runtime.framework != new.runtime.framework:
        return None
    parents = manner_of(old).parents(old)
    if parents is None:
        return None
    module = (parents.place, parents.text)
    old, new = (
        replace(side, around=parents.place, outer=parents.inputs, extra=(*side.extra, module))
        for side in (old, new)
    )
    found = explore(bench, old, new, effort, interface, progress)
    return replace(found, around=parents.shown) if found.verdict != "not run" else None
