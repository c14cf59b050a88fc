"""Take an old component away once nothing uses it, and give the new one its place."""

from __future__ import annotations

import posixpath
from pathlib import Path

from clean_carry.component.errors import CarryError
from clean_carry.project.index.links import Index
from clean_carry.project.walk.edits import Edits, Left, Plan
from clean_carry.project.walk.pairs import Pair
from clean_carry.project.walk.requests import rewritten
from clean_carry.project.walk.switch import users_left
from clean_carry.project.walk.view_uses import class_to_go
from clean_carry.source.index.facts import Import
from clean_carry.source.javascript.tree import Tree
from clean_carry.source.text import SourceText
from clean_carry.source.workspace import Workspace
from clean_carry.syntaxes.contract import PartFile, Syntax
from clean_carry.syntaxes.server_view.reading.class_file import class_beside
from clean_carry.syntaxes.written import stem_of

_STYLES = (".css", ".scss", ".sass", ".less", ".styl")


class StillUsed(CarryError):
    """An old component has users."""

    exit_code = 1

    def __init__(self, old: Path, users: list[Left]) -> None:
        super().__init__(
            f"is still used in {len({one.file for one in users})} files",
            advice=f"Run `clean-carry switch {old.name} --write` first",
            file=str(old),
        )
        self.users = users


def retire(index: Index, pair: Pair) -> Plan:
    """The change that takes the old file away. Raises `StillUsed`.

    The new file takes the old one's name, unless the project file names files of its syntax in a way of its
    own; imports follow. Styles that only the old file imported, and a bridge nobody uses, go too.
    """
    users = users_left(index, pair.old, pair.own)
    if users:
        raise StillUsed(pair.old, users)
    plan, edits = Plan(), Edits()
    bridged = users_left(index, pair.bridge, pair.own) if pair.bridge.is_file() else []
    place = final_place(index, pair)
    if place != pair.new:
        _moved(index, pair, place, edits)
    edits.apply(plan)
    if pair.bridge.is_file() and not bridged:
        plan.put(pair.bridge, None)
    plan.put(pair.old, None)
    script = class_to_go(index.root, pair.old)
    if script is not None:
        plan.put(script, None)
    for style in _styles_of(index, pair):
        plan.put(style, None)
    parts = _Parts(index, pair, plan)
    parts.take_away()
    if place != pair.new:
        text = plan.files.get(pair.new) or pair.new.read_text("utf-8")
        plan.put(pair.new, None)
        plan.put(place, parts.renamed(text, place))
    return plan


class _Parts:
    """The files that the old and the new file name as parts of the component: templates, styles."""

    def __init__(self, index: Index, pair: Pair, plan: Plan) -> None:
        self.pair, self.plan = pair, plan
        self.old = self._of(pair.origin, pair.old)
        self.new = self._of(pair.target, pair.new)
        self.elsewhere = {
            path
            for file in index.files
            if Path(file) not in (pair.old, pair.new) and index.in_file(file)
            for path in self._of(pair.origin, Path(file))
        }

    @staticmethod
    def _of(syntax: Syntax, file: Path) -> dict[Path, PartFile]:
        if not syntax.made_of or not syntax.marks.fit(source := SourceText.read(file)):
            return {}
        parts = syntax.load_made_of()(Tree(source))
        places = ((file.parent / one.request, one) for one in parts)
        return {Path(posixpath.normpath(place.as_posix())): one for place, one in places}

    def take_away(self) -> None:
        """Parts of the old file that nothing else names go."""
        for path in self.old:
            if path.is_file() and path not in self.new and path not in self.elsewhere:
                self.plan.put(path, None)

    def renamed(self, text: str, place: Path) -> str:
        """The text of the new file with its own parts under their final names."""
        old, new = stem_of(self.pair.new.name), stem_of(place.name)
        data = text.encode()
        for path, one in sorted(self.new.items(), key=lambda row: -row[1].start):
            if not path.name.startswith(f"{old}."):
                continue
            final = path.with_name(new + path.name[len(old) :])
            if final.exists() and self.plan.files.get(final, "") is not None:
                continue
            self.plan.put(final, path.read_text("utf-8"))
            self.plan.put(path, None)
            request = f"{one.request[: -len(path.name)]}{final.name}"
            data = data[: one.start] + request.encode() + data[one.end :]
        return data.decode()


def final_place(index: Index, pair: Pair) -> Path:
    """Where the new file stands in the end: under the old one's name, with its own ending."""
    if pair.target.id in index.settings.naming or pair.target.names_file:
        return pair.new
    stem = stem_of(pair.old.name)
    place = pair.old.with_name(stem + pair.new.suffix)
    return place if place == pair.old or not place.exists() else pair.new


def _moved(index: Index, pair: Pair, place: Path, edits: Edits) -> None:
    """Point all imports of the new file at its final place."""
    new, old = pair.new.as_posix(), place.as_posix()
    for file, facts in index.files.items():
        for one in facts.imports if file != pair.old.as_posix() else ():
            if one.how != "glob" and index.resolve(one.request, file) == new:
                edits.replace(file, one.start, one.end, _restored(one, new, old, file))


def _restored(one: Import, new: str, place: str, file: str) -> str:
    written = rewritten(one, new, place)
    folder, _, name = written.rpartition("/")
    # An index file is imported by its folder, if it was before.
    if name == "index" and not file.startswith(posixpath.dirname(place) + "/"):
        return folder
    return written


def _styles_of(index: Index, pair: Pair) -> list[Path]:
    """The stylesheets that the old file imports and no other file does."""
    workspace = Workspace(pair.old, index.settings.aliases)
    found = []
    for one in index.files[pair.old.as_posix()].imports:
        if not one.request.endswith(_STYLES):
            continue
        style = workspace.resolve(one.request)
        if style is None or not style.is_file():
            continue
        style = Path(posixpath.normpath(style.as_posix()))
        if not _imported_elsewhere(index, style, pair):
            found.append(style)
    return found


def _imported_elsewhere(index: Index, style: Path, pair: Pair) -> bool:
    for file, facts in index.files.items():
        for one in facts.imports if file != pair.old.as_posix() else ():
            if one.request.endswith(style.name):
                if (
                    posixpath.normpath(posixpath.join(posixpath.dirname(file), one.request))
                    == style.as_posix()
                ):
                    return True
    return False


def lines_of(pair: Pair, plan: Plan) -> tuple[int, int]:
    """The lines of the old files that a plan takes away, a bridge left out, and those of the new file.

    A view counts with its class."""
    gone = [
        path
        for path, text in plan.files.items()
        if text is None and path not in (pair.new, pair.bridge)
    ]
    if pair.old not in gone:
        gone.append(pair.old)
    old = sum((plan.old[path] or "").count("\n") for path in gone)
    texts = (plan.old.get(pair.new), plan.files.get(pair.old), plan.files.get(pair.new))
    new = next((text for text in texts if text is not None), None)
    lines = (new if new is not None else pair.new.read_text("utf-8")).count("\n")
    script = class_beside(pair.new) if pair.target.names_file else None
    return old, lines + (script.read_bytes().count(b"\n") if script is not None else 0)
