"""Names declared by render code, and their replacements where there is no such code.

A template has no statements, so each name is replaced. A name for an input or a state field is read as
that field. A name for a value becomes a derived value of the component; inside of a list's function, or of
a helper that returns markup, the value is written in place of the name. Functions become functions of the
component, and markup is written where its name stood.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass, field

from clean_carry.component.code import Inlined, Member, MethodCall, MethodValue, Operation, Read
from clean_carry.source.javascript.scope import Binding, is_write
from clean_carry.source.javascript.tree import Node
from clean_carry.source.javascript.values import last_name, property_name, runs_code
from clean_carry.syntaxes.jsx.drawing.kinds import calls_only_known
from clean_carry.syntaxes.uses import Raw, Uses

# The finding for a value that is written out more than once.
_SHORT = 48
_MOST = 3
# Needs no parentheses wherever it is written.
_ATOMIC = frozenset(
    "identifier member_expression subscript_expression call_expression string number template_string array "
    "true false null parenthesized_expression this".split()
)
# Costs nothing wherever it is written.
_SIMPLE = frozenset("identifier member_expression subscript_expression string number".split())
# Props that no attribute stands for.
_NEVER_ATTRIBUTES = frozenset({"children", "className", "style", "key", "ref"})
_QUIET = frozenset(
    {"comment", "empty_statement", "type_alias_declaration", "interface_declaration"}
)


def holds_markup(node: Node) -> bool:
    """Whether JSX stands in a node, functions below it included."""
    return any(below.type.startswith("jsx_") for below in node.walk())


def body_of(function: Node) -> Node:
    """The body of a function: a block, or the expression it gives, without parentheses."""
    body = function.child("body")
    assert body is not None
    return bare(body)


def bare(node: Node) -> Node:
    """An expression without the parentheses and casts around it."""
    while node.type in ("parenthesized_expression", "as_expression", "non_null_expression"):
        node = node.named_children[0]
    return node


def parameters_of(function: Node) -> list[Node]:
    """The patterns of a function's parameters."""
    single = function.child("parameter")
    if single is not None:
        return [single]
    found = function.child("parameters")
    return [p.child("pattern") or p for p in (found.named_children if found is not None else ())]


@dataclass(frozen=True)
class Value:
    """A name of the render code, and its value."""

    binding: Binding
    value: Node
    statement: Node


@dataclass
class Locals:
    """Fills `uses.raws` with the values of names in render code.

    `part_of` says of an expression whether it is all inputs ("prop") or all state ("state"), `helper` gives
    the method a call renders by. After `read`, `derived` are values and `functions` functions of it,
    `markup` names that hold markup, `rests` rest objects of destructured props (`asked` are the props that
    code reads through one), `defaults` values that inputs get where they are read; `resolved` is
    where the names stand that are names no more.
    """

    uses: Uses
    part_of: Callable[[Node], str]
    helper: Callable[[Node], Node | None]
    derived: list[Value] = field(default_factory=list)
    functions: list[Value] = field(default_factory=list)
    markup: dict[int, list[Node]] = field(default_factory=dict)
    rests: dict[int, tuple[str, ...]] = field(default_factory=dict)
    asked: dict[tuple[str, ...], tuple[str, ...]] = field(default_factory=dict)
    # Where code reads a prop through the rest object (`others.title`), or deletes it from there.
    rest_parts: set[int] = field(default_factory=set)
    defaults: list[tuple[str, Node]] = field(default_factory=list)
    done: set[int] = field(default_factory=set)
    resolved: set[int] = field(default_factory=set)

    def read(self, function: Node) -> None:
        """Read the render function, and the functions it renders by."""
        self._function(function, top=True)

    def _function(self, function: Node, *, top: bool) -> None:
        if id(function) in self.done:
            return
        self.done.add(id(function))
        body = body_of(function)
        if body.type == "statement_block":
            self._block(body, top=top)
        else:
            self._below(body)

    def _block(self, block: Node, *, top: bool) -> None:
        for statement in block.named_children:
            self._statement(statement, top=top)

    def _statement(self, statement: Node, *, top: bool) -> None:
        match statement.type:
            case "lexical_declaration" | "variable_declaration":
                for declarator in statement.named_children:
                    self._declarator(declarator, statement, top=top)
            case "function_declaration" if top:
                self._named_function(statement, statement)
            case "if_statement":
                self._branches(statement, top=top)
            case "expression_statement":
                self._assigned(statement)
            case "return_statement":
                self._below(statement)
            case kind if kind not in _QUIET:
                self.uses.refuse("drawn-by-statements", kind.replace("_", " "), statement.start)

    def _branches(self, statement: Node, *, top: bool) -> None:
        condition = statement.child("condition")
        if condition is not None:
            self._below(condition)
        for part in statement.children:
            if part.field not in ("consequence", "alternative"):
                continue
            inner = part.named_children[0] if part.type == "else_clause" else part
            if inner.type == "statement_block":
                self._block(inner, top=top)
            elif inner.type == "if_statement":
                self._branches(inner, top=top)
            elif inner.type == "expression_statement":
                self._assigned(inner)
            else:
                self._below(inner)

    def _assigned(self, statement: Node) -> None:
        """`body = <p/>`: markup for a name that is declared before."""
        if self._taken_away(statement):
            return
        assignment = statement.named_children[0]
        left, right = assignment.child("left"), assignment.child("right")
        binding = self.uses.names.meaning(left) if left is not None else None
        if (
            assignment.type != "assignment_expression" or right is None or binding is None
            or id(binding) not in self.markup
        ):  # fmt: skip
            self.uses.refuse("drawn-by-statements", statement.text[:40], statement.start)
            return
        self._below(right)

    def _declarator(self, declarator: Node, statement: Node, *, top: bool) -> None:
        target, value = declarator.child("name"), declarator.child("value")
        if target is None:
            return
        if target.type == "object_pattern" and value is not None:
            part = self.part_of(value)
            for piece in target.named_children:
                self._piece(piece, value, part)
            return
        if target.type != "identifier":
            self.uses.refuse("drawn-by-statements", f"a pattern {target.text[:40]}", target.start)
            return
        binding = self.uses.names.scope_at(target).find(target.text)
        assert binding is not None
        if value is None or binding.written or holds_markup(value):
            if value is not None and value.is_function:
                self.uses.refuse(
                    "drawn-by-statements", f"{target.text} draws, and is called", target.start
                )
            elif top and self._is_markup(binding, value):
                self.markup[id(binding)] = [declarator]
                self.resolved.add(binding.node.start)
                if value is not None:
                    self._below(value)
            else:
                self.uses.refuse(
                    "drawn-by-statements", f"{target.text} is written again", target.start
                )
            return
        if value.is_function and top:
            self._named_function(declarator, statement)
        elif top:
            self.derived.append(Value(binding, value, statement))
            self._reads(binding, lambda ref, head: self._derived_read(ref, target.text, head))
        else:
            self._written_out(binding, value, "")

    def _is_markup(self, binding: Binding, value: Node | None) -> bool:
        """Whether a name holds markup: each value it is given is, or is nothing."""
        given = [value] if value is not None else []
        for ref in binding.references:
            above = ref.parent
            if above is not None and above.type == "assignment_expression" and ref.field == "left":
                right = above.child("right")
                given += [right] if right is not None else []
        return any(holds_markup(one) for one in given)

    def _named_function(self, holder: Node, statement: Node) -> None:
        name = holder.child("name")
        assert name is not None
        binding = self.uses.names.scope_at(name).find(name.text)
        if binding is None or binding.written or holds_markup(holder):
            self.uses.refuse("drawn-by-statements", f"{name.text} draws, and is called", name.start)
            return
        self.functions.append(Value(binding, holder, statement))
        self._reads(binding, lambda ref, head: self._function_use(ref, name.text, head))

    def _piece(self, piece: Node, value: Node, part: str) -> None:
        """One part of a pattern over inputs, state, or any other value."""
        default = None
        if piece.type == "object_assignment_pattern":
            default, piece = piece.child("right"), piece.children[0]
        if piece.type == "rest_pattern" and part == "prop":
            name = piece.named_children[0]
            binding = self.uses.names.scope_at(name).find(name.text)
            siblings = piece.parent.named_children if piece.parent is not None else []
            keys = (_key(one) for one in siblings if one is not piece)
            if binding is not None:
                self.resolved.add(binding.node.start)
                named = [key for key in keys if key is not None]
                self._rest(binding, named)
                return
        key, local = _key(piece), piece
        if piece.type == "pair_pattern":
            inner = piece.child("value")
            if inner is not None and inner.type == "assignment_pattern":
                default, inner = inner.child("right"), inner.child("left")
            local = inner if inner is not None else piece
        plain = local.type in ("identifier", "shorthand_property_identifier_pattern")
        binding = self.uses.names.scope_at(local).find(local.text) if plain else None
        if key is None or binding is None or binding.written:
            self.uses.refuse("drawn-by-statements", f"a pattern {piece.text[:40]}", piece.start)
            return
        if default is not None:
            if part != "prop":
                self.uses.refuse("drawn-by-statements", f"a pattern {piece.text[:40]}", piece.start)
                return
            self.defaults.append((key, default))
        if part in ("prop", "state"):
            member = Member("prop" if part == "prop" else "state", key)
            self._reads(binding, lambda ref, head: self._read(ref, member, head))
        else:
            self._written_out(binding, value, f".{key}")

    def _rest(self, binding: Binding, named: list[str]) -> None:
        """Read the rest object of a destructured signature (`{ title, ...others }`).

        A prop that code reads through it (`others.id`) is named in the signature too; a prop that code
        deletes from it is not passed on.
        """
        asked: dict[str, None] = {}
        gone: dict[str, None] = {}
        for ref in binding.references:
            above = ref.parent
            key = _part_of(above) if above is not None and ref.field == "object" else None
            if above is None or key is None:
                continue
            if above.parent is not None and above.parent.has("delete"):
                gone.setdefault(key)
                self.rest_parts.add(ref.start)
            elif not is_write(above) and key not in _NEVER_ATTRIBUTES and not key.startswith("on"):
                asked.setdefault(key)
                self.rest_parts.add(ref.start)
                self._read(above, Member("prop", key), "")
        every = tuple(dict.fromkeys([*named, *asked, *gone]))
        self.rests[id(binding)] = every
        self.asked[every] = tuple(key for key in asked if key not in gone)

    def _taken_away(self, statement: Node) -> bool:
        """Whether a statement only removes one of the unnamed props, at every render."""
        taken = statement.named_children[0]
        part = taken.named_children[0] if taken.has("delete") and taken.named_children else None
        block = statement.parent
        function = block.parent if block is not None else None
        if part is None or not part.children or part.children[0].start not in self.rest_parts:
            return False
        if function is None or not function.is_function or holds_markup_before(block, statement):
            return False
        self.uses.ledger.claim("local", self.uses.span(statement), "carried", "rest-without")
        return True

    def _written_out(self, binding: Binding, value: Node, path: str) -> None:
        """Replace a name by its value. Long values, and those with effects, are not repeated."""
        count = len(binding.references)
        costly = len(value.text) > _SHORT or (runs_code(value) and not calls_only_known(value))
        simple = bare(value).type in _SIMPLE
        if count > 1 and (costly or (count > _MOST and not simple)):
            what = f"{binding.name} is used {count} times"
            self.uses.refuse("drawn-by-statements", what, binding.node.start)
            return
        if value.is_function:
            self.uses.refuse(
                "drawn-by-statements", f"{binding.name} is a function", binding.node.start
            )
            return
        plain = bare(value)
        grouped = plain.type not in _ATOMIC
        self._reads(
            binding,
            lambda ref, head: self._inlined(ref, plain, grouped and _inside(ref), path, head),
        )

    def _below(self, node: Node) -> None:
        """Read the functions below a node that return markup: those of lists, and helpers."""
        for below in node.walk():
            if below.is_function and holds_markup(below):
                self._function(below, top=False)
            elif below.type == "call_expression":
                arguments = below.child("arguments")
                given = arguments.named_children if arguments is not None else []
                drawn = self.helper(below)
                if drawn is None and is_map(below) and given:
                    drawn = self.helper(bare(given[0]))
                if drawn is not None:
                    self._function(drawn, top=False)

    # -- what stands for a name -------------------------------------------------------------

    def _reads(self, binding: Binding, add: Callable[[Node, str], None]) -> None:
        self.resolved.add(binding.node.start)
        for ref in binding.references:
            add(ref, f"{ref.text}: " if ref.type == "shorthand_property_identifier" else "")

    def add(self, ref: Node, notion: str, build: Callable[[int], Operation]) -> None:
        self.uses.raws.append(Raw(self.uses.span(ref), notion, build))

    def _read(self, ref: Node, member: Member, head: str) -> None:
        span, called = self.uses.span(ref), ref.field == "function"
        self.add(
            ref, f"{member.kind}-read",
            lambda entry: Read(span, entry, False, member, head, called=called),
        )  # fmt: skip

    def _derived_read(self, ref: Node, name: str, head: str) -> None:
        self._read(ref, Member("derived", name), head)

    def _function_use(self, ref: Node, name: str, head: str) -> None:
        span, member = self.uses.span(ref), Member("method", name)
        if ref.field == "function":
            self.add(ref, "method-call", lambda entry: MethodCall(span, entry, False, member))
        else:
            self.add(
                ref, "method-value",
                lambda entry: MethodValue(span, entry, False, member, "kept", shorthand=head),
            )  # fmt: skip

    def _inlined(self, ref: Node, value: Node, grouped: bool, path: str, head: str) -> None:
        span, given = self.uses.span(ref), self.uses.span(value)
        self.add(
            ref, "local-value",
            lambda entry: Inlined(
                span, entry, False, self.uses.code(given, kept=False), grouped, path, head
            ),
        )  # fmt: skip

    def stand_for(self, parameter: Node, value: Node) -> None:
        """A parameter of a helper, and what its one call gives it."""
        binding = self.uses.names.scope_at(parameter).find(parameter.text)
        if parameter.type != "identifier" or binding is None or binding.written:
            self.uses.refuse(
                "drawn-by-statements", f"a parameter {parameter.text[:40]}", parameter.start
            )
            return
        self._written_out(binding, value, "")


def holds_markup_before(block: Node | None, statement: Node) -> bool:
    """Whether markup stands before a statement of a block."""
    before = block.named_children if block is not None else []
    return any(holds_markup(one) for one in before if one.start < statement.start)


def _part_of(node: Node) -> str | None:
    """Return the name of the property that a member expression or a literal subscript reads."""
    if node.type == "member_expression":
        part = node.child("property")
        return part.text if part is not None else None
    index = node.child("index") if node.type == "subscript_expression" else None
    return property_name(index) if index is not None and index.type == "string" else None


def _inside(ref: Node) -> bool:
    """Whether a name stands inside of a larger expression."""
    above = ref.parent
    return above is not None and above.type not in (
        "jsx_expression", "arguments", "variable_declarator", "return_statement", "template_substitution",
        "parenthesized_expression", "pair", "array",
    )  # fmt: skip


def _key(piece: Node) -> str | None:
    """The name a part of a pattern takes."""
    if piece.type == "object_assignment_pattern":
        piece = piece.children[0]
    if piece.type == "pair_pattern":
        key = piece.child("key")
        return property_name(key) if key is not None else None
    return property_name(piece)


def returns_of(block: Node) -> Iterator[Node]:
    """The statements of a block that give something back, functions below left out."""
    stack = list(reversed(block.children))
    while stack:
        node = stack.pop()
        if node.type == "return_statement":
            yield node
        elif not node.is_function:
            stack.extend(reversed(node.children))


def is_portal(call: Node) -> bool:
    """Whether a call renders elsewhere in the page: `createPortal`, also of the runtime's module."""
    callee = call.child("function")
    return callee is not None and last_name(callee) == "createPortal"


def is_map(call: Node) -> bool:
    """Whether a call gives one thing for each of a list."""
    callee = call.child("function")
    return callee is not None and callee.type == "member_expression" and last_name(callee) == "map"
