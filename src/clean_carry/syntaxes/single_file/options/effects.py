"""Effects that hooks start: the framework follows the values they read."""

from __future__ import annotations

from collections.abc import Iterator

from clean_carry.component.code import Operation, Respelled
from clean_carry.component.members import Followed
from clean_carry.component.spans import Span
from clean_carry.source.javascript.scope import is_write
from clean_carry.source.javascript.tree import Node
from clean_carry.syntaxes.single_file.options.functions import attached, flows
from clean_carry.syntaxes.single_file.options.read_options import Gathered
from clean_carry.syntaxes.single_file.runtime_import import RUNTIME
from clean_carry.syntaxes.uses import Raw, Uses

# The runtime's functions that start an effect, and whether it waits until all is rendered (its reference,
# "watchEffect()" and "watchPostEffect()").
_STARTS = {"watchEffect": False, "watchPostEffect": True}
_BRANCHES = frozenset(
    "if_statement ternary_expression switch_statement for_statement for_in_statement "
    "while_statement".split()
)
_SHORT = ("&&", "||", "??", "?.")
_RULE = "effect-apart"


def effects_in(uses: Uses) -> list[tuple[Node, bool, Node]]:
    """Return (statement, whether it waits for the render, function) of each effect that can be
    followed."""
    found = []
    for call in uses.tree.of("call_expression"):
        name, statement = _imported(uses, call.child("function")), call.parent
        if (
            name not in (*_STARTS, "watch")
            or statement is None
            or statement.type != "expression_statement"
        ):
            continue
        arguments = call.child("arguments")
        given = arguments.named_children if arguments is not None else []
        if name == "watch":
            if _follows_what_it_reads(uses, given):
                found.append((statement, True, given[1]))
            continue
        function = given[0] if given else None
        if function is None or function.type != "arrow_function" or function.has("async"):
            continue
        post = _STARTS[name]
        if len(given) == 2 and "".join(given[1].text.split()).strip("{,}") in _POST:
            post = True
        elif len(given) != 1:
            continue
        found.append((statement, post, function))
    return found


_POST = ("flush:'post'", 'flush:"post"')


def _follows_what_it_reads(uses: Uses, given: list[Node]) -> bool:
    """Whether a watcher names just the members that its function reads, and runs at once after the render:
    then it is an effect that follows what it reads."""
    if len(given) != 3 or given[1].type != "arrow_function" or given[1].has("async"):
        return False
    options = {part.strip() for part in "".join(given[2].text.split()).strip("{}").split(",")}
    if not {"immediate:true"} < options or not options - {"immediate:true"} <= set(_POST):
        return False
    sources = given[0].named_children if given[0].type == "array" else [given[0]]
    named = {one.text.replace(" ", "").removeprefix("()=>this.") for one in sources}
    parameters = given[1].child("parameters")
    scope = uses.names.inner_scope(given[1])
    for one in (parameters.named_children if parameters is not None else [])[:2]:
        pattern = one.child("pattern") or one
        binding = scope.names.get(pattern.text) if scope is not None else None
        if binding is None or binding.references:
            return False
    read = set()
    for node in given[1].walk():
        if node.type != "member_expression" or node.children[0].type != "this":
            continue
        if not is_write(node):
            read.add(node.named_children[-1].text)
    return read == named


def _imported(uses: Uses, callee: Node | None) -> str:
    """The runtime's name of what a plain name stands for; "" where it is not imported from there."""
    if callee is None or callee.type != "identifier":
        return ""
    binding = uses.names.meaning(callee)
    if binding is None or binding.kind != "import":
        return ""
    statement = next((up for up in binding.node.up() if up.type == "import_statement"), None)
    origin = statement.child("source") if statement is not None else None
    if origin is None or origin.text[1:-1] != RUNTIME:
        return ""
    above = binding.node if binding.node.type == "import_specifier" else binding.node.parent
    name = above.child("name") if above is not None else None
    return name.text if name is not None else ""


def read_effects(gathered: Gathered, function: Node, displayed: bool) -> bool:
    """Read the effects at the end of a hook as members of their own; return True if nothing else
    stood in it."""
    uses = gathered.uses
    body = function.child("body")
    if not gathered.members.neutral or body is None or not flows(function):
        return False
    known = {statement.start: (post, made) for statement, post, made in effects_in(uses)}
    statements = body.named_children
    first = len(statements)
    while first and _can_stand_alone(uses, statements[first - 1], known, displayed):
        first -= 1
    for statement in statements[first:]:
        post, made = known[statement.start]
        gathered.parts.append(_followed(uses, statement, made, post or displayed))
    if first and first < len(statements):
        _take_out(uses, statements[first - 1].end, statements[-1].end)
    return not first and bool(statements)


def _can_stand_alone(
    uses: Uses, statement: Node, known: dict[int, tuple[bool, Node]], displayed: bool
) -> bool:
    if statement.start not in known:
        return False
    post, function = known[statement.start]
    # Before anything is displayed there is no element: the new effect, which runs later, would find it.
    early = not post and not displayed
    if early and any(n.text == "$refs" for n in function.walk() if n.type == "property_identifier"):
        return False
    return _end_of(uses, function) is not None and not _uses_locals(uses, function)


def _uses_locals(uses: Uses, function: Node) -> bool:
    """Whether an effect reads names that only exist in the function around it."""
    for _, binding in uses.names.references_in(function):
        if binding is None or binding.scope is uses.names.module:
            continue
        if not function.start <= binding.node.start < function.end:
            return True
    return False


def _end_of(uses: Uses, function: Node) -> tuple[Node, ...] | None:
    """The last statement of an effect, where it only gives what ends it; () where nothing does, None where
    it is given elsewhere."""
    parameters, body = function.child("parameters"), function.child("body")
    given = parameters.named_children if parameters is not None else []
    if function.parent is not None and function.parent.named_children[0] is not function:
        # A watcher's function is given two values first.
        given = given[2:]
        if not given:
            return ()
    scope = uses.names.inner_scope(function)
    if not given:
        return () if function.child("parameter") is None else None
    pattern = given[0].child("pattern") or given[0]
    binding = scope.names.get(pattern.text) if scope is not None else None
    if len(given) > 1 or binding is None or body is None or body.type != "statement_block":
        return None
    statements = body.named_children
    call = (
        statements[-1].named_children[0] if statements and statements[-1].named_children else None
    )
    callee = call.child("function") if call is not None and call.type == "call_expression" else None
    if callee is None or [ref.start for ref in binding.references] != [callee.start]:
        return () if not binding.references else None
    returns = any(
        n.type == "return_statement" and next(up for up in n.up() if up.is_function) is function
        for n in function.walk()
    )
    return None if returns or call is None else (statements[-1], call)


def _followed(uses: Uses, statement: Node, function: Node, drawn: bool) -> Followed:
    body = function.child("body")
    assert body is not None
    entry = uses.ledger.claim("reaction", uses.span(statement))
    block = body.type == "statement_block"
    ends = _end_of(uses, function)
    if ends:
        _, call = ends
        arguments = call.child("arguments")
        assert arguments is not None
        given = arguments.named_children[0]
        _respell(uses, uses.tree.source.span(call.start, given.start), "return ")
        _respell(uses, uses.tree.source.span(given.end, call.end), "")
        uses.sort()
    inner = uses.tree.source.span(body.start + block, body.end - block)
    text = uses.code(inner, kept=False)
    if block:
        uses.ledger.claim("code", inner, "kept")
    branching = any(_branches(function)) and any(_calls(function))
    return Followed(text, drawn, not block, branching, entry, attached(uses, statement))


def _branches(function: Node) -> Iterator[Node]:
    for node in function.walk():
        short = node.type == "binary_expression" and any(node.has(sign) for sign in _SHORT)
        if node.type in _BRANCHES or short or node.type == "return_statement":
            yield node


def _calls(function: Node) -> Iterator[Node]:
    """The calls of the component's own functions, and what is changed step by step."""
    for node in function.walk():
        callee = node.child("function") if node.type == "call_expression" else None
        if callee is not None and callee.text.startswith("this."):
            yield node
        if node.type in ("update_expression", "augmented_assignment_expression"):
            yield node


def _take_out(uses: Uses, start: int, end: int) -> None:
    """Leave effects out of the code they stand in, with what sets them off."""
    data = uses.tree.source.data
    if data[start : start + 1] == b";":
        start += 1
    _respell(uses, uses.tree.source.span(start, end), "")
    uses.sort()


def _respell(uses: Uses, span: Span, text: str) -> None:
    def build(entry: int) -> Operation:
        return Respelled(span, entry, False, text, _RULE)

    uses.raws.append(Raw(span, _RULE, build))
