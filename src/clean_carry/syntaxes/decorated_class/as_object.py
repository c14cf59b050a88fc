"""A decorated class as an object of options: inputs are props, fields data, getters computed values."""

from __future__ import annotations

import re
from dataclasses import dataclass, field

from clean_carry.source.javascript.script_style import ScriptStyle
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.syntaxes.decorated_class.changes import Changes, read_changes
from clean_carry.syntaxes.decorated_class.code import Respelled
from clean_carry.syntaxes.decorated_class.members import HOOKS, Field, Input, Members, modifiers_end
from clean_carry.syntaxes.decorated_class.naming import DESTROYED, Naming
from clean_carry.syntaxes.decorated_class.pipes import Helper
from clean_carry.syntaxes.decorated_class.types import declared_type, plain_type
from clean_carry.syntaxes.single_file.stands_for import NotAFile

# A stretch of the new object, and the offset that it comes from.
Piece = tuple[str, int]


@dataclass
class ObjectWriter:
    """Writes the object. `helpers` are functions in place of pipes, `outside` the listeners of the window
    and the document: target, event, statement."""

    tree: Tree
    members: Members
    naming: Naming
    code: Respelled
    style: ScriptStyle
    name: str
    helpers: list[Helper]
    outside: list[tuple[str, str, str]]
    needs_prop_type: bool = False
    extra_methods: list[str] = field(default_factory=list)

    def pieces(self) -> list[Piece]:
        """The properties of the object with the offsets they come from. Raises `NotAFile`."""
        self.changes = read_changes(self.members, self.code)
        found: list[Piece] = []
        for title, rows in (
            ("props", self._props()),
            ("data", self._data()),
            ("computed", self._computed()),
            ("watch", self._watch()),
        ):
            if title == "props" and self._events():
                found += self._block("props", rows) if rows else []
                events = ", ".join(f"'{one}'" for one in self._events())
                found.append((f"{self.unit}emits: [{events}],\n", 0))
            elif title == "data" and rows:
                found.append((f"{self.unit}data() {{\n{self.unit * 2}return {{\n", rows[0][1]))
                found += [(f"{self.unit}{text}", at) for text, at in rows]
                found.append((f"{self.unit * 2}}}{self.end}\n{self.unit}}},\n", rows[0][1]))
            elif rows:
                found += self._block(title, rows)
        found += self._hooks()
        methods = self._methods()
        found += self._block("methods", methods) if methods else []
        return self._commented(found)

    def _commented(self, pieces: list[Piece]) -> list[Piece]:
        """The pieces with the comments of the class, each in front of what its member became."""
        comments = comments_of(self.code.body)
        found: list[Piece] = []
        for text, at in pieces:
            indent = text[: len(text) - len(text.lstrip())]
            for comment in comments.pop(at, ()):
                found.append((f"{indent}{comment.text}\n", comment.start))
            found.append((text, at))
        rest = [one for kept in comments.values() for one in kept]
        return [*((f"{self.unit}{one.text}\n", one.start) for one in rest), *found]

    @property
    def unit(self) -> str:
        """One level of indentation."""
        return self.style.unit

    @property
    def end(self) -> str:
        """The end of a statement: a semicolon, or nothing."""
        return self.style.semicolon

    def _block(self, name: str, rows: list[Piece]) -> list[Piece]:
        return [
            (f"{self.unit}{name}: {{\n", rows[0][1]),
            *rows,
            (f"{self.unit}}},\n", rows[0][1]),
        ]

    # -- declarations --------------------------------------------------------------------

    def _props(self) -> list[Piece]:
        return [
            (f"{self.unit * 2}{one.public}: {self._prop(one)},\n", one.node.start)
            for one in self.members.inputs
        ]

    def _prop(self, one: Input) -> str:
        type_ = declared_type(one.type, one.default, self.tree)
        self.needs_prop_type |= "PropType" in type_
        if one.required:
            return f"{{ type: {type_}, required: true }}"
        if one.default is None:
            # A flag that is not given would be false.
            return f"{{ type: {type_}, default: undefined }}" if type_ == "Boolean" else type_
        text = self.code.of(one.default, self.unit)
        if one.default.type in ("object", "array"):
            text = f"() => {f'({text})' if one.default.type == 'object' else text}"
        elif any(node.type == "this" for node in one.default.walk()):
            raise NotAFile("class-member-unread", f"the default of {one.name}", one.node.start)
        elif one.default.type not in (
            "string",
            "number",
            "true",
            "false",
            "null",
            "undefined",
            "unary_expression",
        ):
            text = f"() => {text}"
        return f"{{ type: {type_}, default: {text} }}"

    def _events(self) -> list[str]:
        found = [one.public for one in self.members.outputs]
        return found + [f"update:{one.public}" for one in self.naming.two_way.values()]

    def _data(self) -> list[Piece]:
        deep = self.unit * 2
        rows: list[Piece] = []
        for name, copy in self.naming.copied.items():
            one = next(i for i in self.members.inputs if i.name == name)
            if one.transform is None:
                rows.append((f"{deep}{copy}: this.{one.public},\n", one.node.start))
        for each in self.members.fields:
            self._is_early(each)
            rows.append((f"{deep}{self._field(each)},\n", each.node.start))
        for name, (token, node) in self.members.services.items():
            if token == DESTROYED:
                rows.append((f"{deep}{name}: [] as (() => void)[],\n", node.start))
        return rows

    def _is_early(self, one: Field) -> None:
        """Refuse a value that needs a field: data are made together."""
        names = {member.name for member in self.members.fields}
        for node in one.value.walk() if one.value is not None else ():
            if node.type != "member_expression" or node.children[0].type != "this":
                continue
            part = node.child("property")
            if part is not None and part.text in names | self.naming.copied.keys():
                raise NotAFile(
                    "class-member-unread",
                    f"{one.name}, which is made of {part.text}",
                    one.node.start,
                )

    def _field(self, one: Field) -> str:
        if one.value is None:
            text = "undefined"
        else:
            text = self.code.of(one.value, self.unit)
        type_ = plain_type(one.type)
        if type_ and (
            one.value is None or one.value.type in ("null", "array", "undefined", "object")
        ):
            if one.value is None and "undefined" not in type_:
                type_ = f"{type_} | undefined"
            text = f"{text} as {type_}"
        elif type_ and "|" in type_:
            text = f"{text} as {type_}"
        return f"{one.name}: {text}"

    def _computed(self) -> list[Piece]:
        deep = self.unit * 2
        rows: list[Piece] = []
        for one in self.members.inputs:
            if one.transform is not None and one.setter is None:
                copy = self.naming.copied[one.name]
                inner = f"{deep}{self.unit}return {self._transformed(one)}{self.end}\n"
                rows.append((f"{deep}{copy}() {{\n{inner}{deep}}},\n", one.node.start))
        for derived in self.members.derived:
            name = derived.name
            if derived.setter is None:
                rows.append(
                    (
                        f"{deep}{name}(){self._returned(derived.node)} {self._body(derived.body)},\n",
                        derived.node.start,
                    )
                )
                continue
            setter = derived.setter
            inner = f"{deep}{self.unit}"
            getter = f"{inner}get() {self._body(derived.body, 2)},\n"
            given = setter.child("parameters")
            body = setter.child("body")
            assert given is not None and body is not None
            taken = f"{inner}set{self.code.of(given)} {self._body(body, 2)},\n"
            rows.append((f"{deep}{name}: {{\n{getter}{taken}{deep}}},\n", derived.node.start))
        return rows

    def _transformed(self, one: Input) -> str:
        assert one.transform is not None
        name = one.transform.text
        value = f"this.{one.public}"
        if name == "booleanAttribute":
            return f"typeof {value} === 'boolean' ? {value} : {value} != null && `${{{value}}}` !== 'false'"
        if name == "numberAttribute":
            return f"Number.isNaN(parseFloat({value} as any)) ? NaN : Number({value})"
        return f"({self.code.of(one.transform)})({value})"

    def _returned(self, node: Node) -> str:
        type_ = node.child("return_type")
        return self.code.of(type_) if type_ is not None else ""

    def _body(self, body: Node, levels: int = 1) -> str:
        """A function's body: of a getter, or of a function whose value is the expression."""
        more = self.unit * levels
        if body.is_function:
            inner = body.child("body")
            assert inner is not None
            if inner.type == "statement_block":
                return self.code.of(inner, more)
            text = self.code.of(inner, more)
            deep = self.unit * 2
            return f"{{\n{deep}{self.unit}return {text}{self.end}\n{deep}}}"
        return self.code.of(body, more)

    def _watch(self) -> list[Piece]:
        deep = self.unit * 2
        rows: list[Piece] = []
        watched: dict[str, list[str]] = {}
        for one in self.members.inputs:
            if one.name in self.naming.copied and one.transform is None:
                watched.setdefault(one.public, []).append(
                    f"this.{self.naming.copied[one.name]} = now{self.end}"
                )
            elif one.setter is not None:
                watched.setdefault(one.public, []).append(
                    f"this.{self._setter_name(one)}(now){self.end}"
                )
        for change in self.changes:
            given = change.call("now", "before", "false")
            watched.setdefault(change.public, []).append(f"{given}{self.end}")
        for public, lines in watched.items():
            inner = f"{deep}{self.unit}"
            body = "".join(f"{inner}{line}\n" for line in lines)
            both = "now, before" if "before" in body else "now"
            if "now" not in body and "before" not in body:
                both = ""
            rows.append((f"{deep}{public}({both}) {{\n{body}{deep}}},\n", self._of_input(public)))
        return rows

    def _of_input(self, public: str) -> int:
        return next(one.node.start for one in self.members.inputs if one.public == public)

    def _setter_name(self, one: Input) -> str:
        name = f"set{one.name[:1].upper()}{one.name[1:]}"
        return self.naming.members.setdefault(f"set {one.name}", self.naming.free(name))

    # -- behaviour -----------------------------------------------------------------------

    def _hooks(self) -> list[Piece]:
        deep = self.unit * 2
        lines: dict[str, list[Piece]] = {"created": [], "mounted": [], "beforeUnmount": []}
        asynchronous: set[str] = set()
        for statement in self.members.starts:
            lines["created"].append((f"{deep}{self.code.of(statement)}\n", statement.start))
        for one in self.members.inputs:
            if one.setter is not None:
                call = f"this.{self._setter_name(one)}(this.{one.public}){self.end}"
                text = f"{deep}if (this.{one.public} !== undefined) {call}\n"
                lines["created"].append((text, one.node.start))
        for change in self.changes:
            call = f"{change.call(f'this.{change.public}', 'undefined', 'true')}{self.end}"
            text = f"{deep}if (this.{change.public} !== undefined) {call}\n"
            lines["created"].append((text, change.node.start))
        for target, event, _ in self.outside:
            name = self._outside_name(target, event)
            text = f"{target}.addEventListener('{event.partition('.')[0]}', this.{name}){self.end}"
            lines["created"].append((f"{deep}{text}\n", 0))
            lines["beforeUnmount"].append((f"{deep}{text.replace('.add', '.remove')}\n", 0))
        for name in ("ngOnInit", "ngAfterContentInit", "ngAfterViewInit", "ngOnDestroy"):
            node = self.members.hooks.get(name)
            if node is None:
                continue
            body = node.child("body")
            assert body is not None
            if node.has("async"):
                asynchronous.add(HOOKS[name])
            lines[HOOKS[name]].append((self._inner(body), node.start))
        if self.code.ends:
            name = next(n for n, (token, _) in self.members.services.items() if token == DESTROYED)
            lines["beforeUnmount"].append(
                (f"{deep}this.{name}.forEach((run) => run()){self.end}\n", 0)
            )
        found: list[Piece] = []
        for hook, parts in lines.items():
            if any(text.strip() for text, _ in parts):
                word = "async " if hook in asynchronous else ""
                found.append((f"{self.unit}{word}{hook}() {{\n", parts[0][1]))
                found += parts
                found.append((f"{self.unit}}},\n", parts[0][1]))
        return found

    def _inner(self, body: Node) -> str:
        """The statements of a body, as lines."""
        start = self.tree.source.data.find(b"\n", body.start, body.end)
        if start < 0:
            inner = self.code.text(body.start + 1, body.end - 1).strip()
            return f"{self.unit * 2}{inner}\n" if inner else ""
        text = self.code.text(start + 1, body.end - 1)
        return text.rstrip(" ").rstrip("\n") + "\n" if text.strip() else ""

    def _outside_name(self, target: str, event: str) -> str:
        key = f"on {target}:{event}"
        if key not in self.naming.members:
            word = "".join(part.capitalize() for part in re.split(r"\W+", event))
            self.naming.members[key] = self.naming.free(f"on{target.capitalize()}{word}")
        return self.naming.members[key]

    def _methods(self) -> list[Piece]:
        deep = self.unit * 2
        rows: list[Piece] = []
        for node in self.members.methods:
            start = modifiers_end(node)
            rows.append((f"{deep}{self.code.text(start, node.end, self.unit)},\n", node.start))
        for node in self.members.functions:
            rows.append((f"{deep}{self._function(node)},\n", node.start))
        for one in self.members.inputs:
            if one.setter is not None:
                given, body = one.setter.child("parameters"), one.setter.child("body")
                assert given is not None and body is not None
                text = (
                    f"{self._setter_name(one)}{self.code.of(given)} {self.code.of(body, self.unit)}"
                )
                rows.append((f"{deep}{text},\n", one.setter.start))
        for change in self.changes:
            rows.append((f"{deep}{self._changed(change)},\n", change.node.start))
        for target, event, statement in self.outside:
            inner = f"{deep}{self.unit}"
            guard = _guard(event)
            lines = f"{inner}if (!({guard})) return{self.end}\n" if guard else ""
            lines += f"{inner}{statement}{self.end}\n"
            taken = "event: any" if "event" in lines else ""
            name = self._outside_name(target, event)
            rows.append((f"{deep}{name}({taken}) {{\n{lines}{deep}}},\n", 0))
        for helper in self.helpers:
            inner = "".join(f"{deep}{self.unit}{line}\n" for line in helper.lines)
            rows.append((f"{deep}{helper.name}({helper.parameters}) {{\n{inner}{deep}}},\n", 0))
        return rows

    def _function(self, node: Node) -> str:
        """A field that holds a function, as a method."""
        name, value = node.child("name"), node.child("value")
        assert name is not None and value is not None
        body = value.child("body")
        assert body is not None
        single, given = value.child("parameter"), value.child("parameters")
        parameters = (
            self.code.of(given)
            if given is not None
            else f"({single.text})"
            if single is not None
            else "()"
        )
        word = "async " if value.has("async") else ""
        if body.type == "statement_block":
            return f"{word}{name.text}{parameters} {self.code.of(body, self.unit)}"
        deep = self.unit * 2
        inner = f"{deep}{self.unit}return {self.code.of(body, self.unit)}{self.end}\n"
        return f"{word}{name.text}{parameters} {{\n{inner}{deep}}}"

    def _changed(self, change: Changes) -> str:
        deep = self.unit * 2
        given = [f"{name}: {type_}" for name, type_ in change.parameters()]
        return f"{change.method}({', '.join(given)}) {{\n{change.body()}{deep}}}"


def comments_of(body: Node) -> dict[int, list[Node]]:
    """The comments of a class by the offset of the member that they are about: the one before in the same
    line, or else the next one. Comments behind the last member are under -1."""
    found: dict[int, list[Node]] = {}
    open_: list[Node] = []
    before: Node | None = None
    data = body.text_of.data
    for node in body.children:
        if node.type == "comment":
            same = before is not None and b"\n" not in data[before.end : node.start]
            if same and before is not None:
                found.setdefault(before.start, []).append(node)
            else:
                open_.append(node)
        elif node.type in ("public_field_definition", "method_definition"):
            found.setdefault(node.start, []).extend(open_)
            open_, before = [], node
    if open_:
        found[-1] = open_
    return found


def _guard(event: str) -> str:
    """The condition on its event of a listener with keys in its name."""
    keys = event.split(".")[1:]
    named = {"escape": "Escape", "esc": "Escape", "enter": "Enter", "space": " ", "tab": "Tab"}
    if not keys:
        return ""
    return f"event.key === '{named.get(keys[-1], keys[-1])}'"
