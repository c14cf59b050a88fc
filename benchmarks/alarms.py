"""False alarms: components against themselves, and against copies that must be the same.

    python benchmarks/alarms.py [--components N] [--budget SECONDS] [--seeds N]
        [--carried | --single | --directives]

Each component of the demo and of the open corpora that mounts by itself is verified against itself and
against a copy with renamed locals, reordered attributes and reformatted code, with several seeds. All
must be `same`, or `unproven` where little of a component runs. Prints every verdict that is neither, and
the reach of the trials found on the way.
"""

from __future__ import annotations

import argparse
import json
import re
import statistics
import sys
from collections.abc import Iterator
from pathlib import Path

from clean_carry.component.errors import CarryError
from clean_carry.crossing.carry import Request, carry_file
from clean_carry.demo.story import COMPANY, PAGES
from clean_carry.source.javascript.scope import Names
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.system import cache_folder
from clean_carry.source.template.tree import TemplateAttribute, read_blocks
from clean_carry.source.text import SourceText
from clean_carry.verify.pair import Trials, sides_of, verified
from clean_carry.verify.verify import Effort, Verification
from clean_carry.verify.worker_pool import Bench
from corpus import CORPORA, fetched, sources
from single_files import CORPORA as SINGLE
from single_files import sources as single_sources


def copy_of(text: str, path: str) -> str:
    """The same component with renamed locals, reordered attributes and other formatting."""
    if path.endswith(".vue"):
        return single_copy_of(text, path)
    text = _renamed(text, path)
    text = _reordered(text, path)
    return _reformatted(text, path)


def single_copy_of(text: str, path: str) -> str:
    """The same of a single file: locals of its script, attributes of its template."""
    return _reformatted(_template_reordered(_renamed(text, path), path), path)


def _scripts(source: SourceText) -> list[tuple[int, int]]:
    return [node.inner for node in read_blocks(source) if node.tag == "script"]


def _tree(text: str, path: str) -> Tree:
    """The code of a file: all of it, or its scripts alone."""
    source = SourceText(path, text.encode())
    view = bytes(source.blanked(_scripts(source))) if path.endswith(".vue") else None
    return Tree(source, view)


def _template_reordered(text: str, path: str) -> str:
    """The attributes of each element in reverse order, where all are plain or bound to no call."""
    source = SourceText(path, text.encode())
    edits: list[tuple[int, int, str]] = []
    for block in read_blocks(source):
        for node in block.walk() if block.tag == "template" else ():
            attributes = node.attributes if node is not block else []
            if len(attributes) < 2 or any(_ordered(source, a) for a in attributes):
                continue
            for one, other in zip(attributes, reversed(attributes), strict=True):
                edits.append((one.start, one.end, source.slice(other.start, other.end)))
    return _edited(text, edits)


def _ordered(source: SourceText, attribute: TemplateAttribute) -> bool:
    """Whether the order of an attribute may mean something."""
    plain = re.fullmatch(r":?[a-z][\w-]*", attribute.name) is not None
    return not plain or (attribute.value is not None and "(" in source.slice(*attribute.value))


def _edited(text: str, edits: list[tuple[int, int, str]]) -> str:
    data = text.encode()
    for start, end, new in sorted(edits, reverse=True):
        data = data[:start] + new.encode() + data[end:]
    return data.decode()


def _renamed(text: str, path: str) -> str:
    """Names declared inside functions get a suffix, where nothing but plain references uses them."""
    names = Names(_tree(text, path))
    edits: list[tuple[int, int, str]] = []
    scopes = list(names.module.children)
    while scopes:
        scope = scopes.pop()
        scopes.extend(scope.children)
        for name, binding in scope.names.items():
            if binding.kind not in ("const", "let", "var") or binding.node.type != "identifier":
                continue
            places = [binding.node, *binding.references]
            if any(p.type != "identifier" or _in_tag(p) for p in places):
                continue
            edits += [(p.start, p.end, f"{name}Renamed") for p in places]
    return _edited(text, sorted(set(edits)))


def _in_tag(node: Node) -> bool:
    return node.parent is not None and node.parent.type.startswith("jsx_") and node.field == "name"


def _reordered(text: str, path: str) -> str:
    """The attributes of each element in reverse order, where their order means nothing."""
    tree = Tree(SourceText(path, text.encode()))
    edits: list[tuple[int, int, str]] = []
    for element in tree.of("jsx_opening_element", "jsx_self_closing_element"):
        attributes = [c for c in element.children if c.type == "jsx_attribute"]
        inner = [c for c in element.children if c.type in ("jsx_expression", "comment")]
        if len(attributes) < 2 or inner or any(_runs(a) for a in attributes):
            continue
        for one, other in zip(attributes, reversed(attributes), strict=True):
            edits.append((one.start, one.end, other.text))
    outer = [
        e for e in edits if not any(o is not e and o[0] <= e[0] and e[1] <= o[1] for o in edits)
    ]
    return _edited(text, outer)


def _runs(attribute: Node) -> bool:
    return any(n.type in ("call_expression", "jsx_element") for n in attribute.walk())


def _reformatted(text: str, path: str) -> str:
    """Other indentation of code; white space inside text, strings and templates stays."""
    tree = _tree(text, path)
    fixed = [(n.start, n.end) for n in tree.of("template_string", "jsx_text", "string", "comment")]
    edits: list[tuple[int, int, str]] = []
    scripts = _scripts(SourceText(path, text.encode())) if path.endswith(".vue") else None
    for found in re.finditer(rb"\n( +)", text.encode()):
        start, end = found.span(1)
        if scripts is not None and not any(low < start < high for low, high in scripts):
            continue
        if not any(low <= start < high for low, high in fixed):
            edits.append((start, end, " " * (2 * (end - start))))
    return _edited(text, edits)


def subjects(count: int) -> Iterator[Path]:
    """The files of the demo, then of the corpora in turn."""
    yield from sorted((COMPANY / "components").glob("*.?sx"))
    lists = [sources(fetched(c) / c.sources) for c in CORPORA.values()]
    for files in lists:
        step = max(1, len(files) // count)
        yield from files[::step]
        yield from (f for f in files if f not in files[::step])


def single_subjects(count: int) -> Iterator[Path]:
    """Single files of the demo, then of the corpora in turn."""
    yield from (COMPANY / name for name in PAGES)
    lists = [single_sources(fetched(c) / c.sources) for c in SINGLE]
    for files in lists:
        yield from files[:: max(1, len(files) * len(lists) // count)]


def directive_subjects() -> Iterator[tuple[Path, str, str]]:
    """(file, its text, what is mounted): the directives of demo and open corpora that are carried."""
    from mutants import directive_subjects as carried

    for subject in carried():
        yield subject.place, subject.text, subject.exported


def texts(count: int, carried: bool, single: bool) -> Iterator[tuple[Path, str]]:
    """(file, its text), or of the corpora's files the text they are carried to."""
    for path in single_subjects(count) if single else subjects(count):
        text = path.read_text("utf-8")
        if not carried:
            yield path, text
        elif COMPANY not in path.parents:
            try:
                results = carry_file(Request(path, str(path), "jsx-function"))
            except CarryError:
                continue
            if len(results) == 1 and results[0].status == "clean":
                yield path, results[0].files[0].text


def main() -> None:
    """Verify all and print what was not the same."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--components", type=int, default=100)
    parser.add_argument("--budget", type=float, default=4.0)
    parser.add_argument("--seeds", type=int, default=3)
    parser.add_argument("--carried", action="store_true", help="what the corpora are carried to")
    parser.add_argument("--single", action="store_true", help="single files")
    parser.add_argument("--directives", action="store_true", help="directives")
    given = parser.parse_args()
    reach: dict[str, float] = {}
    alarms: list[dict[str, object]] = []
    runs = mounted = unproven = 0
    with Bench(say=lambda text: print(text, file=sys.stderr)) as bench:
        each = (
            directive_subjects()
            if given.directives
            else ((p, t, "") for p, t in texts(given.components, given.carried, given.single))
        )
        for path, text, name in each:
            if mounted >= given.components + 9:
                break
            found = _verified(bench, path, text, text, Effort(given.budget, 1), name)
            if found is None or found.verdict == "not run":
                continue
            mounted += 1
            shown = "/".join((*path.parts[-3:], *([name] if name else [])))
            print(f"\r\033[K{mounted} {shown}"[:100], end="", file=sys.stderr)
            if found.reach is not None and found.reach[0].total:
                reach[shown] = round(found.reach[0].percent, 1)
            results = [("itself", 1, found)]
            copy = copy_of(text, str(path))
            for seed in range(1, given.seeds + 1):
                if seed > 1:
                    again = _verified(bench, path, text, text, Effort(given.budget, seed), name)
                    results.append(("itself", seed, again))
                other = _verified(bench, path, text, copy, Effort(given.budget, seed), name)
                results.append(("a copy", seed, other))
            for what, seed, one in results:
                runs += 1
                unproven += one is not None and one.verdict == "unproven"
                if one is None or one.verdict not in ("same", "unproven"):
                    alarms.append(
                        {"component": shown, "against": what, "seed": seed,
                         "found": one.as_json()["trials"][-1:] if one else "not built",
                         "reason": one.reason if one else ""}
                    )  # fmt: skip
    values = sorted(reach.values())
    print(
        f"\n{mounted} components, {runs} verifications, {len(alarms)} not the same, {unproven} unproven"
    )
    if values:
        tenth = values[len(values) // 10]
        print(f"branch reach: median {statistics.median(values)} %, tenth percentile {tenth} %")
    (cache_folder() / "alarms.json").write_text(
        json.dumps({"alarms": alarms, "reach": reach}, indent=1)
    )
    for alarm in alarms:
        print(json.dumps(alarm)[:400])


def _verified(
    bench: Bench, path: Path, text: str, other: str, effort: Effort, name: str = ""
) -> Verification | None:
    before, after, _ = sides_of(path, text, path, other)
    found = verified(bench, (before, after), None, Trials(None, name), effort)
    return None if "cannot be built" in found.reason else found


if __name__ == "__main__":
    main()
