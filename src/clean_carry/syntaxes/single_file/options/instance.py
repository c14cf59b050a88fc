"""Every use of the instance in the script: `this`, and constants that stand for it."""

from __future__ import annotations

import re
from dataclasses import dataclass
from pathlib import Path

from clean_carry.component.code import FieldByName, Gone, Member, Operation, Read, Rebound, Taken
from clean_carry.component.spans import Span
from clean_carry.source.javascript.callback_this import called_on, given_this
from clean_carry.source.javascript.scope import Binding, is_write
from clean_carry.source.javascript.timing import is_deferred
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.javascript.values import property_name
from clean_carry.syntaxes.single_file.members import (
    Members,
    add_open,
    add_use,
    locals_at,
    member_value,
)
from clean_carry.syntaxes.single_file.options.assigned_state import collect_given, is_given_at_once
from clean_carry.syntaxes.single_file.options.effects import effects_in
from clean_carry.syntaxes.single_file.options.functions import (
    FUNCTIONS,
    TYPED,
    instance_parameter,
    parts_of,
    returned,
)
from clean_carry.syntaxes.single_file.options.instance_reads import (
    is_indexed,
    is_lent,
    may_be_instance,
    words_of,
)
from clean_carry.syntaxes.single_file.options.setup_models import models_of
from clean_carry.syntaxes.single_file.options.store import names_of
from clean_carry.syntaxes.uses import Build, Raw, Uses

# Options whose own functions run on the instance.
_HOLDERS = ("computed", "watch", "methods")


@dataclass(frozen=True)
class _Access:
    """One member of the instance used by name, in the function that runs on it."""

    node: Node
    name: str
    owner: Node


def collect_names(literal: Node, tree: Tree, file: Path) -> Members:
    """First pass: the names of members by kind."""
    members = Members(file)
    for option, _, value in parts_of(literal):
        holder = returned(value) if option == "data" else value
        target = {
            "props": members.props,
            "data": members.state,
            "computed": members.derived,
            "methods": members.methods,
            "inject": members.injected,
        }.get(option or "")
        if target is None or holder is None:
            continue
        for item in holder.named_children:
            names_of(option, item, tree, members)
            key = item if item.type == "string" else item.child("key") or item.child("name")
            name = property_name(key if key is not None else item)
            if name is None:
                continue
            target.add(name)
            given = item.child("value")
            if option == "computed" and given is not None and given.type == "object":
                if any(part == "set" for part, _, _ in parts_of(given)):
                    members.settable.add(name)
    for option, _, value in parts_of(literal):
        models = models_of(value) if option == "setup" else None
        # On the instance, what `setup` gives hides an input of the same name.
        members.state.update(models or ())
        members.props.difference_update(models or ())
    return members


def collect_uses(
    uses: Uses,
    literal: Node,
    members: Members,
    hooks: frozenset[str],
    drawn: frozenset[str],
) -> None:
    """Second pass: an operation for every use of the instance in the script.

    `drawn` are the names the template uses: undeclared ones stay on the instance, as do members that a
    mixin reads.
    """
    roots = {id(f): f for f in _instance_functions(literal, hooks)}
    found: list[_Access] = []
    taken: list[tuple[Node, Node, Node]] = []
    rebound: list[tuple[Node, Node]] = []
    collect_given(uses, members, literal, roots)
    for this in uses.tree.of("this"):
        if not literal.start <= this.start < literal.end or is_given_at_once(this, literal):
            continue
        owner = _owner_of(uses, this, roots)
        if owner is None or id(owner) not in roots:
            inside = owner is not None and any(id(up) in roots for up in owner.up())
            if not inside and not _is_of_another(this, literal):
                uses.refuse("instance-escapes", "", this.start)
            elif inside and owner is not None and may_be_instance(this, owner, members.declared()):
                uses.refuse("this-not-known", this.parent.text if this.parent else "", this.start)
            continue
        _instance(uses, this, literal, owner, found, taken, rebound, members)
    for function, parameter in _given_instance(literal):
        scope = uses.names.inner_scope(function)
        binding = scope.names.get(parameter.text) if scope is not None else None
        for ref in binding.references if binding is not None else ():
            _instance(uses, ref, literal, function, found, taken, rebound, members)
    members.fields = _plain_fields(found, members, drawn)
    for declarator, pattern, owner in taken:
        _take(uses, declarator, pattern, members, owner)
    for call, method in rebound:
        _rebind(uses, call, method, members)
    effects = [made for _, _, made in effects_in(uses)] if members.neutral else []
    for access in found:
        _watched_by_name(uses, access, members)
        if access.name == "":
            add_use(uses, access.node, "$this", members, access.owner)
            continue
        around = (f for f in effects if f.start <= access.node.start < f.end)
        if not add_use(uses, access.node, access.name, members, next(around, access.owner)):
            deleted = access.node.parent is not None and access.node.parent.has("delete")
            if access.name.startswith("$") or deleted:
                uses.refuse("unknown-use", f"this.{access.name}", access.node.start)
                continue
            members.open.setdefault(access.name, access.node.start)
            add_open(uses, access.node, access.name, members, access.owner)
    uses.sort()


def _plain_fields(found: list[_Access], members: Members, drawn: frozenset[str]) -> set[str]:
    """The names code writes on the instance that nothing declares, and the template does not ask for."""
    known = members.declared() | members.shared
    written = [access for access in found if access.name not in known and is_write(access.node)]
    plain = {
        access.name
        for access in written
        if access.name not in drawn
        and not access.name.startswith(("$", "_"))
        and access.node.type == "member_expression"
    }
    return plain | {access.name for access in written if access.name.startswith("_")}


def _watched_by_name(uses: Uses, access: _Access, members: Members) -> None:
    """`this.$watch('tide', …)` looks at the member by a function: it is no longer found on the instance."""
    call = access.node.parent
    arguments = call.child("arguments") if call is not None else None
    first = (
        arguments.named_children[0] if arguments is not None and arguments.named_children else None
    )
    if access.name != "$watch" or first is None or first.type != "string":
        return
    name, *path = first.text[1:-1].split(".")
    if name not in members.props | members.state | members.derived | members.injected:
        return
    if path:
        uses.refuse("unknown-use", f"$watch of a path: {first.text}", first.start)
        return
    span, member = uses.span(first), Member(members.kind_of(name), name)  # type: ignore[arg-type]

    def build(entry: int) -> Operation:
        uses.locals_at[entry] = locals_at(uses, first)
        return Read(span, entry, False, member, "() => ")

    uses.raws.append(Raw(span, "watched by name", build))


# Methods that call back with the instance (both versions; `$on` and `$once` are of the older one).
_CALLS_BACK = frozenset({"$nextTick", "$watch", "$on", "$once"})


def _owner_of(uses: Uses, this: Node, roots: dict[int, Node]) -> Node | None:
    """The function whose `this` a node is: that of the function around, where a callback is given it."""
    here = this
    while True:
        owner = next(
            (up for up in here.up() if up.is_function and up.type != "arrow_function"), None
        )
        if owner is None or id(owner) in roots:
            return owner
        given = given_this(owner)
        giver = given.giver if given is not None else called_on(owner, _CALLS_BACK)
        if giver is None:
            return owner
        if giver.type != "this":
            binding = uses.names.meaning(giver) if giver.type == "identifier" else None
            declarator = (
                binding.node.parent if binding is not None and not binding.written else None
            )
            value = declarator.child("value") if declarator is not None else None
            if value is None or value.type != "this":
                return owner
            giver = value
        here = giver


def _is_of_another(this: Node, literal: Node) -> bool:
    """Whether a node stands in a component that is written among those registered here."""
    for option, _, value in parts_of(literal):
        if option in ("components", "directives") and value.start <= this.start < value.end:
            return True
    return False


def _given_instance(literal: Node) -> list[tuple[Node, Node]]:
    """Functions that the runtime gives the instance as their parameter: the state and derived values."""
    found: list[tuple[Node, Node]] = []
    for option, _, value in parts_of(literal):
        functions = [value] if option == "data" else []
        if option == "computed":
            functions = [item for _, _, item in parts_of(value)]
        for function in functions:
            parameter = instance_parameter(function)
            if parameter is not None:
                found.append((function, parameter))
    return found


def _instance(
    uses: Uses,
    node: Node,
    literal: Node,
    owner: Node,
    found: list[_Access],
    taken: list[tuple[Node, Node, Node]],
    rebound: list[tuple[Node, Node]],
    members: Members,
) -> None:
    """One place where the instance stands: a member of it, or a constant it is given to."""
    parent = node.parent
    while parent is not None and parent.type in TYPED and node.field != "type":
        node, parent = parent, parent.parent
    if parent is None:
        uses.refuse("instance-escapes", "", node.start)
        return
    name = _asked_name(node, parent, members)
    if name is not None:
        found.append(_Access(parent, name, owner))
        return
    if parent.type == "variable_declarator" and node.field == "value":
        if (refs := _stood_for(uses, parent)) is not None:
            for ref in refs:
                if not is_given_at_once(ref, literal):
                    _instance(uses, ref, literal, owner, found, taken, rebound, members)
            return
        pattern = parent.child("name")
        if pattern is not None and pattern.type == "object_pattern":
            taken.append((parent, pattern, owner))
            return
    if parent.type == "arguments" and (
        _binds(node, parent, members, rebound) or _gives_callback(uses, node, parent)
    ):
        return
    if parent.type == "pair" and _provides(parent):
        # The option's own reader says what of it is provided.
        return
    if _compared(node, parent):
        found.append(_Access(node, "", owner))
        return
    if is_indexed(node) and _by_name(uses, node, parent, owner, members):
        return
    if not _handed(uses, node, parent, members):
        uses.refuse("instance-escapes", "", node.start)
        return
    found.append(_Access(node, "", owner))


def _asked_name(node: Node, parent: Node, members: Members) -> str | None:
    """The member that is asked of the instance: `this.pier`, and `this['pier']` of one that is declared."""
    if parent.type == "member_expression" and node.field == "object":
        part = parent.child("property")
        return property_name(part) if part is not None else None
    word = parent.child("index") if is_indexed(node) else None
    name = (property_name(word) or "") if word is not None and word.type == "string" else None
    return name if name in members.declared() - members.methods else None


def _stood_for(uses: Uses, declarator: Node) -> list[Node] | None:
    """The uses of a constant that stands for the instance, which goes; None where there is none."""
    binding, statement = _constant(uses, declarator), declarator.parent
    if binding is None or statement is None or len(statement.named_children) != 1:
        return None
    span = uses.tree.source.statement_line(statement.start, statement.end)
    uses.raws.append(Raw(span, "receiver", _gone(span)))
    return binding.references


def _by_name(uses: Uses, node: Node, whole: Node, owner: Node, members: Members) -> bool:
    """Whether a value chooses one of some fields of the state, and an operation for it."""
    key = whole.child("index")
    words = words_of(node, members.file)
    if key is None or not words or not words <= members.state - members.internal:
        return False
    if whole.parent is not None and whole.parent.has("delete"):
        return False
    function = next(
        (up for up in node.up() if up.is_function and up.type != "arrow_function"), None
    )
    name = function.child("name") if function is not None else None
    if key.type == "identifier" and (name is None or _is_handed_on(uses, name.text)):
        return False
    members.kept_only("unknown-use", whole.text, node.start)
    for word in words:
        members.assigned.setdefault(word, []).append(("=", None))
    span, deferred = uses.span(whole), is_deferred(node, owner, uses.names)

    def build(entry: int) -> Operation:
        uses.locals_at[entry] = locals_at(uses, node)
        return FieldByName(span, entry, deferred, tuple(sorted(words)), uses.code(uses.span(key)))

    uses.raws.append(Raw(span, "state-by-name", build))
    return True


def _is_handed_on(uses: Uses, function: str) -> bool:
    """Whether a function of a file may be called by others, with anything: it is named without a call."""
    text = uses.tree.source.data.decode("utf-8", "replace")
    return re.search(rf"(?<![\w$]){re.escape(function)}\b(?!\s*\()", text) is not None


# Places that may take the whole instance; any other takes it apart, or names its members.
_TAKES = frozenset(
    "pair array arguments return_statement assignment_expression ternary_expression "
    "binary_expression arrow_function".split()
)


def _handed(uses: Uses, node: Node, parent: Node, members: Members) -> bool:
    """Whether the instance is passed on to code that reads it by name; note it."""
    if is_indexed(node):
        words = words_of(node, members.file)
        if words is None:
            members.hand_on(node.start, lent=True)
        else:
            members.hand_over(node.start, words)
        return not is_write(parent)
    if parent.type not in _TAKES or node.field == "left" or parent.has("in"):
        return False
    if parent.type == "arguments":
        call = parent.parent
        callee = call.child("function") if call is not None else None
        if callee is not None and callee.text.startswith(("Object.", "JSON.", "Reflect.")):
            return False
        given = [n for n in parent.named_children if n.type == "object"]
        keys = {name for item in given for name, _, _ in parts_of(item)}
        if None in keys or keys & members.declared():
            # A receiver of values under names of its own may set them.
            return False
    members.hand_on(node.start, lent=is_lent(node))
    return True


def _take(uses: Uses, declarator: Node, pattern: Node, members: Members, owner: Node) -> None:
    """The members a pattern takes from the instance, each as a use of its own."""
    span = uses.tree.source.span(declarator.start, declarator.end)
    parts: list[tuple[str, Node, Node]] = []
    for part in pattern.named_children:
        key, local = part.child("key") or part, part.child("value") or part
        name = property_name(key)
        plain = local.type in ("identifier", "shorthand_property_identifier_pattern")
        if name is None or not plain:
            uses.refuse("instance-escapes", part.text[:40], part.start)
            return
        parts.append((name, key, local))
    members.kept_only("instance-escapes", "", declarator.start)

    def build(entry: int) -> Operation:
        taken = []
        for name, key, local in parts:
            inner = uses.ledger.claim("member taken", uses.span(key))
            uses.locals_at[inner] = locals_at(uses, declarator)
            operation = member_value(uses.span(key), inner, name, members)
            taken.append((operation, local.text, uses.span(local)))
        return Taken(span, entry, is_deferred(declarator, owner, uses.names), tuple(taken))

    uses.raws.append(Raw(span, "members taken", build))


def _rebind(uses: Uses, call: Node, method: Node, members: Members) -> None:
    name = property_name(method.child("property") or method) or ""
    members.kept_only("instance-escapes", "", call.start)
    span = uses.span(call)

    def build(entry: int) -> Operation:
        uses.locals_at[entry] = locals_at(uses, call)
        return Rebound(span, entry, False, Member("method", name))

    uses.raws.append(Raw(span, "method bound", build))


def _compared(node: Node, parent: Node) -> bool:
    """Whether only the identity of the instance is compared."""
    if parent.type == "binary_expression":
        return any(parent.has(sign) for sign in ("===", "!==", "==", "!="))
    call = parent.parent if parent.type == "arguments" else None
    callee = call.child("function") if call is not None else None
    name = callee.child("property") if callee is not None else None
    return name is not None and name.text in ("indexOf", "includes")


def _provides(pair: Node) -> bool:
    """Whether a part is one of the values a component provides."""
    for up in pair.up():
        if up.is_function or up.type == "pair":
            key = up.child("name") or up.child("key")
            above = up.parent
            top = above is not None and above.parent is not None
            if key is not None and key.text == "provide" and top:
                return True
            if up.type == "pair":
                return False
    return False


def _binds(node: Node, arguments: Node, members: Members, rebound: list[tuple[Node, Node]]) -> bool:
    """`this.method.bind(this)`."""
    call = arguments.parent
    callee = call.child("function") if call is not None else None
    if callee is None or call is None or callee.type != "member_expression":
        return False
    part, method = callee.child("property"), callee.child("object")
    if part is None or part.text != "bind" or method is None or len(arguments.named_children) != 1:
        return False
    target = method.child("object")
    if method.type != "member_expression" or target is None or target.text != node.text:
        return False
    if property_name(method.child("property") or method) not in members.methods:
        return False
    rebound.append((call, method))
    return True


def _gives_callback(uses: Uses, node: Node, arguments: Node) -> bool:
    """Whether the instance is only the `this` of a callback: what gives it goes then."""
    callee = arguments.parent.child("function") if arguments.parent is not None else None
    candidates = [
        *arguments.named_children[:-1],
        *(callee.children[:1] if callee is not None else ()),
    ]
    for function in candidates:
        given = given_this(function)
        if given is None or given.giver is not node or given.end < 0:
            continue
        if function.type not in ("function_expression", "arrow_function"):
            return False
        span = uses.tree.source.span(given.start, given.end)
        uses.raws.append(Raw(span, "callback-instance", _gone(span, "callback-instance")))
        return True
    return False


def _constant(uses: Uses, declarator: Node) -> Binding | None:
    name = declarator.child("name")
    if name is None or name.type != "identifier":
        return None
    binding = uses.names.scope_at(name).find(name.text)
    return None if binding is None or binding.written else binding


def _gone(span: Span, rule: str = "receiver-alias") -> Build:
    return lambda entry: Gone(span, entry, False, rule)


def _instance_functions(literal: Node, hooks: frozenset[str]) -> list[Node]:
    """The functions of options whose `this` is the instance."""
    found: list[Node] = []
    for option, _, value in parts_of(literal):
        if option in ("data", "provide") or option in hooks:
            found.append(value)
        elif option in _HOLDERS:
            for _, _, item in parts_of(value):
                found.extend(_functions_in(item))
    return found


def _functions_in(value: Node) -> list[Node]:
    """The functions a part of an option is or holds: wrapped in a call, or in an object of settings."""
    if value.type in FUNCTIONS:
        return [value]
    if value.type == "call_expression":
        given = value.child("arguments")
        inner = given.named_children if given is not None else []
        return [f for argument in inner for f in _functions_in(argument)]
    if value.type == "object":
        return [f for _, _, part in parts_of(value) for f in _functions_in(part)]
    if value.type == "array":
        return [f for part in value.named_children for f in _functions_in(part)]
    return []


def reserved(uses: Uses, node: Node) -> frozenset[str]:
    """Names the component takes from the module or the world; no new name may hide them."""
    return frozenset(
        ref.text
        for ref, binding in uses.names.references_in(node)
        if binding is None or binding.scope is uses.names.module
    )
