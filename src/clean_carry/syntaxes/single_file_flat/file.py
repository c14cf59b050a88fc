"""A single file whose component object becomes statements of its script."""

from __future__ import annotations

from pathlib import Path

from clean_carry.component.code import Builtin, MethodCall, MethodValue, Rebound, Taken
from clean_carry.component.fragment import Fragment
from clean_carry.component.interface import InterfaceMap, interface_of
from clean_carry.component.ledger import Ledger
from clean_carry.component.markup import slot_names
from clean_carry.component.members import KeptOption, Method, Provided, Timed
from clean_carry.component.model import Component, Refusal
from clean_carry.component.spans import Span
from clean_carry.source.importers import asked_by_name, reached_by_reference
from clean_carry.source.javascript.joining import joined as joined_lines
from clean_carry.source.javascript.script_style import RESERVED, fixed_ranges, script_style
from clean_carry.source.places import folder_of
from clean_carry.source.template.tree import read_blocks
from clean_carry.source.text import SourceText
from clean_carry.source.workspace import Workspace, package_version
from clean_carry.syntaxes.contract import Excluded, Fitted
from clean_carry.syntaxes.naming import edited, free_locals
from clean_carry.syntaxes.single_file.carried_children import import_carried
from clean_carry.syntaxes.single_file.file import SingleFile
from clean_carry.syntaxes.single_file.hooks import HOOKS
from clean_carry.syntaxes.single_file.names import camel, pascal
from clean_carry.syntaxes.single_file_flat.blocks import Blocks
from clean_carry.syntaxes.single_file_flat.names import (
    NamesMeet,
    free_imports,
    name_members,
    rename,
    type_watchers,
)
from clean_carry.syntaxes.single_file_flat.obsolete_imports import (
    asks_application,
    drop_import,
    drop_store_helpers,
)
from clean_carry.syntaxes.single_file_flat.queried_tags import tag_asked
from clean_carry.syntaxes.single_file_flat.spelling import Speller
from clean_carry.syntaxes.single_file_flat.syntax import SYNTAX
from clean_carry.syntaxes.single_file_flat.use_before_ready import (
    fallible,
    may_throw,
    started,
    too_early,
    watched,
)
from clean_carry.syntaxes.single_file_flat.write import FlatWriter, used_names
from clean_carry.syntaxes.unsaid import Unsaid
from clean_carry.syntaxes.written import NewText, Written, beside, orphaned_comments, unchanged

# Events of the page's own elements (HTML §8.1.8.2): one of them would be heard twice.
_NATIVE = frozenset(
    "abort blur cancel change click close contextmenu copy cut dblclick drag drop dragend dragenter "
    "dragleave dragover dragstart error focus input invalid keydown keypress keyup load mousedown "
    "mouseenter mouseleave mousemove mouseout mouseover mouseup paste reset resize scroll select "
    "submit toggle touchcancel touchend touchmove touchstart wheel animationend transitionend "
    "focusin focusout play pause ended".split()
)


# Elements version 2.7 never takes for a component (its own list of HTML, and `slot`, which is compiled):
# a file may be called like one.
_OF_PAGES = frozenset(
    "a abbr address area article aside audio b base bdi bdo blockquote body br button canvas "
    "caption cite code col colgroup data datalist dd del details dfn dialog div dl dt em embed "
    "fieldset figcaption figure footer form h1 h2 h3 h4 h5 h6 head header hgroup hr html i iframe "
    "img input ins kbd label legend li link main map mark menu meta meter nav noscript object ol "
    "optgroup option output p param picture pre progress q rp rt ruby s samp script "
    "section select slot small source span strong style sub summary sup svg table tbody td "
    "template textarea tfoot th thead time title tr track u ul var video wbr".split()
)


def _scripts(source: SourceText) -> bytes:
    """The scripts of a file alone."""
    return bytes(source.blanked([n.inner for n in read_blocks(source) if n.tag == "script"]))


def _itself(component: Component, file: SingleFile, fitted: Fitted) -> str:
    """The element named like the file, which on version 2.7 is the component itself in the flat form.

    In the object form it is one the application registers, unless the script names one so. The runtime
    looks a component up under its name first, and gives one that says none the name of its file.
    """
    own = _plain(_stem(fitted.workspace.file))
    if "name" in component.foreign.option_values:
        return ""
    if any(_plain(name) == own for name in file.names.module.names):
        return ""
    tag = next((tag for tag in component.view.tags if _plain(tag) == own), "")
    return "" if tag.islower() and tag in _OF_PAGES else tag


def _apart(component: Component, path: Path) -> str:
    """A name for the component that no element of its template has: its folder's before the file's.

    Empty where that is no name, or one of the elements.
    """
    name = pascal(camel(f"{path.parent.name}-{_stem(path)}"))
    taken = {_plain(tag) for tag in component.view.tags} | _OF_PAGES
    return name if name.isidentifier() and _plain(name) not in taken else ""


def _stem(path: Path) -> str:
    return path.name.split(".")[0]


def _plain(name: str) -> str:
    """A name as it is compared: `tide-mark`, `tideMark` and `TideMark` are one."""
    return name.replace("-", "").lower()


def write_file(fitted: Fitted) -> Written:
    """Write the object of a file as statements, in `X.flat.vue` for `X.vue`."""
    file: SingleFile = fitted.file
    refusal = file.refusals[0] if file.refusals else None
    if file.components and refusal is None:
        component = started(file.components[0])
        if fitted.runtime >= 3:
            component = watched(component, file.source)
        itself = _itself(component, file, fitted) if fitted.runtime < 3 else ""
        apart = _apart(component, fitted.workspace.file) if itself else ""
        refusal = _refused(component, file, fitted, itself, apart)
        if refusal is None:
            try:
                return _File(file, fitted, component, apart).written()
            except Unsaid as reason:
                refusal = Refusal(component.name, reason.rule, reason.detail, reason.at)
            except NamesMeet as met:
                refusal = Refusal(component.name, "names-meet", met.name, met.at)
    return unchanged(file.source, fitted.ledger, (refusal,) if refusal is not None else ())


def _refused(
    component: Component, file: SingleFile, fitted: Fitted, itself: str, apart: str
) -> Refusal | None:
    """Return why a component is refused, before anything is written."""
    runtime, workspace, start = fitted.runtime, fitted.workspace, component.span.start
    found = (
        _excluded(component, fitted.excluded)
        or too_early(component)
        or _removed(component, workspace, runtime)
        or (tag_asked(component, file.tree, workspace) if runtime < 3 else None)
    )
    if found is None and itself and not apart:
        return Refusal(component.name, "element-named-like-file", f"<{itself}>", start)
    return found


class _File:
    """A single file whose object becomes statements; raises `NamesMeet`."""

    def __init__(self, file: SingleFile, fitted: Fitted, component: Component, apart: str) -> None:
        self.file, self.fitted, self.component, self.apart = file, fitted, component, apart
        self.source, self.ledger, self.runtime = file.source, fitted.ledger, fitted.runtime
        self.style = script_style(file.tree, fitted.workspace.file)
        self.names = name_members(component, RESERVED, fitted.ledger, fitted.runtime)
        free_imports(self.names, component, file.names)
        dialect = file.block.attribute("lang")
        lang = file.source.slice(*(dialect.value or (0, 0))) if dialect is not None else ""
        self.typed = lang.startswith("ts")
        self.exposed = _exposed(component, fitted.workspace, fitted.runtime)

    def written(self) -> Written:
        """The one file, with its interface and notes."""
        component, source, style = self.component, self.source, self.style
        fragment = self._fragment()
        made = NewText(
            beside(source.path, SYNTAX.suffix, "vue"), fragment, source, self.ledger, style.unit,
            fixed_ranges(self.file.tree),
            lambda text: joined_lines(text, source.path, style.fit, _scripts),
        )  # fmt: skip
        start = component.span.start
        return Written(
            (made,), (component,), (), {start: _interface(component)}, {start: self._notes()}
        )

    def _fragment(self) -> Fragment:
        component, source, style, names = self.component, self.source, self.style, self.names
        file, runtime = self.file, self.runtime
        blocks = Blocks(file, source, style.quote, style.semicolon, runtime, names.edits)
        names.helpers.update(blocks.runtime.names())
        far = component.foreign.mixed_props if self.typed else frozenset[str]()
        end = ";" if style.semicolon else ""
        speller = Speller(names, runtime, source, end, _undeclared(component, runtime), far)
        speller.by_function = runtime >= 3 and asks_application(component)
        rename(names, component)
        free_locals(names.edits, names.taken, component, used_names(component, speller), file.names)
        if self.typed:
            type_watchers(names, component, source)
            # Types of other files know a component by what it exposes.
            opened = set(component.foreign.opened.names) & _public(component)
            self.exposed = tuple(sorted({*self.exposed, *opened}))
        drop_store_helpers(names, component, file.tree, file.names, runtime)
        if file.exported.through:
            drop_import(names, file.tree, file.names, file.exported.through)
        import_carried(names.edits, file.tree, self.fitted.workspace, SYNTAX.suffix)
        writer = FlatWriter(
            component,
            source,
            speller,
            style.unit,
            style.semicolon,
            style.quote,
            style.fit.width,
            style.comma,
            style.last,
            style.fit.shown and "list" in style.fit.rules,
            style.bare,
            self.typed,
            self.exposed,
            self.apart,
            fallible(component, source),
        )
        written = writer.write()
        fragment = blocks.assembled(component, written, writer)
        orphans = orphaned_comments(fragment, self.ledger, component.span)
        if orphans:
            handed_on = writer.noted(tuple(orphans), Fragment())
            fragment = blocks.assembled(component, handed_on + written, writer)
        _keep_copied(self.ledger, file, component)
        return edited(fragment, names.edits)

    def _notes(self) -> list[tuple[str, str, int]]:
        """The instance is no longer open: members that a parent could reach by reference."""
        component = self.component
        found = []
        unused = _unused(component)
        if unused:
            found.append(("methods-given-out", ", ".join(unused), component.span.start))
        names = [m.name for m in component.methods() if m.name not in self.exposed]
        if names and "expose" not in component.entries:
            found.append(("members-closed", ", ".join(names), component.span.start))
        for part in component.members:
            if isinstance(part, Provided) and part.members is not None:
                rule = "instance-provided-unknown" if part.everything else "instance-provided"
                asked = "" if part.everything else ", ".join(part.members)
                found.append((rule, asked, part.code.span.start))
            if isinstance(part, Timed) and part.hook in {"", *component.foreign.mixed_hooks}:
                at = part.callback.text.span.start if part.callback.text else component.span.start
                rule = "mixin-hook-later" if part.hook else "made-at-start"
                found.append((rule, part.hook, at))
        at = max(component.foreign.opened.asked_at, component.span.start)
        if component.foreign.opened.listed:
            found.append(("members-listed", "", at))
        if component.foreign.opened.names:
            found.append(("members-opened", ", ".join(component.foreign.opened.names), at))
        mixed = component.foreign.mixed | component.foreign.mixed_props
        drawn = [(span.start, name) for name, span, _, _ in component.view.names if name in mixed]
        if self.typed and drawn:
            found.append(("mixin-untyped", ", ".join(sorted({n for _, n in drawn})), min(drawn)[0]))
        for part in component.members:
            if isinstance(part, KeptOption) and part.idle and part.name in HOOKS:
                found.append(("hook-never-ran", part.name, part.span.start))
        found += [("member-undeclared", name, at) for name, at in component.foreign.open_names]
        throws = may_throw(component, self.source)
        if throws >= 0:
            found.append(("made-may-throw", "", throws))
        if self.apart:
            found.append(("named-apart", self.apart, component.span.start))
        return found


def _interface(component: Component) -> InterfaceMap:
    """Everything keeps its name."""
    events = dict.fromkeys(
        (*component.outward.events, *(event for event in component.outward.sent if event))
    )
    return interface_of(
        ((prop.name, prop.name) for prop in component.inputs.props),
        ((event, event) for event in events),
        ((name, name) for name in slot_names(component.view.markup)),
        exposed=((name, name) for name in component.outward.exposed),
    )


# Members that version 3 took from every instance (its migration notes); its compatibility build has them.
_REMOVED = frozenset({"$on", "$off", "$once", "$set", "$delete", "$children", "$destroy"})
_COMPATIBLE = "@vue/compat"


def _removed(component: Component, workspace: Workspace, runtime: int) -> Refusal | None:
    """The first use of what the runtime does not have any more: the component fails there as it is."""
    if runtime < 3 or package_version(folder_of(workspace.file), _COMPATIBLE) is not None:
        return None
    for _, operation in component.operations():
        if isinstance(operation, Builtin) and operation.name in _REMOVED:
            at = operation.span.start
            return Refusal(component.name, "removed-from-runtime", f"this.{operation.name}", at)
    return None


def _excluded(component: Component, excluded: Excluded) -> Refusal | None:
    if component.span.start not in excluded:
        return None
    rule, detail, at = excluded[component.span.start]
    return Refusal(component.name, rule, detail, at)


def _public(component: Component) -> frozenset[str]:
    names = {m.name for m in component.methods()} | {d.name for d in component.derived}
    fields = component.state.fields or () if component.state is not None else ()
    return frozenset(names | {f.name for f in fields})


def _exposed(component: Component, workspace: Workspace, runtime: int) -> tuple[str, ...]:
    """Return the members that outside code reads; on version 3 props as well, if others may stand
    in for it."""
    of_children, of_parents = reached_by_reference(workspace.file)
    of_named = asked_by_name(workspace.file, component.name)
    found = (of_children | of_parents | of_named) & _public(component)
    if runtime >= 3 and any(
        "-" in tag or not tag.islower() or tag == "slot" for tag in component.view.tags
    ):
        found |= of_parents & {prop.name for prop in component.inputs.props}
    return tuple(sorted(found | set(component.outward.exposed) | set(_unused(component))))


def _unused(component: Component) -> list[str]:
    """The methods that nothing inside uses: they are there for others, who call them by a reference."""
    used = {name for name, _, _, _ in component.view.names} | set(component.foreign.opened.names)
    used |= {part.handler.method for part in component.reactions if part.handler is not None}
    for owner, operation in component.operations():
        if isinstance(operation, MethodCall | MethodValue | Rebound):
            if not (isinstance(owner, Method) and owner.name == operation.member.name):
                used.add(operation.member.name)
        elif isinstance(operation, Taken):
            used.update(
                part.member.name for part, _, _ in operation.members if hasattr(part, "member")
            )
    names = [method.name for method in component.methods()]
    return [name for name in names if name not in used and not name.startswith("_")]


def _undeclared(component: Component, runtime: int) -> bool:
    """Whether declaring the events would change what listeners on the root hear (version 3)."""
    if runtime < 3 or "emits" in component.entries:
        return False
    events = set(component.outward.sent)
    # Listeners of declared events are no longer among what is passed on.
    passed_on = any(name == "$attrs" for name, _, _, _ in component.view.names) or any(
        isinstance(o, Builtin) and o.name == "$attrs" for _, o in component.operations()
    )
    mixes = bool(component.foreign.mixed or component.foreign.mixed_props)
    inside = component.view.root_is_component or passed_on or mixes
    return "" in events or bool(events & _NATIVE) or inside


def _keep_copied(ledger: Ledger, file: SingleFile, component: Component) -> None:
    """The template, and what is copied whole, are kept with all in them."""
    whole: list[Span] = [*component.foreign.option_values.values()]
    whole += [
        part.span for part in component.members if isinstance(part, KeptOption) and not part.idle
    ]
    if file.template is not None:
        whole.append(Span(file.template.start, file.template.end, ledger.file))
    for entry in ledger.entries:
        if entry.rule in ("renamed-apart", "runtime-import"):
            continue
        if entry.notion == "file" or any(span.holds(entry.span) for span in whole):
            entry.outcome = "kept"
