"""Requests of a component when it is displayed, as the preparation of a class.

The data come from `App\\DataSource`, an interface that the application implements. Code that waits for the
reply in the browser runs behind it here; code for a failed request becomes a `catch`.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field

from clean_carry.component.code import Assign, Code, Member, MethodCall
from clean_carry.source.expressions.model import Apply, Constant, Expr, Name
from clean_carry.source.expressions.types import ANY, Type
from clean_carry.source.javascript.tree import Node
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.server_view.expressions import Expressions
from clean_carry.syntaxes.server_view.names import action
from clean_carry.syntaxes.stateful_view.actions import STEP, Statements
from clean_carry.syntaxes.stateful_view.routes import Queries, Query
from clean_carry.syntaxes.unsaid import Unsaid

# The parameter that gives the data.
SOURCE = "source"
FAILURE = "DataSourceError"
_CHAIN = frozenset({"then", "catch", "finally"})
_REPLY_PARTS = frozenset({"ok", "status", "statusText", "headers"})


@dataclass
class Chain:
    """A request with what follows it: the node of its address, then functions by their kind."""

    address: Node
    then: list[Node] = field(default_factory=list)
    failed: Node | None = None
    at_end: Node | None = None


class RequestStatements(Statements):
    """Says statements that ask for data. `answer` is the type of the data. `pending` flags are only set
    while data are on their way, so that writes of them go. `asks` says that there is a request, `checked`
    that the code looks whether its reply is a success."""

    def __init__(
        self,
        source: SourceText,
        expressions: Expressions,
        code: Code,
        answer: Type = ANY,
        pending: frozenset[str] = frozenset(),
    ) -> None:
        super().__init__(source, expressions, code)
        self.answer, self.pending = answer, pending
        self.asks = self.checked = False
        self.addresses: list[tuple[str, int, Query | None]] = []
        # The queries that answer addresses: their methods, by what finds them.
        self.queries: Queries | None = None
        # The errors that requests of the innermost `try` throw.
        self._throws: set[str] = set()
        # Methods that ask for data: they are given the source.
        self.asking: frozenset[str] = frozenset()
        self.passes_source = True
        self._caught = 0
        # Names of replies, with the code of their addresses.
        self._replies: dict[str, str] = {}
        # The types of what state is given.
        self.gave: dict[Member, Type] = {}
        # Names that stand for the data where they are read once.
        self._once: dict[str, str] = {}

    # -- statements --------------------------------------------------------------------------

    def _statement(self, node: Node, depth: int) -> str:
        match node.type:
            case "try_statement":
                return self._tried(node, depth)
            case "lexical_declaration" if self._is_reply(node):
                return ""
            case "if_statement" if self._checks_reply(node):
                self.checked = True
                return ""
            case "expression_statement" | "return_statement" if node.named_children:
                inner = _awaited(node.named_children[0])
                chain = _chain(inner)
                if chain is not None:
                    if _follows(node):
                        raise self.unsaid(node, "statements behind a request that is under way")
                    return self._chained(chain, depth)
        return super()._statement(node, depth)

    def _effect_line(self, node: Node, depth: int) -> str:
        return super()._effect_line(node, depth) if not self._is_pending(node) else ""

    def _assigned(self, one: Assign, node: Node) -> str:
        value = node.child("right")
        if one.operator == "=" and value is not None:
            self.gave[one.member] = self._read(value).type
        return super()._assigned(one, node)

    def _effect(self, node: Node) -> str:
        called = self._operation(_awaited(node).child("function"))
        if isinstance(called, MethodCall) and called.member.name in self.asking:
            self.asks = True
            given = _awaited(node).child("arguments")
            values = [self._said(one, "value") for one in (given.named_children if given else [])]
            own = [f"${SOURCE}"] if self.passes_source else []
            return f"$this->{action(called.member.name)}({', '.join([*own, *values])})"
        return super()._effect(node)

    def _is_pending(self, node: Node) -> bool:
        """Whether a statement sets a flag that is only set while data are on their way."""
        inner = _bare(node)
        target = inner.child("left") if inner.type == "assignment_expression" else None
        part = target.child("property") if target is not None else None
        return part is not None and part.text in self.pending

    def _tried(self, node: Node, depth: int) -> str:
        body, handler, last = (node.child(one) for one in ("body", "handler", "finalizer"))
        assert body is not None
        self._caught += handler is not None
        self._throws = set()
        text = self._block(body, depth + 1)
        self._caught -= handler is not None
        failed = handler.child("body") if handler is not None else None
        at_end = last.child("body") if last is not None else None
        return self._three(text, failed, at_end, depth, handled=handler is not None)

    def _three(
        self, text: str, failed: Node | None, at_end: Node | None, depth: int, *, handled: bool
    ) -> str:
        line = STEP * depth
        made = f"{line}try {{\n{text}{line}}}"
        if handled:
            inner = self._body(failed, depth + 1) if failed is not None else ""
            error = "Throwable" if "Throwable" in self._throws else FAILURE
            made += f" catch ({error}) {{\n{inner}{line}}}"
        inner = self._body(at_end, depth + 1) if at_end is not None else ""
        if inner:
            made += f" finally {{\n{inner}{line}}}"
        return f"{made}\n" if handled or inner else text.replace(f"\n{STEP}", "\n")

    def _body(self, node: Node, depth: int) -> str:
        if node.type == "statement_block":
            return self._block(node, depth)
        return self._effect_line(node, depth)

    def _is_reply(self, node: Node) -> bool:
        """Whether a declaration keeps the reply to a request, whose data are read later."""
        declared = node.named_children[0]
        name, value = declared.child("name"), declared.child("value")
        if name is None or value is None or name.type != "identifier":
            return False
        address = _fetched(_awaited(value)) if value.type == "await_expression" else None
        if address is None:
            return False
        self._replies[name.text] = self._asked(address)
        return True

    def _checks_reply(self, node: Node) -> bool:
        """Whether a condition only fails for a reply that is no success."""
        test, then = node.child("condition"), node.child("consequence")
        bare = _bare(test) if test is not None else None
        if bare is None or then is None or node.child("alternative") is not None:
            return False
        inner = bare.child("argument") if bare.type == "unary_expression" else None
        of = (
            inner.child("object")
            if inner is not None and inner.type == "member_expression"
            else None
        )
        part = inner.child("property") if inner is not None else None
        is_ok = (
            of is not None and of.text in self._replies and part is not None and part.text == "ok"
        )
        first = then.named_children[0] if then.type == "statement_block" else then
        return is_ok and first.type == "throw_statement"

    # -- requests ----------------------------------------------------------------------------

    def _asked(self, address: Node) -> str:
        """The code for the data of an address. Raises `Unsaid` where nobody handles its failure."""
        if not self._caught:
            raise self.unsaid(address, "a request whose failure nobody handles")
        self.asks = True
        segments, values = self._segments(self._read(address))
        query = self.queries.of(segments) if self.queries is not None and segments else None
        self.addresses.append((address.text, self._at(address), query))
        self._throws.add(FAILURE if query is None else "Throwable")
        if query is None:
            return f"${SOURCE}->get({self._said(address, 'text')})"
        assert self.queries is not None
        given = ", ".join(self._said_of(one, "value", address) for one in values)
        return f"$this->{self.queries.method_of(query)}({given})"

    def _segments(self, address: Expr) -> tuple[list[str], list[Expr]]:
        """The segments of an address, `{}` for each that is computed, and the values of those."""
        joined = isinstance(address, Apply) and address.operation == "text.join"
        parts = address.parts if isinstance(address, Apply) and joined else (address,)
        text = "".join(str(one.value) if isinstance(one, Constant) else "{}" for one in parts)
        segments = text.strip("/").split("/")
        plain = text.startswith("/") and all(one == "{}" or "{}" not in one for one in segments)
        values = [one for one in parts if not isinstance(one, Constant)]
        return (segments, values) if plain and "?" not in text else ([], [])

    def _chained(self, chain: Chain, depth: int) -> str:
        self._caught += chain.failed is not None
        self._throws = set()
        got = self._asked(chain.address)
        text = self._taken(chain, got, depth + 1)
        self._caught -= chain.failed is not None
        failed = _function_body(chain.failed) if chain.failed is not None else None
        at_end = _function_body(chain.at_end) if chain.at_end is not None else None
        return self._three(text, failed, at_end, depth, handled=chain.failed is not None)

    def _taken(self, chain: Chain, got: str, depth: int) -> str:
        """The statements that use the data: the first function takes them out of the reply, the second uses
        them."""
        if not chain.then or not self._takes_data(chain.then[0]) or len(chain.then) > 2:
            raise self.unsaid(chain.address, "a reply that is used in another way")
        if len(chain.then) == 1:
            return f"{STEP * depth}{got};\n"
        function = chain.then[1]
        names = _parameters(function)
        body = _function_body(function)
        if len(names) != 1 or names[0].type != "identifier":
            raise self.unsaid(function, "data that are taken apart")
        name = names[0].text
        uses = [one for one in body.walk() if one.type == "identifier" and one.text == name]
        lead = ""
        if len(uses) == 1:
            self._once[name] = got
        else:
            self.locals[name] = self.answer
            lead = f"{STEP * depth}${name} = {got};\n"
        return lead + self._body(body, depth)

    def _takes_data(self, function: Node) -> bool:
        """Whether a function gives the data of the reply that it is called with."""
        names = _parameters(function)
        if len(names) != 1 or names[0].type != "identifier":
            return False
        self._replies[names[0].text] = ""
        body = _function_body(function)
        if body.type != "statement_block":
            return _json_of(_awaited(body)) == names[0].text
        *checks, last = body.named_children
        returned = last.named_children[0] if last.type == "return_statement" else None
        checks_alone = all(one.type == "if_statement" and self._checks_reply(one) for one in checks)
        self.checked |= bool(checks) and checks_alone
        if returned is None or not checks_alone:
            return False
        return _json_of(_awaited(returned)) == names[0].text

    def leaf(self, node: Node) -> Expr | None:
        """The value of a node: the data of a reply are a value too."""
        if node.type == "await_expression":
            inner = node.named_children[0]
            got = self._replies.get(_json_of(inner), "")
            awaited = _json_receiver(inner)
            address = (
                _fetched(_awaited(_bare(awaited))) if awaited is not None and not got else None
            )
            if address is not None:
                got = self._asked(address)
            if got:
                return self._data(got)
        if node.type == "identifier" and node.text in self._once:
            return self._data(self._once[node.text])
        if node.type == "member_expression":
            of, part = node.child("object"), node.child("property")
            if of is not None and of.text in self._replies and part is not None:
                if part.text in _REPLY_PARTS:
                    raise self.unsaid(node, f"the {part.text} of a reply")
        return super().leaf(node)

    def _data(self, got: str) -> Expr:
        return Name(self.answer, self.expressions.verbatim(got))

    def unsaid(self, node: Node, what: str) -> Unsaid:
        """The error about a node."""
        return Unsaid("not-said-in-view", what, self._at(node))


def pending_in(node: Node, flags: frozenset[str]) -> frozenset[str]:
    """Flags that code sets to false whatever becomes of its request: at the end, or on both ways. `node` is
    the function."""
    at_end: set[str] = set()
    for one in node.walk():
        if one.type == "finally_clause":
            at_end |= set(_falses(one))
        chain = _chain(one)
        if chain is not None and chain.at_end is not None:
            at_end |= set(_falses(chain.at_end))
        ways = [chain.failed, *chain.then[-1:]] if chain is not None and chain.failed else []
        if chain is not None and chain.failed is not None and len(ways) > 1 and not _leave(ways):
            at_end |= set(_falses(chain.failed)) & set(_falses(chain.then[-1]))
        if one.type == "try_statement":
            body, handler = one.child("body"), one.child("handler")
            if body is None or _leave([body, *([handler] if handler is not None else [])]):
                # A way out on the way: what stands further on may never run.
                continue
            if handler is not None:
                at_end |= set(_falses(handler)) & set(_falses(body))
            for each in _behind(one):
                at_end |= set(_falses(each))
    return frozenset(at_end) & flags


def _leave(ways: list[Node]) -> bool:
    """Whether statements may end their function early: by `return`, or in a `catch` by `throw`."""
    return any(
        each.type == "return_statement"
        or (each.type == "throw_statement" and way.type == "catch_clause")
        for way in ways
        for each in way.walk()
    )


def _falses(node: Node) -> Iterator[str]:
    """The names of members that statements set to false, whatever happens."""
    inner = _function_body(node) if node.is_function else node
    if inner.type in ("catch_clause", "finally_clause"):
        inner = inner.child("body") or inner
    statements = inner.named_children if inner.type == "statement_block" else [inner]
    for one in statements:
        bare = _bare(one.named_children[0] if one.type == "expression_statement" else one)
        if bare.type != "assignment_expression":
            continue
        target, value = bare.child("left"), bare.child("right")
        part = target.child("property") if target is not None else None
        if part is not None and value is not None and value.text == "false":
            yield part.text


def _behind(node: Node) -> Iterator[Node]:
    found = False
    for one in node.parent.named_children if node.parent is not None else ():
        if found:
            yield one
        found = found or one is node


def _follows(node: Node) -> bool:
    """Whether statements stand behind one that does not wait."""
    inner = node.named_children[0]
    return inner.type != "await_expression" and any(True for _ in _behind(node))


def _bare(node: Node) -> Node:
    while node.type == "parenthesized_expression":
        node = node.named_children[0]
    return node


def _awaited(node: Node) -> Node:
    node = _bare(node)
    return _bare(node.named_children[0]) if node.type == "await_expression" else node


def _fetched(node: Node) -> Node | None:
    """The address of a plain request; None for another call."""
    callee, given = node.child("function"), node.child("arguments")
    if node.type != "call_expression" or callee is None or given is None:
        return None
    plain = callee.text in ("fetch", "window.fetch") and len(given.named_children) == 1
    return given.named_children[0] if plain else None


def _json_receiver(node: Node) -> Node | None:
    """The reply that a call of `json` reads, None for another expression."""
    callee = node.child("function") if node.type == "call_expression" else None
    part = callee.child("property") if callee is not None else None
    if callee is None or part is None or part.text != "json":
        return None
    return callee.child("object")


def _json_of(node: Node) -> str:
    """The name of the reply whose data a call reads, "" for another one."""
    of = _json_receiver(node)
    return of.text if of is not None and of.type == "identifier" else ""


def _chain(node: Node) -> Chain | None:
    """A request with its functions; None for another expression."""
    calls: list[tuple[str, Node]] = []
    while node.type == "call_expression":
        callee, given = node.child("function"), node.child("arguments")
        part = callee.child("property") if callee is not None else None
        of = callee.child("object") if callee is not None else None
        if part is None or of is None or part.text not in _CHAIN or given is None:
            break
        if len(given.named_children) != 1 or not given.named_children[0].is_function:
            return None
        calls.append((part.text, given.named_children[0]))
        node = of
    address = _fetched(node)
    if address is None or not calls:
        return None
    made = Chain(address)
    for kind, function in reversed(calls):
        if kind == "then" and made.failed is None and made.at_end is None:
            made.then.append(function)
        elif kind == "catch" and made.failed is None and made.at_end is None:
            made.failed = function
        elif kind == "finally" and made.at_end is None:
            made.at_end = function
        else:
            return None
    return made


def _parameters(function: Node) -> list[Node]:
    one = function.child("parameter")
    listed = function.child("parameters")
    given = [one] if one is not None else listed.named_children if listed is not None else []
    return [each.child("pattern") or each for each in given]


def _function_body(function: Node) -> Node:
    body = function.child("body")
    assert body is not None
    return body
