"""Uses of a class's own methods, fields and hooks."""

from __future__ import annotations

from clean_carry.component.code import (
    FieldUse,
    Member,
    MethodCall,
    MethodValue,
    Operation,
    SetterCall,
)
from clean_carry.source.javascript.callback_this import given_this
from clean_carry.source.javascript.scope import is_write
from clean_carry.source.javascript.timing import in_handler
from clean_carry.source.javascript.tree import Node
from clean_carry.source.javascript.values import last_name, property_name
from clean_carry.syntaxes.jsx_class.uses.callback_identity import place_of
from clean_carry.syntaxes.jsx_class.uses.operations import (
    ClassFacts,
    add,
    leave,
    part_of_object,
    reader,
)
from clean_carry.syntaxes.jsx_class.uses.receivers import Receiver


@reader("method-use")
def _method_use(facts: ClassFacts, use: Receiver, node: Node) -> None:
    part = node.child("property")
    name = (property_name(part) if part is not None else None) or ""
    parent = node.parent
    if is_write(node):
        if name not in facts.setters or not _sets(facts, node, name):
            facts.refuse("method-replaced", name, node.start)
        return
    if name not in facts.methods:
        facts.refuse("method-replaced", f"{name} has a setter and no getter", node.start)
        return
    if not facts.deferred(node) and _is_assigned_after(facts, node, name):
        facts.refuse("initial-needs-method", name, node.start)
        return
    called = parent is not None and parent.type == "call_expression" and node.field == "function"
    if name in facts.getters or called:
        _method_call(facts, node, name, getter=name in facts.getters)
        return
    whole, bound = node, None
    if given_this(node) is not None and parent is not None and parent.type == "arguments":
        # It is called with the instance, as one that is bound: only the argument behind it goes.
        bound = []
    if parent is not None and parent.type == "member_expression":
        call = _bind_call(parent)
        if call is None:
            member = Member("method", name.lstrip("#"))
            if _called_on_itself(facts, node, member, facts.deferred(node)):
                facts.raws[-1].member = name
            else:
                leave(facts, node, "method-as-object", name)
            return
        arguments = call.child("arguments")
        given = arguments.named_children if arguments is not None else []
        if not given or (given[0].type != "this" and not _is_arrow(facts, name, given[0])):
            leave(facts, node, "instance-escapes", f"{name} is bound to something else")
            return
        whole, bound = call, given[1:]
    _method_value(facts, node, name, whole, bound)


def _bind_call(member: Node) -> Node | None:
    """The call `this.go.bind(…)` a member expression on a method is the function of."""
    part, call = member.child("property"), member.parent
    binds = part is not None and part.text == "bind" and member.field == "function"
    return call if binds and call is not None and call.type == "call_expression" else None


def _method_call(facts: ClassFacts, node: Node, name: str, *, getter: bool) -> None:
    """A call of a method; a getter is called where its name is read."""
    span, member = facts.span(node), Member("method", name.lstrip("#"))
    deferred, handled = facts.deferred(node), in_handler(node, facts.root_of(node))
    add(
        facts,
        node,
        "getter" if getter else "method-call",
        lambda entry: MethodCall(span, entry, deferred, member, getter, handled=handled),
    )
    facts.raws[-1].member = name


def _method_value(
    facts: ClassFacts, node: Node, name: str, whole: Node, bound: list[Node] | None
) -> None:
    """Read a method that is passed on as a value; `bound` are its bound arguments."""
    place, receiver = place_of(whole)
    deferred = facts.deferred(node) or facts.deferred(node, is_function=True)
    handed = _is_handed(whole, facts.root_of(node))
    key, part = part_of_object(whole) if not bound else ("", whole)
    span, member = facts.span(part), Member("method", name.lstrip("#"))

    def build(entry: int) -> Operation:
        codes = None
        if bound is not None:
            codes = tuple(facts.code(facts.span(argument)) for argument in bound)
        return MethodValue(span, entry, deferred, member, place, receiver, codes, handed, key)

    add(facts, whole, "method-value", build)
    facts.raws[-1].span = span
    facts.raws[-1].member = name


def _sets(facts: ClassFacts, node: Node, name: str) -> bool:
    """Read `this.name = value;` as a call of the setter; False where more is done with it."""
    assignment = node.parent
    value = assignment.child("right") if assignment is not None else None
    if assignment is None or value is None:
        return False
    if assignment.type != "assignment_expression":
        return False
    whole = assignment
    while whole.parent is not None and whole.parent.type == "parenthesized_expression":
        whole = whole.parent
    above = whole.parent
    if above is None or not (
        above.type == "expression_statement"
        or (above.type == "arrow_function" and whole.field == "body")
    ):
        return False
    member, span = Member("method", f"{name}="), facts.span(whole)
    deferred, given = facts.deferred(node), facts.span(value)
    handled = in_handler(node, facts.root_of(node))
    add(
        facts, whole, "setter-call",
        lambda entry: SetterCall(
            span, entry, deferred, member, handled=handled, value=facts.code(given, kept=False)
        ),
    )  # fmt: skip
    facts.raws[-1].member = f"{name}="
    return True


# Functions that keep a function to call it later, however imported: common names for calling less often.
_CALL_LATER = frozenset({"throttle", "debounce"})


def _is_handed(node: Node, root: Node) -> bool:
    """Whether a function that may call it at once is passed a value, itself or inside of another."""
    for above in node.up():
        if above is root or above.is_function:
            return False
        if above.type == "arguments" and above.parent is not None:
            if last_name(above.parent.child("function")) not in _CALL_LATER:
                return True
    return False


def _is_assigned_after(facts: ClassFacts, node: Node, name: str) -> bool:
    """Whether a field's value names a method that is itself a field further down: there is none yet."""
    body = facts.node.child("body")
    field = next((up for up in node.up() if up.parent is body), None)
    value = field.child("value") if field is not None else None
    if body is None or field is None or value is None or value.is_function:
        return False
    for member in body.named_children:
        key = member.child("name")
        if member.type == field.type and key is not None and key.text == name:
            return member.start >= field.start
    return False


def _is_arrow(facts: ClassFacts, name: str, given: Node) -> bool:
    """Whether a method has the instance whatever it is bound to, which is nothing."""
    body = facts.node.child("body")
    for member in body.named_children if body is not None else ():
        key, value = member.child("name"), member.child("value")
        if key is not None and property_name(key) == name and value is not None:
            return value.type == "arrow_function" and given.text in ("null", "undefined")
    return False


def _called_on_itself(facts: ClassFacts, node: Node, member: Member, deferred: bool) -> bool:
    """Read `this.m.call(this, a)` or `this.m.apply(this, list)` as a call; False where it is none."""
    asked = node.parent
    call = asked.parent if asked is not None else None
    part = asked.child("property") if asked is not None else None
    arguments = call.child("arguments") if call is not None else None
    given = arguments.named_children if arguments is not None else []
    if call is None or part is None or arguments is None or asked is None:
        return False
    if call.child("function") is not asked or not given or given[0].type != "this":
        return False
    spread = part.text == "apply" and len(given) > 1
    if part.text not in ("call", "apply") or (spread and not _is_list(facts, given[1])):
        return False
    end = given[1].start if len(given) > 1 else arguments.end - 1
    if any(node.end <= comment.start < end for comment in facts.tree.comments):
        return False
    facts.handled.add(id(given[0]))
    span = facts.tree.source.span(node.start, end)
    opens = "(..." if spread else "("
    add(
        facts,
        node,
        "method-call",
        lambda entry: MethodCall(span, entry, deferred, member, opens=opens),
        end=end,
    )
    return True


def _is_list(facts: ClassFacts, value: Node) -> bool:
    """Whether a value is seen to be a list: what may be nothing cannot be spread."""
    if value.type == "array" or value.text == "arguments":
        return True
    if value.type == "call_expression":
        callee = value.child("function")
        part = callee.child("property") if callee is not None else None
        return part is not None and part.text in _GIVE_LISTS
    binding = facts.names.meaning(value) if value.type == "identifier" else None
    above = binding.node.parent if binding is not None else None
    return above is not None and above.type == "rest_pattern"


# Methods of lists that give one (ECMA-262 §23.1.3).
_GIVE_LISTS = frozenset({"concat", "slice", "map", "filter"})


@reader("field-use")
def _field_use(facts: ClassFacts, use: Receiver, node: Node) -> None:
    part = node.child("property")
    name = (property_name(part) if part is not None else None) or ""
    parent = node.parent
    if parent is not None and parent.type == "unary_expression" and parent.has("delete"):
        leave(facts, node, "unknown-use", f"delete this.{name}")
        return
    span, deferred, write = facts.span(node), facts.deferred(node), is_write(node)
    kind = Member("element" if name in facts.elements else "field", name.lstrip("#"))
    if kind.kind == "element" and write:
        facts.refuse("reference-replaced", name, node.start)
        return
    declares = write and _declares(facts, node)
    handled = in_handler(node, facts.root_of(node))
    add(
        facts,
        node,
        "field-use",
        lambda entry: FieldUse(span, entry, deferred, kind, write, declares, handled),
    )
    facts.raws[-1].member = name


def _declares(facts: ClassFacts, node: Node) -> bool:
    assignment = node.parent
    statement = assignment.parent if assignment is not None else None
    if assignment is None or assignment.type != "assignment_expression" or statement is None:
        return False
    return statement.type == "expression_statement" and statement.parent is facts.root_of(
        node
    ).child("body")


@reader("hook-use")
def _hook_use(facts: ClassFacts, use: Receiver, node: Node) -> None:
    facts.refuse("hook-called", node.text, node.start)
