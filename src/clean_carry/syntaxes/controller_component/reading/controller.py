"""The members of a controller: a function or a class, and what its statements make of the instance."""

from __future__ import annotations

import re
from dataclasses import dataclass, field

from clean_carry.source.javascript import comments
from clean_carry.source.javascript.scope import Names, is_write
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.syntaxes.controller_component.reading.code import (
    ControllerCode,
    body_of,
    changes_of,
)
from clean_carry.syntaxes.controller_component.reading.recognise import Found
from clean_carry.syntaxes.controller_component.reading.services import KNOWN
from clean_carry.syntaxes.scoped_template.registrations import Registrations, text_of
from clean_carry.syntaxes.single_file.stands_for import NotAFile

_HOOKS = {"$onInit": "created", "$postLink": "mounted", "$onDestroy": "beforeUnmount"}
_LEFT = "$doCheck"


@dataclass
class Controller:
    """The parts of the object that a controller becomes: each with its text and where it comes from."""

    state: dict[str, tuple[str, int]] = field(default_factory=dict)
    methods: dict[str, tuple[str, int]] = field(default_factory=dict)
    derived: dict[str, tuple[str, int]] = field(default_factory=dict)
    hooks: dict[str, tuple[str, int]] = field(default_factory=dict)
    watches: list[tuple[str, int]] = field(default_factory=list)
    # Functions by their members, and the code that rewrites.
    comments: dict[str, list[str]] = field(default_factory=dict)
    requests: bool = False
    nullable: set[str] = field(default_factory=set)


def controller_of(found: Found, tree: Tree, names: Names) -> Controller:
    """The controller of a component. Raises `NotAFile`."""
    value = found.definition.value("controller")
    if value is None:
        return Controller()
    function, listed = Registrations(tree, names).followed(value)
    if function is None and value.type.startswith("class"):
        function = value
    if function is None:
        raise NotAFile("controller-elsewhere", value.text[:40], value.start)
    return _Reading(found, tree, names, function, listed).read()


class _Reading:
    def __init__(
        self, found: Found, tree: Tree, names: Names, function: Node, listed: list[str] | None
    ) -> None:
        self.found, self.tree, self.names, self.function = found, tree, names, function
        self.made = Controller()
        self.bindings = {one.name: one for one in found.bindings}
        self.code = ControllerCode(tree, names, function, self.bindings)
        self.functions: dict[str, Node] = {}
        self.watched: list[Node] = []
        self._injected(listed)

    def _injected(self, listed: list[str] | None) -> None:
        maker = self._constructor() if self.function.type.startswith("class") else self.function
        parameters = maker.child("parameters") if maker is not None else None
        single = maker.child("parameter") if maker is not None else None
        given = parameters.named_children if parameters is not None else [single] if single else []
        for number, node in enumerate(given):
            name = listed[number] if listed is not None and number < len(listed) else node.text
            scope = self.names.inner_scope(maker) if maker is not None else None
            binding = scope.names.get(node.text) if scope is not None else None
            if name not in KNOWN and binding is not None and binding.references:
                raise NotAFile("controller-service", name, node.start)
            if binding is not None:
                self.code.services[binding] = name

    def _constructor(self) -> Node | None:
        body = self.function.child("body")
        for member in body.named_children if body is not None else ():
            name = member.child("name")
            if name is not None and name.text == "constructor":
                return member
        return None

    def read(self) -> Controller:
        """Read all members."""
        if self.function.type.startswith("class"):
            self._class()
        else:
            self._statements(self.function)
        self._written()
        for name, function in self.functions.items():
            self._function(name, function)
        for call in self.watched:
            self._watch(call)
        self.made.requests = self.code.requests
        self.made.nullable |= {one.name for one in self.found.bindings}
        return self.made

    # -- classes -------------------------------------------------------------------------------

    def _class(self) -> None:
        if self.function.child("body") is None or any(
            child.type == "class_heritage" for child in self.function.children
        ):
            raise NotAFile("controller-statement", "the controller", self.function.start)
        for member in self.function.child("body").named_children:  # type: ignore[union-attr]
            name = member.child("name") or member.child("property")
            if member.type == "comment" or name is None:
                continue
            if name.text == "constructor":
                self._statements(member)
            elif member.has("static") or member.has("set"):
                raise NotAFile("controller-statement", member.text[:40], member.start)
            elif member.has("get"):
                _, body = body_of(member, self.code, 2)
                self.made.derived[name.text] = (f"{name.text}() {body}", member.start)
                self._note(name.text, member)
            elif member.is_function:
                self.functions[name.text] = member
            else:
                value = member.child("value")
                if value is not None and value.is_function:
                    self.functions[name.text] = value
                else:
                    self._state(name.text, value, member)

    # -- statements ----------------------------------------------------------------------------

    def _statements(self, function: Node) -> None:
        body = function.child("body")
        statements = body.named_children if body is not None else []
        scope = self.names.inner_scope(function)
        declared = {}
        for one in statements:
            name = one.child("name") if one.type == "function_declaration" else None
            binding = scope.names.get(name.text) if scope is not None and name is not None else None
            if name is not None and binding is not None:
                declared[name.text] = one
                self.code.locals[binding] = name.text
        for one in statements:
            if one.type in ("lexical_declaration", "variable_declaration"):
                self._declared(one, function)
        for one in statements:
            self._statement(one, declared)
        for own, node in declared.items():
            if node not in self.functions.values():
                self.functions[own] = node

    def _declared(self, statement: Node, function: Node) -> None:
        """A declaration: a name for the instance, or a value that becomes a member."""
        scope = self.names.inner_scope(function)
        for one in statement.named_children:
            name, value = one.child("name"), one.child("value")
            binding = scope.names.get(name.text) if scope is not None and name is not None else None
            if name is None or binding is None:
                continue
            if value is not None and value.type == "this":
                self.code.aliases.add(binding)
                continue
            self.code.locals[binding] = name.text
            if value is not None and value.is_function:
                self.functions[name.text] = value
            else:
                self._state(name.text, value, one)

    def _statement(self, statement: Node, declared: dict[str, Node]) -> None:
        if statement.type in (
            "comment", "function_declaration", "lexical_declaration", "variable_declaration",
            "empty_statement",
        ):  # fmt: skip
            return
        inner = statement.named_children[0] if statement.named_children else None
        if statement.type != "expression_statement" or inner is None:
            raise NotAFile("controller-statement", statement.text[:40], statement.start)
        if inner.type == "string":
            return
        if inner.type == "call_expression" and self._is_watch(inner):
            self.watched.append(inner)
            return
        left, value = inner.child("left"), inner.child("right")
        name = self._member_of(left)
        if inner.type != "assignment_expression" or not name or value is None:
            raise NotAFile("controller-statement", statement.text[:40], statement.start)
        if value.type == "identifier":
            binding = self.names.meaning(value)
            if binding in self.code.services:
                self.code.held[name] = self.code.services[binding]
                return
            if value.text in declared:
                self.functions[name] = declared[value.text]
                if name != value.text:
                    self.code.locals[binding] = name  # type: ignore[index]
                return
        if value.is_function:
            self.functions[name] = value
            return
        self._state(name, value, statement)

    def _member_of(self, node: Node | None) -> str:
        """The member of the instance that an expression names; "" for none."""
        if node is None or node.type != "member_expression":
            return ""
        holder, part = node.children[0], node.child("property")
        own = holder.type == "this" or self.names.meaning(holder) in self.code.aliases
        return part.text if own and part is not None else ""

    def _state(self, name: str, value: Node | None, at: Node) -> None:
        if name in self.bindings:
            raise NotAFile("binding-written", name, at.start)
        if name.startswith(("$", "_")):
            raise NotAFile("controller-statement", name, at.start)
        if value is None:
            self.made.state[name] = ("undefined", at.start)
            return
        for node in value.walk():
            if node.type == "this" or self.names.meaning(node) in self.code.aliases:
                raise NotAFile("controller-statement", at.text[:40], at.start)
        text, _ = self.code.text(value.start, value.end, None)
        self.made.state[name] = (text, at.start)
        self._note(name, at)
        if text in ("null", "undefined"):
            self.made.nullable.add(name)

    def _written(self) -> None:
        """Members that only functions give a value."""
        for node in self.tree.of("member_expression"):
            name = self._member_of(node)
            inside = self.function.start <= node.start < self.function.end
            if not name or not inside or not is_write(node) or name in self.code.held:
                continue
            known = name in self.made.state or name in self.functions or name in self.bindings
            if not known and name not in self.made.derived:
                self._state(name, None, node)
                self.made.nullable.add(name)

    # -- comments ------------------------------------------------------------------------------

    def _note(self, name: str, part: Node) -> None:
        """Keep the comments of the statement or member that a part stands in."""
        known = ("statement_block", "class_body")
        whole = part
        while whole.parent is not None and whole.parent.type not in known:
            whole = whole.parent
        if not self.function.start < whole.start < self.function.end:
            return
        notes = [*comments.leading(self.tree, whole), *comments.trailing(self.tree, whole)]
        texts = [one.text for one in notes]
        if texts:
            self.made.comments.setdefault(name, texts)

    # -- functions -----------------------------------------------------------------------------

    def _function(self, name: str, function: Node) -> None:
        self._note(_HOOKS.get(name, name), function)
        if name == _LEFT:
            raise NotAFile("hook-unread", name, function.start)
        if name == "$onChanges":
            for asked, _, block, at_once, at in changes_of(function, self.code):
                if at_once:
                    inner = block.replace("\n", "\n  ")
                    text = f"{asked}: {{\n      handler() {inner},\n      immediate: true,\n    }}"
                else:
                    text = f"{asked}() {block}"
                self.made.watches.append((text, at))
            return
        word = "async " if function.has("async") else ""
        if name in _HOOKS:
            _, body = body_of(function, self.code, 1)
            self.made.hooks[_HOOKS[name]] = (f"{word}{_HOOKS[name]}() {body}", function.start)
            return
        if name.startswith("$"):
            raise NotAFile("hook-unread", name, function.start)
        given, body = body_of(function, self.code, 2)
        self.made.methods[name] = (f"{word}{name}{given} {body}", function.start)

    def _is_watch(self, call: Node) -> bool:
        callee = call.child("function")
        if callee is None or callee.type != "member_expression":
            return False
        part = callee.child("property")
        binding = self.names.meaning(callee.children[0])
        own = binding is not None and self.code.services.get(binding) == "$scope"
        return own and part is not None and part.text == "$watch"

    def _watch(self, call: Node) -> None:
        """A watcher of a member by its path. Its first run is skipped if it compares both values."""
        given = call.child("arguments")
        parts = given.named_children if given is not None else []
        path = text_of(parts[0]) if len(parts) == 2 else None
        read = re.fullmatch(rf"{re.escape(self.found.alias)}\.([\w$.]+)", path or "")
        function = parts[1] if len(parts) == 2 else None
        if read is None or function is None or not function.is_function:
            raise NotAFile("controller-statement", call.text[:40], call.start)
        taken, body = body_of(function, self.code, 2)
        names = [part.strip() for part in taken.strip("()").split(",") if part.strip()]
        key = read[1] if "." not in read[1] else f"'{read[1]}'"
        skips = len(names) == 2 and any(
            f"{a} {sign} {b}" in body for sign in ("!==", "===") for a, b in (names, names[::-1])
        )
        if skips:
            text = f"{key}{taken} {body}"
        elif len(names) < 2:
            inner = body.replace("\n", "\n  ")
            text = f"{key}: {{\n      handler{taken} {inner},\n      immediate: true,\n    }}"
        else:
            raise NotAFile("controller-statement", call.text[:40], call.start)
        self.made.watches.append((text, call.start))
