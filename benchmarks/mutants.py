"""How many mutants of components generated trials find.

    python benchmarks/mutants.py demo|corpus|carried|pages|single|directives|styles [--budget SECONDS]
        [--components N] [--each N] [--seed N]

`corpus` takes components of the open corpora as they are, `carried` others of them, as they were carried;
`pages` the single files of the demo as carried, `single` single files of the corpora as they are,
`directives` directives of open corpora and of the demo that can be components, as they are; `styles` is of
stylesheets and classes, and told apart in the browser (style_mutants.py).
A mutant is a component with one place changed by an operator below, found in its syntax tree. Each is
verified against the component it was made from. The operators marked HELD were written after the
search was frozen. Survivors go to the cache (mutants-….json), to be judged by hand.
"""

from __future__ import annotations

import argparse
import json
import random
import sys
from collections import Counter
from collections.abc import Callable, Iterable, Iterator
from contextlib import suppress
from dataclasses import dataclass, field, replace
from functools import partial
from itertools import pairwise, zip_longest
from pathlib import Path

import style_runs
from clean_carry.component.errors import CarryError, InputError
from clean_carry.crossing.carry import Request, carry_file
from clean_carry.demo.story import COMPANY, PAGES
from clean_carry.source.javascript.scope import is_write
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.system import cache_folder
from clean_carry.source.template.tree import read_blocks
from clean_carry.source.text import SourceText
from clean_carry.verify.application import own_lines
from clean_carry.verify.pair import Trials, sides_of, verified
from clean_carry.verify.verify import Effort, Verification
from clean_carry.verify.worker_pool import Bench, Side
from template_mutants import template_mutants

Edit = tuple[int, int, str]
Operator = Callable[[Tree], Iterator[Edit]]
OPERATORS: dict[str, Operator] = {}
HELD: set[str] = set()


def operator(function: Operator) -> Operator:
    """Register an operator under its name."""
    OPERATORS[function.__name__] = function
    return function


def held(function: Operator) -> Operator:
    """Register an operator that was written after the search was frozen."""
    HELD.add(function.__name__)
    return operator(function)


def _calls(tree: Tree, *names: str) -> Iterator[tuple[Node, str, list[Node]]]:
    for node in tree.of("call_expression"):
        callee, arguments = node.child("function"), node.child("arguments")
        if callee is None or arguments is None:
            continue
        name = callee.text.split(".")[-1]
        if name in names or not names:
            yield node, name, arguments.named_children


@operator
def drop_an_attribute(tree: Tree) -> Iterator[Edit]:
    """An element loses an attribute."""
    for node in tree.of("jsx_attribute"):
        if node.children[0].text not in ("key", "ref"):
            yield node.start, node.end, ""


@operator
def negate_a_condition(tree: Tree) -> Iterator[Edit]:
    """A condition is turned round."""
    for node in tree.of("if_statement", "ternary_expression"):
        condition = node.child("condition")
        if condition is not None:
            inner = condition.named_children[0] if condition.type[:5] == "paren" else condition
            yield inner.start, inner.end, f"!({inner.text})"
    for node in tree.of("binary_expression"):
        left = node.child("left")
        if left is not None and node.has("&&"):
            yield left.start, left.end, f"!({left.text})"


@operator
def compare_off_by_one(tree: Tree) -> Iterator[Edit]:
    """A comparison takes its bound in, or leaves it out."""
    other = {"<": "<=", "<=": "<", ">": ">=", ">=": ">", "===": "!==", "!==": "==="}
    for node in tree.of("binary_expression"):
        for part in node.children:
            if not part.named and part.type in other:
                yield part.start, part.end, other[part.type]


@operator
def loop_off_by_one(tree: Tree) -> Iterator[Edit]:
    """A list loses its first or last item before it is drawn."""
    for _, name, given in _calls(tree, "map"):
        del name
        arguments = given[0].parent if given else None
        callee = arguments.parent.child("function") if arguments and arguments.parent else None
        owner = callee.children[0] if callee is not None else None
        if owner is not None:
            yield owner.end, owner.end, ".slice(1)"


@operator
def swap_handlers(tree: Tree) -> Iterator[Edit]:
    """A handler listens to another event."""
    for node in tree.of("jsx_attribute"):
        name = node.children[0]
        if name.text == "onClick":
            yield name.start, name.end, "onMouseDown"
        elif name.text == "onChange":
            yield name.start, name.end, "onBlur"
        elif name.text in ("onSubmit", "onKeyDown"):
            yield name.start, name.end, "onReset" if name.text == "onSubmit" else "onKeyUp"


@operator
def skip_a_clean_up(tree: Tree) -> Iterator[Edit]:
    """What was set up is not taken down."""
    names = ("clearInterval", "clearTimeout", "removeEventListener", "cancelAnimationFrame")
    for node, _, _ in _calls(tree, *names):
        yield node.start, node.end, "undefined"


@operator
def delay_an_effect(tree: Tree) -> Iterator[Edit]:
    """An effect runs after the page is painted instead of before."""
    for node in tree.of("identifier"):
        parent = node.parent
        if (
            node.text == "useLayoutEffect"
            and parent is not None
            and parent.type == "call_expression"
        ):
            yield node.start, node.end, "useEffect"


@operator
def read_a_stale_value(tree: Tree) -> Iterator[Edit]:
    """A later read sees the value of its own draw."""
    for node in tree.of("member_expression"):
        if node.text.startswith("latest") and node.text.endswith(".current"):
            name = node.text[len("latest") : -len(".current")]
            parent = node.parent
            if parent is not None and parent.type != "assignment_expression":
                yield node.start, node.end, name[:1].lower() + name[1:]


@operator
def lose_a_class(tree: Tree) -> Iterator[Edit]:
    """A class name goes, or another stands in its place."""
    for node in tree.of("jsx_attribute"):
        if node.children[0].text != "className":
            continue
        for text in node.walk():
            if text.type == "string_fragment" and text.text.strip():
                yield text.start, text.end, " ".join(text.text.split()[1:]) or "other"


@operator
def change_a_default(tree: Tree) -> Iterator[Edit]:
    """A default has another value."""
    for node in tree.of("object_assignment_pattern", "assignment_pattern"):
        right = node.child("right")
        if right is not None:
            found = _other_literal(right)
            if found is not None:
                yield right.start, right.end, found


def _other_literal(node: Node) -> str | None:
    match node.type:
        case "number":
            return f"{node.text} + 1"
        case "string":
            return f"{node.text} + 'x'"
        case "true" | "false":
            return "false" if node.type == "true" else "true"
        case "null":
            return "0"
    return None


@operator
def drop_a_slot(tree: Tree) -> Iterator[Edit]:
    """What is shown between tags is not."""
    for node in tree.of("jsx_expression"):
        parent = node.parent
        if parent is not None and parent.type == "jsx_element" and node.named_children:
            yield node.start, node.end, ""


@operator
def reorder_calls(tree: Tree) -> Iterator[Edit]:
    """Two statements that call something change places."""
    for block in tree.of("statement_block"):
        statements = block.named_children
        for one, two in pairwise(statements):
            both = one.type == two.type == "expression_statement" and one.text != two.text
            # Two writes of state or of references in one turn may change places; a call that tells
            # somebody, or looks at the page, may not.
            if both and (_tells(one) or _tells(two)):
                yield (
                    one.start,
                    two.end,
                    two.text + tree.source.slice(one.end, two.start) + one.text,
                )


def _tells(statement: Node) -> bool:
    """A statement that calls a function given as an input, or stops an event."""
    call = statement.named_children[0] if statement.named_children else None
    callee = call.child("function") if call is not None and call.type == "call_expression" else None
    if callee is None:
        return False
    name = callee.text.removesuffix(".current").split(".")[-1].removeprefix("latest")
    return name[:2].lower() == "on" and name[2:3].isupper()


_RUNTIMES = ("vue", "react")


def _of_the_runtime(tree: Tree) -> set[str]:
    """What a file imports of its runtime: `onMounted` tells nobody anything, and may be said twice."""
    return {
        name.text
        for statement in tree.of("import_statement")
        if (source := statement.child("source")) is not None and source.text[1:-1] in _RUNTIMES
        for name in statement.walk()
        if name.type == "identifier"
    }


@operator
def unstable_identity(tree: Tree) -> Iterator[Edit]:
    """A callback is a new one in every draw."""
    for node, _, given in _calls(tree, "useCallback"):
        if given:
            yield node.start, node.end, f"({given[0].text})"


@operator
def double_an_emit(tree: Tree) -> Iterator[Edit]:
    """A function given as an input is called twice."""
    registers = _of_the_runtime(tree)
    for node, name, _ in _calls(tree):
        if name in registers:
            continue
        if name.startswith("on") and name[2:3].isupper() and node.parent is not None:
            if node.parent.type == "expression_statement":
                yield node.start, node.end, f"({node.text}, {node.text})"


@operator
def swallow_an_error(tree: Tree) -> Iterator[Edit]:
    """A function given as an input fails, and nobody notices."""
    registers = _of_the_runtime(tree)
    for node in tree.of("expression_statement"):
        call = node.named_children[0] if node.named_children else None
        if call is not None and _tells(node) and node.text.split("(")[0] not in registers:
            yield node.start, node.end, f"try {{ {node.text} }} catch {{}}"


@held
def drop_a_statement(tree: Tree) -> Iterator[Edit]:
    """An assignment is not made."""
    for node in tree.of("expression_statement"):
        inner = node.named_children[0] if node.named_children else None
        if inner is None or "assignment" not in inner.type or inner.text.startswith("latest"):
            continue
        if any(up.is_function for up in list(node.up())[:-4]):
            yield node.start, node.end, ""


@held
def swap_arms(tree: Tree) -> Iterator[Edit]:
    """The arms of a choice change places."""
    for node in tree.of("ternary_expression"):
        one, two = node.child("consequence"), node.child("alternative")
        if one is not None and two is not None and one.text != two.text:
            between = tree.source.slice(one.end, two.start)
            yield one.start, two.end, two.text + between + one.text


@held
def constant_condition(tree: Tree) -> Iterator[Edit]:
    """A condition is never asked."""
    for node in tree.of("if_statement"):
        condition = node.child("condition")
        if condition is not None:
            yield condition.start, condition.end, "(true)"
            yield condition.start, condition.end, "(false)"


@held
def lose_an_await(tree: Tree) -> Iterator[Edit]:
    """What is to be waited for is not."""
    for node in tree.of("await_expression"):
        yield node.start, node.end, node.named_children[0].text


@held
def change_shown_text(tree: Tree) -> Iterator[Edit]:
    """A word on the page is another one."""
    for node in tree.of("jsx_text"):
        if node.text.strip():
            yield node.start, node.end, node.text.replace(node.text.strip(), "other words")


@held
def change_a_number(tree: Tree) -> Iterator[Edit]:
    """A number is one more."""
    for node in tree.of("number"):
        if node.parent is not None and node.parent.type != "assignment_pattern":
            yield node.start, node.end, f"({node.text} + 1)"


@held
def other_arithmetic(tree: Tree) -> Iterator[Edit]:
    """A sum becomes a difference, a product a quotient, and the other way round."""
    other = {"+": "-", "-": "+", "*": "/", "/": "*"}
    for node in tree.of("binary_expression"):
        for part in node.children:
            if not part.named and part.type in other:
                yield part.start, part.end, other[part.type]


@held
def and_for_or(tree: Tree) -> Iterator[Edit]:
    """One of two conditions is enough, or no longer enough."""
    other = {"&&": "||", "||": "&&"}
    for node in tree.of("binary_expression"):
        for part in node.children:
            if not part.named and part.type in other:
                yield part.start, part.end, other[part.type]


@held
def run_an_effect_always(tree: Tree) -> Iterator[Edit]:
    """An effect that ran once runs after every draw."""
    for node, name, given in _calls(tree, "useLayoutEffect", "useEffect", "useCallback"):
        if len(given) == 2 and name != "useCallback":
            yield given[0].end, given[1].end, ""
        del node


@held
def run_an_effect_once(tree: Tree) -> Iterator[Edit]:
    """An effect that ran after every draw runs once."""
    for _, name, given in _calls(tree, "useLayoutEffect", "useEffect"):
        if len(given) == 1:
            yield given[0].end, given[0].end, ", []"
        del name


@held
def drop_a_state_write(tree: Tree) -> Iterator[Edit]:
    """State is not written."""
    for node, name, _ in _calls(tree):
        if name[:3] == "set" and name[3:4].isupper() and not name.endswith(("Interval", "Timeout")):
            if node.parent is not None and node.parent.type == "expression_statement":
                yield node.start, node.end, "undefined"


@held
def start_with_another_state(tree: Tree) -> Iterator[Edit]:
    """State starts as something else."""
    for _, _, given in _calls(tree, "useState"):
        if given:
            found = _other_literal(given[0])
            if found is not None:
                yield given[0].start, given[0].end, found


@held
def let_an_event_through(tree: Tree) -> Iterator[Edit]:
    """An event is not stopped, or its default not prevented."""
    for node, _, _ in _calls(tree, "preventDefault", "stopPropagation"):
        yield node.start, node.end, "undefined"


@held
def lose_what_is_passed_on(tree: Tree) -> Iterator[Edit]:
    """What a parent passes on does not reach the element."""
    for node in tree.of("jsx_expression"):
        parent = node.parent
        if parent is not None and parent.type.startswith("jsx_") and "opening" in parent.type:
            if any(c.type == "spread_element" for c in node.children):
                yield node.start, node.end, ""


@held
def read_another_field(tree: Tree) -> Iterator[Edit]:
    """Another field of the same thing is read; where one is written it stays."""
    fields: dict[str, list[str]] = {}
    for node in tree.of("member_expression"):
        part = node.child("property")
        if part is not None and node.children[0].type == "identifier":
            known = fields.setdefault(node.children[0].text, [])
            if part.text not in known:
                known.append(part.text)
    for node in tree.of("member_expression"):
        part = node.child("property")
        others = fields.get(node.children[0].text, [])
        if part is not None and len(others) > 1 and part.text in others:
            if node.field != "function" and part.text != "current" and not is_write(node):
                other = others[(others.index(part.text) + 1) % len(others)]
                yield part.start, part.end, other


@dataclass(frozen=True)
class Mutant:
    """One mutant: what was done, where, and the whole text."""

    operator: str
    line: int
    before: str
    after: str
    text: str


def mutants_of(text: str, path: str, lines: tuple[tuple[int, int], ...] = ()) -> list[Mutant]:
    """Every mutant of a component that still parses; of these stretches of lines where they are given."""
    source = SourceText(path, text.encode())
    if path.endswith(".vue"):
        return list(_of_single_file(source, text))
    tree = Tree(source)
    found: list[Mutant] = []
    checks = list(_type_checks(tree))
    for name, edit in _edits(tree):
        if any(low <= edit[0] < high for low, high in checks):
            continue
        line = source.place(edit[0]).line
        if lines and not any(first <= line <= last for first, last in lines):
            continue
        mutant = _mutant(source, text, name, *edit)
        try:
            Tree(SourceText(path, mutant.text.encode()))
        except InputError:
            continue
        if mutant.text != text:
            found.append(mutant)
    return found


def _edits(tree: Tree) -> Iterator[tuple[str, Edit]]:
    for name, make in OPERATORS.items():
        for edit in make(tree):
            yield name, edit


def _mutant(source: SourceText, text: str, name: str, start: int, end: int, new: str) -> Mutant:
    changed = source.data[:start] + new.encode() + source.data[end:]
    return Mutant(name, source.place(start).line, source.slice(start, end), new, changed.decode())


def _of_single_file(source: SourceText, text: str) -> Iterator[Mutant]:
    """Mutants of the scripts of a single file, and of its template."""
    for block in read_blocks(source):
        if block.kind == "element" and block.tag == "script":
            tree = Tree(source, bytes(source.blanked([block.inner])))
            for name, edit in _edits(tree):
                mutant = _mutant(source, text, name, *edit)
                view = SourceText(source.path, mutant.text.encode())
                end = block.inner[1] + len(mutant.text.encode()) - len(source.data)
                try:
                    Tree(view, bytes(view.blanked([(block.inner[0], end)])))
                except InputError:
                    continue
                if mutant.text != text:
                    yield mutant
    for name, start, end, new in template_mutants(source):
        yield _mutant(source, text, name, start, end, new)


def _type_checks(tree: Tree) -> Iterator[tuple[int, int]]:
    """Declared input types: the runtime looks at them in development only."""
    for node in tree.of("assignment_expression", "public_field_definition", "variable_declarator"):
        name = node.child("left") or node.child("name")
        if name is not None and name.text.endswith("propTypes"):
            yield node.start, node.end


@dataclass(frozen=True)
class Subject:
    """A component to make mutants of; `exported` is what is mounted where a file has several, `lines` the
    stretches (first, last) of the file that are its own."""

    name: str
    place: Path
    text: str
    exported: str = ""
    lines: tuple[tuple[int, int], ...] = ()


def demo_subjects() -> list[Subject]:
    """The carried components of the demo company."""
    found: list[Subject] = []
    for path in sorted((COMPANY / "components").glob("*.?sx")):
        try:
            results = carry_file(Request(path, path.name, "jsx-function"))
        except CarryError:
            continue
        if results[0].files:
            found.append(Subject(path.stem, path, results[0].files[0].text))
    return found


def page_subjects() -> Iterator[Subject]:
    """The carried passenger pages of the demo company."""
    for name in PAGES:
        path = COMPANY / name
        result = carry_file(Request(path, path.name, "single-file-flat"))[0]
        if result.files:
            yield Subject(path.stem, path, result.files[0].text)


def single_subjects(count: int, seed: int) -> list[Subject]:
    """Single files of the open corpora as they are, chosen by the seed, the corpora in turn."""
    import single_files
    from corpus import fetched

    lists: list[list[Subject]] = []
    for corpus in single_files.CORPORA:
        folder = fetched(corpus) / corpus.sources
        own = [
            Subject(f"{corpus.package} {path.relative_to(folder)}", path, path.read_text("utf-8"))
            for path in single_files.sources(folder)
            if b"<template" in path.read_bytes()
        ]
        random.Random(seed).shuffle(own)
        lists.append(own)
    turns = zip_longest(*lists)
    return [subject for turn in turns for subject in turn if subject is not None][:count]


def corpus_subjects(count: int, seed: int) -> list[Subject]:
    """Components of the open corpora as they are, chosen by the seed, the corpora in turn."""
    from corpus import CORPORA, fetched, sources

    lists: list[list[Subject]] = []
    for corpus in CORPORA.values():
        folder = fetched(corpus) / corpus.sources
        own = [
            Subject(f"{corpus.package} {path.relative_to(folder)}", path, path.read_text("utf-8"))
            for path in sources(folder)
            if "Component" in path.read_text("utf-8")
        ]
        random.Random(seed).shuffle(own)
        lists.append(own)
    turns = zip_longest(*lists)
    return [subject for turn in turns for subject in turn if subject is not None][:count]


def carried_subjects(count: int, seed: int) -> Iterator[Subject]:
    """What components of the open corpora are carried to, but for the first ones, taken as they are."""
    for subject in corpus_subjects(20 * count, seed)[2 * count :]:
        try:
            results = carry_file(Request(subject.place, str(subject.place), "jsx-function"))
        except CarryError:
            continue
        if len(results) == 1 and results[0].status == "clean":
            yield replace(subject, text=results[0].files[0].text)


def directive_subjects() -> Iterator[Subject]:
    """The directives of the demo and of open corpora that are carried."""
    import directives

    paths = sorted((COMPANY / "booking-desk").glob("*.js"))
    for path in [*paths, *(p for c in directives.CORPORA for p in directives.scripts(c))]:
        try:
            results = carry_file(Request(path, path.name, "controller-component", "directive"))
        except CarryError:
            continue
        text = path.read_text("utf-8")
        for result in results:
            if result.status == "clean":
                name = result.component
                lines = own_lines(text, str(path), name)
                yield Subject(f"{path.name} {name}", path, text, name, lines)


def mounts(bench: Bench, subject: Subject) -> bool:
    """Whether the component draws or calls anything by itself, and is the same as itself."""
    sides = pair(subject, subject.text)
    found = verified(bench, sides, None, Trials(None, subject.exported), Effort(3.0))
    if found.verdict == "differs":
        print(f"FALSE ALARM {subject.name}: {found.as_json()['trials'][-1]}", file=sys.stderr)
    return found.verdict == "same"


def pair(subject: Subject, text: str) -> tuple[Side, Side]:
    """The component itself, and another text in its place."""
    before, after, _ = sides_of(subject.place, subject.text, subject.place, text)
    return replace(before, place=before.place), after


def main() -> None:
    """Make mutants, verify each, print the table."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument(
        "which", choices=("demo", "corpus", "carried", "pages", "single", "directives", "styles")
    )
    parser.add_argument("--budget", type=float, default=10.0)
    parser.add_argument("--components", type=int, default=40)
    parser.add_argument("--each", type=int, default=1_000_000, help="mutants a component")
    parser.add_argument("--only", default="", help="only components with this in their name")
    parser.add_argument("--seed", type=int, default=1)
    given = parser.parse_args()
    tally = Tally(cache_folder() / f"mutants-{given.which}.json")
    # A run that is stopped says what it has found so far.
    say = partial(print, file=sys.stderr)
    with Bench(say=say) as bench, suppress(KeyboardInterrupt):
        (style_runs.measure if given.which == "styles" else measure)(bench, given, tally)
    tally.show()


@dataclass
class Tally:
    """What was found: mutants and those told apart by operator, and the survivors."""

    place: Path
    told: Counter[str] = field(default_factory=Counter)
    total: Counter[str] = field(default_factory=Counter)
    survivors: list[dict[str, object]] = field(default_factory=list)
    components: int = 0

    def note(self, subject: Subject, mutant: Mutant, found: Verification) -> bool:
        """Count one mutant; whether it was told apart."""
        # A mutant that cannot be built is told apart as well.
        apart = found.verdict == "differs" or "new side cannot be built" in found.reason
        self.total[mutant.operator] += 1
        self.told[mutant.operator] += apart
        if not apart:
            row = {"component": subject.name, "operator": mutant.operator, "line": mutant.line}
            row |= {"before": mutant.before, "after": mutant.after}
            self.survivors.append(row | {"verdict": found.verdict, "reason": found.reason})
            self.place.write_text(json.dumps(self.survivors, indent=1))
        return apart

    def show(self) -> None:
        """Print the table."""
        print("| operator | mutants | told apart | % |\n|---|---|---|---|")
        for name in dict.fromkeys((*OPERATORS, *self.total)):
            if self.total[name]:
                share = 100 * self.told[name] / self.total[name]
                mark = " (held)" if name in HELD else ""
                shown = f"{name.replace('_', ' ')}{mark}"
                print(f"| {shown} | {self.total[name]} | {self.told[name]} | {share:.0f} |")
        every, told = sum(self.total.values()), sum(self.told.values())
        print(f"| **all** | {every} | {told} | {100 * told / max(1, every):.1f} |")
        print(f"{self.components} components; survivors: {self.place}")


def measure(bench: Bench, given: argparse.Namespace, tally: Tally) -> None:
    """Make and verify mutants of every component chosen."""
    rng = random.Random(given.seed)
    tally.place.write_text("[]")
    subjects: dict[str, Callable[[], Iterable[Subject]]] = {
        "demo": demo_subjects,
        "corpus": partial(corpus_subjects, 10 * given.components, given.seed),
        "pages": page_subjects,
        "single": partial(single_subjects, 10 * given.components, given.seed),
        "directives": directive_subjects,
        "carried": partial(carried_subjects, given.components, given.seed),
    }
    for subject in subjects[given.which]():
        if tally.components >= given.components:
            return
        if given.only not in subject.name:
            continue
        if not mounts(bench, subject):
            print(f"{subject.name}: does not mount by itself", file=sys.stderr)
            continue
        tally.components += 1
        mutants = mutants_of(subject.text, str(subject.place), subject.lines)
        chosen = rng.sample(mutants, min(given.each, len(mutants)))
        own = 0
        for number, mutant in enumerate(chosen, 1):
            print(f"\r\033[K{subject.name} {number}/{len(chosen)}", end="", file=sys.stderr)
            sides = pair(subject, mutant.text)
            effort = Effort(given.budget, shrink=False)
            found = verified(bench, sides, None, Trials(None, subject.exported), effort)
            if found.interrupted:
                raise KeyboardInterrupt
            own += tally.note(subject, mutant, found)
        print(f"\r\033[K{subject.name}: {own} of {len(chosen)} told apart", file=sys.stderr)


if __name__ == "__main__":
    main()
