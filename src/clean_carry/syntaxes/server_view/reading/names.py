"""Meanings of the names of a view: its inputs, values that are computed, items of loops, slots."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping
from contextlib import contextmanager
from dataclasses import dataclass, field

from clean_carry.source.expressions.model import (
    Apply,
    Constant,
    Expr,
    Field,
    Item,
    Name,
    Record,
    Unsayable,
)
from clean_carry.source.expressions.types import ANY, FLAG, TEXT, WHOLE, Type
from clean_carry.source.javascript.spelling import Speller
from clean_carry.source.php.reading import PhpReader
from clean_carry.source.php.tree import PhpNode
from clean_carry.source.php.uses import EACH, FOUND, Path, Uses

# Names that the engine gives to every view.
ENGINE = frozenset(
    {"loop", "attributes", "slot", "errors", "component", "componentName", "app", "__env"}
)
# Names that a template cannot read (ECMA-262 §12.7.2).
_RESERVED = frozenset(
    (
        "arguments await break case catch class const continue debugger default delete do else enum eval "
        "export extends false finally for function if implements import in instanceof interface let new "
        "null package private protected public return static super switch this throw true try typeof "
        "undefined var void while with yield key ref slot is"
    ).split()
)
ERRORS, TEXTS = "errors", "texts"
_TEXTS_TYPE = Type("record", item=TEXT)


@dataclass
class Input:
    """A value that the view is given. `default` is None for one that must be given."""

    name: str
    type: Type = ANY
    default: Expr | None = None


@dataclass
class Loop:
    """A loop around what is read: the name of its index, and the items."""

    index: str
    items: Expr
    used: bool = False


@dataclass
class Names:
    """The names of one view. `inputs` are all that it is given if it is `strict`: another name is a slot.
    `computed` reads values by name: those of the class, and those that code of the view sets."""

    uses: Uses
    inputs: dict[str, Input]
    strict: bool = False
    computed: dict[str, Callable[[], Expr]] = field(default_factory=dict)
    locals: dict[str, Expr] = field(default_factory=dict)
    loops: list[Loop] = field(default_factory=list)
    reads_errors: bool = False
    reads_texts: bool = False

    def __post_init__(self) -> None:
        self.reader = PhpReader(self.leaf, self.uses)
        self.values: dict[str, Expr] = {}
        self._reading: set[str] = set()
        # Names of loops that were read: behind them they hold the last item.
        self._of_loops: set[str] = set()

    # -- meanings ------------------------------------------------------------------------

    def leaf(self, node: PhpNode) -> Expr | None:
        """The value of a node whose meaning depends on the view."""
        match node.type:
            case "variable_name":
                return self._variable(node.text[1:], node)
            case "member_access_expression":
                return self._member(node)
            case "member_call_expression":
                return self._asked(node)
            case "function_call_expression":
                return self._called(node)
        return None

    def _variable(self, name: str, node: PhpNode) -> Expr:
        if name in self.locals:
            return self.locals[name]
        if name in self.computed:
            made = self.value(name, node)
            return Name(self.uses.type_of((name,), made.type), name)
        if name in self.inputs:
            return Name(self.uses.type_of((name,), self.inputs[name].type), name)
        if name in ENGINE or name == "this" or self.strict:
            raise self.reader.unsaid(node)
        if name in _RESERVED:
            raise self.reader.unsaid(node, ", a word of the language of templates")
        if name in self._of_loops:
            raise self.reader.unsaid(node, ", which has another meaning in a loop")
        self.inputs[name] = Input(name)
        return Name(self.uses.type_of((name,)), name)

    def value(self, name: str, node: PhpNode) -> Expr:
        """The expression of a computed value."""
        if name not in self.values:
            if name in self._reading:
                raise self.reader.unsaid(node, ", which reads itself")
            self._reading.add(name)
            try:
                self.values[name] = self.computed[name]()
            finally:
                self._reading.discard(name)
        return self.values[name]

    def _member(self, node: PhpNode) -> Expr | None:
        of, name = node.part("object").text, node.part("name").text
        if of == "$loop" and self.loops:
            return self._of_loop(name, node)
        if of == "$this":
            return self._variable(name, node)
        return None

    def _of_loop(self, name: str, node: PhpNode) -> Expr:
        loop = self.loops[-1]
        loop.used = True
        index = Name(WHOLE, loop.index)
        size = "record.size" if loop.items.type.kind == "record" else "list.length"
        count = Apply(WHOLE, size, (loop.items,))
        one = Constant(WHOLE, 1)
        match name:
            case "index":
                return index
            case "iteration":
                return Apply(WHOLE, "+", (index, one))
            case "first":
                return Apply(FLAG, "equal", (index, Constant(WHOLE, 0)))
            case "last":
                return Apply(FLAG, "equal", (index, Apply(WHOLE, "-", (count, one))))
            case "count":
                return count
            case "even" | "odd":
                rest = Constant(WHOLE, 1 if name == "even" else 0)
                return Apply(FLAG, "equal", (Apply(WHOLE, "%", (index, Constant(WHOLE, 2))), rest))
        raise self.reader.unsaid(node)

    def _asked(self, node: PhpNode) -> Expr | None:
        """Questions of a view to its slots, its errors and its own class."""
        of, name = node.part("object").text, node.part("name").text
        given = [one.named[0] for one in node.part("arguments").named]
        if of == "$this" and not given and name in self.computed:
            return self._variable(name, node)
        if of == "$errors":
            if name not in ("has", "first") or len(given) != 1:
                raise self.reader.unsaid(node)
            return self.error(given[0], FLAG if name == "has" else TEXT.or_missing("undefined"))
        slot = of[1:] if self.is_slot(of[1:]) else ""
        if slot and name in ("isEmpty", "isNotEmpty") and not given:
            there = self.slot(slot)
            return Apply(FLAG, "not", (there,)) if name == "isEmpty" else there
        return None

    def _called(self, node: PhpNode) -> Expr | None:
        function = node.part("function")
        given = [one.named[0] for one in node.part("arguments").named]
        if function.text.lower() in ("__", "trans"):
            return self.text(node, given)
        if function.type == "variable_name":
            name = function.text[1:]
            if name in self.computed and not given:
                return self._variable(name, node)
            raise self.reader.unsaid(node)
        if (
            function.text.lower() == "isset"
            and len(given) == 1
            and given[0].type == "variable_name"
        ):
            name = given[0].text[1:]
            if self.is_slot(name):
                return self.slot(name)
        return None

    # -- slots and errors ----------------------------------------------------------------

    def is_slot(self, name: str) -> bool:
        """Whether a name can only be content that the view is given."""
        known = name in self.locals or name in self.inputs or name in self.computed
        return name == "slot" or (self.strict and not known and name not in ENGINE)

    def slot(self, name: str) -> Expr:
        """Whether the view is given content for a slot."""
        return Name(FLAG, f"slot {'default' if name == 'slot' else name}")

    def error(self, field_: PhpNode, type_: Type) -> Expr:
        """The message about a field, or whether there is one: messages become an input."""
        self.reads_errors = True
        name = self.reader.read(field_)
        errors = Name(Type("record", item=TEXT), ERRORS)
        if isinstance(name, Constant) and isinstance(name.value, str):
            return Field(type_, errors, name.value)
        return Item(type_, errors, self.reader.expect(name, "text", field_))

    def text(self, node: PhpNode, given: list[PhpNode]) -> Expr:
        """A text of the page's language: an input holds them; the key stands for a missing one."""
        if not 1 <= len(given) <= 2:
            raise self.reader.unsaid(node)
        self.reads_texts = True
        key = self.reader.read(given[0])
        if not isinstance(key, Constant) or not isinstance(key.value, str):
            raise self.reader.unsaid(node, ", a text whose key is computed")
        own = Field(TEXT.or_missing("undefined"), Name(_TEXTS_TYPE, TEXTS), key.value)
        made: Expr = Apply(TEXT, "??", (own, key))
        if len(given) == 2:
            values = self.reader.read(given[1])
            if not isinstance(values, Record):
                raise self.reader.unsaid(node)
            for name, value in values.fields:
                shown = self.reader.shown(value, given[1])
                made = Apply(TEXT, "text.filled", (made, Constant(TEXT, f":{name}"), shown))
        return made

    # -- kinds that were found -----------------------------------------------------------

    def narrowed(self, test: PhpNode) -> tuple[dict[str, Expr], dict[str, Path]]:
        """Names that a test finds to be of a kind: `is_string($x)`, `is_array($x)`."""
        if test.type != "function_call_expression":
            return {}, {}
        kind = {"is_string": "text", "is_array": "array"}.get(test.part("function").text.lower())
        given = [one.named[0] for one in test.part("arguments").named]
        if kind is None or len(given) != 1 or given[0].type != "variable_name":
            return {}, {}
        name = given[0].text[1:]
        value = self.reader.read(given[0])
        path = self.reader.path(value)
        if not isinstance(value, Name) or value.type.kind != "any" or path is None:
            return {}, {}
        own = (*path, FOUND + kind)
        self.uses.note(own, "found")
        made = Name(TEXT if kind == "text" else self.uses.type_of(own), value.name)
        return {name: made}, {value.name: own}

    @contextmanager
    def found(self, test: PhpNode | None) -> Iterator[None]:
        """Read what stands where a test holds."""
        locals_, paths = self.narrowed(test) if test is not None else ({}, {})
        before, items = self.locals, self.reader.items
        self.locals, self.reader.items = {**before, **locals_}, {**items, **paths}
        try:
            yield
        finally:
            self.locals, self.reader.items = before, items

    # -- loops ---------------------------------------------------------------------------

    @contextmanager
    def within(
        self, locals_: Mapping[str, Expr], paths: Mapping[str, Path], loop: Loop | None = None
    ) -> Iterator[None]:
        """Read what stands in a loop; raises `Unsayable` for a name that hides another one."""
        for name in locals_:
            if (
                name in self.inputs
                or name in self.computed
                or name in self.locals
                or name in _RESERVED
            ):
                raise Unsayable(f"`${name}`, which has another meaning outside")
        before, items = self.locals, self.reader.items
        self.locals = {**before, **locals_}
        self.reader.items = {**items, **paths}
        if loop is not None:
            self.loops.append(loop)
        try:
            yield
        finally:
            self.locals, self.reader.items = before, items
            if loop is not None:
                self.loops.pop()
            self._of_loops |= set(locals_)

    def item_of(self, items: Expr, name: str) -> tuple[Expr, Path | None]:
        """The item of a list or record under a name, and its path."""
        path = self.reader.path(items)
        own = (*path, EACH) if path is not None else None
        known = items.type.item or ANY
        return Name(self.uses.type_of(own, known) if own else known, name), own

    # -- spelling ------------------------------------------------------------------------

    def in_template(self) -> Speller:
        """Writes expressions of the template."""
        return Speller(lambda name: _spelled(name, ""))

    def in_script(self) -> Speller:
        """Writes expressions of the script."""
        return Speller(lambda name: _spelled(name, "this."))


def _spelled(name: str, instance: str) -> str:
    if name.startswith("slot "):
        return f"{instance}$slots.{name[5:]}"
    return instance + name.removesuffix(" key")
