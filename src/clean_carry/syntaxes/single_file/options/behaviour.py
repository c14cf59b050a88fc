"""Options that hold code: computed values, watchers, methods and lifecycle hooks."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace

from clean_carry.component.code import Code, Member, Respelled
from clean_carry.component.members import Callback, Derived, KeptOption, Method, Reaction, Timed
from clean_carry.component.moments import MomentName
from clean_carry.component.spans import Span
from clean_carry.source.javascript.tree import Node
from clean_carry.source.javascript.values import calls_code, is_identifier, last_name, property_name
from clean_carry.syntaxes.single_file.hooks import HOOKS, ROUTE_HOOKS
from clean_carry.syntaxes.single_file.members import Members
from clean_carry.syntaxes.single_file.options.effects import read_effects
from clean_carry.syntaxes.single_file.options.functions import (
    FUNCTIONS,
    attached,
    body_of,
    callback_of,
    flows,
    instance_parameter,
    only_returns,
    parts_of,
    returned,
    with_comma,
)
from clean_carry.syntaxes.single_file.options.read_options import (
    Gathered,
    claim_option,
    keep_option,
    reads,
)
from clean_carry.syntaxes.single_file.options.store import read_stored
from clean_carry.syntaxes.uses import Raw, Uses

Places = tuple[tuple[Span, int], ...]
# Hooks that a version of the runtime does not know, and never ran (its migration notes for 3.0).
_OF_OTHER = {2: ("beforeUnmount", "unmounted"), 3: ("beforeDestroy", "destroyed")}
_NEVER_OBJECTS = ("number", "true", "false", "string", "template_string", "unary_expression")
_PLAIN = frozenset("String Number Boolean Symbol BigInt".split())


def _members_of(
    gathered: Gathered, option: str, part: Node, value: Node
) -> Iterator[tuple[str | None, Node, Node, tuple[Span, ...]]]:
    """(name, property, value, comments) of each part; the first has the comments of the option too."""
    gathered.entries[option] = claim_option(gathered, part)
    if value.type != "object":
        _unread(gathered, part)
        return
    notes = attached(gathered.uses, part)
    above = tuple(note for note in notes if note.start < part.start)
    behind = tuple(note for note in notes if note.start > part.start)
    parts = parts_of(value)
    for number, (name, item, given) in enumerate(parts, 1):
        own = attached(gathered.uses, item)
        yield name, item, given, above + own + (behind if number == len(parts) else ())
        above = ()


def _unread(gathered: Gathered, item: Node) -> None:
    gathered.uses.refuse("unknown-option", item.text.split("\n")[0][:60], item.start)


@reads("computed")
def _computed(gathered: Gathered, part: Node, value: Node) -> None:
    uses = gathered.uses
    for name, item, given, notes in _members_of(gathered, "computed", part, value):
        getter, setter = given, None
        stored = (
            read_stored(uses, item, gathered.members) if item.type == "spread_element" else None
        )
        if stored is not None:
            gathered.parts += stored
            continue
        if given.type == "object":
            functions = {key: function for key, _, function in parts_of(given)}
            getter, setter = functions.get("get", given), functions.get("set")
            if functions.keys() - {"get", "set"}:
                _unread(gathered, item)
                continue
        entry = uses.ledger.claim("derived", with_comma(uses, item))
        given_itself = instance_parameter(getter)
        if given_itself is not None:
            _without_parameter(uses, getter, given_itself)
        result = returned(getter) if getter.type in FUNCTIONS and only_returns(getter) else None
        code = uses.code(uses.span(result)) if result is not None else None
        read = callback_of(uses, getter)
        write = callback_of(uses, setter) if setter is not None else None
        takes = read is None or read.asynchronous or (read.parameters and given_itself is None)
        if name is None or not is_identifier(name) or takes or (setter and write is None):
            _unread(gathered, item)
            continue
        assert read is not None and read.text is not None
        if item.type != "method_definition":
            gathered.members.kept_only("unknown-option", f"{name}: …", item.start)
        if result is not None:
            gathered.members.initial[name] = result
        gathered.parts.append(
            Derived(name, read.text, read.entry, code, entry, notes, read, write)
        )  # fmt: skip


def _without_parameter(uses: Uses, function: Node, name: Node) -> None:
    """Remove the parameter that is the instance: its members are read by name."""
    parameters = function.child("parameters") or name
    span = uses.span(parameters)
    rule = "receiver-alias"
    uses.raws.append(Raw(span, rule, lambda entry: Respelled(span, entry, False, "()", rule)))
    uses.sort()


@reads("watch")
def _watch(gathered: Gathered, part: Node, value: Node) -> None:
    uses = gathered.uses
    for key, item, given, notes in _members_of(gathered, "watch", part, value):
        entry = uses.ledger.claim("reaction", with_comma(uses, item))
        if key is None:
            _unread(gathered, item)
            continue
        for one in given.named_children if given.type == "array" else [given]:
            if given.type == "array":
                gathered.members.kept_only("unknown-option", "several watchers", item.start)
            _watcher(gathered, key, one, entry, notes)
            notes = ()


def _watcher(
    gathered: Gathered, key: str, given: Node, entry: int, notes: tuple[Span, ...]
) -> None:
    uses, members = gathered.uses, gathered.members
    name, *path = key.split(".")
    known = members.props | members.state | members.derived | members.injected
    built_in = name.startswith("$") and name not in ("$data", "$props")
    if name in members.mixed:
        # A watcher looks at once, when what is mixed in is not there yet.
        uses.refuse("mixin-too-early", name, given.start)
    if (name not in known | members.mixed and not built_in) or not all(map(is_identifier, path)):
        uses.refuse("unknown-option", f"a watcher of {key}", given.start)
        return
    function, settings = _handler(members, key, given)
    if path or built_in:
        members.kept_only("unknown-option", f"a watcher of {key}", given.start)
    keys = {property_name(s.child("key") or s) for s in settings}
    made = Reaction(
        Member("injected" if built_in else members.kind_of(name), name),  # type: ignore[arg-type]
        Code(uses.tree.source.span(function.start, function.start)), -1, Code(uses.span(function)),
        (), (), True, entry, notes, tuple(path),
        settings=tuple(uses.span(s) for s in settings),
        deep="deep" in keys,
        immediate="immediate" in keys,
        plain=path == ["length"] or (not path and _is_plain(gathered, name)),
        held=_is_held(gathered, name),
    )  # fmt: skip
    method = property_name(function) if function.type == "string" else None
    shared = None
    if function.type == "call_expression":
        parts = _put_off(uses, function)
        if parts is None:
            uses.refuse("method-made-once", f"a watcher of {key}", given.start)
            return
        function, shared = parts
        members.kept_only("unknown-option", f"a watcher of {key} that is put off", given.start)
    if method in members.methods:
        members.kept_only("unknown-option", f"a watcher of {key} by name", given.start)
        handler = Callback(None, -1, method=method or "")
        gathered.parts.append(replace(made, body=made.text, handler=handler))
        return
    callback = callback_of(uses, function)
    body = function.child("body") if function.type in FUNCTIONS else None
    if callback is None or body is None or callback.text is None:
        _unread(gathered, given)
        return
    if function.type == "arrow_function":
        members.kept_only("unknown-option", f"a watcher of {key}", given.start)
    inner = _inside(uses, body)
    uses.ledger.claim("code", inner, "kept")
    now, before = _parameters(gathered, function)
    members.named.update((span.start, name) for span, _ in (*now, *before))
    gathered.parts.append(
        replace(
            made, text=callback.text, text_entry=callback.entry, body=uses.code(inner, kept=False),
            now=now, before=before, runs_code=calls_code(body), handler=replace(callback, shared=shared),
            ended=_takes_end(function),
        )
    )  # fmt: skip


def _handler(members: Members, key: str, given: Node) -> tuple[Node, list[Node]]:
    """The function of a watcher, and the settings it is given with."""
    if given.type != "object":
        return given, []
    members.kept_only("unknown-option", f"a watcher of {key} with settings", given.start)
    function, settings = given, []
    for option, item, held in parts_of(given):
        if option == "handler":
            function = held
        else:
            settings.append(item)
    return function, settings


def _inside(uses: Uses, body: Node) -> Span:
    """Return the text between the braces of a function, or the expression it returns."""
    block = body.type == "statement_block"
    return uses.tree.source.span(body.start + block, body.end - block)


def _is_plain(gathered: Gathered, name: str) -> bool:
    """Whether a source is never an object, as far as its declaration tells."""
    prop = next((p for p in gathered.props if p.name == name), None)
    if prop is not None:
        types = prop.kind.strip("[]").replace(",", " ").split()
        return bool(types) and set(types) <= _PLAIN
    initial = gathered.members.initial.get(name)
    if name not in gathered.members.state or initial is None or name in gathered.drawn_writes:
        return False
    written = gathered.members.assigned.get(name, [])
    values = [value for operator, value in written if operator == "=" and value is not None]
    return all(value.type in _NEVER_OBJECTS for value in (initial, *values))


# Methods of lists that give a list (ECMA-262 §23.1.3).
_GIVES_LIST = frozenset("filter map slice concat flat flatMap sort reverse splice".split())


def _is_held(gathered: Gathered, name: str) -> bool:
    """Whether a state field always holds a list or an object, as far as what is given to it tells."""
    initial = gathered.members.initial.get(name)
    if name not in gathered.members.state or initial is None or name in gathered.drawn_writes:
        return False
    written = gathered.members.assigned.get(name, [])
    return all(
        value is not None
        and (
            value.type in ("array", "object")
            or (
                value.type == "call_expression"
                and last_name(value.child("function")) in _GIVES_LIST
            )
        )
        for value in (initial, *(value for _, value in written))
    )


def _parameters(gathered: Gathered, function: Node) -> tuple[Places, Places]:
    """The uses of the new and of the old value, where they are plain names."""
    uses, found = gathered.uses, list[Places]()
    parameters, scope = function.child("parameters"), uses.names.inner_scope(function)
    for parameter in parameters.named_children[:2] if parameters is not None else []:
        pattern = parameter.child("pattern")
        binding = scope.names.get(pattern.text) if scope is not None and pattern else None
        if binding is None or pattern is None or pattern.type != "identifier" or binding.written:
            what = "a watcher's parameter that is no name"
            gathered.members.kept_only("unknown-option", what, parameter.start)
            continue
        if any(ref.type != "identifier" for ref in binding.references):
            what = "a watcher's parameter in a shorthand"
            gathered.members.kept_only("unknown-option", what, parameter.start)
        spans = [uses.span(ref) for ref in binding.references if ref.type == "identifier"]
        found.append(tuple((span, uses.ledger.claim("watched value", span)) for span in spans))
    found += [(), ()]
    return found[0], found[1]


def _takes_end(function: Node) -> bool:
    """Whether a watcher takes the function that registers a clean-up."""
    parameters = function.child("parameters")
    return parameters is not None and len(parameters.named_children) > 2


@reads("methods")
def _methods(gathered: Gathered, part: Node, value: Node) -> None:
    uses = gathered.uses
    for name, item, given, notes in _members_of(gathered, "methods", part, value):
        stored = (
            read_stored(uses, item, gathered.members) if item.type == "spread_element" else None
        )
        if stored is not None:
            gathered.parts += stored
            continue
        if name is None or not is_identifier(name) or item.has("get") or item.has("set"):
            _unread(gathered, item)
            continue
        if name in gathered.members.kept_methods:
            inside = uses.ledger.claim("method", with_comma(uses, item))
            gathered.parts.append(KeptOption("methods", uses.span(item), inside, notes))
            continue
        method = _method(gathered, name, item, given, notes)
        if method is not None:
            gathered.parts.append(method)


@reads("filters")
def _filters(gathered: Gathered, part: Node, value: Node) -> None:
    """Filters of the older runtime: for another family functions like any other."""
    taken = gathered.members.declared()
    parts = parts_of(value) if value.type == "object" else []
    plain = all(
        name is not None and is_identifier(name) and name not in taken
        and given.type in ("method_definition", "function_expression", "arrow_function")
        for name, _, given in parts
    )  # fmt: skip
    if not gathered.members.neutral or not parts or not plain:
        keep_option(gathered, "filters", part)
        return
    for name, item, given, notes in _members_of(gathered, "filters", part, value):
        method = _method(gathered, name or "", item, given, notes)
        if method is not None:
            gathered.parts.append(method)


def _method(
    gathered: Gathered, name: str, item: Node, given: Node, notes: tuple[Span, ...]
) -> Method | None:
    uses = gathered.uses
    entry = uses.ledger.claim("method", with_comma(uses, item))
    if given.type in ("method_definition", "function_expression"):
        parameters, body = given.child("parameters"), given.child("body")
        if parameters is None or body is None:
            _unread(gathered, item)
            return None
        prefix = "async function" if given.has("async") else "function"
        if given.has("*"):
            prefix += "*"
        types = given.child("type_parameters")
        start = types.start if types is not None else parameters.start
        text = uses.code(uses.tree.source.span(start, given.end))
        used = any(n.type == "identifier" and n.text == "arguments" for n in given.walk())
        return Method(
            name, "declared", text, prefix, True, entry, used, body.start,
            given.has("async"), notes,
        )  # fmt: skip
    gathered.members.kept_only("unknown-option", item.text.split("\n")[0][:60], item.start)
    if given.type == "call_expression":
        return _made_once(gathered, name, item, given, entry, notes)
    if item.type == "shorthand_property_identifier":
        binding = uses.names.module.names.get(name)
        if binding is None:
            _unread(gathered, item)
        text = Code(uses.tree.source.span(item.start, item.start))
        return Method(name, "assigned", text, "module", True, entry, comments=notes)
    text = uses.code(uses.span(given))
    return Method(name, "assigned", text, "const", True, entry, comments=notes)


# Functions that put off the calls of another, by the trade's names for them.
_PUT_OFF = frozenset({"debounce", "throttle"})


def _made_once(
    gathered: Gathered, name: str, item: Node, call: Node, entry: int, notes: tuple[Span, ...]
) -> Method | None:
    """A method that a call makes once, for all instances: `load: debounce(function () { … }, 300)`."""
    uses = gathered.uses
    callee = call.child("function")
    if callee is None or last_name(callee) not in _PUT_OFF:
        if callee is None or not _keeps_nothing(gathered, callee):
            uses.refuse("method-made-once", name, item.start)
            return None
        text = uses.code(uses.span(call))
        return Method(name, "assigned", text, "const", True, entry, comments=notes)
    parts = _put_off(uses, call)
    if parts is None:
        uses.refuse("method-made-once", name, item.start)
        return None
    function, shared = parts
    parameters, body = function.child("parameters"), function.child("body")
    assert parameters is not None and body is not None
    text = uses.code(uses.tree.source.span(parameters.start, function.end))
    prefix = "async function" if function.has("async") else "function"
    return Method(
        name, "declared", text, prefix, True, entry, False, body.start,
        function.has("async"), notes, shared=shared,
    )  # fmt: skip


def _put_off(uses: Uses, call: Node) -> tuple[Node, tuple[Span, Span]] | None:
    """Return the debounced function, and the code around it; None if it is not written in place, or
    uses `arguments`."""
    callee, arguments = call.child("function"), call.child("arguments")
    given = arguments.named_children if arguments is not None else []
    function = given[0] if given and given[0].type == "function_expression" else None
    if callee is None or arguments is None or function is None or function.has("*"):
        return None
    if last_name(callee) not in _PUT_OFF or function.child("parameters") is None:
        return None
    if any(n.type == "identifier" and n.text == "arguments" for n in function.walk()):
        return None
    behind = uses.tree.source.span(function.end, arguments.end - 1)
    return function, (uses.span(callee), behind)


def _keeps_nothing(gathered: Gathered, callee: Node) -> bool:
    """Whether what makes a function is seen to keep nothing between its calls: no name is declared in
    it."""
    uses = gathered.uses
    binding = uses.names.meaning(callee) if callee.type == "identifier" else None
    declared = binding.node.parent if binding is not None else None
    value = declared.child("value") if declared is not None else None
    function = value or declared
    if function is None or not function.is_function:
        return False
    inner = uses.names.inner_scope(function)
    return not any(n.type == "variable_declarator" for n in function.walk()) and inner is not None


def _hook(option: str, when: MomentName) -> None:
    @reads(option)
    def read(gathered: Gathered, part: Node, value: Node) -> None:
        uses = gathered.uses
        gathered.members.kept_only("unknown-option", f"{option}() …", part.start)
        entry = claim_option(gathered, part)
        if option in ROUTE_HOOKS and gathered.runtime < 3:
            _unread(gathered, part)
            return
        if option in _OF_OTHER.get(gathered.runtime, ()):
            span, notes = uses.span(part), attached(uses, part)
            gathered.parts.append(KeptOption(option, span, entry, notes, idle=True))
            return
        if when in ("made", "displayed") and read_effects(gathered, value, when == "displayed"):
            span, notes = uses.span(part), attached(uses, part)
            gathered.parts.append(KeptOption(option, span, entry, notes, idle=True))
            return
        callback = callback_of(uses, value)
        if callback is None:
            _unread(gathered, part)
            return
        if when == "made" and any(n.type == "throw_statement" for n in value.walk()):
            uses.refuse("made-throws", option, part.start)
        straight = flows(value)
        scope = uses.names.inner_scope(value)
        names = frozenset(n for n in scope.names) if scope is not None else frozenset()
        inner = body_of(uses, value) if straight else None
        notes = attached(uses, part)
        gathered.parts.append(Timed(when, option, callback, entry, inner, names, straight, notes))


for _option, _when in (HOOKS | ROUTE_HOOKS).items():
    _hook(_option, _when)


@reads("beforeRouteEnter")
def _before_there_is_an_instance(gathered: Gathered, part: Node, value: Node) -> None:
    """A hook that runs before there is an instance stays an option; one that is called back with the
    instance would find none of its members."""
    called_back = any(
        node.type == "call_expression"
        and (arguments := node.child("arguments")) is not None
        and any(given.is_function for given in arguments.named_children)
        for node in value.walk()
    )
    if called_back or any(node.type == "this" for node in value.walk()):
        _unread(gathered, part)
        return
    entry = claim_option(gathered, part)
    gathered.members.kept_only("unknown-option", part.text.split("\n")[0][:60], part.start)
    notes = attached(gathered.uses, part)
    gathered.parts.append(KeptOption("beforeRouteEnter", gathered.uses.span(part), entry, notes))
