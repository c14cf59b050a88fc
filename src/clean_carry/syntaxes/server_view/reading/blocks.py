"""The blocks of a view as directives of a template: conditions, loops, cases."""

from __future__ import annotations

import re
from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from pathlib import Path as FilePath

from clean_carry.source.expressions.model import Apply, Constant, Expr, Name, Unsayable
from clean_carry.source.expressions.types import FLAG, TEXT, WHOLE, Type
from clean_carry.source.php.tree import PhpNode, parsed
from clean_carry.source.php.uses import Path
from clean_carry.source.text import SourceText
from clean_carry.source.view.marks import Mark
from clean_carry.source.view.tree import Block, Part, Piece
from clean_carry.syntaxes.server_view.reading.attributes import Attributes, quoted
from clean_carry.syntaxes.server_view.reading.names import Loop, Names

# Stands for a directive that is known once its content was written.
LATER = "\x02"


@dataclass
class Blocks:
    """Writes the blocks of a template. `within` reads the parts of a stretch, `types_of` gives the types of
    another view's inputs. While types are still looked for, `failed` takes what cannot be read. `pieces`
    are the new texts with the offsets that they come from."""

    source: SourceText
    names: Names
    within: Callable[[int, int], list[Part]]
    failed: Callable[[Unsayable], None]
    view: FilePath
    types_of: Callable[[FilePath], Mapping[str, Type]]
    pieces: list[tuple[str, int]] = field(default_factory=list)
    # Whether white space shows on either side of what is being written.
    beside: tuple[bool, bool] = (False, False)

    def __post_init__(self) -> None:
        self.attributes = Attributes(self.source, self.names, self.within, self.tests)

    def put(self, text: str, at: int) -> None:
        """Add a text that comes from an offset."""
        if text:
            self.pieces.append((text, at))

    def framed(self, parts: list[Part], head: str, at: int) -> None:
        """Write content under a directive."""
        raise NotImplementedError

    def slot(self, name: str, at: int, head: str = "", fallback: list[Part] | None = None) -> None:
        """Write a slot, with what is shown where it has no content."""
        raise NotImplementedError

    def is_blank(self, part: Part) -> bool:
        """Whether a part is white space alone."""
        return isinstance(part, Piece) and not self.source.slice(part.start, part.end).strip()

    def line_break(self, at: int) -> None:
        """Begin a line as far to the right as the one of an offset."""
        self.put(f"\n{self.source.indent_at(at)}", at)

    def slot_of(self, mark: Mark) -> str:
        """The name of the slot that an echo shows, "" for another value."""
        text = self.source.slice(*mark.given).strip() if mark.given else ""
        found = re.fullmatch(r"\$(\w+)(?:\s*\?\?\s*(?:''|\"\"))?", text)
        if found is None or not self.names.is_slot(found[1]):
            return ""
        return found[1]

    def code(self, expr: Expr) -> str:
        """An expression as the template writes it."""
        return self.names.in_template().value(expr)

    def _insert(self, mark: int, head: str) -> None:
        """Put a directive into the tag that was written at a place, where it was not known yet."""
        if mark == len(self.pieces):
            return
        text, at = self.pieces[mark]
        self.pieces[mark] = (text.replace(LATER, head, 1), at)

    # -- blocks --------------------------------------------------------------------------

    def block(self, block: Block) -> None:
        """Write a block. Raises `Unsayable`."""
        match block.kind:
            case "foreach" | "forelse":
                self._each(block)
            case "for":
                self._counted(block)
            case "switch":
                self._switch(block)
            case _:
                self._conditions(block)

    def tests(self, block: Block) -> list[Expr | None]:
        """The tests of a block's arms; None for the last one."""
        found: list[Expr | None] = []
        for arm in block.arms:
            if arm.mark.name == "else":
                found.append(None)
                continue
            if arm.mark.name == "isset":
                found.append(self._isset(arm.mark))
                continue
            node = self.attributes.node(arm.mark)
            match arm.mark.name:
                case "if" | "elseif":
                    found.append(self.names.reader.test(node))
                case "unless":
                    found.append(Apply(FLAG, "not", (self.names.reader.test(node),)))
                case "empty":
                    value = self.names.reader.there(node)
                    found.append(Apply(FLAG, "not", (self.names.reader.truth(value, node),)))
                case "error":
                    found.append(self.names.error(node, FLAG))
                case _:
                    raise Unsayable(f"@{arm.mark.name}", arm.mark.start)
        return found

    def _isset(self, mark: Mark) -> Expr:
        """The test of `@isset`, which takes what the function does."""
        assert mark.given is not None
        start, end = mark.given
        root = parsed(b"isset(" + self.source.data[start:end] + b");", start - 6)
        return self.names.reader.read(root.named[0].named[0])

    def _conditions(self, block: Block) -> None:
        tests = self.tests(block)
        if self._is_slot_with_fallback(block, tests):
            return
        for number, (arm, test) in enumerate(zip(block.arms, tests, strict=True)):
            head = "v-else"
            if test is not None:
                word = "v-if" if number == 0 else "v-else-if"
                head = f'{word}="{quoted(self.code(test))}"'
            if number:
                self.line_break(arm.mark.start)
            locals_: dict[str, Expr] = {}
            if arm.mark.name == "error":
                node = self.attributes.node(arm.mark)
                locals_["message"] = self.names.error(node, TEXT)
            known = self.attributes.node(arm.mark) if arm.mark.name in ("if", "elseif") else None
            with self.names.within(locals_, {}), self.names.found(known):
                self.framed(arm.children, head, arm.mark.start)

    def _is_slot_with_fallback(self, block: Block, tests: list[Expr | None]) -> bool:
        """Write a slot with its fallback: a test whether it is given, content for where it is not."""
        if len(block.arms) != 2 or tests[1] is not None:
            return False
        test, given = tests[0], block.arms[1]
        other = block.arms[0]
        if isinstance(test, Name) and test.name.startswith("slot "):
            given, other = other, given
        elif not (isinstance(test, Apply) and test.operation == "not"):
            return False
        else:
            test = test.parts[0]
        if not isinstance(test, Name) or not test.name.startswith("slot "):
            return False
        shown = [part for part in given.children if not self.is_blank(part)]
        name = self.slot_of(shown[0]) if len(shown) == 1 and isinstance(shown[0], Mark) else ""
        if not name or test.name != f"slot {'default' if name == 'slot' else name}":
            return False
        self.slot(name, block.start, fallback=other.children)
        return True

    def _each(self, block: Block) -> None:
        arm = block.arms[0]
        given = self._head_of(arm.mark, b"foreach")
        items_node, target = given
        key, value = (target[0], target[1]) if len(target) == 2 else ("", target[0])
        reader = self.names.reader
        items = reader.read(items_node)
        items = self._items(items, items_node, keyed=bool(key))
        is_record = items.type.kind == "record"
        index = self._index()
        item, path = self.names.item_of(items, value)
        locals_: dict[str, Expr] = {value: item}
        paths: dict[str, Path] = {value: path} if path is not None else {}
        if key:
            locals_[key] = Name(TEXT, f"{key} key") if is_record else Name(WHOLE, key)
        loop = Loop(index, items)
        code = self.code(items)
        mark = len(self.pieces)
        with self.names.within(locals_, paths, loop):
            self.framed(arm.children, "", arm.mark.start)
        names = [value]
        if is_record:
            names += [key or index, *([index] if key and loop.used else [])]
            own = key or index
            reader.notes.append(("keys-in-order", code, arm.mark.start))
        else:
            if key and loop.used:
                raise Unsayable("$loop beside the key of a list", arm.mark.start)
            own = key or index
            names.append(own)
        head = f'v-for="({", ".join(names)}) in {quoted(code)}" :key="{own}"'
        self._insert(mark, head)
        if len(block.arms) > 1:
            empty = block.arms[1]
            self.line_break(empty.mark.start)
            test = Apply(FLAG, "not", (reader.truth(items, items_node),))
            self.framed(empty.children, f'v-if="{quoted(self.code(test))}"', empty.mark.start)

    def _items(self, items: Expr, node: PhpNode, *, keyed: bool) -> Expr:
        if items.type.kind == "any":
            self.names.uses.note(self.names.reader.path(items), "keys" if keyed else "list")
            self.names.uses.note_each(self.names.reader.path(items))
            return items
        if items.type.kind not in ("list", "record"):
            raise self.names.reader.unsaid(node, ", which is no list")
        if items.type.kind == "record" and not keyed:
            raise self.names.reader.unsaid(node, ", the values of a record")
        return items

    def _head_of(self, mark: Mark, word: bytes) -> tuple[PhpNode, list[str]]:
        """The items of a loop, and the names for a key and a value."""
        if mark.given is None:
            raise Unsayable(f"@{mark.name} without parentheses", mark.start)
        start, end = mark.given
        root = parsed(word + b"(" + self.source.data[start:end] + b"){}", start - len(word) - 1)
        items, target, *_ = root.named[0].named
        names = target.named if target.type == "pair" else [target]
        if any(one.type != "variable_name" for one in names):
            raise Unsayable(f"`{target.text[:40]}`", target.start)
        return items, [one.text[1:] for one in names]

    def _index(self) -> str:
        """A name for the index of a loop that nothing else in the view has."""
        named = re.findall(rb"\$(\w+)", self.source.data)
        taken = {one.decode() for one in named} | {loop.index for loop in self.names.loops}
        number = 1
        while (name := "index" if number == 1 else f"index{number}") in taken:
            number += 1
        return name

    def _counted(self, block: Block) -> None:
        """`for ($i = 0; $i < $n; $i++)`: counts that a template makes from one."""
        mark = block.arms[0].mark
        assert mark.given is not None
        start, end = mark.given
        root = parsed(b"for(" + self.source.data[start:end] + b"){}", start - 4)
        statement = root.named[0]
        found = re.fullmatch(
            r"\s*\$(\w+)\s*=\s*(\d+)\s*;\s*\$\1\s*(<=?)\s*(.+?)\s*;\s*(?:\$\1\s*\+\+|\+\+\s*\$\1)\s*",
            self.source.slice(start, end), re.DOTALL,
        )  # fmt: skip
        condition = statement.child("condition")
        if found is None or condition is None:
            raise Unsayable(f"@for ({self.source.slice(start, end)[:40]})", mark.start)
        name, first, sign = found[1], int(found[2]), found[3]
        right = condition.part("right")
        most = self.names.reader.expect(self.names.reader.read(right), "whole", right)
        self.names.uses.note(self.names.reader.path(most), "count")
        less = first - (sign == "<=")
        if not most.type.whole and not isinstance(most, Constant):
            # A count may have a fraction there: the last round is the one below it.
            most = Apply(WHOLE, "floor" if sign == "<=" else "ceil", (most,))
        count: Expr = most
        if less:
            count = Apply(WHOLE, "-" if less > 0 else "+", (most, Constant(WHOLE, abs(less))))
        if not isinstance(most, Constant):
            count = Apply(WHOLE, "max", (count, Constant(WHOLE, 0)))
        elif not less:
            count = most
        own = Name(WHOLE, name)
        shift = first - 1
        value: Expr = own
        if shift:
            value = Apply(WHOLE, "-" if shift < 0 else "+", (own, Constant(WHOLE, abs(shift))))
        head = f'v-for="{name} in {quoted(self.code(count))}" :key="{name}"'
        with self.names.within({name: value}, {}):
            self.framed(block.arms[0].children, head, mark.start)

    def _switch(self, block: Block) -> None:
        subject = self.attributes.node(block.arms[0].mark)
        first = True
        tests: list[Expr] = []
        for number, arm in enumerate(block.arms[1:]):
            children = list(arm.children)
            while children and self.is_blank(children[-1]):
                children.pop()
            ends = children[-1] if children else None
            stops = isinstance(ends, Mark) and ends.name == "break" and ends.given is None
            if arm.mark.name == "case":
                node = self.attributes.node(arm.mark)
                reader = self.names.reader
                tests.append(
                    reader.same(reader.read(subject), reader.read(node), strict=False, node=node)
                )
            if not children and arm.mark.name == "case":
                continue
            if not stops and number < len(block.arms) - 2:
                raise Unsayable(f"@{arm.mark.name} without @break", arm.mark.start)
            if arm.mark.name == "default" and number < len(block.arms) - 2:
                raise Unsayable("@default before another case", arm.mark.start)
            head = "v-else" if not first else 'v-if="true"'
            if arm.mark.name == "case":
                test = tests[0]
                for one in tests[1:]:
                    test = Apply(FLAG, "||", (test, one))
                head = f'{"v-if" if first else "v-else-if"}="{quoted(self.code(test))}"'
            if not first:
                self.line_break(block.start)
            first, tests = False, []
            self.framed(children[:-1] if stops else children, head, block.start)
