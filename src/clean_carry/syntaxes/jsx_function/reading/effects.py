"""Effects: what they look at, what they do, and what ends them."""

from __future__ import annotations

from dataclasses import replace

from clean_carry.component.code import Cleanup, Code, Operation
from clean_carry.component.members import Effect
from clean_carry.component.spans import Span
from clean_carry.source.javascript import comments
from clean_carry.source.javascript.tree import Node
from clean_carry.syntaxes.jsx.drawing.kinds import kinds_of
from clean_carry.syntaxes.jsx.drawing.locals import bare, parameters_of, returns_of
from clean_carry.syntaxes.jsx_function.reading.facts import FunctionFacts
from clean_carry.syntaxes.jsx_function.reading.hooks import HookCall, Hooks
from clean_carry.syntaxes.uses import Build

_NOTHING = ("undefined", "null", "void 0")


class EffectReader:
    """Reads the effects of one function; `events` are inputs that became events."""

    def __init__(
        self,
        facts: FunctionFacts,
        hooks: Hooks,
        events: tuple[str, ...],
    ) -> None:
        self.facts, self.hooks, self.events = facts, hooks, events

    def read(self, call: HookCall) -> Effect | None:
        """The effect a call makes; None where it is refused."""
        function = bare(call.given[0]) if call.given else None
        deps = call.argument(1)
        if function is None or not function.is_function or parameters_of(function):
            self._unread(call)
            return None
        body = function.child("body")
        assert body is not None
        kept = self._kept_in_boxes(body) if deps is None else []
        if kept:
            sources = [code for value in kept for code in self._source(bare(value), frozenset())]
        elif deps is None or deps.type != "array":
            self.facts.refuse("runs-at-every-draw", "", call.call.start)
            return None
        else:
            sources = self._sources(deps)
        if function.has("async") or function.has("*"):
            self._unread(call)
        expression = body.type != "statement_block"
        ends = False
        if expression and bare(body).is_function:
            # The function it returns is its clean-up.
            return self._end_alone(call, bare(body), sources)
        elif expression:
            self._expression(body, call)
            span = self.facts.span(body)
        else:
            ends = self._ends(body)
            self.facts.sort()
            span = self.facts.tree.source.span(body.start + 1, body.end - 1)
        return self._made(call, self.facts.code(span), sources, (ends, expression))

    def _made(
        self, call: HookCall, text: Code, sources: list[Code], form: tuple[bool, bool]
    ) -> Effect:
        entry = self.facts.ledger.claim("effect", self.facts.span(call.call))
        notes = comments.leading(self.facts.tree, call.statement)
        spans: tuple[Span, ...] = tuple(self.facts.span(note) for note in notes)
        return Effect(text, tuple(sources), *form, entry, spans)

    def _end_alone(self, call: HookCall, value: Node, sources: list[Code]) -> Effect:
        """An effect that is nothing but its clean-up: `() => () => clearTimeout(timer.current)`."""
        span = self.facts.span(value)
        entry = self.facts.ledger.claim("cleanup", span)
        inner = self.facts.code(span)
        text = replace(inner, operations=(Cleanup(span, entry, False, inner, True),))
        return self._made(call, text, sources, (True, True))

    def _kept_in_boxes(self, body: Node) -> list[Node]:
        """Return boxes that an effect fills and nothing else: `latest.current = onPick`. It may run
        only when the value changed."""
        block = body.type == "statement_block"
        found = []
        for statement in body.named_children if block else [body]:
            whole = statement.named_children[0] if block and statement.named_children else statement
            left, right = whole.child("left"), whole.child("right")
            if whole.type != "assignment_expression" or left is None or right is None:
                return []
            box = left.children[0].text if left.type == "member_expression" else ""
            plain = right.type == "identifier" or (
                right.type == "member_expression" and right.children[0].type == "identifier"
            )
            if box not in self.hooks.boxes or not plain:
                return []
            found.append(right)
        return found

    def _unread(self, call: HookCall) -> None:
        what = call.call.text.split("\n")[0][:40]
        self.facts.refuse("hook-unread", what, call.call.start)

    def _expression(self, body: Node, call: HookCall) -> None:
        """Check that the result of an effect's single expression is nothing, since it would be the
        clean-up."""
        callee = body.child("function") if body.type == "call_expression" else None
        name = callee.text if callee is not None else ""
        nothing = body.type.endswith(("assignment_expression", "update_expression"))
        known = name in self.hooks.setters or name in self.hooks.dispatches
        sent = name.rpartition(".")[2] in self.events
        if not (nothing or known or sent):
            self._unread(call)

    def _ends(self, body: Node) -> bool:
        """Whether an effect returns what ends it; each such statement is noted."""
        last = body.named_children[-1] if body.named_children else None
        found = False
        for statement in returns_of(body):
            given = statement.named_children
            if not given or given[0].text in _NOTHING:
                continue
            found = True
            self.facts.add(
                statement, "cleanup", self._cleanup(statement, given[0], statement is last)
            )
        return found

    def _cleanup(self, statement: Node, value: Node, last: bool) -> Build:
        span, facts = self.facts.span(statement), self.facts

        def build(entry: int) -> Operation:
            return Cleanup(span, entry, False, facts.code(facts.span(value)), last)

        return build

    # -- what it looks at ------------------------------------------------------------------------

    def _sources(self, deps: Node) -> list[Code]:
        found: list[Code] = []
        for part in deps.named_children:
            found += self._source(bare(part), frozenset())
        return found

    def _source(self, part: Node, seen: frozenset[str]) -> list[Code]:
        root = part
        while root.type in ("member_expression", "subscript_expression", "non_null_expression"):
            root = root.children[0]
        name = root.text
        stable = {*self.hooks.setters, *self.hooks.dispatches, *self.hooks.boxes}
        if part.type in ("string", "number", "true", "false", "null") or name in stable:
            return []
        if root.type != "identifier":
            self.facts.refuse("hook-unread", part.text[:40], part.start)
            return []
        callback = next(
            (c for c in self.hooks.callbacks if c.pattern is not None and c.pattern.text == name),
            None,
        )
        if callback is not None and name not in seen:
            deps = callback.argument(1)
            inner = deps.named_children if deps is not None and deps.type == "array" else []
            self.facts.refuse(
                "hook-unread", f"{name} as a dependency", part.start
            ) if inner else None
            return []
        if name in self.facts.functions:
            self.facts.refuse("runs-at-every-draw", name, part.start)
            return []
        binding = self.facts.names.meaning(root)
        if binding is None or binding.scope is self.facts.names.module:
            return []
        if name in self.facts.values and part is root:
            self._check_made_anew(name, part)
        return [self.facts.code(self.facts.span(part))]

    def _check_made_anew(self, name: str, part: Node) -> None:
        """A value that is another object at each render runs an effect each time."""
        for statement in self.facts.node.walk():
            declared = statement.child("name") if statement.type == "variable_declarator" else None
            value = statement.child("value")
            if declared is None or declared.text != name or value is None:
                continue
            if any(call.call.start == bare(value).start for call in self.hooks.memos):
                return
            kinds = kinds_of(bare(value), lambda node: None)
            if kinds is not None and "object" in kinds:
                self.facts.refuse("runs-at-every-draw", name, part.start)
            return
