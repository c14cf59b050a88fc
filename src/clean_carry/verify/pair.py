"""From two files to two sides: runtimes, interface map and trials."""

from __future__ import annotations

from dataclasses import dataclass, replace
from pathlib import Path

from clean_carry.component.errors import CarryError
from clean_carry.component.interface import Interface
from clean_carry.crossing.carry import Request, carry_file
from clean_carry.verify.plain import plain_trials
from clean_carry.verify.runtimes import RUNTIMES, runtime_for
from clean_carry.verify.trials import Trial, beside, load
from clean_carry.verify.verify import Side, read_text


@dataclass(frozen=True)
class Trials:
    """Trials and the export they mount."""

    trials: tuple[Trial, ...]
    exported: str = ""

    def mount(self, side: Side) -> Side:
        """The side with the export to mount."""
        return replace(side, exported=self.exported)


def pair_of(
    old: Path, new: Path, runtime_name: str | None = None
) -> tuple[Side, Side, Interface | None]:
    """The two sides, and the interface map where they are of different frameworks.

    Raises `CarryError` for files that cannot be read and runtimes that do not exist.
    """
    texts = read_text(old), read_text(new)
    frameworks = [_framework(path) for path in (old, new)]
    folder = old.resolve().parent
    runtimes = [runtime_for(framework, folder) for framework in frameworks]
    if runtime_name is not None:
        if runtime_name not in RUNTIMES:
            raise CarryError(
                f"there is no runtime “{runtime_name}”", advice="`clean-carry runtimes` lists them"
            )
        chosen = RUNTIMES[runtime_name]
        runtimes = [chosen if r.framework == chosen.framework else r for r in runtimes]
    place = old.resolve()
    ending = new.suffix
    new_place = place if old.suffix == ending else place.with_suffix(ending)
    if {old.suffix, ending} <= {".js", ".jsx", ".ts", ".tsx"}:
        new_place = place
    before = Side(place, texts[0], runtimes[0])
    after = Side(new_place, texts[1], runtimes[1])
    if frameworks[0] == frameworks[1]:
        return before, after, None
    results = carry_file(Request(old, str(old), "jsx-function"))
    interface = results[0].interface if results else Interface()
    mark = "data-" + _kebab(results[0].component) if results else ""
    return before, replace(after, marks=(mark,) if mark else ()), interface


def _framework(path: Path) -> str:
    return "vue" if path.suffix == ".vue" else "react"


def _kebab(name: str) -> str:
    out = ""
    for at, letter in enumerate(name):
        out += ("-" if letter.isupper() and at else "") + letter.lower()
    return out


def trials_for(old: Path, text: str, trial_file: Path | None) -> Trials:
    """The trials of a file: given, beside the old component, or plain ones from its declarations."""
    if trial_file is None and beside(old).is_file():
        trial_file = beside(old)
    if trial_file is not None:
        found = load(trial_file)
        return Trials(found.trials, found.component or "")
    return Trials(tuple(plain_trials(text, str(old))))
