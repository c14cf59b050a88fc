"""Old and new file of a component: which new file stands beside an old one."""

from __future__ import annotations

from dataclasses import dataclass
from pathlib import Path

from clean_carry.component.errors import InputError
from clean_carry.project.files import component_files
from clean_carry.project.index.scan import scan
from clean_carry.project.settings import Settings, settings_for
from clean_carry.syntaxes.contract import Syntax
from clean_carry.syntaxes.registry import declared, every_syntax
from clean_carry.syntaxes.written import stem_of

BRIDGE = "bridge"


@dataclass(frozen=True)
class Pair:
    """An old file and the new one beside it, with their syntaxes."""

    old: Path
    new: Path
    origin: Syntax
    target: Syntax

    @classmethod
    def of(cls, old: Path, new: Path) -> Pair:
        """Recognise both. Raises `InputError` where one holds no component."""
        known = []
        for path in (old, new):
            syntaxes = syntaxes_of(path)
            if not syntaxes:
                why = "holds no component" if path.is_file() else "there is no such file"
                raise InputError(why, file=str(path))
            known.append(syntaxes)
        target = known[1][0]
        origin = next((one for one in known[0] if one != target), known[0][0])
        return cls(old.resolve(), new.resolve(), declared(origin), declared(target))

    @property
    def is_across(self) -> bool:
        """Whether both are of different families, so that a bridge stands between them."""
        return self.origin.runtime.name != self.target.runtime.name

    @property
    def own(self) -> set[str]:
        """Its own files, which are no users: old, new and bridge."""
        return {path.as_posix() for path in (self.old, self.new, self.bridge)}

    @property
    def bridge(self) -> Path:
        """The file of the bridge: beside the new file, in the old one's language."""
        stem = stem_of(self.old.name)
        return self.old.with_name(f"{stem}.{BRIDGE}{self.old.suffix}")


def written_beside(old: Path, settings: Settings) -> list[tuple[Path, Syntax]]:
    """The new files that stand beside an old one, with the syntax each is written in.

    Their names are those that `carry --write` gives: `Berth.function.jsx` for `Berth.jsx`, or as `naming`
    of the project file says.
    """
    found: dict[Path, Syntax] = {}
    for syntax in every_syntax():
        if not syntax.writer:
            continue
        stem, pattern = stem_of(old.name), "{stem}." + syntax.suffix + "{ending}"
        if syntax.id in settings.naming:
            stem, pattern = old.name.partition(".")[0], settings.naming[syntax.id]
        own = syntax.new_name(stem)
        names = [
            pattern.format(stem=stem, ending=one) for one in (*syntax.marks.endings, old.suffix)
        ]
        for name in [own] if own else names:
            path = old.with_name(name)
            if path != old and path.is_file() and path not in found and _is(path, syntax):
                found[path] = syntax
    return list(found.items())


def new_of(old: Path) -> Path:
    """The one new file beside an old one. Raises `InputError` where there is none, or several."""
    found = [path for path, _ in written_beside(old, settings_for(old))]
    if len(found) == 1:
        return found[0]
    if not found:
        raise InputError(
            "no new file stands beside it",
            advice="Carry it first: `clean-carry carry FILE --to SYNTAX --write`, or name NEW",
            file=str(old),
        )
    named = ", ".join(path.name for path in found)
    raise InputError(
        f"several new files stand beside it ({named})", advice="Name NEW", file=str(old)
    )


def pairs_below(folder: Path) -> list[Pair]:
    """The old files below a folder that have a new one beside them, each with the first of those."""
    settings = settings_for(folder / "x")
    found = []
    for old in component_files([folder]).files:
        beside = written_beside(old, settings) if old.is_file() else []
        if beside and f".{BRIDGE}." not in old.name:
            found.append(Pair.of(old, beside[0][0]))
    return found


def syntaxes_of(path: Path) -> list[str]:
    """The syntaxes of a file's components, in the order of the file."""
    try:
        facts = scan(path, path.read_bytes())
    except OSError:
        return []
    return list(dict.fromkeys(one.syntax for one in facts.components))


def _is(path: Path, syntax: Syntax) -> bool:
    return syntax.id in syntaxes_of(path)
