"""Code of a decorated class, respelled for an object of options: `this.count()` is `this.count` there."""

from __future__ import annotations

from itertools import pairwise

from clean_carry.source.javascript.script_style import fixed_ranges
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.syntaxes.decorated_class.members import Members
from clean_carry.syntaxes.decorated_class.naming import CHECKS, DESTROYED, ELEMENT, Naming
from clean_carry.syntaxes.decorated_class.recognise import arguments_of
from clean_carry.syntaxes.single_file.stands_for import NotAFile

_CHECKING = frozenset({"markForCheck", "detectChanges", "detach", "reattach"})


class Respelled:
    """Gives the text of stretches of a class with the uses of its members respelled."""

    def __init__(self, tree: Tree, members: Members, naming: Naming, body: Node) -> None:
        self.tree, self.source = tree, tree.source
        self.body = body.child("body") or body
        self.members, self.naming = members, naming
        self.fixed = fixed_ranges(tree)(0, len(tree.source.data))
        # New texts by their stretches; of those within each other the outer one holds.
        self.edits: dict[tuple[int, int], str] = {}
        self.types = {one.name: _element_type(one.node) for one in members.queries}
        self.services = {name: token for name, (token, _) in members.services.items()}
        self.ends = any(token == DESTROYED for token in self.services.values())
        for node in tree.of("this"):
            if body.start <= node.start < body.end:
                self._use(node)

    # -- texts ---------------------------------------------------------------------------

    def text(self, start: int, end: int, more: str = "") -> str:
        """A stretch; `more` is what its lines move to the right, but for those within texts."""
        parts, here = [], start
        for (first, last), instead in sorted(
            self.edits.items(), key=lambda one: (one[0][0], -one[0][1])
        ):
            if first < here or last > end:
                continue
            if first >= end:
                break
            moved = instead.replace("\n", f"\n{more}") if more else instead
            parts += [self._plain(here, first, more, goes_on=True), moved]
            here = last
        return "".join([*parts, self._plain(here, end, more)])

    def of(self, node: Node, more: str = "") -> str:
        """The text of a node."""
        return self.text(node.start, node.end, more)

    def _plain(self, start: int, end: int, more: str, *, goes_on: bool = False) -> str:
        text = self.source.slice(start, end)
        if not more or "\n" not in text:
            return text
        lines = text.split("\n")
        at, found = start, [lines[0]]
        for number, (before, line) in enumerate(pairwise(lines), 2):
            at += len(before.encode()) + 1
            inside = any(low < at < high for low, high in self.fixed)
            blank = not line.strip() and not (goes_on and number == len(lines))
            found.append(line if inside or blank else f"{more}{line}")
        return "\n".join(found)

    # -- uses ----------------------------------------------------------------------------

    def _use(self, node: Node) -> None:
        above = node.parent
        part = (
            above.child("property")
            if above is not None and above.type == "member_expression"
            else None
        )
        if above is None or part is None or above.children[0] is not node:
            if self._must_be_seen():
                raise NotAFile("class-member-unread", "`this` without a member", node.start)
            return
        name, naming = part.text, self.naming
        if name in naming.outputs:
            self._emitted(above, naming.outputs[name])
        elif name in naming.queries:
            self._queried(above, name)
        elif name in self.services:
            self._served(above, name)
        elif name in naming.called:
            self._read_or_written(above, name)
        elif name in naming.members:
            self.edits[part.start, part.end] = naming.name(name)

    def _must_be_seen(self) -> bool:
        naming = self.naming
        return bool(
            naming.called or naming.members or naming.outputs or naming.queries or self.services
        )

    def _emitted(self, member: Node, event: str) -> None:
        call = _call_of(member, "emit")
        if call is None:
            raise NotAFile(
                "class-member-unread", f"the output {event} other than by emit", member.start
            )
        given = call.child("arguments")
        assert given is not None
        values = given.named_children
        self.edits[member.start, values[0].start if values else given.end] = (
            f"this.$emit('{event}'{', ' if values else ')'}"
        )

    def _queried(self, member: Node, name: str) -> None:
        node = member
        if name in self.naming.called or any(
            q.name == name and q.called for q in self.members.queries
        ):
            call = node.parent
            if call is None or call.type != "call_expression" or arguments_of(call):
                raise NotAFile("class-member-unread", f"the query {name}", member.start)
            node = call
        above = node.parent
        part = above.child("property") if above is not None else None
        if above is None or part is None or part.text != "nativeElement":
            raise NotAFile(
                "class-member-unread", f"the query {name} other than its element", member.start
            )
        type_ = self.types.get(name) or "HTMLElement"
        reference = self.naming.queries[name]
        self.edits[member.start, above.end] = f"(this.$refs.{reference} as {type_})"

    def _served(self, member: Node, name: str) -> None:
        token = self.services[name]
        above = member.parent
        part = (
            above.child("property")
            if above is not None and above.type == "member_expression"
            else None
        )
        call = above.parent if above is not None else None
        match token:
            case _ if (
                token == CHECKS and part is not None and part.text in _CHECKING and call is not None
            ):
                statement = call.parent
                if statement is None or statement.type != "expression_statement":
                    raise NotAFile("service-injected", f"{token}.{part.text}", member.start)
                line = self.source.statement_line(statement.start, statement.end)
                self.edits[line.start, line.end] = ""
            case _ if token == ELEMENT and part is not None and part.text == "nativeElement":
                assert above is not None
                self.edits[member.start, above.end] = "this.$el"
            case _ if token == DESTROYED and part is not None and part.text == "onDestroy":
                self.edits[part.start, part.end] = "push"
            case _:
                raise NotAFile("service-injected", token, member.start)

    def _read_or_written(self, member: Node, name: str) -> None:
        """A signal: called to be read, set, or updated."""
        new = self.naming.name(name)
        above = member.parent
        if above is not None and above.type == "call_expression" and above.children[0] is member:
            if arguments_of(above):
                raise NotAFile("class-member-unread", f"{name} called with a value", member.start)
            self.edits[member.start, above.end] = f"this.{new}"
            return
        for method in ("set", "update"):
            call = _call_of(member, method)
            given = arguments_of(call)
            if call is None or len(given) != 1:
                continue
            value = self._inner(given[0]) if method == "set" else self._updated(given[0], new)
            text = f"this.{new} = {value}"
            input_ = self.naming.two_way.get(name)
            if input_ is not None:
                self._is_statement(call, name)
                indent = self.source.indent_at(call.start)
                text += f";\n{indent}this.$emit('update:{input_.public}', this.{new})"
            elif call.parent is not None and call.parent.type not in (
                "expression_statement",
                "arrow_function",
            ):
                text = f"({text})"
            self.edits[call.start, call.end] = text
            return
        raise NotAFile("class-member-unread", f"the signal {name} handed on", member.start)

    def _is_statement(self, call: Node, name: str) -> None:
        if call.parent is None or call.parent.type != "expression_statement":
            raise NotAFile("class-member-unread", f"{name} set within an expression", call.start)

    def _inner(self, node: Node) -> str:
        for one in node.walk():
            if one.type == "this":
                self._use(one)
        return self.of(node)

    def _updated(self, function: Node, new: str) -> str:
        """The body of an updater, with the member in place of its parameter."""
        parameter = function.child("parameter")
        parameters = function.child("parameters")
        if parameter is None and parameters is not None and len(parameters.named_children) == 1:
            parameter = (
                parameters.named_children[0].child("pattern") or parameters.named_children[0]
            )
        body = function.child("body")
        if function.type != "arrow_function" or parameter is None or body is None:
            raise NotAFile("class-member-unread", "update with another function", function.start)
        if parameter.type != "identifier" or body.type == "statement_block":
            raise NotAFile("class-member-unread", "update with statements", function.start)
        for one in body.walk():
            if one.type == "identifier" and one.text == parameter.text:
                self.edits[one.start, one.end] = f"this.{new}"
            elif one.type == "shorthand_property_identifier" and one.text == parameter.text:
                self.edits[one.start, one.end] = f"{one.text}: this.{new}"
        text = self._inner(body)
        return text[1:-1] if body.type == "parenthesized_expression" else text


def _call_of(member: Node, method: str) -> Node | None:
    """The call of a member's method: `this.picked.emit(…)`."""
    above = member.parent
    part = (
        above.child("property") if above is not None and above.type == "member_expression" else None
    )
    call = above.parent if above is not None else None
    if part is None or part.text != method or call is None or call.type != "call_expression":
        return None
    return call if call.children[0] is above else None


def _element_type(node: Node) -> str:
    """`HTMLInputElement` of `ElementRef<HTMLInputElement>`."""
    _, found, rest = node.text.partition("ElementRef<")
    return rest.partition(">")[0] if found else ""
