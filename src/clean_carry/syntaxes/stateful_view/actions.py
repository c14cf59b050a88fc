"""Methods that only touch state, as actions of a class: their statements in PHP."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from contextlib import contextmanager

from clean_carry.component.code import Assign, Changed, Code, MethodCall, Operation, Read
from clean_carry.component.errors import InputError
from clean_carry.source.expressions.model import Expr, Name, Unsayable
from clean_carry.source.expressions.types import ANY, Type, either
from clean_carry.source.javascript.expression import expression
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.member_types import name_of
from clean_carry.syntaxes.server_view.expressions import Expressions
from clean_carry.syntaxes.server_view.names import action, variable
from clean_carry.syntaxes.unsaid import Unsaid

_HEAD = "function made"
STEP = "    "


class Statements:
    """Says the statements of one function, or of a listener that `stands_alone`; raises `Unsaid`."""

    def __init__(
        self,
        source: SourceText,
        expressions: Expressions,
        code: Code,
        *,
        stands_alone: bool = False,
    ) -> None:
        self.source, self.expressions, self.code = source, expressions, code
        waits = b"await" in source.data[code.span.start : code.span.end]
        head = f"async {_HEAD}" if waits else _HEAD
        self.head, self.tail = (f"{head}() {{ ", " }") if stands_alone else (head, "")
        self.start = code.span.start - len(self.head)
        self.operations: dict[tuple[int, int], Operation] = {
            (one.span.start - self.start, one.span.end - self.start): one for one in code.all()
        }
        self.locals: dict[str, Type] = {}
        # The type of what is returned.
        self.returned: Type | None = None

    def written(self, names: Mapping[str, Type], depth: int) -> tuple[list[str], str]:
        """The names of the parameters, and the statements, indented."""
        self.expressions.passed_over(self.code)
        with self.tree() as function:
            parameters = list(self._parameters(function))
            self.locals = {name: names.get(name, ANY) for name in parameters}
            body = function.child("body")
            if body is None or body.type != "statement_block":
                raise Unsaid(
                    "not-said-in-view", "a function without statements", self.code.span.start
                )
            return parameters, self._block(body, depth)

    def parameter_names(self) -> list[str]:
        """The names of the parameters."""
        with self.tree() as function:
            return list(self._parameters(function))

    @contextmanager
    def tree(self) -> Iterator[Node]:
        """The node of the function."""
        text = self.head + self.source.slice(*self.code.span[:2]) + self.tail
        try:
            tree = Tree(SourceText(self.source.path, text.encode()))
        except InputError:
            raise Unsaid(
                "not-said-in-view", "a function of this form", self.code.span.start
            ) from None
        try:
            yield tree.root.named_children[0]
        finally:
            tree.release()

    def _parameters(self, function: Node) -> Iterator[str]:
        listed = function.child("parameters")
        for one in listed.named_children if listed is not None else ():
            name = one.child("pattern") or one
            if name.type != "identifier" or one.child("value") is not None:
                raise Unsaid("not-said-in-view", f"the parameter {one.text}", self._at(one))
            yield name.text

    def _at(self, node: Node) -> int:
        return node.start + self.start

    # -- statements --------------------------------------------------------------------------

    def _block(self, block: Node, depth: int) -> str:
        lines = []
        for node in block.children:
            if node.type == "comment":
                if "?>" in node.text:
                    # It would end the code, also in a comment.
                    raise Unsaid("not-said-in-view", "a comment with ?>", self._at(node))
                lines.append(f"{STEP * depth}{node.text}\n")
            elif node.named:
                lines.append(self._statement(node, depth))
        return "".join(lines)

    def _statement(self, node: Node, depth: int) -> str:
        line = STEP * depth
        match node.type:
            case "expression_statement":
                return self._effect_line(node.named_children[0], depth)
            case "if_statement":
                return self._condition(node, depth)
            case "return_statement":
                given = node.named_children
                if not given:
                    return f"{line}return;\n"
                expr = self._read(given[0])
                self.returned = either(self.returned, expr.type) if self.returned else expr.type
                return f"{line}return {self._said_of(expr, 'value', given[0])};\n"
            case "lexical_declaration" if len(node.named_children) == 1:
                name, first = (node.named_children[0].child(one) for one in ("name", "value"))
                if name is not None and first is not None and name.type == "identifier":
                    expr = self._read(first)
                    text = self._said_of(expr, "value", first)
                    self.locals[name.text] = expr.type
                    return f"{line}${name.text} = {text};\n"
            case "empty_statement":
                return ""
        raise Unsaid("not-said-in-view", f"`{node.text[:40]}`", self._at(node))

    def _condition(self, node: Node, depth: int) -> str:
        line = STEP * depth
        test, then = node.child("condition"), node.child("consequence")
        assert test is not None
        assert then is not None
        head = f"{line}if ({self._said(test, 'truth')}) {{\n{self._inner(then, depth)}{line}}}"
        other = node.child("alternative")
        if other is None:
            return f"{head}\n"
        inner = other.named_children[0]
        if inner.type == "if_statement":
            return f"{head} else{self._condition(inner, depth).lstrip()}"
        return f"{head} else {{\n{self._inner(inner, depth)}{line}}}\n"

    def _inner(self, node: Node, depth: int) -> str:
        if node.type == "statement_block":
            return self._block(node, depth + 1)
        return self._statement(node, depth + 1)

    # -- effects -----------------------------------------------------------------------------

    def _effect_line(self, node: Node, depth: int) -> str:
        """An effect as a statement on a line of its own."""
        while node.type == "parenthesized_expression":
            node = node.named_children[0]
        return f"{STEP * depth}{self._effect(node)};\n"

    def _effect(self, node: Node) -> str:
        """A statement that writes state, or calls an own method."""
        operation = self.operations.get((node.start, node.end))
        if isinstance(operation, Assign):
            return self._assigned(operation, node)
        if node.type == "call_expression":
            callee, given = node.child("function"), node.child("arguments")
            arguments = given.named_children if given is not None else []
            called = self._operation(callee)
            if isinstance(called, MethodCall):
                values = ", ".join(self._said(one, "value") for one in arguments)
                return f"$this->{action(called.member.name)}({values})"
            name = callee.child("property") if callee is not None else None
            held = self._operation(callee.child("object")) if callee is not None else None
            if isinstance(held, Read) and held.member.kind == "state" and name is not None:
                if name.text == "push" and len(arguments) == 1:
                    value = self._said(arguments[0], "value")
                    return f"$this->{variable(held.member.name)}[] = {value}"
        raise Unsaid("not-said-in-view", f"`{node.text[:40]}`", self._at(node))

    def _operation(self, node: Node | None) -> Operation | None:
        return self.operations.get((node.start, node.end)) if node is not None else None

    def _assigned(self, one: Assign, node: Node) -> str:
        if one.member.kind != "state":
            raise Unsaid("not-said-in-view", f"`{node.text[:40]}`", self._at(node))
        target = f"$this->{variable(one.member.name)}"
        type_ = self.expressions.types.of(one.member)
        if one.value is None:
            if type_.kind != "number" or type_.missing:
                raise Unsaid("not-said-in-view", f"`{node.text[:40]}`", self._at(node))
            return f"{target}{one.operator}"
        value = node.child("right")
        if value is None or one.operator not in ("=", "+=", "-=", "*="):
            raise Unsaid("not-said-in-view", f"`{node.text[:40]}`", self._at(node))
        if one.operator == "+=" and type_.kind == "text":
            return f"{target} .= {self._said(value, 'text')}"
        if one.operator != "=" and (type_.kind != "number" or type_.missing):
            raise Unsaid("not-said-in-view", f"`{node.text[:40]}`", self._at(node))
        return f"{target} {one.operator} {self._said(value, 'value')}"

    # -- expressions -------------------------------------------------------------------------

    def _said(self, node: Node, use: str) -> str:
        return self._said_of(self._read(node), use, node)

    def _said_of(self, expr: Expr, use: str, node: Node) -> str:
        with self.expressions.within(self.locals):
            return self.expressions.said_of(expr, use, self._at(node))  # type: ignore[arg-type]

    def leaf(self, node: Node) -> Expr | None:
        """The value of a node that a member or a local stands for; None for any other."""
        operation = self._operation(node)
        if operation is None:
            if node.type in ("identifier", "shorthand_property_identifier"):
                own = self.locals.get(node.text)
                return Name(own, node.text) if own is not None else None
            return None
        if isinstance(operation, Read):
            return Name(self.expressions.types.of(operation.member), name_of(operation.member))
        if isinstance(operation, Changed):
            return None
        raise Unsayable(f"`{node.text[:40]}`", node.start)

    def _read(self, node: Node) -> Expr:
        try:
            return expression(node, self.leaf)
        except Unsayable as reason:
            raise Unsaid("not-said-in-view", reason.what, reason.at + self.start) from None
