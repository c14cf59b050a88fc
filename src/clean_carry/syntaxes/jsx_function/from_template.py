"""A component with a template as a function returning JSX.

Lowering turns what the target cannot say into what it can: events and slots become inputs, what a
parent passes on reaches the root through the rest of the inputs, scoped styles get an attribute.
"""

from __future__ import annotations

from dataclasses import replace

from clean_carry.component.code import Emit, Member, Read
from clean_carry.component.errors import UnsettledEntry
from clean_carry.component.fragment import Fragment, copy, new, settled
from clean_carry.component.interface import Interface
from clean_carry.component.markup import Element, Text, slot_names
from clean_carry.component.members import Derived, Reaction
from clean_carry.component.model import Component, Prop, Refusal
from clean_carry.source.css.selectors import FOREIGN, FOREIGN_ANYWHERE, scope_splices
from clean_carry.source.javascript.script_style import fixed_ranges, script_style
from clean_carry.source.javascript.values import is_identifier
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.contract import Fitted, ScriptFile
from clean_carry.syntaxes.jsx.attributes import HTML_NAMES
from clean_carry.syntaxes.jsx.runtime_names import RUNTIME
from clean_carry.syntaxes.jsx_function.planning.fit import fit
from clean_carry.syntaxes.jsx_function.planning.plan import Refused
from clean_carry.syntaxes.jsx_function.syntax import SYNTAX
from clean_carry.syntaxes.jsx_function.write import Style, TemplateTarget, write, write_before
from clean_carry.syntaxes.written import (
    NewText,
    Note,
    Written,
    beside,
    orphaned_comments,
    unchanged,
)

HOOKS = frozenset({"useState", "useRef", "useCallback"})


def write_from_template(fitted: Fitted) -> Written:
    """Lower, fit and write the component of a file with a template as a function."""
    file: ScriptFile = fitted.file
    found = script_style(file.tree, fitted.workspace.file)
    style = Style(found.unit, found.semicolon, found.quote, "", found.fit, found.comma)
    refused = file.refusals
    if file.components:
        component = file.components[0]
        try:
            if component.span.start in fitted.excluded:
                rule, detail, at = fitted.excluded[component.span.start]
                raise Refused(rule, detail, at)
            return _carried(file, component, fitted, style)
        except Refused as reason:
            refused = (Refusal(component.name, reason.rule, reason.detail, reason.at),)
        except UnsettledEntry as error:
            refused = (Refusal(component.name, "ledger-unsettled", error.what, error.start),)
    return unchanged(file.source, fitted.ledger, refused)


def _carried(file: ScriptFile, component: Component, fitted: Fitted, style: Style) -> Written:
    source, ledger = file.source, fitted.ledger
    stem = source.path.replace("\\", "/").rsplit("/", 1)[-1].split(".")[0]
    scoped = any(block.scoped for block in file.styles)
    mark = scope_mark(component.name) if scoped else ""
    if component.facts.unread:
        raise Refused(*min(component.facts.unread, key=lambda found: found[2]))
    lowered, target = lower(component, mark)
    _check(file, lowered)
    plan = fit(lowered, fitted.runtime, HOOKS)
    before = write_before(plan, source, style)
    function = write(plan, source, style, target)
    for option in ("name", "props", "emits", "computed", "watch", "methods"):
        if option in lowered.entries:
            function += settled(lowered.entries[option], "option-to-function")
    for note in (n for notes in component.foreign.option_comments.values() for n in notes):
        before += copy(note) + new("\n")
    for span in orphaned_comments(before + function, ledger, component.span):
        before += copy(span) + new("\n")
    styles = _styles(file, source, mark)
    lines = []
    if style.hooks:
        lines.append(f"import {{ {', '.join(sorted(style.hooks))} }} from ")
        lines[-1] += f"{style.quote}{RUNTIME}{style.quote}{style.semicolon}\n"
    language = _language(file)
    own = f"./{stem}.{language}"
    sheets = [block.linked or own for block in file.styles]
    for sheet in dict.fromkeys(sheets):
        if sheet != own or styles:
            lines.append(f"import {style.quote}{sheet}{style.quote}{style.semicolon}\n")
    script = new("".join(lines)) + _module_code(file, component, source, bool(lines))
    script += before + new("export default ") + function + new("\n")
    script += _after(file, component, source)
    for entry in ledger.entries:
        if entry.notion in ("file", "template") and entry.outcome == "open":
            entry.outcome, entry.rule = "carried", "blocks-to-module"
    fixed = fixed_ranges(file.tree)
    sheet = beside(source.path, "", language).replace("..", ".")
    start = component.span.start
    return Written(
        (
            NewText(
                beside(source.path, SYNTAX.suffix, "jsx"), script, source, ledger, style.unit, fixed
            ),
            NewText(sheet, styles, source, ledger, style.unit, fixed),
        ),
        (lowered,),
        (),
        {start: _interface(lowered, target)},
        {start: _notes(lowered, target)},
    )


def _interface(component: Component, target: TemplateTarget) -> Interface:
    """Inputs keep their names; events and slots are inputs of the function."""
    made = {*target.events.values(), *target.slots.values(), "className"}
    return Interface(
        (
            *((p.name, p.name) for p in component.inputs.props if p.name not in made),
            ("class", "className"),
        ),
        tuple(target.events.items()),
        tuple(target.slots.items()),
    )


def _notes(component: Component, target: TemplateTarget) -> list[Note]:
    """Slots that share their name with an attribute."""
    return [
        ("element-prefix", name, component.span.start)
        for name, local in target.slots.items()
        if name and local != name
    ]


def lower(component: Component, mark: str) -> tuple[Component, TemplateTarget]:
    """Events and slots as inputs, derived values in the order they need each other.

    Raises `Refused` for markup and inputs the target cannot say.
    """
    roots = [n for n in component.view.markup if isinstance(n, Element)]
    others = [n for n in component.view.markup if not isinstance(n, Element | Text)]
    if len(roots) != 1 or others:
        raise Refused("markup-unread", "a root that is not one element", component.span.start)
    for prop in component.inputs.props:
        if prop.kind == "unread" or ("Boolean" in prop.kind and prop.kind != "Boolean"):
            raise Refused("input-declaration", prop.name, component.span.start)
        if prop.default is not None and prop.default.kind != "constant":
            raise Refused("input-declaration", prop.name, prop.default.code.span.start)
    for _, operation in component.operations():
        if isinstance(operation, Emit) and operation.event not in component.outward.events:
            raise Refused("events-undeclared", operation.event, operation.span.start)
    names = {prop.name for prop in component.inputs.props}
    events = {event: f"on{_pascal(event)}" for event in component.outward.events}
    slots: dict[str, str] = {}
    for name in slot_names(component.view.markup):
        wish = name or "children"
        slots[name] = f"{wish}Slot" if wish in HTML_NAMES or wish in names else wish
    made = [*events.values(), *slots.values(), "className"]
    for name in made:
        if name in names or not is_identifier(name) or made.count(name) > 1:
            raise Refused("names-meet", name, component.span.start)
    rest = [m for m in component.members if not isinstance(m, Derived | Reaction)]
    parts = [*_ordered(component), *component.reactions, *rest]
    lowered = replace(
        component,
        inputs=replace(
            component.inputs, props=(*component.inputs.props, *(Prop(name) for name in made))
        ),
        members=tuple(parts),
    )
    return lowered, TemplateTarget(mark, events, slots)


def _ordered(component: Component) -> list[Derived]:
    """Derived values so that each stands after those it reads."""
    pending = {d.name: d for d in component.derived}
    needs = {
        d.name: {
            o.member.name
            for o in d.text.all()
            if isinstance(o, Read) and o.member.kind == "derived"
        }
        for d in component.derived
    }
    done: list[Derived] = []
    while pending:
        ready = [n for n in pending if not needs[n] & pending.keys()]
        if not ready:
            first = next(iter(pending.values()))
            raise Refused("derived-in-steps", first.name, first.text.span.start)
        done.append(pending.pop(ready[0]))
    return done


def _check(file: ScriptFile, component: Component) -> None:
    if component.language.typed:
        raise Refused("block-unread", "a script in a dialect", file.script[0])
    for statement in file.tree.root.named_children:
        origin = statement.child("source") if statement.type == "import_statement" else None
        if origin is not None and origin.text[1:-1] == file.syntax.runtime.name:
            raise Refused("unknown-use", "the old runtime is imported", statement.start)
    for derived in component.derived:
        for operation in derived.text.all():
            if getattr(operation, "member", Member("prop", "")).kind == "method":
                raise Refused("derived-in-steps", derived.name, operation.span.start)


def _language(file: ScriptFile) -> str:
    """What the stylesheet is written in; raises `Refused` for one file of several languages."""
    own = [block for block in file.styles if not block.linked]
    languages = list(dict.fromkeys(block.language for block in own))
    if len(languages) > 1:
        raise Refused("style-unread", "styles in several languages", own[1].content.start)
    return {"stylus": "styl"}.get(languages[0], languages[0]) if languages else "css"


def _styles(file: ScriptFile, source: SourceText, mark: str) -> Fragment:
    result = Fragment()
    for block in file.styles:
        if block.linked:
            continue
        start, end, _ = block.content
        while source.data[start : start + 1] == b"\n":
            start += 1
        text = source.data[start:end]
        for word in FOREIGN if block.scoped else FOREIGN_ANYWHERE:
            if word in text:
                raise Refused("style-unread", word.decode(), start + text.find(word))
        here = start
        attribute = f"[{mark}]".encode()
        splices = scope_splices(source.data, start, end, attribute) if block.scoped else []
        if isinstance(splices, int):
            raise Refused("style-unread", "a selector out of the scope", splices)
        for low, high, made in splices:
            result += copy(source.span(here, low)) + new(made.decode())
            here = high
        result += copy(source.span(here, end))
    return result


def _module_code(
    file: ScriptFile, component: Component, source: SourceText, after_imports: bool
) -> Fragment:
    start, end = file.script[0], component.span.start
    while start < end and source.data[start : start + 1] == b"\n":
        start += 1
    blank = after_imports and not source.data[start:end].lstrip().startswith(b"import")
    return new("\n" if blank else "") + copy(source.span(start, end))


def _after(file: ScriptFile, component: Component, source: SourceText) -> Fragment:
    start, end = component.span.end, file.script[1]
    rest = source.data[start:end]
    start += len(rest) - len(rest.lstrip(b"; \t\n"))
    return copy(source.span(start, end)) if start < end else Fragment()


def _pascal(name: str) -> str:
    return "".join(part[:1].upper() + part[1:] for part in name.replace(":", "-").split("-"))


def scope_mark(name: str) -> str:
    """The attribute that scopes the styles of a component: `data-seat-counter` for SeatCounter."""
    out = "data-"
    for at, letter in enumerate(name):
        out += ("-" if letter.isupper() and at else "") + letter.lower()
    return out
