"""Code of a controller, as code of the object that a single file exports."""

from __future__ import annotations

import re
from dataclasses import dataclass, field

from clean_carry.source.javascript.scope import Binding, Names, is_write
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.syntaxes.controller_component.reading.recognise import Bound, event_of
from clean_carry.syntaxes.controller_component.reading.services import KNOWN, asked
from clean_carry.syntaxes.single_file.stands_for import NotAFile


@dataclass
class ControllerCode:
    """Rewrites code of one controller.

    `aliases` are names for the instance, `locals` names of the controller's function that become members,
    `services` those of injected services, and `held` members that hold one. `function` is the controller.
    """

    tree: Tree
    names: Names
    function: Node
    bindings: dict[str, Bound]
    aliases: set[Binding] = field(default_factory=set)
    locals: dict[Binding, str] = field(default_factory=dict)
    services: dict[Binding, str] = field(default_factory=dict)
    held: dict[str, str] = field(default_factory=dict)
    requests: bool = False

    def text(self, start: int, end: int, owner: Node | None) -> tuple[str, bool]:
        """The code of a stretch, which belongs to the function `owner`; whether it names the instance by
        `vm`. Raises `NotAFile`."""
        edits: list[tuple[int, int, str]] = []
        named = False
        for node in self.tree.root.walk():
            if not start <= node.start < end:
                continue
            if node.type == "this":
                self._member(node, "this", edits)
            elif node.type in ("identifier", "shorthand_property_identifier"):
                named = self._name(node, owner, edits) or named
        data, made, here = self.tree.source.data, b"", start
        for low, high, new in sorted(edits):
            if low < here:
                continue
            made += data[here:low] + new.encode()
            here = high
        return (made + data[here:end]).decode(), named

    def _name(self, node: Node, owner: Node | None, edits: list[tuple[int, int, str]]) -> bool:
        binding = self.names.meaning(node)
        if binding is None:
            refuse_framework(node)
            return False
        if binding in self.services:
            self._service(self.services[binding], node, edits)
            return False
        if binding not in self.aliases and binding not in self.locals:
            return False
        inside = self._is_inner(node, owner)
        holder = "vm" if inside else "this"
        if binding in self.locals:
            short = f"{node.text}: " if node.type.startswith("shorthand") else ""
            edits.append((node.start, node.end, f"{short}{holder}.{self.locals[binding]}"))
            return inside
        if node.type.startswith("shorthand"):
            raise NotAFile("instance-passed", node.text, node.start)
        if not self._member(node, holder, edits):
            edits.append((node.start, node.end, holder))
        return inside

    def _is_inner(self, node: Node, owner: Node | None) -> bool:
        """Whether a function with a `this` of its own stands between a place and its owner."""
        for up in node.up():
            if up is owner or up is self.function:
                return False
            if up.is_function and up.type != "arrow_function":
                return not up.type.startswith("method") or owner is not None
        return False

    def _member(self, node: Node, holder: str, edits: list[tuple[int, int, str]]) -> bool:
        """A member that is asked of the instance; whether it is written here."""
        above = node.parent
        if above is None or above.type != "member_expression" or above.children[0] is not node:
            if node.type == "this" and above is not None and above.type == "variable_declarator":
                return False
            raise NotAFile("instance-passed", above.text[:40] if above else "this", node.start)
        part = above.child("property")
        name = part.text if part is not None else ""
        if name in self.held:
            self._service(self.held[name], above, edits)
            return True
        bound = self.bindings.get(name)
        if bound is None:
            return False
        if bound.mode == "&":
            self._event(bound, above, holder, edits)
            return True
        if is_write(above):
            raise NotAFile("binding-written", name, above.start)
        return False

    def _event(
        self, bound: Bound, member: Node, holder: str, edits: list[tuple[int, int, str]]
    ) -> None:
        call = member.parent
        given = (
            call.child("arguments") if call is not None and call.type == "call_expression" else None
        )
        if given is None or call is None or call.children[0] is not member:
            raise NotAFile("event-asked", bound.name, member.start)
        statement = call.parent
        if statement is not None and statement.type not in (
            "expression_statement",
            "arrow_function",
        ):
            raise NotAFile("event-asked", bound.name, member.start)
        comma = ", " if given.named_children else ""
        new = f"{holder}.$emit('{event_of(bound.name)}'{comma}"
        edits.append((member.start, given.start + 1, new))

    def _service(self, service: str, place: Node, edits: list[tuple[int, int, str]]) -> None:
        if service not in KNOWN:
            raise NotAFile("controller-service", service, place.start)
        start, end, text, request = asked(service, place)
        self.requests = self.requests or request
        edits.append((start, end, text))


def refuse_framework(node: Node) -> None:
    """Raises `NotAFile` where a global name is that of the old framework."""
    part = node.parent
    asked = part is not None and part.type == "member_expression" and part.children[0] is not node
    if node.text == "angular" and not asked:
        raise NotAFile("controller-service", "angular", node.start)


def body_of(function: Node, code: ControllerCode, depth: int) -> tuple[str, str]:
    """The parameters of a function and its body between braces, indented for a member at a depth."""
    parameters, single = function.child("parameters"), function.child("parameter")
    if parameters is not None:
        given, _ = code.text(parameters.start, parameters.end, function)
    else:
        given = f"({single.text})" if single is not None else "()"
    body = function.child("body")
    assert body is not None
    if body.type == "statement_block":
        text, named = code.text(body.start + 1, body.end - 1, function)
    else:
        value, named = code.text(body.start, body.end, function)
        text = f"\n    return {value};\n"
    return given, _block(text, code.tree.source.indent_at(function.start), depth, named)


def _block(text: str, old: str, depth: int, named: bool) -> str:
    """A body at its new depth, in which the instance has a name if code asks for one."""
    lines = text.split("\n")
    own = [len(line) - len(line.lstrip()) for line in lines[1:] if line.strip()]
    least = min(own, default=len(old))
    inner = "  " * (depth + 1)
    if len(lines) == 1:
        made = [f"{inner}{text.strip()}"] if text.strip() else []
    else:
        first = [f"{inner}{lines[0].strip()}"] if lines[0].strip() else []
        made = first + [f"{inner}{line[least:]}" if line.strip() else "" for line in lines[1:]]
    while made and not made[-1].strip():
        made.pop()
    while made and not made[0].strip():
        made.pop(0)
    if named:
        made.insert(0, f"{inner}const vm = this;")
    if not made:
        return "{}"
    return "{\n" + "\n".join(made) + f"\n{'  ' * depth}}}"


_GUARD = re.compile(r"changes(?:\.([\w$]+)|\[['\"]([\w$]+)['\"]\])$")


def changes_of(function: Node, code: ControllerCode) -> list[tuple[str, str, str, bool, int]]:
    """The watchers that `$onChanges` stands for: input, rest of the condition, body, at once, offset.

    Raises `NotAFile` for code that is not one condition for each input.
    """
    parameters = function.child("parameters") or function.child("parameter")
    name = parameters.text.strip("()") if parameters is not None else ""
    body = function.child("body")
    if body is None or body.type != "statement_block" or not name:
        raise NotAFile("hook-unread", "$onChanges", function.start)
    found = []
    for statement in body.named_children:
        condition, then = statement.child("condition"), statement.child("consequence")
        whole = statement.type == "if_statement" and statement.child("alternative") is None
        if not whole or condition is None or then is None or then.type != "statement_block":
            raise NotAFile("hook-unread", "$onChanges", statement.start)
        inner = condition.named_children[0] if condition.named_children else condition
        parts = _conjuncts(inner)
        first = parts[0].text.replace(f"{name}.", "changes.", 1).replace(f"{name}[", "changes[", 1)
        read = _GUARD.match(first)
        if read is None:
            raise NotAFile("hook-unread", "$onChanges", statement.start)
        asked_input = read[1] or read[2]
        at_once, rest = True, []
        for part in parts[1:]:
            if part.text.replace(" ", "") == f"!{name}.{asked_input}.isFirstChange()":
                at_once = False
            elif name in {n.text for n in part.walk() if n.type == "identifier"}:
                raise NotAFile("hook-unread", "$onChanges", part.start)
            else:
                rest.append(code.text(part.start, part.end, function)[0])
        if any(n.type == "identifier" and n.text == name for n in then.walk()):
            raise NotAFile("hook-unread", "$onChanges", then.start)
        depth = 3 if rest else 2
        text, named = code.text(then.start + 1, then.end - 1, function)
        block = _block(text, code.tree.source.indent_at(then.start), depth, named)
        if rest:
            block = f"{{\n      if ({' && '.join(rest)}) {block}\n    }}"
        found.append((asked_input, "", block, at_once, statement.start))
    return found


def _conjuncts(node: Node) -> list[Node]:
    """The parts of a condition of which all must hold."""
    if node.type == "binary_expression" and node.has("&&"):
        return [*_conjuncts(node.named_children[0]), node.named_children[-1]]
    return [node]
