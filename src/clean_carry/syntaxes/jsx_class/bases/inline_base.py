"""A class with a base of its project: what is written anew in it so that it stands without."""

from __future__ import annotations

import os
import re
from collections.abc import Iterator
from dataclasses import dataclass, field
from itertools import pairwise
from pathlib import Path

from clean_carry.component.spans import Place
from clean_carry.source.exports import Imported
from clean_carry.source.javascript import comments
from clean_carry.source.javascript.scope import is_write
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.merged import Edit
from clean_carry.source.needed_names import Brought, NotReadIn
from clean_carry.syntaxes.jsx.runtime_names import RUNTIME, runtime_names
from clean_carry.syntaxes.jsx_class.bases.base_class import (
    Base,
    Mentions,
    Part,
    mentions,
    only_value,
    outermost,
    own_code,
    parts_of,
    until,
)
from clean_carry.syntaxes.jsx_class.bases.heritage import (
    CLASSES,
    extends_clause,
    heritage,
    heritage_types,
    is_base_call,
)
from clean_carry.syntaxes.jsx_class.bases.inherited_members import Inherited
from clean_carry.syntaxes.jsx_class.uses.outside_uses import outsiders_of


@dataclass
class Heir(Brought):
    """A class with a base of its project, and what the base brings into it.

    `below` are the members that a class extending this one has and reads, which may come from its base.
    """

    base: Base
    below: Mentions | None = None
    # Names declared in its functions by what was written into them, by where these begin.
    _declared: dict[int, set[str]] = field(init=False, default_factory=dict)

    def edits(self) -> list[Edit]:
        """Yield the edits of the class. Raises `NotReadIn`."""
        own = parts_of(self.node)
        body = self.node.child("body")
        assert body is not None
        asked = mentions(body)
        self.takes = {part.name: _parameters_of(part) for part in own}
        names = frozenset(part.name for part in own if not part.static)
        self.statics = {part.name for part in own if part.static} | self._given_later()
        self.inherited = Inherited(
            self.base, self.workspace, names, self._asked(asked), frozenset(asked.base)
        )
        for name in names:
            if name.startswith("#") and name in self.inherited.parts:
                raise NotReadIn(f"which has a {name} of its own")
        made = self.inherited.parts.get("constructor")
        if made is not None:
            _check_base_call(made)
        self._check_order(own)
        calls = sorted(self._calls(body), key=lambda edit: edit.start)
        if any(one.end > other.start for one, other in pairwise(calls)):
            raise NotReadIn("and asks it for something in asking for something else")
        return [self._heritage(), *self._members(body), *calls]

    def _asked(self, asked: Mentions) -> frozenset[str] | None:
        """Return the members its code and its subclasses read; None for any."""
        below = self.below or Mentions(set(), set())
        if asked.anything or below.anything:
            return None
        return frozenset(asked.names | asked.base | below.names | below.base | self._outside(asked))

    def _outside(self, asked: Mentions) -> set[str]:
        """The base's methods that other files call by a reference."""
        methods = {p.name for p in self.base.parts if p.body is not None and not p.static}
        name = self.node.child("name")
        found = outsiders_of(self.file, name.text if name is not None else "", methods, set(), "")
        return set(found.reached) - asked.names

    def _given_later(self) -> set[str]:
        """The static members a file gives a class after it."""
        name = self.node.child("name")
        return {part for part, _ in _assigned(self.tree, name.text if name is not None else "")}

    # -- the subclass's head ------------------------------------------------------------------

    def _heritage(self) -> Edit:
        """Return the base's own superclass, with the subclass's types for the base's."""
        clause, value = extends_clause(self.base.node), heritage(self.base.node)
        own, first = extends_clause(self.node), heritage(self.node)
        assert clause is not None and value is not None and own is not None and first is not None
        word = self.base.runtime.imported(value, self.base.names) or ""
        runtime = runtime_names(self.tree)
        if runtime.whole:
            text = f"{runtime.whole[0]}.{word}"
        else:
            text = runtime.named.get(word, word)
            if word not in runtime.named:
                text = self.need(word, Imported(RUNTIME, word))
        given = [argument.text for argument in heritage_types(self.node)]
        names = [name for name, _ in self.base.type_parameters]
        arguments = [argument.text for argument in heritage_types(self.base.node)]
        while arguments and arguments[-1] in names and names.index(arguments[-1]) >= len(given):
            arguments.pop()
        if arguments:
            text += f"<{', '.join(self._typed(argument) for argument in arguments)}>"
        return Edit(first.start, own.end, text)

    def _types(self) -> dict[str, str]:
        """Return the type for each type parameter of the base."""
        given = [argument.text for argument in heritage_types(self.node)]
        return {
            name: given[at] if at < len(given) else default or "unknown"
            for at, (name, default) in enumerate(self.base.type_parameters)
        }

    def _typed(self, text: str) -> str:
        types = self._types()
        return re.sub(r"\w+", lambda word: types.get(word[0], word[0]), text)

    # -- members --------------------------------------------------------------------------

    def _members(self, body: Node) -> Iterator[Edit]:
        """The base's members, at the top of the class."""
        indent = self.tree.source.indent_at(body.named_children[0].start)
        texts: list[tuple[str, Node]] = []
        for part in self.inherited.inserted():
            if part.static and part.name in self.statics:
                continue
            notes = comments.leading(self.base.tree, part.node)
            start = notes[0].start if notes else part.node.start
            texts.append((self._text(part.node, start, indent), part.node))
        for name, value in _assigned(self.base.tree, self.base.name):
            if name not in self.statics:
                text = self._text(value, value.start, indent).removesuffix(";")
                texts.append((f"static {name} = {text};", value))
        at = body.start + 1
        if texts and self.tree.source.data[at : at + 1] != b"\n":
            raise NotReadIn("whose members would stand on the line of others")
        for text, node in texts:
            yield Edit(at, at, f"\n{indent}{text}\n", self._place(node))

    def _place(self, node: Node) -> Place:
        """Return the place of a node of the base, in the words of the subclass's file."""
        place = self.base.tree.source.place(node.start)
        far = os.path.relpath(self.base.file, self.file.parent)
        shown = os.path.normpath(Path(self.tree.source.path).parent / far)
        return place._replace(file=shown.replace(os.sep, "/"))

    def _text(
        self, node: Node, start: int, indent: str, given: dict[str, str] | None = None
    ) -> str:
        """Return a part of the base as it reads in the subclass: without dead code, its types named."""
        source = self.base.tree.source
        if any(n.type in ("template_string", "string") and "\n" in n.text for n in node.walk()):
            raise NotReadIn("which has text over several lines")
        end = node.end + (source.data[node.end : node.end + 1] == b";")
        removed = [self._line(statement) for statement in outermost(self._dead_in(node))]
        types = self._types()
        removed += [
            (low, high)
            for low, high in self._surplus(node)
            if not any(start <= low < end for start, end in removed)
        ]
        changes = [(low, high, "") for low, high in removed]
        for below in node.walk():
            if any(low <= below.start < high for low, high in removed):
                continue
            if below.type == "type_identifier" and below.text in types:
                changes.append((below.start, below.end, types[below.text]))
        for ref, binding in self.base.names.references_in(node):
            if binding is None or any(low <= ref.start < high for low, high in removed):
                continue
            if binding.scope is self.base.names.module:
                local = self.bring(ref.text)
                if local != ref.text:
                    changes.append((ref.start, ref.end, _in_place(ref, local)))
            elif given is not None and ref.text in given and binding.kind == "param":
                changes.append((ref.start, ref.end, _in_place(ref, given[ref.text])))
        here, text = start, ""
        for low, high, new in sorted(changes):
            text += source.slice(here, low) + new
            here = high
        text += source.slice(here, end)
        return self._indented(text, source.indent_at(node.start), indent)

    def _surplus(self, node: Node) -> Iterator[tuple[int, int]]:
        """Return arguments that the base passes to a method of the subclass that takes fewer."""
        for call in node.walk() if self.tree.typed else ():
            callee, given = call.child("function"), call.child("arguments")
            if call.type != "call_expression" or callee is None or given is None:
                continue
            if callee.type != "member_expression" or callee.children[0].type != "this":
                continue
            part, values = callee.child("property"), given.named_children
            taken = self.takes.get(part.text) if part is not None else None
            if taken is None or len(values) <= taken:
                continue
            if all(self.inherited.is_pure(value) for value in values[taken:]):
                yield (values[taken - 1].end if taken else given.start + 1), given.end - 1

    def _dead_in(self, node: Node) -> list[Node]:
        """The statements below a node that do nothing."""
        return [
            below
            for below in node.walk()
            if below.type.endswith("_statement")
            and below.parent is not None
            and below.parent.type == "statement_block"
            and self.inherited.dead(below)
        ]

    def _line(self, statement: Node) -> tuple[int, int]:
        notes = comments.leading(self.base.tree, statement)
        start = notes[0].start if notes else statement.start
        span = self.base.tree.source.statement_line(start, statement.end)
        low, data = span.start, self.base.tree.source.data
        others = statement.parent.named_children if statement.parent is not None else []
        if others and others[-1] is statement:
            # The blank line before the last statement goes with it.
            low = len(data[:low].rstrip(b" \t\r\n")) + 1 if data[:low].endswith(b"\n") else low
        return min(low, span.start), span.end

    def _indented(self, text: str, old: str, new: str) -> str:
        """Return lines of one indentation at another one, in the subclass's own unit."""
        theirs, ours = _unit(self.base.tree), _unit(self.tree)
        lines = text.split("\n")
        for number, line in enumerate(lines[1:], 1):
            if not line.strip():
                lines[number] = ""
                continue
            inner = line.removeprefix(old) if line.startswith(old) else line.lstrip()
            deeper = 0
            while theirs and inner.startswith(theirs):
                inner, deeper = inner[len(theirs) :], deeper + 1
            lines[number] = new + ours * deeper + inner
        return "\n".join(lines)

    # -- calls of the base's members ------------------------------------------------------

    def _calls(self, body: Node) -> Iterator[Edit]:
        for node in body.walk():
            if node.type != "super" or node.parent is None:
                continue
            if any(up.type in CLASSES and up is not self.node for up in until(node, self.node)):
                raise NotReadIn("and holds a class of its own")
            yield from self._call(node, node.parent)

    def _call(self, node: Node, parent: Node) -> Iterator[Edit]:
        """Return the text for `super.m(…)` or `super(…)`."""
        if parent.type == "call_expression":
            yield from self._constructed(parent)
            return
        part = parent.child("property")
        method = self.inherited.parts.get(part.text) if part is not None else None
        call = parent.parent
        name = part.text if part is not None else ""
        if method is None or method.body is None or call is None or parent.field != "function":
            raise NotReadIn(f"and asks it for {name}")
        if method.node.has("async") or method.node.has("*"):
            raise NotReadIn(f"whose {name} gives its result later")
        given = self._given(method, call)
        statement = call.parent
        if statement is not None and statement.type == "expression_statement":
            text = self._statements(method, statement, given)
            if text:
                yield Edit(statement.start, statement.end, text, self._place(method.node))
            else:
                span = self.tree.source.statement_line(statement.start, statement.end)
                yield Edit(span.start, span.end, "")
            return
        value = only_value(method.body)
        if value is None:
            raise NotReadIn(f"and makes use of what its {name} gives")
        self._check_locals(value, statement or call)
        text = self._text(value, value.start, "", given).removesuffix(";")
        yield Edit(call.start, call.end, f"({text})", self._place(value))

    def _constructed(self, call: Node) -> Iterator[Edit]:
        statement = call.parent
        method = self.inherited.parts.get("constructor")
        if method is None or statement is None:
            return
        if statement.type != "expression_statement":
            raise NotReadIn("and makes use of what its constructor gives")
        text = self._statements(method, statement, self._given(method, call))
        if text:
            indent = self.tree.source.indent_at(statement.start)
            end = statement.end
            yield Edit(end, end, f"\n{indent}{text}", self._place(method.node))

    def _given(self, method: Part, call: Node) -> dict[str, str]:
        """Return the argument of a call for each parameter of the base's method."""
        arguments = call.child("arguments")
        values = arguments.named_children if arguments is not None else []
        given: dict[str, str] = {}
        references = list(self.base.names.references_in(method.node))
        if any(_does(value) for value in values):
            raise NotReadIn(f"and does something in what it gives its {method.name}")
        parameters = method.parameters
        for at, parameter in enumerate(parameters.named_children if parameters is not None else []):
            pattern = parameter.child("pattern") or parameter
            if pattern.type != "identifier" or parameter.child("value") is not None:
                raise NotReadIn(f"whose {method.name} takes its arguments apart")
            value = values[at].text if at < len(values) else "undefined"
            used = [ref for ref, own in references if own is not None and own.node is pattern]
            head = value.split(".")[0]
            hidden = any(
                ref.text == head
                and own.node is not pattern
                and own.scope is not self.base.names.module
                for ref, own in references
                if own is not None
            )
            if any(is_write(ref) for ref in used) or (used and hidden):
                raise NotReadIn(f"whose {method.name} has names that meet those it is given")
            if used and not re.fullmatch(r"(this\.)?[\w$]+(\.[\w$]+)*", value):
                raise NotReadIn(f"and gives its {method.name} more than a name")
            given[pattern.text] = value
        return given

    def _statements(self, method: Part, statement: Node, given: dict[str, str]) -> str:
        """The statements of a base's method, at the place of a call."""
        assert method.body is not None
        kept = [
            inner
            for inner in method.body.named_children
            if not is_base_call(inner) and not self.inherited.dead(inner)
        ]
        block = self._meets_others(method, kept, statement, given)
        for inner in kept:
            if any(below.type == "return_statement" for below in own_code(inner)):
                raise NotReadIn(f"whose {method.name} gives something back")
            self._check_locals(inner, statement)
        indent = self.tree.source.indent_at(statement.start)
        texts = []
        for inner in kept:
            notes = comments.leading(self.base.tree, inner)
            start = notes[0].start if notes else inner.start
            texts.append(self._text(inner, start, indent + _unit(self.tree) * block, given))
        if block:
            lines = f"\n{indent}{_unit(self.tree)}".join(texts)
            return f"{{\n{indent}{_unit(self.tree)}{lines}\n{indent}}}"
        return f"\n{indent}".join(texts)

    def _meets_others(
        self, method: Part, kept: list[Node], place: Node, given: dict[str, str]
    ) -> bool:
        """Whether names that statements declare need a block of their own where they come to stand.

        Raises `NotReadIn` where a block would not keep them apart.
        """
        declared = {
            below.text
            for inner in kept
            if inner.type == "lexical_declaration"
            for declarator in inner.named_children
            if (pattern := declarator.child("name")) is not None
            for below in pattern.walk()
            if below.type in ("identifier", "shorthand_property_identifier_pattern")
        }
        if any(inner.type in _HOISTED for inner in kept):
            raise NotReadIn(f"whose {method.name} declares names")
        if declared & {value.split(".")[0] for value in given.values()}:
            raise NotReadIn(f"whose {method.name} has names that meet those it is given")
        around = next((up for up in place.up() if up.is_function), self.node)
        before = self._declared.setdefault(around.start, set())
        meets = bool(declared & before) or any(
            n.text in declared for n in around.walk() if n.type in _NAMES
        )
        if not meets:
            before |= declared
        return meets

    def _check_locals(self, code: Node, place: Node) -> None:
        """Names of the base's module must mean the same where the code comes to stand."""
        scope = self.names.scope_at(place)
        for ref, binding in self.base.names.references_in(code):
            if binding is None or binding.scope is self.base.names.module:
                found = scope.find(ref.text)
                if found is not None and found.scope is not self.names.module:
                    raise NotReadIn(f"whose {ref.text} is something else where it would stand")

    def _check_order(self, own: list[Part]) -> None:
        """Check that the base's constructor may run before the subclass's fields exist.

        Here it comes after them: neither may ask for what the other makes. Raises `NotReadIn`.
        """
        made = self.inherited.parts.get("constructor")
        if made is None or self.inherited.idle(made):
            return
        asked = Mentions(set(), set())
        for node in self.inherited.live(made.node):
            asked.add(node)
        for part in own:
            if part.name in asked.names and part.body is not None:
                asked.names |= mentions(part.node).names
        fields = [p for p in own if not p.static and p.body is None and p.node.child("value")]
        if any(part.name in asked.names for part in fields):
            raise NotReadIn("whose constructor asks for what is made after it")
        given = {name for name in asked.names if name not in self.inherited.parts}
        for part in fields:
            if mentions(part.node).names & (given - {"props", "context"}):
                raise NotReadIn("whose constructor makes what a field asks for")


def _in_place(ref: Node, text: str) -> str:
    """Return the text for a name, which may be shorthand for a field of that name."""
    return f"{ref.text}: {text}" if ref.type == "shorthand_property_identifier" else text


def _parameters_of(part: Part) -> int | None:
    """How many arguments a method takes; None for one that may take any number."""
    value = part.node.child("value")
    parameters = (value if value is not None else part.node).child("parameters")
    if parameters is None or part.body is None:
        return None
    kinds = [n.type for p in parameters.named_children for n in (p, *p.children)]
    names = (n.text for n in part.body.walk() if n.type == "identifier")
    return (
        None if "rest_pattern" in kinds or "arguments" in names else len(parameters.named_children)
    )


def _assigned(tree: Tree, name: str) -> Iterator[tuple[str, Node]]:
    """The (member, value) of `X.member = value` at the top of a file."""
    for statement in tree.root.children:
        inner = statement.named_children[:1] if statement.type == "expression_statement" else []
        for assignment in inner:
            target, value = assignment.child("left"), assignment.child("right")
            if assignment.type != "assignment_expression" or target is None or value is None:
                continue
            part = target.child("property") if target.type == "member_expression" else None
            if part is not None and name and target.children[0].text == name:
                yield part.text, value


def _unit(tree: Tree) -> str:
    """One level of indentation."""
    source = tree.source
    for body in tree.of("class_body"):
        for member in body.named_children[:1]:
            outer, inner = source.indent_at(body.start), source.indent_at(member.start)
            if inner.startswith(outer) and inner != outer:
                return inner[len(outer) :]
    return "  "


_NAMES = frozenset(
    {"identifier", "shorthand_property_identifier", "shorthand_property_identifier_pattern"}
)
# Declarations that hold for all of their function.
_HOISTED = frozenset({"variable_declaration", "function_declaration", "class_declaration"})
# Nodes whose evaluation has side effects.
_DOES = frozenset(
    "call_expression new_expression await_expression yield_expression assignment_expression "
    "augmented_assignment_expression update_expression".split()
)


def _does(value: Node) -> bool:
    return any(below.type in _DOES for below in own_code(value))


def _check_base_call(method: Part) -> None:
    """The base's constructor begins by handing on what it was given. Raises `NotReadIn`."""
    assert method.body is not None
    first = method.body.named_children[:1]
    if not first or not is_base_call(first[0]):
        raise NotReadIn("whose constructor does something first")
    arguments = first[0].named_children[0].child("arguments")
    handed = [value.text for value in arguments.named_children] if arguments is not None else []
    parameters = method.parameters
    taken = [
        (parameter.child("pattern") or parameter).text
        for parameter in (parameters.named_children if parameters is not None else [])
    ]
    if handed != taken[: len(handed)]:
        raise NotReadIn("whose constructor hands on something else")
