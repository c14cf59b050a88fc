"""Read the component object of a single file into the neutral component."""

from __future__ import annotations

import re
from collections.abc import Iterator, Sequence
from dataclasses import replace

from clean_carry.component.errors import HoldsNone, InputError
from clean_carry.component.exposed import Opened
from clean_carry.component.ledger import Ledger
from clean_carry.component.markup import Markup
from clean_carry.component.members import KeptOption
from clean_carry.component.model import (
    Component,
    Elsewhere,
    Facts,
    Foreign,
    Inputs,
    Language,
    Outward,
    Place,
    Refusal,
    StyleBlock,
    View,
)
from clean_carry.component.spans import Span
from clean_carry.source.importers import options_asked
from clean_carry.source.javascript import comments
from clean_carry.source.javascript.scope import Names, is_write
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.javascript.values import property_name
from clean_carry.source.merged import MergedText
from clean_carry.source.template.tree import TemplateNode
from clean_carry.source.text import SourceText
from clean_carry.source.workspace import Workspace
from clean_carry.syntaxes.contract import Syntax, Wishes
from clean_carry.syntaxes.single_file.aliases import Aliases
from clean_carry.syntaxes.single_file.blocks import FileBlocks, read_file
from clean_carry.syntaxes.single_file.expressions import TemplateCode, read_code
from clean_carry.syntaxes.single_file.file import Exported, SingleFile
from clean_carry.syntaxes.single_file.hooks import HOOKS, ROUTE_HOOKS
from clean_carry.syntaxes.single_file.markup import GLOBALS, TemplateReader
from clean_carry.syntaxes.single_file.members import Members
from clean_carry.syntaxes.single_file.names import pascal
from clean_carry.syntaxes.single_file.options import behaviour, registrations, setup_models  # noqa: F401
from clean_carry.syntaxes.single_file.options.exported import exported_object
from clean_carry.syntaxes.single_file.options.exposed import mix_in, opened
from clean_carry.syntaxes.single_file.options.functions import (
    attached,
    parts_of,
)
from clean_carry.syntaxes.single_file.options.instance import (
    collect_names,
    collect_uses,
    reserved,
)
from clean_carry.syntaxes.single_file.options.read_options import OPTIONS, Gathered, claim_option
from clean_carry.syntaxes.single_file.values import member_forms
from clean_carry.syntaxes.uses import Uses

_HOOKS = frozenset(HOOKS | ROUTE_HOOKS)


def read(
    source: SourceText, ledger: Ledger, workspace: Workspace, wishes: Wishes, syntax: Syntax
) -> SingleFile:
    """Read a file in a `syntax` of the family, for a major version of its runtime.

    Raises `InputError` where it holds no component object.
    """
    runtime = wishes.runtime
    blocks = read_file(source)
    script = blocks.script
    if script is None:
        raise HoldsNone("holds no script", file=source.path)
    ledger.claim("file", source.span(0, len(source.data)))
    start, end = script.inner
    tree = Tree(source, bytes(source.blanked([script.inner])))
    names = Names(tree)
    exported = exported_object(tree, names, workspace)
    if exported is None:
        raise InputError("exports no component object", file=source.path)
    statement, literal = exported.statement, exported.literal
    _claim(ledger, source, exported, start, end)
    uses = Uses(tree, names, ledger)
    if isinstance(source, MergedText):
        for refused in source.refused:
            uses.refuse(*refused)
    if blocks.refusal is not None:
        uses.refuse(*blocks.refusal)
    if exported.made:
        uses.refuse("made-by-call", exported.made, statement.start)
    if any(a.name == "setup" for a in script.attributes):
        raise InputError("is in the flat form already", file=source.path)
    members = collect_names(literal, tree, workspace.file)
    members.neutral = wishes.neutral
    members.unread.extend(blocks.unread)
    mixed = mix_in(uses, members, literal, workspace)
    component = _component(uses, members, statement, literal, blocks, workspace, runtime)
    styles = tuple(_style(source, style, members) for style in blocks.styles)
    shared = opened(uses, members, mixed, literal, workspace)
    component = _with_surroundings(component, source, members, shared)
    refusals: tuple[Refusal, ...] = ()
    components: tuple[Component, ...] = (component,)
    if uses.refusals:
        rule, detail, at = min(uses.refusals, key=_first_cause)
        refusals = (Refusal(component.name, rule, detail, at),)
        components = ()
    return SingleFile(
        syntax,
        source,
        components,
        refusals,
        tree,
        script.inner,
        styles=styles,
        names=names,
        block=script,
        template=blocks.template,
        exported=exported,
    )


def _with_surroundings(
    component: Component, source: SourceText, members: Members, shared: Opened
) -> Component:
    """The component with what others ask of it, and what was noted of its file."""
    unread, elsewhere = tuple(members.unread), tuple(_changed(source))
    return replace(
        component,
        foreign=replace(component.foreign, opened=shared),
        facts=replace(component.facts, unread=unread, elsewhere=elsewhere),
    )


def _changed(source: SourceText) -> Iterator[Elsewhere]:
    """Yield the notes of a file that was changed before it is read."""
    for rule, detail, at in source.noted if isinstance(source, MergedText) else ():
        place = source.place(at)
        yield Elsewhere(rule, place.file, place.line, detail)


def _claim(ledger: Ledger, source: SourceText, exported: Exported, start: int, end: int) -> None:
    """Claim the module's code, and what exports the component apart from it."""
    ledger.claim("module code", source.span(start, end), "kept")
    if exported.export is not None:
        span = source.span(exported.export.start, exported.export.end)
        ledger.claim("component", span, "carried", "object-to-statements")


def _style(source: SourceText, style: TemplateNode, members: Members) -> StyleBlock:
    """A block of styles; what only the runtime's compiler makes of it is noted."""
    if style.attribute("module") is not None:
        members.kept_only("style-unread", "<style module>", style.start)
    if _IN_STYLE.search(source.data, style.start, style.end):
        members.kept_only("style-unread", "v-bind() in a style", style.start)
    return StyleBlock(
        source.span(*style.inner),
        style.attribute("scoped") is not None,
        _value(source, style, "lang") or "css",
        _value(source, style, "src"),
    )


def _value(source: SourceText, node: TemplateNode, name: str) -> str:
    """The value of a plain attribute, "" where there is none."""
    attribute = node.attribute(name)
    return "" if attribute is None or attribute.value is None else source.slice(*attribute.value)


def _is_two_way(name: str) -> bool:
    """Whether an attribute writes what it is bound to."""
    return name.startswith("v-model") or name.endswith(".sync")


def _first_cause(refusal: tuple[str, str, int]) -> tuple[bool, int]:
    """Order refusals: a mixin that is not found comes first, as the cause of unknown names."""
    return refusal[0] != "mixin-not-followed", refusal[2]


# Attributes that choose a component by the name it is registered under.
_BY_NAME = ("is", ":is", "v-bind:is")


def _component(
    uses: Uses,
    members: Members,
    statement: Node,
    literal: Node,
    blocks: FileBlocks,
    workspace: Workspace,
    runtime: int,
) -> Component:
    source, ledger, template = uses.tree.source, uses.ledger, blocks.template
    entry = ledger.claim("component", uses.span(statement))
    code = read_code(source, template) if template is not None else None
    elements = list(template.walk()) if template is not None else []
    aliases = Aliases(uses, members, code, _methods_of(literal))
    if members.neutral and template is not None:
        aliases.follow(template.children)
    gathered = _gathered(uses, members, literal, code, elements, workspace, runtime)
    gathered.entries["component"] = entry
    markup: tuple[Markup, ...] = ()
    in_template: dict[int, frozenset[tuple[str, int]]] = {}
    if template is not None and code is not None:
        markup, in_template = _drawn(uses, gathered, aliases, template, code)
    else:
        uses.refuse("template-missing", "", statement.start)
    for comment in comments.within(uses.tree, statement.start, statement.end):
        ledger.claim("comment", uses.span(comment), "kept")
    head = _head(uses, statement)
    sent = [*_sent(uses.tree.of("call_expression"), "member_expression")]
    if code is not None:
        sent += _sent(code.tree.of("call_expression"), "identifier")
    state = gathered.state
    return Component(
        gathered.name or _stem(source.path),
        Place(uses.span(statement), head, "default"),
        Inputs(tuple(gathered.props)),
        Outward(tuple(gathered.events), tuple(sent), exposed=tuple(gathered.exposed)),
        (*gathered.parts, *([state] if state is not None else [])),
        View(
            markup=markup,
            holders=_holders(source, code),
            names=_template_names(source, code) + _style_names(source, blocks.styles),
            element_names=_element_names(source, elements, members.elements_set),
            tags=frozenset(node.tag for node in elements if node.kind == "element"),
            root_is_component=_has_component_root(template),
        ),
        language=Language(typed=_is_typed(source, blocks)),
        foreign=_foreign(gathered, members),
        facts=Facts(
            reserved=reserved(uses, statement),
            module_names=frozenset(uses.names.module.names),
            locals_at={**uses.locals_at, **in_template},
            mutations=tuple(members.mutations),
        ),
        entries=gathered.entries,
    )


def _is_typed(source: SourceText, blocks: FileBlocks) -> bool:
    """Whether the script has types."""
    return blocks.script is not None and _value(source, blocks.script, "lang") in ("ts", "tsx")


def _foreign(gathered: Gathered, members: Members) -> Foreign:
    """Return the facts that only the family knows of a component."""
    return Foreign(
        plain_fields=tuple(sorted(members.fields)),
        mixed=frozenset(members.mixed),
        mixed_calm=frozenset(members.mixed_calm),
        mixed_props=frozenset(members.props - {p.name for p in gathered.props}),
        mixed_hooks=frozenset(members.mixed_hooks),
        open_names=tuple(members.open.items()),
        prelude=gathered.prelude,
        prelude_names=gathered.prelude_names,
        option_comments=gathered.comments,
        option_values=gathered.values,
    )


def _head(uses: Uses, statement: Node) -> Span:
    """The statement of a component with the comments above it."""
    above = comments.leading(uses.tree, statement)
    return uses.tree.source.span(above[0].start if above else statement.start, statement.end)


def _all_drawn_by_tag(literal: Node, elements: list[TemplateNode]) -> bool:
    """Whether each registered component stands in the template by its own tag: one that does not is there
    to be chosen by a text that is its name."""
    listed = next((value for name, _, value in parts_of(literal) if name == "components"), None)
    tags = {pascal(node.tag) for node in elements}
    names = [name for name, _, _ in parts_of(listed)] if listed is not None else []
    return all(name is not None and pascal(name) in tags for name in names)


def _gathered(
    uses: Uses, members: Members, literal: Node, code: TemplateCode | None,
    elements: list[TemplateNode], workspace: Workspace, runtime: int,
) -> Gathered:  # fmt: skip
    """Read the options of the object."""
    by_name = any(a.name in _BY_NAME for node in elements for a in node.attributes)
    by_name = by_name and not (members.neutral and _all_drawn_by_tag(literal, elements))
    used = code.used if code is not None else ()
    writes = frozenset(
        one.node.text
        for one in used
        if is_write(one.node) or (one.attribute is not None and _is_two_way(one.attribute.name))
    )
    gathered = Gathered(uses, members, workspace.file, by_name, runtime, writes)
    members.internal |= {name for name in members.state if name.startswith(("_", "$"))}
    members.state -= members.internal
    collect_uses(uses, literal, members, _HOOKS, frozenset(one.node.text for one in used))
    # Inputs and state first: what a watcher looks at must be known.
    order = {"props": 0, "data": 1, "computed": 2}
    for name, part, value in sorted(parts_of(literal), key=lambda p: order.get(p[0] or "", 3)):
        reader = OPTIONS.get(name or "")
        if reader is None and not _own_option(gathered, name, part, value, workspace):
            uses.refuse("unknown-option", part.text.split("\n")[0][:60], part.start)
        elif reader is not None:
            reader(gathered, part, value)
    gathered.parts.sort(key=lambda part: uses.ledger.entries[part.entry].span.start)
    return gathered


def _methods_of(literal: Node) -> dict[str, Node]:
    """The functions of the methods, by name."""
    for option, _, value in parts_of(literal):
        if option == "methods" and value.type == "object":
            return {name: given for name, _, given in parts_of(value) if name is not None}
    return {}


def _drawn(
    uses: Uses, gathered: Gathered, aliases: Aliases, template: TemplateNode, code: TemplateCode
) -> tuple[tuple[Markup, ...], dict[int, frozenset[tuple[str, int]]]]:
    """The markup of a template, and the locals at the places of its code."""
    ledger, members = uses.ledger, aliases.members
    ledger.claim("template", uses.tree.source.span(template.start, template.end))
    _check_names(uses, members, code)
    template_uses = Uses(code.tree, code.names, ledger)
    reader = TemplateReader(
        template_uses, code, version=gathered.runtime, rows=aliases.rows, neutral=members.neutral
    )
    reader.collect(members, aliases.template)
    reader.forms = member_forms(gathered.props, members)
    if not any(
        isinstance(part, KeptOption) and part.name == "components" for part in gathered.parts
    ):
        texts = (one.name for one in gathered.props if one.kind == "String")
        reader.tag_names = frozenset(texts)
    # A number, a string or a truth value cannot be changed in place.
    members.mutations = [m for m in members.mutations if m[0] not in reader.forms]
    markup = reader.nodes(template.children)
    members.unread.extend(template_uses.refusals)
    return markup, template_uses.locals_at


# Every option of both versions of the runtime: one without a reader is never taken for somebody's own.
RUNTIME_OPTIONS = frozenset(
    "name props propsData emits data computed watch methods created beforeCreate beforeMount mounted "
    "beforeUpdate updated activated deactivated beforeDestroy beforeUnmount destroyed unmounted "
    "errorCaptured renderTracked renderTriggered serverPrefetch components directives filters mixins "
    "extends provide inject model inheritAttrs expose setup render renderError staticRenderFns template "
    "functional delimiters comments compilerOptions compatConfig parent el slots call transitions "
    "renderTriggerd".split()
)
_CONSTANTS = ("string", "number", "true", "false", "null", "undefined")


def _own_option(
    gathered: Gathered, name: str | None, part: Node, value: Node, workspace: Workspace
) -> bool:
    """Keep a custom option, or drop a constant one that nobody reads; return False for others."""
    uses = gathered.uses
    if name is None or name in RUNTIME_OPTIONS or any(n.type == "this" for n in part.walk()):
        return False
    gathered.members.kept_only("unknown-option", part.text.split("\n")[0][:60], part.start)
    entry = claim_option(gathered, part)
    notes = attached(uses, part)
    asked = options_asked(workspace.file)
    dropped = value.type in _CONSTANTS and name not in asked and "" not in asked
    span = uses.span(part)
    gathered.parts.append(KeptOption(name, span, entry, notes, dropped))
    return True


def _check_names(uses: Uses, members: Members, code: TemplateCode) -> None:
    """Check that names of a template belong to the component, the language or the framework."""
    known = members.declared() | members.mixed
    for used in code.used:
        name, at = used.node.text, used.node.start
        if used.hidden:
            uses.refuse("names-meet", f"this.{name}", at)
        if name.startswith(("$", "_")) or name in GLOBALS or name == "arguments":
            continue
        attribute = used.attribute
        writes = is_write(used.node) or (
            attribute is not None
            and attribute.name.startswith("v-model")
            and used.node.parent is not None
            and used.node.parent.type == "parenthesized_expression"
        )
        if used.node.type == "type_identifier":
            continue
        if name not in known:
            if name in uses.names.module.names:
                uses.refuse("unknown-use", name, at)
            members.open.setdefault(name, at)
            members.kept_only("unknown-use", name, at)
        elif writes and name in members.props:
            uses.refuse("input-written", name, at)
        elif writes and name in members.derived and name not in members.settable:
            uses.refuse("derived-written", name, at)


def _sent(calls: list[Node], form: str) -> Iterator[str]:
    """The events sent by calls of the instance's own sender; an empty one where it is not known."""
    for call in calls:
        callee, given = call.child("function"), call.child("arguments")
        if callee is None or callee.type != form or given is None:
            continue
        name = callee.child("property") if form == "member_expression" else callee
        if name is not None and name.text == "$emit":
            first = given.named_children[:1]
            yield (property_name(first[0]) or "") if first and first[0].type == "string" else ""


def _template_names(
    source: SourceText, code: TemplateCode | None
) -> tuple[tuple[str, Span, bool, bool], ...]:
    if code is None:
        return ()
    return tuple(
        (
            used.node.text,
            source.span(used.node.start, used.node.end),
            is_write(used.node),
            used.node.type == "shorthand_property_identifier",
        )
        for used in code.used
    )


def _holders(source: SourceText, code: TemplateCode | None) -> tuple[Span, ...]:
    """Return the prefixes of members in a template: `this.` and `$data.`."""
    return tuple(
        source.span(used.through.start, used.node.start)
        for used in (code.used if code is not None else ())
        if used.through is not None
    )


# Values that a style takes from the component: `v-bind(tide)`, `v-bind('tide.level')`.
_IN_STYLE = re.compile(rb"v-bind\(\s*['\"]?\s*([\w$]+)")


def _style_names(
    source: SourceText, styles: Sequence[TemplateNode]
) -> tuple[tuple[str, Span, bool, bool], ...]:
    """The members that styles take from the component, as those of the template."""
    return tuple(
        (found[1].decode(), source.span(found.start(1), found.end(1)), False, False)
        for style in styles
        for found in _IN_STYLE.finditer(source.data, style.start, style.end)
    )


def _has_component_root(template: TemplateNode | None) -> bool:
    """Whether the rendered markup may begin with another component."""
    roots = [n for n in template.children if n.kind == "element"] if template is not None else []
    return any("-" in n.tag or not n.tag.islower() or n.tag in _OPEN for n in roots)


# Elements of the runtime that stand for whatever is in them.
_OPEN = frozenset(("component", "slot", "template", "transition"))


def _element_names(
    source: SourceText, elements: list[TemplateNode], own: set[str]
) -> tuple[tuple[str, Span], ...]:
    found: list[tuple[str, Span]] = []
    for node in elements:
        attribute = node.attribute("ref")
        if attribute is not None and attribute.value is not None:
            name = source.slice(*attribute.value)
            if name not in own:
                found.append((name, source.span(*attribute.value)))
    return tuple(found)


def _stem(path: str) -> str:
    return path.replace("\\", "/").rsplit("/", 1)[-1].split(".")[0] or "Component"
