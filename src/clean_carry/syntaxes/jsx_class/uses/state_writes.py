"""State writes and patterns over inputs or state."""

from __future__ import annotations

from clean_carry.component.code import (
    Binding,
    Code,
    Operation,
    Patch,
    PatternRead,
    Position,
    StateWrite,
    Updater,
)
from clean_carry.component.spans import Span
from clean_carry.source.javascript.scope import Scope
from clean_carry.source.javascript.timing import in_handler
from clean_carry.source.javascript.tree import Node
from clean_carry.source.javascript.values import (
    is_constant,
    is_function,
    plain_fields,
    property_name,
)
from clean_carry.syntaxes.jsx.positions import position_of
from clean_carry.syntaxes.jsx_class.uses.callback_identity import place_of
from clean_carry.syntaxes.jsx_class.uses.operations import (
    ClassFacts,
    add,
    hands_function_on,
    leave,
    reader,
)
from clean_carry.syntaxes.jsx_class.uses.receivers import Receiver


@reader("state-write")
def _state_write(facts: ClassFacts, use: Receiver, node: Node) -> None:
    call = node.parent
    if call is None or call.type != "call_expression" or node.field != "function":
        leave(facts, node, "state-writer-as-value")
        return
    arguments = call.child("arguments")
    given = arguments.named_children if arguments is not None else []
    after = given[1] if len(given) == 2 else None
    if after is not None and not _may_come_after(facts, after):
        leave(facts, node, "write-callback")
        return
    if len(given) not in (1, 2):
        leave(facts, node, "patch-not-literal")
        return
    argument = given[0]
    span, deferred = facts.span(call), facts.deferred(call)
    position, callee = position_of(call), facts.span(node)
    if argument.type == "object":
        fields = plain_fields(argument)
        if fields is None:
            _add_open(facts, call, argument, (position, callee), after, may_be_other=False)
            return

        def build(entry: int) -> Operation:
            patches = tuple(patch_of(facts, argument, name, value) for name, value in fields)
            code = facts.code(facts.span(argument), kept=False)
            then = _after(facts, after)
            return StateWrite(span, entry, deferred, position, code, callee, patches, after=then)

        add(facts, call, "state-write", build)
        return
    if argument.type in ("arrow_function", "function_expression"):
        problem = _updater_problem(facts, argument)
        if problem:
            leave(facts, node, problem)
            return

        def build_updater(entry: int) -> Operation:
            code = facts.code(facts.span(argument), kept=False)
            updater = _updater(facts, argument, code)
            then = _after(facts, after)
            return StateWrite(
                span, entry, deferred, position, code, callee, None, updater, after=then
            )

        add(facts, call, "state-write", build_updater)
        return
    if argument.type in ("spread_element", "this"):
        leave(facts, node, "patch-not-literal")
        return
    _add_open(facts, call, argument, (position, callee), after, may_be_other=True)


def _may_come_after(facts: ClassFacts, callback: Node) -> bool:
    """Whether what a write is followed by can be called from elsewhere."""
    kinds = ("arrow_function", "function_expression", "identifier", "member_expression")
    return callback.type in kinds


def _after(facts: ClassFacts, callback: Node | None) -> Code | None:
    return facts.code(facts.span(callback)) if callback is not None else None


def _add_open(
    facts: ClassFacts,
    call: Node,
    argument: Node,
    stands: tuple[Position, Span],
    after: Node | None,
    *,
    may_be_other: bool,
) -> None:
    """A write of what the argument gives."""
    span, deferred = facts.span(call), facts.deferred(call)
    takes_inputs = may_be_other and _may_take_inputs(facts, argument)

    def build(entry: int) -> Operation:
        code = facts.code(facts.span(argument))
        then = _after(facts, after)
        return StateWrite(
            span, entry, deferred, stands[0], code, stands[1], open=may_be_other, after=then,
            gives_inputs=takes_inputs,
        )  # fmt: skip

    add(facts, call, "state-write", build)


def _may_take_inputs(facts: ClassFacts, argument: Node) -> bool:
    """Whether what is written may be an updater that takes the inputs: a function of the file with two
    parameters, what a function of the file gives, or a function that is not seen."""
    named = argument.child("function") if argument.type == "call_expression" else argument
    binding = (
        facts.names.meaning(named) if named is not None and named.type == "identifier" else None
    )
    if binding is None or binding.kind == "param":
        return False
    if binding.kind == "import":
        return True
    declared = binding.node.parent
    value = declared.child("value") if declared is not None else None
    function = value if value is not None else declared
    if function is None or not function.is_function:
        return False
    if argument.type == "identifier":
        return len(_parameters(function)) > 1
    return any(
        below.is_function and below is not function and len(_parameters(below)) > 1
        for below in function.walk()
    )


def patch_of(facts: ClassFacts, literal: Node, name: str, value: Node | None) -> Patch:
    if value is None:
        binding = facts.names.scope_at(literal).find(name)
        return Patch(name, None, False, binding is not None and _is_held(facts, binding.node))
    again = _may_be_held(facts, value)
    constant = is_constant(value)
    held = f"this.state.{name}"
    code, flips = facts.code(facts.span(value)), value.text == f"!{held}"
    return Patch(name, code, is_function(value), again, constant, flips, _is_fresh(value, held))


def _is_fresh(value: Node, held: str) -> bool:
    """Whether a value is never the one a field holds, which is read as `held`: a literal with insides, the
    negation, or a number more or less."""
    while value.type == "parenthesized_expression":
        value = value.named_children[0]
    if value.type in ("object", "array", "arrow_function", "function_expression"):
        return True
    if value.type == "binary_expression" and (value.has("+") or value.has("-")):
        left, right = value.named_children
        return left.text == held and right.type == "number" and bool(right.text.strip("0."))
    return value.text == f"!{held}"


# Methods that return the array they were called on (ECMA-262 §23.1.3).
_IN_PLACE = frozenset({"sort", "reverse", "fill", "copyWithin"})


def _may_be_held(facts: ClassFacts, value: Node) -> bool:
    """Whether a value may be the very object the state holds already."""
    while value.type in ("parenthesized_expression", "non_null_expression", "as_expression"):
        value = value.named_children[0]
    if value.type == "identifier":
        binding = facts.names.meaning(value)
        return binding is not None and _is_held(facts, binding.node)
    if value.type == "call_expression":
        callee = value.child("function")
        part = callee.child("property") if callee is not None else None
        if callee is not None and part is not None and part.text in _IN_PLACE:
            return _may_be_held(facts, callee.children[0])
        return False
    return value.type in ("member_expression", "subscript_expression") and _of_state(facts, value)


def _of_state(facts: ClassFacts, node: Node) -> bool:
    """Whether a node reads the state, or the state is what it names."""
    if node.text.startswith("this.state"):
        return True
    base = node.children[0] if node.type != "identifier" else node
    if base.type != "identifier":
        return base.type in ("member_expression", "subscript_expression") and _of_state(facts, base)
    return base.text == "state" and facts.names.meaning(base) is not None


def _is_held(facts: ClassFacts, declared: Node) -> bool:
    """Whether a name was taken from the state by a declaration."""
    for above in declared.up():
        if above.type == "variable_declarator":
            value = above.child("value")
            if value is None:
                return False
            if declared.parent is above:
                return _may_be_held(facts, value)
            return value.text == "this.state" or _of_state(facts, value)
        if not above.type.endswith("pattern"):
            return False
    return False


def _updater_problem(facts: ClassFacts, function: Node) -> str:
    parameters = _parameters(function)
    if parameters and parameters[0].type not in ("identifier", "object_pattern"):
        return "patch-not-literal"
    if function.has("async"):
        return "patch-not-literal"
    return ""


def _parameters(function: Node) -> list[Node]:
    single = function.child("parameter")
    if single is not None:
        return [single]
    parameters = function.child("parameters")
    found = []
    for part in parameters.named_children if parameters is not None else []:
        pattern = part.child("pattern")
        found.append(pattern if pattern is not None else part)
    return found


def _updater(facts: ClassFacts, function: Node, code: Code) -> Updater:
    parameters = _parameters(function)
    name = ""
    scope = facts.names.inner_scope(function)
    assert scope is not None
    own: list[tuple[Span, str]] | None = []
    if parameters and parameters[0].type == "identifier":
        name = parameters[0].text
        own = _reads_of(facts, scope, name)
    elif parameters:
        own = _reads_of_pattern(facts, scope, parameters[0])
    body = function.child("body")
    result = None
    if own is not None and body is not None and body.type == "parenthesized_expression":
        inner = body.named_children[0] if len(body.named_children) == 1 else None
        fields = plain_fields(inner) if inner is not None and inner.type == "object" else None
        if fields is not None and not any(value is None for _, value in fields):
            result = tuple(
                Patch(
                    field,
                    Code(facts.span(value), _within(code, value)),
                    function=False,
                    flips=value.text == f"!{name}.{field}" if name else value.text == f"!{field}",
                    fresh=_is_fresh(value, f"{name}.{field}" if name else field),
                )
                for field, value in fields
                if value is not None
            )
    may_skip = body is None or _may_be_null(body)
    return Updater(code, name, tuple(own or ()), result, may_skip, len(parameters) > 1)


def _reads_of(facts: ClassFacts, scope: Scope, name: str) -> list[tuple[Span, str]] | None:
    """The reads `name.field` of a parameter; None where it is used in another way."""
    binding = scope.names.get(name)
    own: list[tuple[Span, str]] = []
    for ref in binding.references if binding is not None else ():
        above = ref.parent
        part = above.child("property") if above is not None else None
        if (
            above is None
            or above.type != "member_expression"
            or ref.field != "object"
            or part is None
        ):
            return None
        own.append((facts.span(above), part.text))
    return own


def _reads_of_pattern(
    facts: ClassFacts, scope: Scope, pattern: Node
) -> list[tuple[Span, str]] | None:
    """The reads of the plain names of a pattern; None where it holds more."""
    own: list[tuple[Span, str]] = []
    for part in pattern.named_children:
        if part.type != "shorthand_property_identifier_pattern":
            return None
        binding = scope.names.get(part.text)
        for ref in binding.references if binding is not None else ():
            if ref.type == "shorthand_property_identifier":
                return None
            own.append((facts.span(ref), part.text))
    return own


def _within(code: Code, node: Node) -> tuple[Operation, ...]:
    return tuple(
        o for o in code.operations if node.start <= o.span.start and o.span.end <= node.end
    )


def _may_be_null(body: Node) -> bool:
    """Whether an updater may give nothing, or what is not seen to be an object."""
    if body.type == "statement_block":
        given = _given_back(body)
        ends = bool(body.named_children) and body.named_children[-1].type == "return_statement"
        return not ends or any(value is None or _may_be_null(value) for value in given)
    stack = [body]
    while stack:
        here = stack.pop()
        if here.type in ("null", "undefined", "identifier", "call_expression"):
            return True
        if here.type in ("parenthesized_expression", "ternary_expression", "binary_expression"):
            stack.extend(here.named_children)
    return False


def _given_back(body: Node) -> list[Node | None]:
    """Return the results of a function's return statements; None for a function without a result."""
    found: list[Node | None] = []
    stack = [body]
    while stack:
        here = stack.pop()
        if here.type == "return_statement":
            found.append(here.named_children[0] if here.named_children else None)
        elif not here.is_function:
            stack.extend(here.named_children)
    return found


@reader("pattern-read")
def _pattern_read(facts: ClassFacts, use: Receiver, node: Node) -> None:
    """`const { a, b: c = 1, ...rest } = this.props` and the like."""
    declarator = node.parent
    declaration = declarator.parent if declarator is not None else None
    assert declarator is not None and declaration is not None
    target = declarator.child("name")
    assert target is not None
    source = "props" if use.means == "props" or node.text.endswith("props") else "state"
    if use.means == "state":
        source = "state"
    if declaration.type not in ("lexical_declaration", "variable_declaration"):
        leave(facts, node, "unknown-use", "a pattern here")
        return
    deferred = facts.deferred(node)
    snapshot = use.alias is not None and use.means != "this"
    if snapshot and use.alias is not None and deferred and not facts.deferred(use.alias):
        leave(facts, node, "snapshot-alias")
        return
    around = declaration.parent
    in_block = around is not None and around.type in ("statement_block", "switch_case")
    only = len(declaration.named_children) == 1 and in_block
    keyword = declaration.children[0].type
    bindings, rest = _bindings(facts, target, keyword)
    root = facts.root_of(node)
    body = root.child("body")
    held = root.parent if root.field == "value" else None
    name = (held or root).child("name")
    top = around is body and name is not None and name.text == "render"
    whole = declaration if only else declarator
    span, right = facts.span(whole), facts.span(node)

    def build(entry: int) -> Operation:
        pattern = facts.code(facts.span(target), kept=False)
        return PatternRead(
            span,
            entry,
            deferred,
            "props" if source == "props" else "state",
            bindings,
            rest,
            keyword,
            pattern,
            right,
            only,
            top,
        )

    add(facts, whole, "pattern-read", build)


def _bindings(
    facts: ClassFacts, target: Node, keyword: str
) -> tuple[tuple[Binding, ...] | None, str]:
    found: list[Binding] = []
    rest = ""
    plain = True
    scope = facts.names.scope_at(target)
    for part in target.named_children:
        if part.type == "shorthand_property_identifier_pattern":
            key = local = part.text
        elif part.type == "pair_pattern":
            key_node, value = part.child("key"), part.child("value")
            name = property_name(key_node) if key_node is not None else None
            if name is None or value is None or value.type != "identifier":
                plain = False
                continue
            key, local = name, value.text
        elif part.type == "rest_pattern":
            rest = part.named_children[0].text if part.named_children else ""
            continue
        else:
            plain = False
            continue
        binding = scope.find(local)
        constant = binding is not None and not binding.written
        at = binding.node.start if binding is not None else part.start
        references = binding.references if binding is not None else []
        called = any(
            (ref.field == "function" or hands_function_on(facts, ref, key))
            and not in_handler(ref, facts.root_of(ref))
            for ref in references
        )
        reference = any(place_of(ref)[0] == "reference" for ref in references)
        found.append(Binding(key, local, constant, at, called, reference))
    return (tuple(found) if plain else None), rest
