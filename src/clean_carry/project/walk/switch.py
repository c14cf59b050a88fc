"""Move every user of an old component to the new one that stands beside it."""

from __future__ import annotations

import posixpath
import re
from collections import defaultdict
from collections.abc import Iterable, Iterator
from pathlib import Path

from clean_carry.component.errors import InputError
from clean_carry.project.index.links import Index
from clean_carry.project.walk.bridges import bridge
from clean_carry.project.walk.crossing_uses import uncrossable
from clean_carry.project.walk.edits import Edits, Left, Plan
from clean_carry.project.walk.pairs import Pair
from clean_carry.project.walk.requests import rewritten
from clean_carry.project.walk.view_uses import in_views
from clean_carry.source.index.facts import FileFacts, Import
from clean_carry.source.javascript.tree import Tree
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.contract import Syntax

_WHOLE = re.compile(r"^[ \t]*module\.exports\s*=(?!=)(?!\s*\{)", re.MULTILINE)
# Members that a test reads from an instance or its state; a new form has none of them.
_INSIDE = re.compile(
    r"\.(?:instance\(\)|state\(|setState\(|setData\(|vm\b|isolateScope\(|componentInstance\b)"
)


def switch(index: Index, pairs: Iterable[Pair]) -> Plan:
    """The change that makes the users of old files use the new ones.

    Imports, re-exports, lazy imports, mocks and script elements are pointed at the new file. Across
    families they are pointed at a bridge. Uses that cannot be followed are left.
    """
    plan, edits = Plan(), Edits()
    pairs = list(pairs)
    for pair in pairs:
        changed = _pointed(index, pair, plan, edits)
        if pair.is_across and changed:
            plan.put(pair.bridge, bridge(index, pair))
        for file in changed:
            if index.role(file) == "test":
                plan.left += _looking_inside(file)
    _relink(index, pairs, plan, edits)
    edits.apply(plan)
    return plan


def _relink(index: Index, pairs: Iterable[Pair], plan: Plan, edits: Edits) -> None:
    """Add the further edits of files that import the new components, through index files too."""
    taken: dict[tuple[str, Syntax], dict[str, tuple[Tree, str]]] = defaultdict(dict)
    for pair in pairs:
        if not pair.target.relinks:
            continue
        new = Tree(SourceText.read(pair.new))
        for file, one in _importers(index, pair.old.as_posix()):
            if file not in pair.own:
                for there, here in one.names:
                    taken[file, pair.target][here] = (new, there)
    for (file, syntax), names in taken.items():
        source = SourceText.read(Path(file))
        found = syntax.load_relinks()(Tree(source), names)
        for edit in found.edits:
            edits.replace(file, edit.start, edit.end, edit.text)
        for what, advice, at in found.left:
            plan.left.append(Left(file, source.place(at).line, what, advice))


def _importers(index: Index, target: str) -> Iterator[tuple[str, Import]]:
    """The imports that lead to a file, at once or through files that pass its names on."""
    sought, known = [target], {target}
    while sought:
        meant = sought.pop()
        for file, facts in index.files.items():
            for one in facts.imports:
                if one.how == "glob" or index.resolve(one.request, file) != meant:
                    continue
                if one.how != "re-export":
                    yield file, one
                elif file not in known:
                    known.add(file)
                    sought.append(file)


def _pointed(index: Index, pair: Pair, plan: Plan, edits: Edits) -> list[str]:
    """Point every import of the old file at what takes its place; the files that change."""
    target = (pair.bridge if pair.is_across else pair.new).as_posix()
    old, names = pair.old.as_posix(), _offered(index, pair)
    whole = _is_whole(pair.old), not pair.is_across and _is_whole(pair.new)
    changed: dict[str, None] = {}
    kept = uncrossable(index, pair) if pair.is_across else {}
    plan.left += in_views(index, pair.old, pair.own)
    for file, facts in index.files.items():
        if file in pair.own:
            continue
        if file in kept:
            plan.left += kept[file]
            continue
        for one in facts.imports:
            if one.how == "glob":
                plan.left += _globbed(file, one, pair)
            elif index.resolve(one.request, file) == old:
                wanted = _wanted(facts, one)
                missing = sorted(wanted - names) if names is not None else []
                by_default = bool(missing) or not wanted or "default" in wanted
                if one.how == "require" and whole[0] != whole[1] and by_default:
                    plan.left.append(_other_kind(file, one, pair, was_whole=whole[0]))
                    continue
                # Of a module that is the component, members of the component are read.
                if missing and not (one.how == "require" and all(whole)):
                    plan.left.append(_not_offered(file, one, missing, pair))
                    continue
                edits.replace(file, one.start, one.end, rewritten(one, old, target))
                changed[file] = None
    return list(changed)


def users_of(index: Index, pairs: Iterable[Pair]) -> list[Path]:
    """The files whose components use the old ones, through index files or at once; tests left out."""
    found: dict[str, None] = {}
    pairs = list(pairs)
    own = {file for pair in pairs for file in pair.own}
    for pair in pairs:
        for key in index.in_file(pair.old.as_posix()):
            for use in index.components[key].users:
                if use.role == "source" and use.file not in own and index.in_file(use.file):
                    found[use.file] = None
    return [Path(file) for file in found]


def users_left(index: Index, old: Path, but: set[str]) -> list[Left]:
    """The uses of an old file by others than the files `but`."""
    found = []
    for file, facts in index.files.items():
        for one in facts.imports if file not in but else ():
            if index.resolve(one.request, file) == old.as_posix() and one.how != "glob":
                advice = f"Run `clean-carry switch {old.name}` first"
                found.append(Left(file, one.line, f"{one.how} of {one.request}", advice))
    return [*found, *in_views(index, old, but)]


def _offered(index: Index, pair: Pair) -> set[str] | None:
    """The names that the new file exports; None where it passes on all of another module."""
    facts = index.files.get(pair.new.as_posix())
    if facts is None:
        raise InputError("is no source file of the project", file=str(pair.new))
    if pair.is_across:
        # A bridge offers the component, in the way the old file did.
        old = index.files[pair.old.as_posix()]
        first = old.components[0]
        return {*first.exports, *(e.name for e in old.exports if first.local in e.locals)}
    names = {one.name for one in facts.exports}
    names |= {name for seen in facts.components for name in seen.exports}
    for one in facts.imports:
        if one.how == "re-export":
            if ("*", "*") in one.names:
                return None
            names |= {here for _, here in one.names}
    return names


def _wanted(facts: FileFacts, one: Import) -> set[str]:
    """The names that an import takes of the other module."""
    wanted = {there for there, _ in one.names if there != "*"}
    for there, here in one.names:
        if there == "*" and here and one.how in ("import", "require"):
            wanted |= {use.member for use in facts.names if use.local == here and use.member}
    return wanted


def _is_whole(path: Path) -> bool:
    """Whether a module is its one value, and has no names (CommonJS, `module.exports`)."""
    return _WHOLE.search(path.read_text("utf-8", "replace")) is not None


def _other_kind(file: str, one: Import, pair: Pair, *, was_whole: bool) -> Left:
    """A `require` whose value would be another: the component of one file, the module of the other."""
    place = pair.bridge.name if pair.is_across else pair.new.name
    if was_whole:
        what = f"require of {one.request} would give the module {place} instead of the component"
        return Left(file, one.line, what, "Require the new file and take its `.default`")
    what = f"require of {one.request} would give the component instead of a module with names"
    return Left(file, one.line, what, f"Require {place} and use its value as the component")


def _not_offered(file: str, one: Import, missing: list[str], pair: Pair) -> Left:
    named = ", ".join(missing)
    return Left(
        file,
        one.line,
        f"{named} of {one.request} is not exported by {pair.new.name}",
        f"Export {named} there, or move it to a file of its own",
    )


def _globbed(file: str, one: Import, pair: Pair) -> Iterator[Left]:
    """A call that loads all files of a folder, if the old file is among them."""
    prefix = one.request.partition("*")[0]
    base = posixpath.normpath(posixpath.join(posixpath.dirname(file), prefix))
    if pair.old.as_posix().startswith(base.rstrip("/") + "/"):
        yield Left(
            file,
            one.line,
            f"all files of {one.request} are loaded, old and new",
            f"Leave {pair.old.name} out of the pattern, or retire it soon",
        )


def _looking_inside(file: str) -> Iterator[Left]:
    text = Path(file).read_text("utf-8", "replace")
    for found in _INSIDE.finditer(text):
        yield Left(
            file,
            text.count("\n", 0, found.start()) + 1,
            f"the test reads the inside of the component ({found[0].lstrip('.')})",
            "Test what is rendered and which events are sent",
        )
