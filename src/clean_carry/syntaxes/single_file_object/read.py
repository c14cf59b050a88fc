"""Read the component object of a single file into the neutral component."""

from __future__ import annotations

from dataclasses import dataclass

from clean_carry.component.errors import InputError
from clean_carry.component.ledger import Ledger
from clean_carry.component.markup import Markup
from clean_carry.component.model import Component, Module, Refusal, StyleBlock
from clean_carry.source.javascript import comments
from clean_carry.source.javascript.scope import Names
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.javascript.values import property_name
from clean_carry.source.template.tree import TemplateNode
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.single_file.blocks import read_file
from clean_carry.syntaxes.single_file.expressions import read_code
from clean_carry.syntaxes.single_file.markup import TemplateReader
from clean_carry.syntaxes.single_file.members import Members, add_use
from clean_carry.syntaxes.single_file.values import member_forms
from clean_carry.syntaxes.single_file_object.options import OPTIONS, Gathered, parts_of, returned
from clean_carry.syntaxes.uses import Uses


@dataclass(frozen=True)
class ObjectFile:
    """A read file with what writers need of it: the places of its blocks and of the component."""

    module: Module
    tree: Tree
    names: Names
    script: TemplateNode
    template: TemplateNode | None
    statement: Node


def read(source: SourceText, ledger: Ledger) -> ObjectFile:
    """Read a file. Raises `InputError` where it holds no component object."""
    blocks = read_file(source)
    script = blocks.script
    if script is None:
        raise InputError("holds no script", file=source.path)
    ledger.claim("file", source.span(0, len(source.data)))
    start, end = script.inner
    tree = Tree(source, bytes(source.blanked([script.inner])))
    names = Names(tree)
    statement, literal = _exported(tree)
    if statement is None or literal is None:
        raise InputError("exports no component object", file=source.path)
    ledger.claim("module code", source.span(start, end), "kept")
    uses = Uses(tree, names, ledger)
    if blocks.refusal is not None:
        uses.refuse(*blocks.refusal)
    if any(a.name == "setup" for a in script.attributes):
        raise InputError("is in the flat form already", file=source.path)
    component = _component(uses, statement, literal, blocks.template)
    styles = tuple(
        StyleBlock(source.span(*s.inner), s.attribute("scoped") is not None) for s in blocks.styles
    )
    for style in blocks.styles:
        if style.attribute("module") is not None:
            uses.refuse("style-unread", "<style module>", style.start)
    refusals: tuple[Refusal, ...] = ()
    components: tuple[Component, ...] = (component,)
    if uses.refusals:
        rule, detail, at = min(uses.refusals, key=lambda r: r[2])
        refusals = (Refusal(component.name, rule, detail, at),)
        components = ()
    module = Module(components, refusals, styles)
    return ObjectFile(module, tree, names, script, blocks.template, statement)


def _exported(tree: Tree) -> tuple[Node | None, Node | None]:
    for statement in tree.root.named_children:
        if statement.type == "export_statement" and statement.has("default"):
            value = statement.child("value")
            while value is not None and value.type == "call_expression":
                callee, given = value.child("function"), value.child("arguments")
                if callee is None or callee.text != "defineComponent" or given is None:
                    return statement, None
                value = given.named_children[0] if len(given.named_children) == 1 else None
            return statement, value if value is not None and value.type == "object" else None
    return None, None


def _component(
    uses: Uses, statement: Node, literal: Node, template: TemplateNode | None
) -> Component:
    source, ledger = uses.tree.source, uses.ledger
    members = _collect(literal)
    _collect_script(uses, literal, members)
    entry = ledger.claim("component", uses.span(statement))
    gathered = Gathered(uses, members)
    gathered.entries["component"] = entry
    for name, part, value in parts_of(literal):
        reader = OPTIONS.get(name or "")
        if reader is None:
            uses.refuse("unknown-option", part.text.split("\n")[0][:60], part.start)
            continue
        reader(gathered, part, value)
    markup: tuple[Markup, ...] = ()
    template_uses: Uses | None = None
    if template is not None:
        ledger.claim("template", source.span(template.start, template.end))
        code = read_code(source, template)
        template_uses = Uses(code.tree, code.names, ledger)
        template_reader = TemplateReader(template_uses, code)
        template_reader.collect(members)
        template_reader.forms = member_forms(gathered.props, members)
        # A number, a string or a truth value cannot be changed in place.
        members.mutations = [m for m in members.mutations if m[0] not in template_reader.forms]
        markup = template_reader.nodes(template.children)
        uses.refusals.extend(template_uses.refusals)
    else:
        uses.refuse("markup-unread", "there is no template", statement.start)
    for comment in comments.within(uses.tree, statement.start, statement.end):
        ledger.claim("comment", uses.span(comment), "kept")
    above = comments.leading(uses.tree, statement)
    head = source.span(above[0].start if above else statement.start, statement.end)
    return Component(
        name=gathered.name or _stem(source.path),
        span=uses.span(statement),
        body=uses.span(literal),
        head=head,
        exported="default",
        props=tuple(gathered.props),
        state=gathered.state,
        members=tuple(gathered.parts),
        events=tuple(gathered.events),
        markup=markup,
        entries=gathered.entries,
        reserved=_reserved(uses, statement),
        module_names=frozenset(uses.names.module.names),
        locals_at={
            **uses.locals_at,
            **(template_uses.locals_at if template_uses is not None else {}),
        },
        mutations=tuple(members.mutations),
        option_comments=gathered.comments,
        option_values=gathered.values,
    )


def _collect(literal: Node) -> Members:
    """First pass: the names of members by kind."""
    members = Members()
    for option, _, value in parts_of(literal):
        holder = returned(value) if option == "data" else value
        target = {
            "props": members.props,
            "data": members.state,
            "computed": members.derived,
            "methods": members.methods,
        }.get(option or "")
        if target is None or holder is None:
            continue
        for item in holder.named_children:
            key = item if item.type == "string" else item.child("key") or item.child("name")
            name = property_name(key) if key is not None else None
            if name is not None:
                target.add(name)
    return members


def _collect_script(uses: Uses, literal: Node, members: Members) -> None:
    """Second pass: an operation for every use of the instance in the script."""
    roots = {id(f): f for f in _instance_functions(literal)}
    for this in uses.tree.of("this"):
        if not literal.start <= this.start < literal.end:
            continue
        owner = next(
            (up for up in this.up() if up.is_function and up.type != "arrow_function"), None
        )
        parent = this.parent
        part = parent.child("property") if parent is not None else None
        name = property_name(part) if part is not None else None
        if owner is None or id(owner) not in roots or parent is None or name is None:
            uses.refuse("instance-escapes", "", this.start)
            continue
        if parent.type != "member_expression" or not add_use(uses, parent, name, members, owner):
            uses.refuse("unknown-use", f"this.{name}", this.start)
    uses.sort()


def _instance_functions(literal: Node) -> list[Node]:
    found: list[Node] = []
    for option, _, value in parts_of(literal):
        if option in ("data",):
            found.append(value)
        elif option in ("computed", "watch", "methods"):
            found.extend(item for _, _, item in parts_of(value))
    return found


def _reserved(uses: Uses, node: Node) -> frozenset[str]:
    """Names the component takes from the module or the world; no new name may hide them."""
    return frozenset(
        ref.text
        for ref, binding in uses.names.references_in(node)
        if binding is None or binding.scope is uses.names.module
    )


def _stem(path: str) -> str:
    return path.replace("\\", "/").rsplit("/", 1)[-1].split(".")[0] or "Component"
