"""JSX, and the code around it, as markup: conditions, lists, helpers, names that hold markup.

An expression that is not markup refuses the component by name: no template could express it.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from clean_carry.component.code import Code, RootElement, SlotGiven
from clean_carry.component.markup import (
    Attribute,
    Branch,
    Condition,
    Element,
    Expression,
    Form,
    Group,
    Loop,
    Markup,
    MarkupComment,
    Portal,
    Reference,
    SlotOutlet,
    Text,
    inputs_handed_on,
)
from clean_carry.source.javascript import comments
from clean_carry.source.javascript.tree import Node
from clean_carry.source.template.tree import VOID
from clean_carry.syntaxes.jsx.drawing.attributes import Attributes
from clean_carry.syntaxes.jsx.drawing.kinds import Kinds, Known, kinds_of
from clean_carry.syntaxes.jsx.drawing.locals import (
    Locals,
    bare,
    body_of,
    holds_markup,
    is_map,
    is_portal,
    parameters_of,
)
from clean_carry.syntaxes.uses import Uses

# Values for which JSX renders nothing.
_NOTHING = frozenset({"null", "undefined", "true", "false"})
_TEXT = frozenset({"jsx_text", "html_character_reference"})
_SHOWN: Kinds = frozenset({"text", "number", "nothing"})


@dataclass
class MarkupReader:
    """Reads the markup that a component renders.

    `known` says what kinds of value own members give, `slot` the name of the slot behind an expression
    (None: it is none), `helper` the rendering method of a call. `unshown` are props without an attribute
    on an element of the page, `forwarded` is the parameter that holds a parent's reference.
    """

    uses: Uses
    locals: Locals
    known: Known
    slot: Callable[[Node], str | None]
    helper: Callable[[Node], Node | None]
    unshown: frozenset[str] = frozenset()
    forwarded: str = ""

    def __post_init__(self) -> None:
        self.attributes = Attributes(
            self.uses, self.locals, self.known, self.unshown, self.forwarded
        )

    def claim(self, notion: str, node: Node) -> int:
        """Claim a construct of the markup."""
        return self.uses.ledger.claim(notion, self.uses.span(node))

    def code(self, node: Node) -> Code:
        """The code of a node, which is copied."""
        return self.uses.code(self.uses.span(node))

    def refuse(self, detail: str, node: Node) -> None:
        """Refuse markup that no template can express."""
        self.uses.refuse("markup-in-code", detail, node.start)

    # -- functions that render ------------------------------------------------------------------

    def drawn_by(self, function: Node) -> tuple[Markup, ...]:
        """The markup a function gives."""
        body = body_of(function)
        if body.type != "statement_block":
            return self.value(body)
        return self._statements(body.named_children, body)

    def _statements(self, statements: list[Node], around: Node) -> tuple[Markup, ...]:
        """The markup of what statements return, early returns as conditions over the rest."""
        for at, statement in enumerate(statements):
            if statement.type == "return_statement":
                given = statement.named_children
                return self.value(bare(given[0])) if given else ()
            if statement.type == "if_statement" and _gives_back(statement):
                return self._early(statement, statements[at + 1 :], around)
        return ()

    def _early(self, statement: Node, rest: list[Node], around: Node) -> tuple[Markup, ...]:
        arms: list[Branch] = []
        here: Node | None = statement
        while here is not None:
            condition, then = here.child("condition"), here.child("consequence")
            assert condition is not None
            assert then is not None
            test = condition.named_children[0]
            entry = self.claim("early-return", here)
            drawn = self._statements(_inside(then), then)
            if not _always_returns(then):
                self.refuse("a branch that returns only now and then", then)
            other = here.child("alternative")
            if not drawn and not arms and other is None:
                return self._unless(test, entry, self._statements(rest, around), statement)
            arms.append(Branch(self.code(test), self._form(test), drawn, entry))
            inner = other.named_children[0] if other is not None else None
            if inner is None or inner.type == "if_statement":
                here = inner
                continue
            arms.append(Branch(None, "", self._statements(_inside(inner), inner), -1))
            return self._condition(arms, statement)
        arms.append(Branch(None, "", self._statements(rest, around), -1))
        return self._condition(arms, statement)

    def _unless(
        self, test: Node, entry: int, drawn: tuple[Markup, ...], node: Node
    ) -> tuple[Markup, ...]:
        """Return markup that renders if a test fails."""
        asked = bare(test)
        negated = not (asked.type == "unary_expression" and asked.has("!"))
        if not negated:
            asked = bare(asked.named_children[0])
        arm = Branch(self.code(asked), "boolean", drawn, entry, negated)
        return (Condition((arm,), self.uses.span(node)),) if drawn else ()

    def _condition(self, arms: list[Branch], node: Node) -> tuple[Markup, ...]:
        """Return a condition without trailing branches that render nothing."""
        while arms and not arms[-1].children and arms[-1].test is None:
            arms.pop()
        return (Condition(tuple(arms), self.uses.span(node)),) if arms else ()

    # -- expressions --------------------------------------------------------------------------

    def value(self, node: Node) -> tuple[Markup, ...]:
        """Return the markup of an expression that is rendered."""
        node = bare(node)
        match node.type:
            case "jsx_element" | "jsx_self_closing_element":
                return self._element(node)
            case kind if kind in _NOTHING or node.text == "undefined":
                return ()
            case "ternary_expression" if self._draws(node):
                return self._ternary(node)
            case "binary_expression" if self._draws(node):
                return self._logical(node)
            case "call_expression":
                return self._call(node)
            case "array" if self._draws(node):
                return tuple(one for part in node.named_children for one in self.value(part))
            case "string":
                return self._string(node)
        return self._member(node)

    def _draws(self, node: Node) -> bool:
        """Whether markup comes out of an expression: JSX in it, a name that holds some, a slot."""
        for below in node.walk():
            if below.type.startswith("jsx_") or self.slot(below) is not None:
                return True
            if below.type == "call_expression" and self.helper(below) is not None:
                return True
            binding = self.uses.names.meaning(below) if below.type == "identifier" else None
            if binding is not None and id(binding) in self.locals.markup:
                return True
        return False

    def _ternary(self, node: Node) -> tuple[Markup, ...]:
        test, then, other = node.named_children
        entry = self.claim("ternary", node)
        drawn = self.value(then)
        rest = self.value(other)
        if not drawn:
            return self._unless(test, entry, rest, node)
        arms = [Branch(self.code(test), self._form(test), drawn, entry)]
        if len(rest) == 1 and isinstance(rest[0], Condition) and not rest[0].branches[0].negated:
            arms += rest[0].branches
        else:
            arms.append(Branch(None, "", rest, -1))
        return self._condition(arms, node)

    def _logical(self, node: Node) -> tuple[Markup, ...]:
        left, right = node.named_children
        entry = self.claim("logical", node)
        slot = self.slot(bare(left))
        if node.has("||") or node.has("??"):
            return self._first_of([*_operands(left, node), right], node, entry)
        if slot is not None:
            asked = self.uses.span(bare(left))
            given = SlotGiven(asked, self.claim("slot-asked", bare(left)), False, slot)
            arm = Branch(Code(asked, (given,)), "boolean", self.value(right), entry)
            return self._condition([arm], node)
        kinds = kinds_of(left, self.known)
        arms = [Branch(self.code(left), self._form(left), self.value(right), entry)]
        if kinds is not None and "number" in kinds:
            # JSX shows the number where it is nought (its reference, "Conditional rendering").
            arms.append(Branch(None, "", (Text(self.uses.span(node), -1, "0"),), -1))
        elif kinds is None:
            self.attributes.note("nought-shown", left.text[:40], left.start)
        return self._condition(arms, node)

    def _first_of(self, values: list[Node], node: Node, entry: int) -> tuple[Markup, ...]:
        """The first of several values that is one: markup stands for the last, slots may come before."""
        first, *others = values
        if not others:
            return self.value(first)
        slot, plain = (
            self.slot(bare(first)),
            bare(first).type in ("identifier", "member_expression"),
        )
        if slot is not None:
            rest = self._first_of(others, node, -1)
            return (SlotOutlet(slot, rest, self.uses.span(node), entry),)
        if not plain or self._draws(first) or node.has("??"):
            self.refuse(f"markup behind {first.text[:30]} or another value", node)
            return ()
        code, form = self.code(first), self._form(first)
        arms = [Branch(code, form, (Expression(code, form, -1),), entry)]
        arms.append(Branch(None, "", self._first_of(others, node, -1), -1))
        return self._condition(arms, node)

    def _call(self, node: Node) -> tuple[Markup, ...]:
        if is_portal(node):
            return self._portal(node)
        helper = self.helper(node)
        if helper is not None:
            entry = self.claim("drawn-by-helper", node)
            drawn = self.drawn_by(helper)
            return (Group(drawn, self.uses.span(node), entry),)
        if is_map(node):
            arguments = node.child("arguments")
            given = bare(arguments.named_children[0]) if arguments is not None else node
            function = given if given.is_function else self.helper(given)
            if function is not None and (holds_markup(function) or self._draws(function)):
                return self._loop(node, function)
        if self._draws(node):
            self.refuse(f"markup handed to {node.text.partition('(')[0][:40]}", node)
        return self._member(node)

    def _portal(self, node: Node) -> tuple[Markup, ...]:
        """Return content that renders elsewhere in the page."""
        arguments = node.child("arguments")
        given = arguments.named_children if arguments is not None else []
        if len(given) != 2:
            self.refuse("a portal with a key", node)
            return ()
        entry = self.claim("portal", node)
        self.attributes.note("portal-bubbles", "", node.start)
        drawn = self.value(given[0])
        if bare(given[1]).text == "document.body":
            self.uses.ledger.claim("code", self.uses.span(given[1]), "carried", "portal")
            return (Portal(drawn, None, "body", self.uses.span(node), entry),)
        return (Portal(drawn, self.code(given[1]), "", self.uses.span(node), entry),)

    def _loop(self, node: Node, function: Node) -> tuple[Markup, ...]:
        callee = node.child("function")
        assert callee is not None
        entry = self.claim("list", node)
        items = self.code(callee.children[0])
        parameters = parameters_of(function)
        if not parameters or len(parameters) > 2:
            self.refuse("a list whose function takes all of it", node)
            return ()
        names = [Code(self.uses.span(pattern)) for pattern in parameters]
        for name in names:
            self.uses.ledger.claim("code", name.span, "kept")
        drawn = self.drawn_by(function)
        index = names[1] if len(names) > 1 else None
        return (Loop(items, names[0], index, drawn, self.uses.span(node), entry),)

    def _member(self, node: Node) -> tuple[Markup, ...]:
        """A slot, a name that holds markup, or a value that is shown."""
        slot = self.slot(node)
        if slot is not None:
            return (SlotOutlet(slot, (), self.uses.span(node), self.claim("slot", node)),)
        binding = self.uses.names.meaning(node) if node.type == "identifier" else None
        held = self.locals.markup.get(id(binding)) if binding is not None else None
        if held is not None and binding is not None:
            if sum(1 for ref in binding.references if ref.field != "left") > 1:
                self.refuse(f"{node.text} is drawn in several places", node)
            return self._held(held[0], node)
        return (Expression(self.code(node), self._form(node), self.claim("interpolation", node)),)

    def _held(self, declarator: Node, use: Node) -> tuple[Markup, ...]:
        """The markup a name was given: at once, or by the branches behind its declaration."""
        entry = self.claim("markup-name", use)
        value = declarator.child("value")
        statement = declarator.parent
        around = statement.parent if statement is not None else None
        name = declarator.child("name")
        assert name is not None
        later = [
            one
            for one in (around.named_children if around is not None else [])
            if one.start > declarator.end and _assigns(one, name.text)
        ]
        first = self.value(value) if value is not None else ()
        if not later:
            return (Group(first, self.uses.span(use), entry),)
        if len(later) > 1 or later[0].type != "if_statement":
            self.refuse(f"{name.text} is given markup several times", later[0])
            return ()
        arms: list[Branch] = []
        here: Node | None = later[0]
        while here is not None:
            condition, then = here.child("condition"), here.child("consequence")
            assert condition is not None
            assert then is not None
            test = condition.named_children[0]
            given = self._given(then, name.text)
            arms.append(
                Branch(self.code(test), self._form(test), given, self.claim("condition", here))
            )
            other = here.child("alternative")
            inner = other.named_children[0] if other is not None else None
            here = inner if inner is not None and inner.type == "if_statement" else None
            if here is None and inner is not None:
                arms.append(Branch(None, "", self._given(inner, name.text), -1))
            elif here is None:
                arms.append(Branch(None, "", first, -1))
        return (Group(self._condition(arms, later[0]), self.uses.span(use), entry),)

    def _given(self, branch: Node, name: str) -> tuple[Markup, ...]:
        statements = _inside(branch)
        assignment = statements[0].named_children[0] if statements else branch
        left, right = assignment.child("left"), assignment.child("right")
        if len(statements) != 1 or left is None or right is None or left.text != name:
            self.refuse(f"more than markup for {name}", branch)
            return ()
        return self.value(right)

    def _string(self, node: Node) -> tuple[Markup, ...]:
        raw = node.text[1:-1]
        if "\\" in raw or "{{" in raw or "<" in raw or "&" in raw:
            return (Expression(self.code(node), "text", self.claim("interpolation", node)),)
        return (Text(self.uses.span(node), self.claim("text", node), raw),) if raw else ()

    def _form(self, node: Node) -> Form:
        kinds = kinds_of(node, self.known)
        if kinds is None:
            return ""
        if kinds <= _SHOWN:
            return "text"
        return "boolean" if kinds == frozenset({"boolean"}) else ""

    # -- elements ---------------------------------------------------------------------------

    def _element(self, node: Node) -> tuple[Markup, ...]:
        opening = node if node.type == "jsx_self_closing_element" else node.children[0]
        tag = opening.child("name")
        span, entry = self.uses.span(node), self.claim("element", node)
        inner = self._children(node) if node is not opening else ()
        if tag is None:
            key = [part for part in opening.named_children if part.type == "jsx_attribute"]
            if key:
                self.refuse("a fragment with attributes", key[0])
            return (Group(inner, span, entry),)
        if tag.text.rpartition(".")[2] == "Fragment":
            attributes = self.attributes.read(opening, "template")
            return (
                (Group(inner, span, entry),)
                if not attributes
                else (Element("template", attributes, inner, span, entry),)
            )
        named = tag.text[:1].isupper() or "." in tag.text
        chosen = self._chosen(tag) if named else None
        attributes = self.attributes.read(opening, tag.text, component=named and chosen is None)
        attributes += self._found_by_code(tag)
        if not inner and tag.text not in VOID:
            inner = self._handed_content(attributes, node)
        if named and tag.type == "member_expression" and chosen is None:
            self.refuse(f"<{tag.text}>", tag)
        return (
            Element(
                tag.text, attributes, inner, span, entry, node is opening and not inner,
                named and chosen is None, chosen,
            ),
        )  # fmt: skip

    def _found_by_code(self, tag: Node) -> tuple[Attribute, ...]:
        """The reference of an element that code asks the runtime for: it stands right behind its tag."""
        mark = self.uses.tree.source.span(tag.end, tag.end)
        code = self.uses.code(mark, kept=False, closing=True)
        for operation in code.operations:
            if isinstance(operation, RootElement):
                return (Reference(operation.name, code, operation.entry),)
        return ()

    def _handed_content(self, attributes: tuple[Attribute, ...], node: Node) -> tuple[Markup, ...]:
        """Return the content between the component's tags that an element gets with all other props."""
        for one in attributes:
            rest = inputs_handed_on(one)
            if rest is not None and "children" not in rest.named:
                return (SlotOutlet("", (), self.uses.span(node), self.claim("slot", node)),)
        return ()

    def _chosen(self, tag: Node) -> Code | None:
        """Return the values of a tag that is a name of the render code, or a member."""
        found = self.uses.code(self.uses.span(tag), kept=False)
        return found if found.operations else None

    def _children(self, node: Node) -> tuple[Markup, ...]:
        found: list[Markup] = []
        run: list[Node] = []
        for child in node.children[1:-1]:
            if child.type in _TEXT:
                run.append(child)
                continue
            found += self._text(run)
            run = []
            found += self._child(child)
        found += self._text(run)
        return tuple(found)

    def _child(self, child: Node) -> tuple[Markup, ...]:
        if child.type != "jsx_expression":
            return self.value(child)
        inner = child.named_children
        notes = comments.within(self.uses.tree, child.start, child.end)
        if not inner:
            return tuple(self._comment(child, note) for note in notes)
        if inner[0].type == "spread_element":
            self.refuse("spread children", child)
            return ()
        entry = self.claim("markup-code", child)
        drawn = self.value(inner[0])
        return (Group(drawn, self.uses.span(child), entry),)

    def _comment(self, child: Node, note: Node) -> MarkupComment:
        """A comment among markup; of its two marks the page has its own."""
        entry = self.claim("markup-comment", child)
        self.attributes.drawn_comments.add(note.start)
        end = note.end - 2 if note.text.startswith("/*") else note.end
        inner = self.uses.tree.source.span(note.start + 2, end)
        return MarkupComment(self.uses.span(child), inner, entry)

    def _text(self, run: list[Node]) -> list[Markup]:
        if not run:
            return []
        raw = "".join(part.text for part in run)
        drawn = drawn_text(raw)
        span = self.uses.tree.source.span(run[0].start, run[-1].end)
        entry = self.uses.ledger.claim("text", span)
        if "{{" in drawn:
            self.refuse("text with two braces", run[0])
        return [Text(span, entry, drawn)]


def _operands(left: Node, node: Node) -> list[Node]:
    """The values before the last one of `a || b || c`."""
    sign = "||" if node.has("||") else "??"
    if left.type == "binary_expression" and left.has(sign):
        return [*_operands(left.named_children[0], left), left.named_children[1]]
    return [left]


def is_handed_on(name: Node) -> bool:
    """Whether all that a name holds is given to an element: `<p {...name}>`."""
    spread = name.parent
    around = spread.parent if spread is not None and spread.type == "spread_element" else None
    return around is not None and around.type == "jsx_expression"


def drawn_text(raw: str) -> str:
    """Return text as JSX renders it: lines trimmed and joined by one space, blank ones gone."""
    if "\n" not in raw:
        return raw
    lines = raw.split("\n")
    kept = []
    for number, line in enumerate(lines):
        text = line if number == 0 else line.lstrip(" \t\r")
        text = text if number == len(lines) - 1 else text.rstrip(" \t\r")
        if text:
            kept.append(text)
    return " ".join(kept)


def _gives_back(statement: Node) -> bool:
    """Whether something is returned inside of a statement, functions below left out."""
    stack = list(statement.children)
    while stack:
        here = stack.pop()
        if here.type == "return_statement":
            return True
        if not here.is_function:
            stack.extend(here.children)
    return False


def _always_returns(branch: Node) -> bool:
    statements = _inside(branch)
    if not statements:
        return False
    last = statements[-1]
    if last.type == "if_statement":
        other = last.child("alternative")
        then = last.child("consequence")
        return (
            other is not None and then is not None and _always_returns(then)
            and _always_returns(other.named_children[0])
        )  # fmt: skip
    return last.type == "return_statement"


def _inside(branch: Node) -> list[Node]:
    """The statements of a branch."""
    return branch.named_children if branch.type == "statement_block" else [branch]


def _assigns(statement: Node, name: str) -> bool:
    return any(
        below.type == "assignment_expression" and below.children[0].text == name
        for below in statement.walk()
    )
