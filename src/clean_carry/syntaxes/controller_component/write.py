"""Write a directive as a component: its definition and its options.

The definition's object is copied; options that mean something else are spelled anew, those a component
is by nature go. Scope and controller become one object; the link function runs when children are linked.
"""

from __future__ import annotations

from clean_carry.component.fragment import Fragment, Piece, copy, new
from clean_carry.source.javascript.tree import Node
from clean_carry.syntaxes.controller_component.controller import (
    ControllerWriting,
    function_body,
)
from clean_carry.syntaxes.controller_component.controller_arguments import has_body, plain_name
from clean_carry.syntaxes.controller_component.one_way import OneWay
from clean_carry.syntaxes.controller_component.text import first_of, lead_of
from clean_carry.syntaxes.scoped_template.definition import Option
from clean_carry.syntaxes.scoped_template.model import CONTROLLER, NotRead
from clean_carry.syntaxes.scoped_template.registrations import parameters_of, text_of

# Options a component has none of, and those it says in the same words.
_GONE = frozenset({"restrict", "replace", "priority", "name", "link", "compile"})
_COPIED = frozenset({"controllerAs", "template", "templateUrl", "transclude"})


def _statement_of(node: Node) -> Node:
    """The statement a call stands in."""
    return next((up for up in node.up() if up.type == "expression_statement"), node)


class ComponentWriter(ControllerWriting):
    """Writes one directive of a file. All edits go into the file's replacements."""

    # How its bindings go one way, where they are to.
    one_way: OneWay | None = None

    def spell(self) -> None:
        """Spell every use anew, also in code of other directives. Raises `NotRead`."""
        self.check()
        self._handed()
        self._scope()
        self._required()
        if self.one_way is not None:
            self.one_way.in_code()

    def assemble(self) -> None:
        """Put the component in its place, once all uses in the file are spelled. Raises `NotRead`."""
        self._definition()

    def _definition(self) -> None:
        """The registration, its object, and the controller's function."""
        options = self._options()
        registration = self.definition.registration
        controller = self.directive.controller
        if controller.form in ("registered", "declared") and (
            self.sharing is None or self.sharing.first
        ):
            assert controller.function is not None
            self._controller_in_place(controller.function)
        body = self._object(options)
        span = self.source.span
        call = registration.call
        name = call.child("arguments")
        entry = self.ledger.claim("directive", span(registration.at, call.end))
        apart = self._apart()
        gone: list[tuple[int, int]] = []
        for statement in apart:
            lead = lead_of(self.source, self.file.tree.comments, statement, 0)
            first = first_of(self.source, lead, statement)
            start, end, _ = self.source.statement_line(first, statement.end)
            self.edits.spell(start, end, "", "factory", "factory-inside")
            gone.append((start, end))
        if name is None or call.type != "call_expression":
            raise NotRead(
                "definition-unread", "it is registered by an object of several", registration.at
            )
        text = name.named_children[0]
        whole = self._shared_service() + (
            new(".component(", entry, "directive-to-component")
            + copy(span(text.start, text.end))
            + new(", ")
            + body
            + new(")")
        )
        whole = self._commented(whole, [(text.end, call.end), *gone])
        self.edits.put(registration.at, call.end, whole)

    def _commented(self, whole: Fragment, places: list[tuple[int, int]]) -> Fragment:
        """With the comments of the factory that stood beside what was moved, before the component."""
        copied = [p.span for p in whole.pieces if p.span is not None]
        registration = self.definition.registration
        indent = self._indent(registration.at)
        lost = [
            c
            for c in self.file.tree.comments
            if any(start <= c.start < end for start, end in places)
            and not any(span.start <= c.start < span.end for span in copied)
        ]
        head = Fragment()
        for comment in lost:
            head += copy(self.source.span(comment.start, comment.end)) + new(f"\n{indent}")
        line = self.source.line_start(registration.at)
        if lost and self.source.data[line : registration.at].strip():
            # It stands behind something on its line: they go above all of that.
            statement = _statement_of(registration.call)
            self.edits.put(statement.start, statement.start, head)
            return whole
        return head + whole

    def _options(self) -> dict[str, Fragment | None]:
        """For each option what stands in its place: None where it goes, missing where it is copied."""
        found: dict[str, Fragment | None] = {}
        definition = self.definition
        for name, option in definition.options.items():
            pair, value = option.whole, option.value
            if pair.parent is not self.object and not self._is_apart(option):
                raise NotRead(
                    "definition-unread", f"“{name}” is given by a statement of its own", pair.start
                )
            if self._goes(name, value):
                found[name] = None
            elif (made := self._option(name, option)) is not None:
                found[name] = made
            elif name in ("scope", "bindToController", "require", "controller"):
                found[name] = None
            elif name not in _COPIED:
                raise NotRead("option-not-said", name, pair.start)
        return found

    def _goes(self, name: str, value: Node) -> bool:
        """Whether a component has no such option, or it says what is so without it."""
        if name == "controllerAs":
            return value.text in ("null", "undefined", "false") or text_of(value) == CONTROLLER
        return name in _GONE or (name == "transclude" and value.text in ("false", "null"))

    def _option(self, name: str, option: Option) -> Fragment | None:
        """Return the text for an option that a component expresses in another way; None for none."""
        pair, value = option.whole, option.value
        match name:
            case "scope" | "bindToController":
                return self._bindings_option(name, pair, value)
            case "require":
                return self._require(pair, value)
            case "controller":
                return self._controller_option(pair, value)
            case "template" | "templateUrl" if value.is_function:
                return self._template_function(pair, value)
            case "template" | "templateUrl":
                taken = self._injected_in(value)
                if taken and pair.type == "pair":
                    return self._injected_value(name, value, taken)
        return None

    def _bindings_option(self, name: str, pair: Node, value: Node) -> Fragment | None:
        own = self.definition.value("bindToController")
        both = own is not None and own.type == "object" and bool(own.named_children)
        holds = value.type == "object" and value.named_children
        found = self._bindings(pair, value) if holds else None
        return new(self._outer_bindings()) if name == "scope" and self.outer and not both else found

    def _outer_bindings(self) -> str:
        q = self.style.quote
        return "bindings: { " + ", ".join(f"{n}: {q}<{q}" for n in self.outer) + " }"

    def _bindings(self, pair: Node, value: Node) -> Fragment:
        for name, renamed in self.members.renamed.items():
            binding = self.directive.bindings.get(name)
            if binding is not None and not self.directive.bound_to_controller:
                key, text = binding.node.child("key"), binding.node.child("value")
                assert key is not None and text is not None
                self.edits.spell(key.start, key.end, renamed, "binding", "member-renamed")
                said = text_of(text) or ""
                if binding.attribute == name and not said.rstrip().endswith(name):
                    at = text.end - 1
                    self.edits.put(at, at, new(name))
        if self.outer:
            q = self.style.quote
            at = value.named_children[-1].end
            self.edits.put(at, at, new("".join(f", {n}: {q}<{q}" for n in self.outer)))
        return new("bindings: ") + self.edits.text(value.start, value.end)

    def _require(self, pair: Node, value: Node) -> Fragment | None:
        parts = []
        q = self.style.quote
        for number, (asked, key) in enumerate(self.directive.required):
            if self._own_name(asked):
                continue
            name = self.keys.get(number) or key or plain_name(asked) + "Ctrl"
            parts.append(f"{name}: {q}{asked}{q}")
        if not parts:
            return None
        return new("require: { " + ", ".join(parts) + " }")

    def _template_function(self, pair: Node, value: Node) -> Fragment:
        """A function that gives a template is injected like any other."""
        q = self.style.quote
        taken = parameters_of(value)
        names = ["$element", "$attrs"][: len(taken)]
        extra = self._injected_in(value)
        key = pair.child("key") or pair.child("name")
        assert key is not None
        text = key.text
        if not names and not extra:
            return self.edits.text(pair.start, pair.end)
        listed = ", ".join(f"{q}{n}{q}" for n in (*names, *(n for n, _ in extra)))
        function = self._function(value, [p for _, p in extra])
        return new(f"{text}: [{listed}, ") + function + new("]")

    def _injected_in(self, value: Node) -> list[tuple[str, str]]:
        """Yield the factory's services used in a value: (name, parameter)."""
        found = []
        for injection in self.definition.registration.injections:
            if injection.parameter is None:
                continue
            binding = self.js.scope_at(injection.parameter).find(injection.parameter.text)
            refs = binding.references if binding is not None else []
            if any(value.start <= ref.start < value.end for ref in refs):
                found.append((injection.name, injection.parameter.text))
        return found

    def _injected_value(self, name: str, value: Node, taken: list[tuple[str, str]]) -> Fragment:
        """A value that needs what is injected is given by a function, which the runtime injects."""
        q = self.style.quote
        listed = ", ".join(f"{q}{service}{q}" for service, _ in taken)
        parameters = ", ".join(parameter for _, parameter in taken)
        head = new(f"{name}: [{listed}, function{self.style.space}({parameters}) {{ return ")
        text = self.edits.text(value.start, value.end)
        return head + text + new(f"{self.style.semicolon} }}]")

    def _function(self, value: Node, more: list[str]) -> Fragment:
        """A function's text with further parameters."""
        head = new("function") if value.type == "method_definition" else Fragment()
        listed = value.child("parameters")
        start = value.start
        if value.type == "method_definition":
            assert listed is not None
            start = listed.start
        if not more:
            return head + self.edits.text(start, value.end)
        if listed is None:
            raise NotRead("definition-unread", value.text.split("\n")[0][:60], value.start)
        comma = ", " if listed.named_children else ""
        close = listed.end - 1
        return (
            head
            + self.edits.text(start, close)
            + new(comma + ", ".join(more))
            + self.edits.text(close, value.end)
        )

    def _controller_option(self, pair: Node, value: Node) -> Fragment | None:
        """The option: a name stays one, a function stands there with what was linked."""
        controller = self.directive.controller
        if self._wraps():
            return new("controller: ") + self._wrapped(self._levels(self._indent(pair.start)))
        if controller.form == "registered":
            text = text_of(value) or ""
            if text != controller.name and not self.directive.alias:
                q = self.style.quote
                return new(f"controller: {q}{controller.name}{q}")
            return self.edits.text(pair.start, pair.end)
        if controller.form in ("declared", "closed"):
            return self.edits.text(pair.start, pair.end)
        function = controller.function
        assert function is not None
        if (
            not function_body(function).named_children
            and not self.directive.links
            and not self._brings()
        ):
            return self.edits.text(pair.start, pair.end)
        inside = self.object.start <= function.start < self.object.end
        at, own = self._indent(pair.start), self._indent(function.start)
        levels = 0 if inside else self._levels(at) - self._levels(own)
        return new("controller: ") + self._whole(function).shifted(levels)

    def _object(self, options: dict[str, Fragment | None]) -> Fragment:
        """The definition's object with its options in their places."""
        definition, source = self.definition, self.source
        node = self.object
        if definition.link_alone is not None:
            raise NotRead("stays-behaviour", "", definition.registration.at)
        pairs = [option for option in definition.options.values() if option.whole.parent is node]
        has_controller = self.directive.controller.form != ""
        needs = not has_controller and (
            any(has_body(f) for _, f in self.directive.links) or self._brings()
        )
        link = next((o for o in pairs if o.name in ("link", "compile")), None) if needs else None
        gone = (0, 0)
        for option in pairs:
            gone = self._put_option(option, options, gone, link)
        if self.outer and "scope" not in definition.options and pairs:
            first = pairs[0].whole.start
            gap = source.slice(node.start + 1, first)
            lead = gap[gap.rfind("\n") :] if "\n" in gap else " "
            self.edits.put(node.start + 1, node.start + 1, new(f"{lead}{self._outer_bindings()},"))
        self._last_comma(
            pairs,
            [o for o in pairs if o.name not in options or options[o.name] is not None or o is link],
        )
        apart = [o for o in definition.options.values() if o.whole.parent is not node]
        if apart:
            self._put_apart(apart, options, pairs, needs)
        shift = (
            self._levels(self._indent(self.definition.registration.at))
            + 1
            - self._levels(
                self._indent(node.named_children[0].start if node.named_children else node.start)
            )
        )
        if "\n" not in node.text or (apart and not pairs):
            shift = 0
        text = self.edits.text(node.start, node.end).shifted(shift)
        self.ledger.claim("definition", source.span(node.start, node.end), "kept")
        return text

    def _put_option(
        self, option: Option, options: dict[str, Fragment | None], gone: tuple[int, int],
        link: Option | None,
    ) -> tuple[int, int]:  # fmt: skip
        """Write one option in its place; the last stretch that has gone by then. `link` becomes the
        controller."""
        whole = option.whole
        held = whole.start, whole.end
        if options.get(option.name, Fragment()) is None and option is not link:
            held = self._line_of(whole, gone)
            gone = (gone[0] if held[0] == gone[1] else held[0], held[1])
        entry = self.ledger.claim("option", self.source.span(*held))
        if option.name not in options:
            self.ledger.settle(entry, "kept")
            return gone
        settle = Fragment([Piece(entry=entry, rule="option-carried")])
        fragment = options[option.name]
        if option is link:
            level = self._levels(self._indent(whole.start))
            fragment = new("controller: ") + self._new_controller(level)
        if fragment is None:
            self.edits.put(*held, settle)
        else:
            self.edits.put(whole.start, whole.end, fragment + settle)
        return gone

    def _is_apart(self, option: Option) -> bool:
        """Whether an option is given by a plain statement of the factory: `ddo.link = …`."""
        statement = option.whole.parent
        body = self.factory.child("body")
        return (
            option.whole.type == "assignment_expression"
            and statement is not None
            and statement.type == "expression_statement"
            and statement.parent is body
        )

    def _put_apart(
        self,
        apart: list[Option],
        options: dict[str, Fragment | None],
        pairs: list[Option],
        needs: bool,
    ) -> None:
        """Options given by statements of their own, as parts of the object."""
        node, unit = self.object, self.style.unit
        level = self._levels(self._indent(node.start if pairs else self.definition.registration.at))
        inner = "\n" + unit * (level + 1)
        lines: list[Fragment] = []
        for option in apart:
            statement = option.whole.parent
            assert statement is not None
            span = self.source.span(statement.start, statement.end)
            entry = self.ledger.claim("option", span)
            shift = level + 1 - self._levels(self._indent(statement.start))
            value = self.edits.text(option.value.start, option.value.end).shifted(shift)
            fragment = options.get(option.name, new(f"{option.name}: ") + value)
            if option.name in ("link", "compile") and needs:
                fragment = new("controller: ") + self._new_controller(level + 1)
            settle = Fragment([Piece(entry=entry, rule="option-carried")])
            if fragment is None:
                self.edits.put(node.end - 1, node.end - 1, settle)
            else:
                lines.append(fragment + settle)
        text = Fragment()
        for number, line in enumerate(lines):
            text += new(("," if pairs or number else "") + inner) + line
        end = node.end - 1
        data = self.source.data
        while data[end - 1 : end].isspace() and pairs:
            end -= 1
        if data[end - 1 : end] == b"," and pairs:
            end -= 1
        last = new("" if b"\n" in data[end : node.end] and pairs else "\n" + unit * level)
        self.edits.put(end, end, text + last)

    def _line_of(self, pair: Node, gone: tuple[int, int]) -> tuple[int, int]:
        """An option with its comma, and its line where nothing else stands there; `gone` is the last
        stretch that has gone already."""
        data = self.source.data
        start, end = pair.start, pair.end
        look = end
        while data[look : look + 1] in (b" ", b"\t"):
            look += 1
        if data[look : look + 1] == b",":
            end = look + 1
        rest = end
        while data[rest : rest + 1] in (b" ", b"\t"):
            rest += 1
        line = self.source.line_start(start)
        follows = gone[1] > line and not data[gone[1] : start].strip()
        if follows:
            return gone[1], end if data[line : gone[0]].strip() else rest
        alone = not data[line:start].strip()
        if alone and data[rest : rest + 1] == b"\n" and line:
            return line - 1, rest
        if alone:
            return start, rest
        while data[start - 1 : start] in (b" ", b"\t"):
            start -= 1
        return start, end

    def _last_comma(self, pairs: list[Option], kept: list[Option]) -> None:
        """The last option ends as the last one did."""

        if not pairs or not kept:
            return
        last, stays = pairs[-1], kept[-1]
        if last is stays:
            return
        data = self.source.data
        after = data[last.whole.end : self.object.end].lstrip()
        if after.startswith(b","):
            return
        comma = data.find(b",", stays.whole.end)
        if data[stays.whole.end : comma].strip() == b"":
            self.edits.spell(comma, comma + 1, "", "option", "last-comma")
