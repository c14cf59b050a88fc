"""A script of the JSX family: the file stays, its components become functions where they stand."""

from __future__ import annotations

from bisect import bisect_right
from collections.abc import Callable, Iterator
from pathlib import Path

from clean_carry.component.code import Differs, Member, MethodValue, Operation, PatternRead, Read
from clean_carry.component.errors import UnsettledEntry
from clean_carry.component.fragment import Fragment, copy, dropped, new, settled
from clean_carry.component.interface import InterfaceMap, interface_of
from clean_carry.component.ledger import Ledger
from clean_carry.component.model import Component, Refusal
from clean_carry.component.spans import Span
from clean_carry.source.javascript import comments
from clean_carry.source.javascript.joining import joined
from clean_carry.source.javascript.scope import Names
from clean_carry.source.javascript.script_style import fixed_ranges, script_style
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.merged import MergedText
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.contract import Excluded, Fitted, ReadAgain
from clean_carry.syntaxes.jsx.file import JsxFile
from clean_carry.syntaxes.jsx.imports import edited_import, new_import
from clean_carry.syntaxes.jsx.runtime_names import RuntimeNames, runtime_names
from clean_carry.syntaxes.jsx_function.after_render import after_render_hook, hook_name
from clean_carry.syntaxes.jsx_function.planning.fit import draws_by_inputs, fit, keeps_defaults
from clean_carry.syntaxes.jsx_function.planning.made_once import (
    imports_from_old,
    shared_values,
    split_values,
)
from clean_carry.syntaxes.jsx_function.planning.plan import Plan, Refused
from clean_carry.syntaxes.jsx_function.syntax import SYNTAX
from clean_carry.syntaxes.jsx_function.write import Style, write, write_before
from clean_carry.syntaxes.written import NewText, Note, Written, beside, orphaned_comments

HOOKS = frozenset(
    (
        "useState useReducer useRef useLayoutEffect useEffect useCallback useContext "
        "useImperativeHandle memo forwardRef"
    ).split()
)


def write_file(fitted: Fitted) -> Written:
    """Write each component of a script as a function where it stands; raises `ReadAgain`."""
    file: JsxFile = fitted.file
    return _Script(file, fitted).written()


class _Script:
    """A script whose components become functions."""

    def __init__(self, file: JsxFile, fitted: Fitted) -> None:
        self.file, self.fitted = file, fitted
        self.tree, self.names, self.source = file.tree, file.names, file.source
        self.ledger, self.workspace = fitted.ledger, fitted.workspace
        imports = runtime_names(file.tree)
        self.taken = _taken_hooks(file.names, imports)
        self.style = _style(fitted.workspace.file, file.tree, imports, self.taken)
        self.style.after_hook = hook_name(set(file.names.module.names))
        self.edits: list[tuple[Span, Fragment]] = []
        self.carried: list[Component] = []
        self.refused = list(file.refusals)
        self.plans: dict[int, Plan] = {}
        self.hooked = False

    def written(self) -> Written:
        """The one file, beside the old one: `X.function.jsx` for `X.jsx`."""
        excluded = self._excluded()
        for component in self.file.components:
            if component.span.start in excluded:
                self._refuse(component, *excluded[component.span.start])
                continue
            try:
                self._carry(component)
            except Refused as reason:
                runtime = self.fitted.runtime
                if reason.rule == "pure-default-redraw" and keeps_defaults(component, runtime):
                    # With its defaults as a property nothing tells that they were not given.
                    raise ReadAgain(frozenset({component.span.start})) from None
                self._refuse(component, reason.rule, reason.detail, reason.at)
            except UnsettledEntry as error:
                self._refuse(component, "ledger-unsettled", error.what, error.start)
        beside_old = self.workspace.beside and bool(self.carried)
        shared = shared_values(self.tree, self.names, self.carried) if beside_old else []
        if shared:
            style = self.style
            self.edits += imports_from_old(
                shared, self.tree, self.ledger, style.quote, style.semicolon
            )
        fragment = self._fragment()
        from_old = {value.name: value.statement.start for value in shared}
        made = NewText(
            beside(self.source.path, SYNTAX.suffix), fragment, self.source, self.ledger,
            self.style.unit, fixed_ranges(self.tree),
            lambda text: joined(text, self.source.path, self.style.fit),
        )  # fmt: skip
        notes = {c.span.start: self._notes(c, from_old) for c in self.carried}
        interfaces = {c.span.start: _interface(c) for c in self.carried}
        return Written((made,), tuple(self.carried), tuple(self.refused), interfaces, notes)

    def _excluded(self) -> Excluded:
        """Return the components to exclude, with those that cannot share a value with the old file."""
        excluded = self.fitted.excluded
        components = self.file.components
        if not self.workspace.beside or not components:
            return excluded
        split = split_values(self.tree, self.names, list(components))
        if not split:
            return excluded
        reason = ("made-once-unexported", split[0].name, split[0].statement.start)
        users = {id(user) for value in split for user in value.users}
        found = dict(excluded)
        for component in components:
            start = component.span.start
            top = next(n for n in self.tree.root.children if n.start <= start < n.end)
            if id(top) in users:
                found[start] = reason
        return found

    def _refuse(self, component: Component, rule: str, detail: str, at: int) -> None:
        self.refused.append(Refusal(component.name, rule, detail, at))
        _keep(self.ledger, component)

    def _carry(self, component: Component) -> None:
        """Plan and write one component; raises `Refused`, `UnsettledEntry`."""
        style, source = self.style, self.source
        hook_names = frozenset({*(HOOKS if not style.hook_prefix else ()), style.after_hook})
        plan = fit(component, self.fitted.runtime, hook_names)
        before = write_before(plan, source, style)
        written = write(plan, source, style)
        if not style.hook_prefix and style.hooks & self.taken:
            raise Refused("local-hides", min(style.hooks & self.taken), component.span.start)
        edits = self.edits
        if style.follows and not self.hooked:
            # Once in a file, before the first component that calls it.
            self.hooked = True
            text = after_render_hook(style, typed=self.tree.typed, annotated=self.tree.annotated)
            place = _statement_start(self.tree, component.place.head.start)
            edits.append((source.span(place, place), new(text)))
        if before:
            start = component.place.head.start
            edits.append((source.span(start, start), before))
        edits.append((component.span, written))
        exported = component.place.export_span if plan.exports_after else None
        gone = _gone(component, exported)
        gone += _outside(gone, component, [whole for whole, _, _ in component.place.decorators])
        edits += [(span, Fragment()) for span in gone]
        edits += [(span, new("?")) for span in component.inputs.optional_marks]
        for span, entry, rule in component.place.moved:
            edits.append((span, dropped(entry, rule)))
        self.carried.append(component)
        self.plans[component.span.start] = plan

    def _fragment(self) -> Fragment:
        """The new text, with the imports it needs, and comments whose surroundings went away."""
        tree, names, ledger = self.tree, self.names, self.ledger
        fragment = _with_edits(self.source, self.edits)
        if self.carried:
            fragment = _with_import(fragment, tree, names, self.style, ledger)
            fragment = _without_served(fragment, self.file, ledger)
        return _with_orphans(fragment, ledger, tuple(self.carried), self.source)

    def _notes(self, component: Component, from_old: dict[str, int]) -> list[Note]:
        """Yield notes on unbound methods, props used as refs, and renders no longer spared."""
        found = [*self._of_draws(component), *self._of_file(component, from_old)]
        facts = component.facts
        if component.inputs.defaults_kept is not None:
            found.append(("defaults-kept", "", component.inputs.defaults_kept.at))
        if facts.unfollowed:
            tags = ", ".join(sorted(tag for tag, _ in facts.unfollowed))
            found.append(("receiver-not-followed", tags, facts.unfollowed[0][1]))
        if facts.handed_on is not None:
            found.append(("handed-to-package", *facts.handed_on))
        if facts.looked_into is not None:
            found.append(("wrapper-looks-in", *facts.looked_into))
        found += [("decorator-called", "", w.start) for w, _, _ in component.place.decorators]
        return [*found, *_of_operations(component)]

    def _of_draws(self, component: Component) -> Iterator[Note]:
        """Yield notes on values that render more or less often, or at another time."""
        plan, drawing = self.plans[component.span.start], component.view.drawing
        if component.view.pure and not plan.remembered:
            yield (
                "draws-each-time",
                component.name,
                component.moments("received")[0].body.span.start,
            )
        spares = self._spares_draws(component)
        defaults = any(prop.default is not None for prop in component.inputs.props)
        again = plan.remembered and defaults
        if drawing is not None and (spares or again) and draws_by_inputs(component):
            if spares:
                yield "equal-write-spared", "", drawing.span.start
            if again:
                yield "default-draws-again", "", drawing.span.start
        if component.view.undefined_at >= 0 and plan.draws_undefined:
            yield "undefined-drawn", "", component.view.undefined_at
        updating = component.moments("updating")
        if updating:
            yield "runs-while-drawing", "", updating[-1].body.span.start

    def _of_file(self, component: Component, from_old: dict[str, int]) -> Iterator[Note]:
        """Yield notes on code that was inlined, or stays in the old file."""
        if isinstance(self.tree.source, MergedText):
            span = component.span
            taken = self.tree.source.taken.items()
            words = [words for at, words in taken if span.start <= at < span.end]
            if words:
                yield "base-read-in", words[-1], span.start
        if from_old and component is self.carried[0]:
            yield "imported-from-old", ", ".join(from_old), min(from_old.values())

    def _spares_draws(self, component: Component) -> bool:
        """Whether a write of the current value no longer re-renders."""
        plan = self.plans[component.span.start]
        return plan.layout == "split" and not component.view.pure and component.writes_constants


def _of_operations(component: Component) -> Iterator[Note]:
    """Each input given on as a reference, and each method passed on unbound, at its first place."""
    bound = {m.name: m for m in component.methods()}
    told: set[str] = set()
    differs = [o for _, o in component.operations() if isinstance(o, Differs)]
    if differs:
        yield "derived-not-a-number", "", differs[-1].span.start
    for _, operation in component.operations():
        at = operation.span.start
        for name in _references(operation):
            if f"ref {name}" not in told:
                told.add(f"ref {name}")
                yield "reference-from-input", name, at
        if not isinstance(operation, MethodValue) or operation.bound is not None:
            continue
        method = bound.get(operation.member.name)
        uses = method is not None and not method.stable and any(True for _ in method.text.all())
        if method is not None and uses and method.name not in told:
            told.add(method.name)
            yield "unbound-method", method.name, at


def _interface(component: Component) -> InterfaceMap:
    """Inputs keep their names; children are the default slot on both sides."""
    names = [p.name for p in component.inputs.props]
    exposed = ((name, name) for name in component.outward.exposed)
    return interface_of(((name, name) for name in names), exposed=exposed)


def _references(operation: Operation) -> list[str]:
    """The inputs an operation gives to an element as its reference."""
    match operation:
        case Read(member=Member(kind="prop", name=name), reference=True):
            return [name]
        case PatternRead(source="props", bindings=bindings) if bindings is not None:
            return [binding.key for binding in bindings if binding.reference]
    return []


def _statement_start(tree: Tree, at: int) -> int:
    """Where the statement of the file begins that holds an offset, with the comments above it."""
    for node in tree.root.children:
        if node.start <= at < node.end and node.type != "comment":
            above = comments.leading(tree, node)
            return above[0].start if above else node.start
    return at


def _gone(component: Component, exported: Span | None) -> list[Span]:
    """Return code outside of a class that is written inside of its function, or after it."""
    named = component.context.span if component.context is not None else None
    return [span for span in (exported, named) if span is not None]


def _outside(gone: list[Span], component: Component, spans: list[Span]) -> list[Span]:
    """The spans that lie neither in what goes nor in the component."""
    return [
        span
        for span in spans
        if not any(g.start <= span.start < g.end for g in (*gone, component.span))
    ]


def _keep(ledger: Ledger, component: Component) -> None:
    """Settle a class that stays as it is: all of it is kept."""
    spans = [
        component.span,
        *(span for span, _, _ in component.place.moved),
        *_gone(component, component.place.export_span),
        *(whole for whole, _, _ in component.place.decorators),
    ]
    for entry in ledger.entries:
        if any(span.start <= entry.span.start and entry.span.end <= span.end for span in spans):
            entry.outcome, entry.rule = "kept", ""


def _taken_hooks(names: Names, imports: RuntimeNames) -> frozenset[str]:
    """The names of hooks that the file has for something else."""
    statement = imports.statement
    return frozenset(
        name
        for name in HOOKS
        if (binding := names.module.names.get(name)) is not None
        and not (statement is not None and statement.start <= binding.node.start < statement.end)
    )


def _style(file: Path, tree: Tree, imports: RuntimeNames, taken: frozenset[str]) -> Style:
    found = script_style(tree, file)
    whole, named, statement = imports.whole, bool(imports.named), imports.statement
    namespace = statement is not None and any(
        c.type == "namespace_import" for c in statement.walk()
    )
    whole_only = namespace or whole[:1] == tuple(imports.required)
    prefix = f"{whole[0]}." if whole and ((whole_only and not named) or taken) else ""
    return Style(
        found.unit, found.semicolon, found.quote, prefix, found.fit, found.comma, found.bare
    )


def _with_edits(source: SourceText, edits: list[tuple[Span, Fragment]]) -> Fragment:
    result = Fragment()
    here = 0
    for span, fragment in sorted(edits, key=lambda edit: edit[0].start):
        result += copy(source.span(here, span.start)) + fragment
        here = span.end
    return result + copy(source.span(here, len(source.data)))


def _still_used(fragment: Fragment) -> Callable[[Node], bool]:
    """Whether a reference is among what was copied."""
    copied = sorted((p.span.start, p.span.end) for p in fragment.pieces if p.span is not None)
    starts = [start for start, _ in copied]

    def still_used(ref: Node) -> bool:
        at = bisect_right(starts, ref.start) - 1
        return at >= 0 and ref.end <= copied[at][1]

    return still_used


def _with_import(
    fragment: Fragment, tree: Tree, names: Names, style: Style, ledger: Ledger
) -> Fragment:
    """Edit the runtime's import: the base goes, hooks come."""
    imports = runtime_names(tree)
    source = tree.source
    if imports.statement is None:
        if not style.hooks or style.hook_prefix:
            return fragment
        text = new_import(style.hooks, style.quote, style.semicolon)
        at = _first_import(tree)
        return _insert(fragment, at, new(f"{text}\n"), source)
    still_used = _still_used(fragment)
    hooks = style.hooks if not style.hook_prefix else set()
    text = edited_import(imports, names, hooks, still_used, style.semicolon, style.unit, style.fit)
    statement = imports.statement
    end = statement.end
    if source.data[end : end + 1] == b";" and not statement.text.endswith(";"):
        end += 1
    old = source.slice(statement.start, end)
    if text.rstrip(";") == old.rstrip(";"):
        return fragment
    span = source.span(statement.start, end)
    if text:
        entry = ledger.claim("runtime-import", span)
        return _replace(fragment, span, new(text, entry, "hooks-imported"), source)
    if source.data[end : end + 1] == b"\n":
        span = source.span(statement.start, end + 1)
    entry = ledger.claim("runtime-import", span)
    return _replace(fragment, span, dropped(entry, "base-import"), source)


def _without_served(fragment: Fragment, file: JsxFile, ledger: Ledger) -> Fragment:
    """The import of what served the old form alone goes where nothing uses it any more."""
    tree, names = file.tree, file.names
    for statement in tree.of("import_statement"):
        source = statement.child("source")
        if source is None or source.text[1:-1] not in file.serving:
            continue
        still_used = _still_used(fragment)
        locals_ = [
            (part, binding)
            for part in statement.walk()
            if (binding := names.module.names.get(part.text)) is not None and binding.node is part
        ]
        unused = [
            part
            for part, binding in locals_
            if binding.references and not any(still_used(ref) for ref in binding.references)
        ]
        if not unused:
            continue
        span: Span | None
        if len(unused) == len(locals_):
            span = tree.source.statement_line(statement.start, statement.end)
        else:
            specifier = next(iter(unused)).parent
            span = _specifier(tree.source, specifier) if specifier is not None else None
        if span is None or (len(unused) > 1 and len(unused) != len(locals_)):
            continue
        entry = ledger.claim("element-import", span)
        outcome, rule = file.serving[source.text[1:-1]]
        gone = settled(entry, rule, outcome)
        fragment = _replace(fragment, span, gone, tree.source)
    return fragment


def _specifier(source: SourceText, specifier: Node) -> Span | None:
    """One name of an import in braces with the comma after it, or before the last one."""
    if specifier.type != "import_specifier":
        return None
    data, start, end = source.data, specifier.start, specifier.end
    while data[end : end + 1] in (b" ", b","):
        end += 1
    if data[end : end + 1] == b"}":
        end = specifier.end
        while data[start - 1 : start] in (b" ", b","):
            start -= 1
    return source.span(start, end)


def _first_import(tree: Tree) -> int:
    for node in tree.root.children:
        if node.type == "import_statement":
            return node.start
    return next((n.start for n in tree.root.children if n.type != "comment"), 0)


def _replace(fragment: Fragment, span: Span, by: Fragment, source: SourceText) -> Fragment:
    pieces = []
    for piece in fragment.pieces:
        if piece.span is None or not (
            piece.span.start <= span.start and span.end <= piece.span.end
        ):
            pieces.append(piece)
            continue
        if piece.span.start < span.start:
            pieces.append(piece._replace(span=source.span(piece.span.start, span.start)))
        pieces.extend(by.pieces)
        if span.end < piece.span.end:
            pieces.append(piece._replace(span=source.span(span.end, piece.span.end)))
    return Fragment(pieces)


def _insert(fragment: Fragment, at: int, by: Fragment, source: SourceText) -> Fragment:
    return _replace(fragment, source.span(at, at), by, source)


def _with_orphans(
    fragment: Fragment, ledger: Ledger, carried: tuple[Component, ...], source: SourceText
) -> Fragment:
    """Return comments whose surroundings are gone: they open the function's body."""
    for component in carried:
        spans = [*(span for span, _, _ in component.place.moved), component.span]
        orphans = [o for span in spans for o in orphaned_comments(fragment, ledger, span)]
        if orphans:
            fragment = _hand_on(fragment, component, orphans, source)
    return fragment


def _hand_on(
    fragment: Fragment, component: Component, orphans: list[Span], source: SourceText
) -> Fragment:
    pieces = list(fragment.pieces)
    entry = component.entries["component"]
    for number, piece in enumerate(pieces):
        if piece.entry != entry or piece.rule not in (
            "component-to-function",
            "component-to-wrapped",
        ):
            continue
        opening = next(at for at in range(number, len(pieces)) if pieces[at].text.endswith(") {\n"))
        indent = pieces[opening + 1].text
        added: list = []  # type: ignore[type-arg]
        for span in orphans:
            added.extend((new(indent) + copy(span) + new("\n")).pieces)
        return Fragment([*pieces[: opening + 1], *added, *pieces[opening + 1 :]])
    return fragment
