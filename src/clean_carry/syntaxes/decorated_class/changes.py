"""The hook for changed inputs, as one method for each input."""

from __future__ import annotations

import re
from dataclasses import dataclass

from clean_carry.source.javascript.tree import Node
from clean_carry.syntaxes.decorated_class.code import Respelled
from clean_carry.syntaxes.decorated_class.members import Members
from clean_carry.syntaxes.single_file.stands_for import NotAFile


@dataclass
class Changes:
    """The part of the hook for one input: its public name, the method, and the statements."""

    public: str
    method: str
    node: Node
    statements: list[Node]
    code: Respelled
    parameter: str
    name: str

    def _spelled(self) -> str:
        """The statements, with the facts of the change as parameters."""
        text = "".join(f"{self._line(one)}\n" for one in self.statements)
        change = _change(self.parameter, self.name)
        now, before, first = self._names
        text = re.sub(rf"{change}\.firstChange\b", first, text)
        text = re.sub(rf"{change}\.isFirstChange\(\)", first, text)
        text = re.sub(rf"{change}\.currentValue\b", now, text)
        text = re.sub(rf"{change}\.previousValue\b", before, text)
        if self.parameter and re.search(rf"(?<![\w.$]){re.escape(self.parameter)}\b", text):
            raise NotAFile("hook-unread", f"ngOnChanges, of {self.name}", self.node.start)
        return text

    @property
    def _names(self) -> list[str]:
        """Names for the new value, the one before, and whether it is the first: none that the code has."""
        code = "".join(one.text for one in self.statements)
        pairs = (("now", "newValue"), ("before", "oldValue"), ("first", "isFirst"))
        return [long if re.search(rf"\b{short}\b", code) else short for short, long in pairs]

    def _line(self, node: Node) -> str:
        source = self.code.source
        indent = source.indent_at(node.start)
        own = 3 * (source.indent_at(self.node.start) or "  ")
        less = len(indent) - len(own)
        text = self.code.of(node)
        if less == 0:
            return f"{own}{text}"
        lines = text.split("\n")
        return "\n".join(
            [
                f"{own}{lines[0]}",
                *(line[less:] if less > 0 else " " * -less + line for line in lines[1:]),
            ]
        )

    def body(self) -> str:
        """The body of the method, as lines."""
        return self._spelled()

    def parameters(self) -> list[tuple[str, str]]:
        """The parameters that the statements need, with their types."""
        text = self._spelled()
        now, before, first = self._names
        used = [one for one in (now, before, first) if re.search(rf"\b{one}\b", text)]
        return [(one, "boolean" if one == first else "any") for one in used]

    def call(self, now: str, before: str, first: str) -> str:
        """A call of the method."""
        given = dict(zip(self._names, (now, before, first), strict=True))
        return f"this.{self.method}({', '.join(given[name] for name, _ in self.parameters())})"


def read_changes(members: Members, code: Respelled) -> list[Changes]:
    """Read the hook. Raises `NotAFile` where it is not a list of conditions on single inputs."""
    hook = members.hooks.get("ngOnChanges")
    if hook is None:
        return []
    parameters, body = hook.child("parameters"), hook.child("body")
    assert body is not None
    first = (
        parameters.named_children[0]
        if parameters is not None and parameters.named_children
        else None
    )
    pattern = first.child("pattern") if first is not None else None
    parameter = pattern.text if pattern is not None else ""
    statements = body.named_children
    found: list[Changes] = []
    for one in members.inputs:
        own = [node for node in statements if _of(node, parameter, one.name)]
        if own:
            inner: list[Node] = []
            for node in own:
                block = node.child("consequence")
                assert block is not None
                inner += block.named_children if block.type == "statement_block" else [block]
            method = code.naming.free(f"{one.name}Changed", f"on{one.name.capitalize()}Changed")
            found.append(Changes(one.public, method, hook, inner, code, parameter, one.name))
            statements = [node for node in statements if node not in own]
    if statements and not found and len(members.inputs) == 1:
        one = members.inputs[0]
        method = code.naming.free(f"{one.name}Changed")
        return [Changes(one.public, method, hook, statements, code, parameter, one.name)]
    if statements:
        raise NotAFile("hook-unread", "ngOnChanges", statements[0].start)
    return found


def _change(parameter: str, name: str) -> str:
    return rf"{re.escape(parameter)}(?:\[['\"]{name}['\"]\]|\.{name})"


def _of(node: Node, parameter: str, name: str) -> bool:
    """Whether a statement is a condition on the change of one input."""
    test = node.child("condition") if node.type == "if_statement" else None
    if test is None or node.child("alternative") is not None or not parameter:
        return False
    return re.fullmatch(rf"\(\s*{_change(parameter, name)}\s*\)", test.text) is not None
