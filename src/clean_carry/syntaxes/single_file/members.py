"""A use of a member, in script or template, as an operation."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field, replace
from pathlib import Path

from clean_carry.component.code import (
    Assign,
    Builtin,
    Emit,
    FieldUse,
    Member,
    MethodCall,
    MethodValue,
    Operation,
    Read,
    SlotGiven,
)
from clean_carry.component.spans import Span
from clean_carry.source.javascript.mutations import asked_of, changes_insides
from clean_carry.source.javascript.scope import is_write
from clean_carry.source.javascript.timing import is_deferred
from clean_carry.source.javascript.tree import Node
from clean_carry.source.javascript.values import property_name
from clean_carry.syntaxes.single_file.changes import note_change
from clean_carry.syntaxes.uses import Raw, Uses

_HARMLESS = frozenset(
    "String Number Boolean parseInt parseFloat isNaN isFinite Array.isArray Object.keys "
    "Object.values Object.entries".split()
)
_ATOMIC = frozenset(
    "identifier number string member_expression call_expression parenthesized_expression".split()
)


@dataclass
class Members:
    """The members of the component in a file by kind, and what was noticed of how they are used.

    `mutations` are (name, offset) of state changed in place, `assigned` the expressions a state
    field is set to, `initial` what a state field starts as and a derived value gives,
    `named` the places of a watcher's parameters with the member whose value they hold. `settable` are
    derived values that can be written, `fields` what lives on the instance undeclared, `elements_set`
    the references code sets itself, `mixed` and `mixed_hooks` what a mixin brings (`mixed_calm` of it
    is derived of what it never writes), `kept_methods` own ones in the place of its, `shared` what it
    asks the instance for, `internal` state that is not open on the instance, `open` what is asked of it
    undeclared (and where first). `provided` are those asked of the provided instance; `handed` says that
    the instance is passed on, `lent` that it is to what may ask for anything, `handed_at` where first.
    `unread` is what only a target that keeps it as it is can carry: (rule, detail, offset). `neutral` says
    that the target is of another family.
    """

    file: Path
    props: set[str] = field(default_factory=set)
    state: set[str] = field(default_factory=set)
    derived: set[str] = field(default_factory=set)
    methods: set[str] = field(default_factory=set)
    mutations: list[tuple[str, int]] = field(default_factory=list)
    assigned: dict[str, list[tuple[str, Node | None]]] = field(default_factory=dict)
    initial: dict[str, Node] = field(default_factory=dict)
    named: dict[int, str] = field(default_factory=dict)
    settable: set[str] = field(default_factory=set)
    injected: set[str] = field(default_factory=set)
    fields: set[str] = field(default_factory=set)
    elements_set: set[str] = field(default_factory=set)
    unread: list[tuple[str, str, int]] = field(default_factory=list)
    mixed: set[str] = field(default_factory=set)
    mixed_hooks: set[str] = field(default_factory=set)
    mixed_calm: set[str] = field(default_factory=set)
    kept_methods: set[str] = field(default_factory=set)
    shared: set[str] = field(default_factory=set)
    open: dict[str, int] = field(default_factory=dict)
    internal: set[str] = field(default_factory=set)
    provided: set[str] = field(default_factory=set)
    handed: bool = False
    lent: bool = False
    handed_at: int = -1
    neutral: bool = False

    def kept_only(self, rule: str, detail: str, at: int) -> None:
        """Note what only a target that keeps it as it is can carry."""
        self.unread.append((rule, detail, at))

    def hand_on(self, at: int, lent: bool = False) -> None:
        """Note that the instance is passed to code that may read what the project reads of others,
        or, if it is `lent`, anything."""
        self.handed, self.lent = True, self.lent or lent
        self.hand_over(at, frozenset())

    def hand_over(self, at: int, asked: frozenset[str]) -> None:
        """Note that the instance is passed to code that reads known names."""
        self.provided |= asked
        self.handed_at = at if self.handed_at < 0 else min(at, self.handed_at)
        self.kept_only("instance-escapes", "", at)

    def kind_of(self, name: str) -> str:
        """The kind of a member that holds a value."""
        for kind, names in (("prop", self.props), ("state", self.state), ("derived", self.derived)):
            if name in names:
                return kind
        return "injected"

    def declared(self) -> set[str]:
        """All names the component declares."""
        return self.props | self.state | self.derived | self.methods | self.injected


def add_use(uses: Uses, node: Node, name: str, members: Members, root: Node) -> bool:
    """Add the operation of one use of the member `name`; False where there is no such member."""
    if node.parent is not None and node.parent.has("delete"):
        return False
    if name in members.methods:
        _method_use(uses, node, name, root)
    elif name in members.state and is_write(node):
        _write(uses, node, Member("state", name), members, root)
    elif members.neutral and name in members.settable and is_write(node):
        _write(uses, node, Member("derived", name), members, root)
    elif name in members.props | members.state | members.derived | members.injected:
        _read(uses, node, name, members, root)
    elif name == "$emit":
        _emit(uses, node, members, root)
    elif name in members.fields:
        members.kept_only("unknown-use", f"this.{name}", node.start)
        deferred = is_deferred(node, root, uses.names)
        use = FieldUse(uses.span(node), -1, deferred, Member("field", name), is_write(node))
        _add(uses, node, "field", use)
    elif name == "$refs":
        return _element(uses, node, members, root)
    elif members.neutral and name in ("$slots", "$scopedSlots") and _slot_asked(uses, node):
        return True
    elif name.startswith(("$", "_")) or name in members.mixed:
        members.kept_only("unknown-use", f"this.{name}", node.start)
        if is_write(node) and name not in members.mixed:
            return False
        if name == "$data":
            above = node.parent
            part = above.child("property") if above is not None and node.field == "object" else None
            internal = part is not None and part.text in members.internal
            if not internal and (above is None or above.type != "pair"):
                return False
        deferred = is_deferred(node, root, uses.names)
        _add(uses, node, "built-in", Builtin(uses.span(node), -1, deferred, name))
    else:
        return False
    return True


def member_value(span: Span, entry: int, name: str, members: Members) -> Operation:
    """The value of a member, whatever it is, as an operation."""
    if name in members.methods:
        return MethodValue(span, entry, False, Member("method", name), "kept")
    if name in members.declared():
        kind = members.kind_of(name)
        return Read(span, entry, False, Member(kind, name))  # type: ignore[arg-type]
    if name in members.fields:
        return FieldUse(span, entry, False, Member("field", name))
    return Builtin(span, entry, False, name)


def add_open(uses: Uses, node: Node, name: str, members: Members, root: Node) -> None:
    """A use of a member nobody declares: it is asked of the instance, as it was."""
    members.kept_only("unknown-use", f"this.{name}", node.start)
    deferred = is_deferred(node, root, uses.names)
    _add(uses, node, "built-in", Builtin(uses.span(node), -1, deferred, name))


def _element(uses: Uses, node: Node, members: Members, root: Node) -> bool:
    """Read a known ref by name; any other use is the framework's object of refs."""
    above = node.parent
    part = above.child("property") if above is not None and node.field == "object" else None
    name = property_name(part) if part is not None else None
    members.kept_only("unknown-use", node.text, node.start)
    deferred = is_deferred(node, root, uses.names)
    if name is not None and above is not None and is_write(above):
        members.elements_set.add(name)
    own = above is None or above.type != "member_expression" or is_write(above)
    if above is None or name is None or own or _tells_nothing_apart(above):
        _add(uses, node, "built-in", Builtin(uses.span(node), -1, deferred, "$refs"))
        return True
    use = FieldUse(uses.span(above), -1, deferred, Member("element", name))
    _add(uses, node, "element-reference", use)
    return True


def _slot_asked(uses: Uses, node: Node) -> bool:
    """Read `$slots.title` as whether content is given for a slot; False where it is something else."""
    above = node.parent
    part = above.child("property") if above is not None and node.field == "object" else None
    name = property_name(part) if part is not None else None
    call = above.parent if above is not None else None
    called = call is not None and call.type == "call_expression" and above.field == "function"  # type: ignore[union-attr]
    if above is None or name is None or called:
        return False
    slot = "" if name == "default" else name
    _add(uses, above, "slot-asked", SlotGiven(uses.span(above), -1, False, slot))
    return True


def _tells_nothing_apart(node: Node) -> bool:
    """Whether code distinguishes `undefined` from `null`: a ref and the framework's object of refs
    start and end differently."""
    above = node.parent
    while above is not None and above.type in ("parenthesized_expression", "as_expression"):
        node, above = above, above.parent
    if above is None:
        return False
    if above.type == "unary_expression":
        return above.has("typeof")
    if above.type != "binary_expression" or not (above.has("===") or above.has("!==")):
        return False
    return any(part.text in ("undefined", "null", "void 0") for part in above.named_children)


def _add(uses: Uses, node: Node, notion: str, operation: Operation) -> None:
    def build(entry: int) -> Operation:
        uses.locals_at[entry] = locals_at(uses, node)
        return replace(operation, entry=entry)

    uses.raws.append(Raw(operation.span, notion, build))


def locals_at(uses: Uses, node: Node) -> frozenset[tuple[str, int]]:
    """Local names in force at a node, each with the place of its declaration."""
    found: set[tuple[str, int]] = set()
    for scope in uses.names.scope_at(node).chain():
        if scope.parent is not None:
            found.update((key, binding.node.start) for key, binding in scope.names.items())
    return frozenset(found)


def _read(uses: Uses, node: Node, name: str, members: Members, root: Node) -> None:
    kind = members.kind_of(name)
    if is_write(node):
        if name not in members.settable:
            uses.refuse("input-written" if kind == "prop" else "derived-written", name, node.start)
            return
        members.kept_only("derived-written", name, node.start)
    parent = node.parent
    if kind == "state" and parent is not None and _changes(node):
        members.mutations.append((name, node.start))
        if members.neutral and changes_insides(node):
            note_change(uses, node, name)
    short = f"{name}: " if node.type == "shorthand_property_identifier" else ""
    deferred = is_deferred(node, root, uses.names)
    member = Member(kind, name)  # type: ignore[arg-type]
    _add(uses, node, f"{kind}-read", Read(uses.span(node), -1, deferred, member, short))


def _changes(node: Node) -> bool:
    """Whether the value read here is changed in place, at any depth."""
    changed, part = asked_of(node)
    given = part.parent if part.field != "object" else None
    return changed or (given is not None and given.type == "arguments" and not _harmless(given))


def _harmless(arguments: Node) -> bool:
    """Whether a call cannot change what it is given: an own event, or a function of the language."""
    call = arguments.parent
    callee = call.child("function") if call is not None else None
    if callee is None:
        return False
    head, _, last = callee.text.rpartition(".")
    return last == "$emit" or head in ("Math", "JSON", "Number") or callee.text in _HARMLESS


def _write(uses: Uses, node: Node, member: Member, members: Members, root: Node) -> None:
    name = member.name
    whole = node.parent
    assert whole is not None
    kinds = ("assignment_expression", "augmented_assignment_expression", "update_expression")
    if whole.type not in kinds:
        members.kept_only("state-write-unread", name, node.start)
        deferred = is_deferred(node, root, uses.names)
        short = f"{name}: " if node.type.startswith("shorthand") else ""
        place = Read(uses.span(node), -1, deferred, member, short)
        _add(uses, node, "state-write", place)
        return
    value = whole.child("right")
    operator = "="
    if whole.type != "assignment_expression":
        operator = next(c.type for c in whole.children if not c.named)
    statement = whole.parent
    is_statement = statement is not None and statement.type == "expression_statement"
    body = root.child("body")
    alone = is_statement and statement is not None and statement.parent in (body, root, None)
    looped = any(
        up.is_function or up.type.startswith(("for", "while", "do_")) for up in _up_to(whole, root)
    )
    used = _is_used(whole)
    members.assigned.setdefault(name, []).append((operator, value))
    target, span = uses.span(node), uses.span(whole)
    deferred = is_deferred(node, root, uses.names)

    def build(entry: int) -> Operation:
        uses.locals_at[entry] = locals_at(uses, node)
        code = uses.code(uses.span(value)) if value is not None else None
        atomic = value is None or value.type in _ATOMIC
        return Assign(
            span,
            entry,
            deferred,
            member,
            target,
            operator,
            code,
            alone,
            is_statement,
            looped,
            atomic,
            used,
        )

    uses.raws.append(Raw(span, "state-write", build))


def _is_used(node: Node) -> bool:
    """Whether the value of an expression goes anywhere but into a statement of its own."""
    above = node.parent
    while above is not None:
        match above.type:
            case "expression_statement":
                return False
            case "parenthesized_expression" | "sequence_expression":
                pass
            case "ternary_expression" if node.field != "condition":
                pass
            case "binary_expression" if node.field == "right" and (
                above.has("&&") or above.has("||")
            ):
                pass
            case _:
                return True
        node, above = above, above.parent
    return False


def _up_to(node: Node, root: Node) -> Iterator[Node]:
    for above in node.up():
        if above is root:
            return
        yield above


def _method_use(uses: Uses, node: Node, name: str, root: Node) -> None:
    parent = node.parent
    member = Member("method", name)
    deferred = is_deferred(node, root, uses.names)
    span = uses.span(node)
    if is_write(node):
        uses.refuse("method-replaced", name, node.start)
    elif parent is not None and parent.type == "call_expression" and node.field == "function":
        _add(uses, node, "method-call", MethodCall(span, -1, deferred, member))
    else:
        _add(uses, node, "method-value", MethodValue(span, -1, deferred, member, "kept"))


def _emit(uses: Uses, node: Node, members: Members, root: Node) -> None:
    call = node.parent
    arguments = call.child("arguments") if call is not None else None
    given = arguments.named_children if arguments is not None else []
    event = property_name(given[0]) if given and given[0].type == "string" else None
    deferred = is_deferred(node, root, uses.names)
    if call is None or node.field != "function" or event is None:
        members.kept_only("unknown-use", node.text, node.start)
        _add(uses, node, "event-sent", Builtin(uses.span(node), -1, deferred, "$emit"))
        return
    span, callee = uses.span(call), uses.span(node)

    def build(entry: int) -> Operation:
        uses.locals_at[entry] = locals_at(uses, node)
        codes = tuple(uses.code(uses.span(argument)) for argument in given[1:])
        return Emit(span, entry, deferred, event, callee, codes)

    uses.raws.append(Raw(span, "event-sent", build))
