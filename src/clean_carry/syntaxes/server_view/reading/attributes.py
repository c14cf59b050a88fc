"""The start tags of a view's elements, as templates of single files write them."""

from __future__ import annotations

import html
import re
from collections.abc import Callable, Mapping
from dataclasses import dataclass, field

from clean_carry.source.expressions.model import Apply, Choice, Constant, Expr, Record, Unsayable
from clean_carry.source.expressions.types import FLAG, TEXT, Type, record_of
from clean_carry.source.php.tree import PhpNode, expression_in, parsed
from clean_carry.source.template.tree import TemplateAttribute
from clean_carry.source.text import SourceText
from clean_carry.source.view.marks import Mark
from clean_carry.source.view.tree import Arm, Block, Part, Piece
from clean_carry.syntaxes.server_view.attributes import FLAGS as SWITCHED
from clean_carry.syntaxes.server_view.reading.names import Names

# Attributes that a template would read in a way of its own, or that a script of the page reads.
_OTHERS = re.compile(r"[:@#]|v-|x-|wire:|on[a-z]+$|(?:key|ref|is|slot)$")


@dataclass
class Given:
    """The content of a start tag: its attributes as texts, and the parts of its class."""

    texts: list[tuple[str, int]] = field(default_factory=list)
    plain: list[str] = field(default_factory=list)
    classes: list[str] = field(default_factory=list)
    class_at: int = -1
    passes_on: bool = False
    # Whether what is read stands under a condition, and whether the class of the tag does.
    conditional: bool = False
    chosen: bool = False


@dataclass
class Attributes:
    """Writes start tags. `arms` reads the tests of a block, for the attributes in it; `rooted` says that
    the tag is the root's, which takes the attributes of its parent by itself."""

    source: SourceText
    names: Names
    within: Callable[[int, int], list[Part]]
    tests: Callable[[Block], list[Expr | None]]

    def given(self, parts: list[Part], *, rooted: bool) -> Given:
        """The attributes of a start tag. Raises `Unsayable`."""
        made = Given()
        for part in parts:
            self._one(part, made, rooted=rooted)
        if made.passes_on and not rooted:
            made.texts.append(('v-bind="$attrs"', parts[0].start))
        return made

    def for_child(self, parts: list[Part], types: Mapping[str, Type]) -> Given:
        """The inputs that a tag gives a view: values as they are, texts, flags. `types` are those of the
        view's inputs. Raises `Unsayable`."""
        made = Given()
        for part in parts:
            if isinstance(part, Mark) and part.kind == "echo":
                self._echo(part, made, rooted=False)
                continue
            if not isinstance(part, TemplateAttribute):
                text = self.source.slice(part.start, part.end)[:40]
                raise Unsayable(f"`{text}` in the tag of a view", part.start)
            made.texts.append((self._for_child(part, types), part.start))
        if made.passes_on:
            made.texts.append(('v-bind="$attrs"', parts[0].start))
        return made

    def _for_child(self, one: TemplateAttribute, types: Mapping[str, Type]) -> str:
        name = one.name.removeprefix(":")
        if one.name.startswith(":") and one.value is not None and not name.startswith((":", "$")):
            data = self.source.data[slice(*one.value)]
            value = self.names.reader.read(expression_in(data, one.value[0]))
            taken = types.get(re.sub(r"-(\w)", lambda found: found[1].upper(), name))
            if taken is not None and value.type.kind == "any" and taken.kind in _KINDS:
                kind = "whole" if taken.whole else taken.kind
                self.names.uses.note(self.names.reader.path(value), kind)
            return f':{name}="{quoted(self.code(value))}"'
        if _OTHERS.match(one.name):
            raise Unsayable(f"the attribute {one.name}", one.start)
        if one.value is None:
            return f':{name}="true"'
        parts = self.within(*one.value)
        if all(isinstance(part, Piece) for part in parts):
            return self.source.slice(one.start, one.end)
        return f':{name}="{quoted(self.code(self._value(parts)))}"'

    def _one(self, part: Part, made: Given, *, rooted: bool) -> None:
        match part:
            case TemplateAttribute():
                self._attribute(part, made, None)
            case Mark(kind="directive", name="class"):
                self._second(made, part.start)
                made.class_at = max(made.class_at, len(made.texts))
                self._bag_class(self.node(part), made)
            case Mark(kind="directive") if part.name in _SWITCHES and part.given is not None:
                test = self.names.reader.test(self.node(part))
                made.texts.append(
                    (f':{part.name}="{quoted(self.code(as_flag(test)))}"', part.start)
                )
            case Mark(kind="echo" | "raw"):
                self._echo(part, made, rooted=rooted)
            case Mark(kind="comment"):
                return
            case Block():
                self._block(part, made)
            case _:
                raise Unsayable(
                    f"`{self.source.slice(part.start, part.end)[:40]}` in a tag", part.start
                )

    def node(self, mark: Mark) -> PhpNode:
        """The expression of a mark."""
        if mark.given is None:
            raise Unsayable(f"@{mark.name} without parentheses", mark.start)
        return expression_in(self.source.data[mark.given[0] : mark.given[1]], mark.given[0])

    def text(self, mark: Mark) -> Expr:
        """The text of `@lang`, which takes what the function does."""
        assert mark.given is not None
        start, end = mark.given
        root = parsed(b"__(" + self.source.data[start:end] + b");", start - 3)
        return self.names.reader.read(root.named[0].named[0])

    def code(self, expr: Expr) -> str:
        """An expression as the template writes it."""
        return self.names.in_template().value(expr)

    # -- one attribute -------------------------------------------------------------------

    def _attribute(self, one: TemplateAttribute, made: Given, test: Expr | None) -> None:
        if _OTHERS.match(one.name):
            raise Unsayable(f"the attribute {one.name}, which scripts of the page read", one.start)
        parts = self.within(*one.value) if one.value is not None else []
        plain = all(isinstance(part, Piece) for part in parts)
        if one.name == "class":
            self._second(made, one.start)
            made.chosen = made.conditional
            made.class_at = max(made.class_at, len(made.texts))
            self._class(parts, made, test)
            return
        if plain and test is None:
            made.texts.append((self.source.slice(one.start, one.end), one.start))
            return
        if test is None and one.name in SWITCHED:
            # Such an attribute counts, whatever its value.
            made.texts.append((one.name, one.start))
            return
        value = self._value(parts)
        if test is None:
            made.texts.append((f':{one.name}="{quoted(self.code(value))}"', one.start))
            return
        if one.name in SWITCHED and (one.value is None or plain):
            made.texts.append((f':{one.name}="{quoted(self.code(as_flag(test)))}"', one.start))
            return
        nothing = Constant(TEXT.or_missing("null"), None)
        chosen = Choice(TEXT, test, value, nothing)
        made.texts.append((f':{one.name}="{quoted(self.code(chosen))}"', one.start))

    @staticmethod
    def _second(made: Given, at: int) -> None:
        """Raises `Unsayable` for a second class of a tag: a browser reads the first one alone."""
        if made.class_at >= 0 and not (made.conditional and made.chosen):
            raise Unsayable("a second class of one tag", at)

    def _value(self, parts: list[Part]) -> Expr:
        """The value of an attribute as one text."""
        found: list[Expr] = []
        for part in parts:
            if isinstance(part, Piece):
                found.append(Constant(TEXT, unescaped(self.source.slice(part.start, part.end))))
            elif isinstance(part, Mark) and part.kind in ("echo", "raw"):
                node = self.node(part)
                found.append(self.names.reader.shown(self.names.reader.read(node), node))
            elif isinstance(part, Mark) and part.name == "lang" and part.given is not None:
                found.append(self.text(part))
            elif isinstance(part, Block):
                found.append(self._chosen(part))
            elif not (isinstance(part, Mark) and part.kind == "comment"):
                raise Unsayable(
                    f"`{self.source.slice(part.start, part.end)[:40]}` in an attribute", part.start
                )
        if len(found) == 1:
            return found[0]
        return Apply(TEXT, "text.join", tuple(found or [Constant(TEXT, "")]))

    def _chosen(self, block: Block) -> Expr:
        """A text by the conditions of a block."""
        tests = self.tests(block)
        made: Expr = Constant(TEXT, "")
        for arm, test in reversed(list(zip(block.arms, tests, strict=True))):
            value = self._value(arm.children)
            made = value if test is None else Choice(TEXT, test, value, made)
        return made

    def _class(self, parts: list[Part], made: Given, test: Expr | None) -> None:
        """The words of a class: those that are the same always, and the others."""
        word: list[Expr] = []

        def ends() -> None:
            if not word:
                return
            text = Apply(TEXT, "text.join", tuple(word)) if len(word) > 1 else word[0]
            if isinstance(text, Constant) and test is None:
                made.plain.append(str(text.value))
            else:
                made.classes.append(
                    self.code(text if test is None else Choice(TEXT, test, text, _NONE))
                )
            word.clear()

        for part in parts:
            if isinstance(part, Piece):
                text = unescaped(self.source.slice(part.start, part.end))
                for piece in re.findall(r"\s+|\S+", text):
                    if piece.isspace():
                        ends()
                    else:
                        word.append(Constant(TEXT, piece))
            else:
                word.append(self._value([part]))
        ends()

    def _class_map(self, node: PhpNode) -> Expr:
        """The classes of `@class`: names with the conditions for them."""
        if node.type != "array_creation_expression":
            raise self.names.reader.unsaid(node)
        fields: list[tuple[str, Expr]] = []
        for one in node.named:
            inner = one.named
            name = self.names.reader.read(inner[0])
            if not isinstance(name, Constant) or not isinstance(name.value, str):
                raise self.names.reader.unsaid(one)
            test = self.names.reader.test(inner[1]) if len(inner) == 2 else Constant(FLAG, True)
            fields.append((name.value, test))
        return Record(_RECORD, tuple(fields))

    # -- conditions and echoes between attributes ----------------------------------------

    def _block(self, block: Block, made: Given) -> None:
        """Attributes that are there by conditions."""
        tests = self.tests(block)
        earlier: Expr | None = None
        for arm, test in zip(block.arms, tests, strict=True):
            own = test
            if earlier is not None:
                other = Apply(FLAG, "not", (earlier,))
                own = other if test is None else Apply(FLAG, "&&", (other, test))
            assert own is not None
            self._arm(arm, made, own)
            earlier = own if earlier is None else Apply(FLAG, "||", (earlier, test or own))

    def _arm(self, arm: Arm, made: Given, test: Expr) -> None:
        for part in arm.children:
            if not isinstance(part, TemplateAttribute):
                raise Unsayable("a condition in a condition in a tag", part.start)
            made.conditional = True
            self._attribute(part, made, test)
            made.conditional = False

    def _echo(self, mark: Mark, made: Given, *, rooted: bool) -> None:
        """Write an echo between attributes: those of the parent, or one attribute under a condition."""
        node = self.node(mark)
        if node.text.startswith("$attributes"):
            made.passes_on = True
            self._bag(node, made)
            return
        if node.type == "conditional_expression":
            reader = self.names.reader
            body, other = node.child("body"), node.part("alternative")
            then = reader.read(body) if body is not None else None
            if (
                isinstance(then, Constant)
                and reader.read(other) == _NONE
                and then.value in SWITCHED
            ):
                test = reader.test(node.part("condition"))
                made.texts.append(
                    (f':{then.value}="{quoted(self.code(as_flag(test)))}"', mark.start)
                )
                return
        raise self.names.reader.unsaid(node, " as an attribute")

    def _bag(self, node: PhpNode, made: Given) -> None:
        """Merge `$attributes`: classes join, other values give way to those of the parent."""
        if node.type == "variable_name":
            return
        if node.type != "member_call_expression":
            raise self.names.reader.unsaid(node)
        name = node.part("name").text
        given = [one.named[0] for one in node.part("arguments").named]
        self._bag(node.part("object"), made)
        if name == "class" and len(given) == 1:
            made.class_at = max(made.class_at, len(made.texts))
            self._bag_class(given[0], made)
            return
        if name != "merge" or len(given) != 1 or given[0].type != "array_creation_expression":
            raise self.names.reader.unsaid(node)
        for one in given[0].named:
            key, value = (one.named[0], one.named[1]) if len(one.named) == 2 else (one, one)
            told = self.names.reader.read(key)
            if key is one or not isinstance(told, Constant) or told.value == "style":
                raise self.names.reader.unsaid(one)
            if told.value == "class":
                made.class_at = max(made.class_at, len(made.texts))
                self._bag_class(value, made)
                continue
            shown = self.names.reader.shown(self.names.reader.read(value), value)
            if isinstance(shown, Constant):
                made.texts.append((f'{told.value}="{quoted(str(shown.value).strip())}"', one.start))
            else:
                # The engine trims what it merges (`ComponentAttributeBag`).
                self.names.reader.notes.append(("value-trimmed", str(told.value), one.start))
                made.texts.append((f':{told.value}="{quoted(self.code(shown))}"', one.start))

    def _bag_class(self, node: PhpNode, made: Given) -> None:
        if node.type == "array_creation_expression":
            map_ = self._class_map(node)
            assert isinstance(map_, Record)
            always = [name for name, test in map_.fields if test == Constant(FLAG, True)]
            made.plain += always
            rest = tuple(one for one in map_.fields if one[0] not in always)
            if rest:
                made.classes.append(self.code(Record(_RECORD, rest)))
            return
        value = self.names.reader.shown(self.names.reader.read(node), node)
        if isinstance(value, Constant):
            made.plain.append(str(value.value))
            return
        joined = isinstance(value, Apply) and value.operation == "text.join"
        parts: tuple[Expr, ...] = value.parts if joined else (value,)  # type: ignore[attr-defined]
        lead = parts[0]
        if isinstance(lead, Constant) and " " in str(lead.value):
            words, _, last = str(lead.value).rpartition(" ")
            made.plain.append(words)
            parts = (Constant(TEXT, last), *parts[1:]) if last else parts[1:]
        text = Apply(TEXT, "text.join", parts) if len(parts) > 1 else parts[0]
        made.classes.append(self.code(text))


_SWITCHES = frozenset({"checked", "selected", "disabled", "readonly", "required"})
_KINDS = frozenset({"text", "number", "flag", "list"})
_NONE = Constant(TEXT, "")
_RECORD = record_of()


def unescaped(text: str) -> str:
    """The value of a text in an attribute."""
    return html.unescape(text)


def quoted(code: str) -> str:
    """Code as the value of an attribute in double quotes."""
    return re.sub(r"&(?=[A-Za-z#])", "&amp;", code).replace('"', "&quot;")


def as_flag(test: Expr) -> Expr:
    """A test as true or false: an attribute that is there or not takes a text without signs for true."""
    return test if _is_flag(test) else Apply(FLAG, "not", (Apply(FLAG, "not", (test,)),))


def _is_flag(expr: Expr) -> bool:
    if expr.type.kind != "flag" or expr.type.missing:
        return False
    if isinstance(expr, Apply) and expr.operation in ("&&", "||", "truth"):
        return all(map(_is_flag, expr.parts))
    return not isinstance(expr, Choice) or (_is_flag(expr.then) and _is_flag(expr.other))
