"""Values and functions of a store that a component takes by a helper: `...mapState(['owner'])`."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from clean_carry.component.code import Operation, StoreRead
from clean_carry.component.members import Derived, Method, Stored
from clean_carry.source.javascript.timing import is_deferred
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.javascript.values import is_identifier, property_name
from clean_carry.syntaxes.single_file.members import Members, locals_at
from clean_carry.syntaxes.single_file.options.functions import attached, parts_of, with_comma
from clean_carry.syntaxes.single_file.stores import Taken, imported_helpers
from clean_carry.syntaxes.uses import Build, Raw, Uses

_FUNCTIONS: frozenset[Taken] = frozenset({"dispatch", "commit", "call"})


@dataclass(frozen=True)
class Mapped:
    """One name a helper gives: where it stands, its `value` (a name of the store's, or a function), the
    function that gives the store ("": the application's), and the namespace."""

    name: str
    part: Node
    value: Node
    taken: Taken
    store: str
    space: str

    @property
    def runs(self) -> bool:
        """Whether it is a function of the store."""
        return self.taken in _FUNCTIONS


def mapped(spread: Node, tree: Tree) -> tuple[Mapped, ...]:
    """Return the members of `...mapState(…)` in an option; nothing if it cannot be read."""
    call = spread.named_children[0] if spread.type == "spread_element" else spread
    callee, arguments = call.child("function"), call.child("arguments")
    helpers = {local: taken for _, local, taken in imported_helpers(tree)}
    taken = helpers.get(callee.text) if callee is not None else None
    given = list(arguments.named_children) if arguments is not None else []
    if taken is None or not given:
        return ()
    store = space = ""
    if taken in ("own", "written", "call"):
        first = given.pop(0)
        if first.type != "identifier" or not first.text.startswith("use"):
            return ()
        store = first.text
    elif len(given) == 2 and given[0].type == "string":
        space = (property_name(given.pop(0)) or "").strip("/")
    if len(given) != 1 or given[0].type not in ("array", "object"):
        return ()
    found = []
    for name, part, value in _named(given[0]):
        readable = is_identifier(name) and (value.type == "string" or _is_read(value, taken))
        if not readable:
            return ()
        found.append(Mapped(name, part, value, taken, store, space))
    return tuple(found)


def _named(given: Node) -> Iterator[tuple[str, Node, Node]]:
    if given.type == "array":
        yield from ((property_name(item) or "", item, item) for item in given.named_children)
    else:
        yield from ((name or "", part, value) for name, part, value in parts_of(given))


def _is_read(value: Node, taken: Taken) -> bool:
    """Whether a function works a value out of a store it is given by plain names."""
    body, several = value.child("body"), value.child("parameters")
    single = value.child("parameter")
    if not value.is_function or body is None or taken not in ("state", "own"):
        return False
    patterns = [single] if single is not None else several.named_children if several else []
    plain = [(p.child("pattern") or p) for p in patterns]
    most = 2 if taken == "state" else 1
    if len(plain) > most or any(p.type != "identifier" for p in plain) or value.has("async"):
        return False
    return not any(n.type == "this" or n.text == "arguments" for n in value.walk())


def names_of(option: str | None, item: Node, tree: Tree, members: Members) -> None:
    """Note the names a part of an option gives."""
    for one in mapped(item, tree) if item.type == "spread_element" else ():
        if one.runs == (option == "methods"):
            (members.methods if one.runs else members.derived).add(one.name)
            if one.taken == "written":
                members.settable.add(one.name)


def read_stored(uses: Uses, item: Node, members: Members) -> list[Derived | Method] | None:
    """The values or functions of a part; None where it cannot be read."""
    found = mapped(item, uses.tree)
    if not found:
        return None
    members.kept_only("unknown-option", item.text.split("\n")[0][:60], item.start)
    entry = uses.ledger.claim("stored values", with_comma(uses, item))
    uses.ledger.settle(entry, "carried", "stored-by-name")
    notes = attached(uses, item)
    parts: list[Derived | Method] = []
    for one in found:
        own = uses.ledger.claim("stored value", uses.span(one.part))
        parts.append(_part(uses, one, own, notes))
        notes = ()
    return parts


def _part(uses: Uses, one: Mapped, entry: int, notes: tuple) -> Derived | Method:  # type: ignore[type-arg]
    none = uses.code(uses.tree.source.span(one.part.start, one.part.start), kept=False)
    key = property_name(one.value) if one.value.type == "string" else None
    code = None
    if key is None:
        body = one.value.child("body")
        assert body is not None
        _reads(uses, one)
        code = uses.code(uses.span(body))
    stored = Stored(one.store, one.taken, _path(one, key), code)
    if one.runs:
        return Method(
            one.name, "assigned", none, "const", True, entry, comments=notes, stored=stored
        )
    return Derived(one.name, none, -1, None, entry, notes, stored=stored)


def _path(one: Mapped, key: str | None) -> str:
    """Return the path behind the store: `.state.basket.lines`, `.getters['basket/count']`,
    `.dispatch('add'`."""
    if key is None:
        return ""
    space = f"{one.space}/" if one.space else ""
    if one.taken == "state":
        return "".join(
            map(member, ("state", *one.space.split("/"), key) if space else ("state", key))
        )
    if one.taken == "getters":
        return ".getters" + member(space + key)
    if one.taken in ("dispatch", "commit"):
        return space + key
    return member(key)


def member(name: str) -> str:
    """Return the access to a member behind a value."""
    return f".{name}" if is_identifier(name) else f"['{name}']"


def _reads(uses: Uses, one: Mapped) -> None:
    """An operation for each place where a function names the store it is given."""
    scope = uses.names.inner_scope(one.value)
    single, several = one.value.child("parameter"), one.value.child("parameters")
    patterns = [single] if single is not None else several.named_children if several else []
    for number, pattern in enumerate(patterns):
        name = (pattern.child("pattern") or pattern).text if pattern is not None else ""
        binding = scope.names.get(name) if scope is not None else None
        path = ""
        if one.taken == "state":
            space = one.space.split("/") if one.space else []
            path = "".join(map(member, ["state", *space])) if number == 0 else ".getters"
        for ref in binding.references if binding is not None else ():
            short = f"{name}: " if ref.type.startswith("shorthand") else ""
            deferred = is_deferred(ref, one.value, uses.names)
            uses.raws.append(
                Raw(
                    uses.span(ref), "store-read", _read(uses, ref, one.store, short, path, deferred)
                )
            )
    uses.sort()


def _read(uses: Uses, ref: Node, store: str, short: str, path: str, deferred: bool) -> Build:
    span = uses.span(ref)

    def build(entry: int) -> Operation:
        uses.locals_at[entry] = locals_at(uses, ref)
        return StoreRead(span, entry, deferred, store, path, short)

    return build
