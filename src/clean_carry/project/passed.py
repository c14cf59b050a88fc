"""The attributes and the content that users of a component pass to it, at each of its tags."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from pathlib import Path

from clean_carry.component.errors import InputError
from clean_carry.project.index.model import Use
from clean_carry.project.index.names import dashed
from clean_carry.source.index.parsed import Parsed
from clean_carry.source.javascript.tree import Node
from clean_carry.source.template.tree import TemplateNode
from clean_carry.source.text import SourceText

# The marks of bindings and listeners before a name in a template.
_BOUND = (":", "v-bind:", "v-model:", "data-", "x-")
_LISTENED = ("@", "v-on:")
_CONTENT = ("#", "v-slot:")


@dataclass(frozen=True)
class Passed:
    """One thing that a user passes: `kind` is prop, event or slot, `name` as it is written, plain."""

    use: Use
    kind: str
    name: str
    line: int
    # Whether the content is text alone, as far as it is written here.
    is_text: bool = True

    def means(self, kind: str, name: str) -> bool:
        """Whether it is this prop, event or slot of the component, in any spelling."""
        if self.kind == kind and dashed(self.name) == dashed(name):
            return True
        listener = kind == "event" and self.kind == "prop" and dashed(self.name) == dashed(name)
        return listener or (
            kind == "event" and self.kind == "event" and f"on-{dashed(self.name)}" == dashed(name)
        )


def passed_at(users: Iterable[Use]) -> list[Passed]:
    """Everything that is passed at the tags among the uses of a component."""
    by_file: dict[str, list[Use]] = defaultdict(list)
    for use in users:
        if use.how in ("tag", "string"):
            by_file[use.file].append(use)
    found: list[Passed] = []
    for file, uses in by_file.items():
        try:
            parsed = Parsed(SourceText.read(Path(file)))
            found += _in_file(parsed, {use.start: use for use in uses})
            parsed.release()
        except InputError:
            continue
    return found


def _in_file(parsed: Parsed, uses: dict[int, Use]) -> Iterator[Passed]:
    tree = parsed.tree
    for node in tree.of("jsx_opening_element", "jsx_self_closing_element") if tree else ():
        name = node.child("name")
        use = uses.get(name.start) if name is not None else None
        first = name.children[0].start if name is not None and name.children else -1
        use = use or uses.get(first)
        if use is not None:
            yield from _of_jsx(parsed, node, use)
    for top in parsed.markup if not parsed.is_script else ():
        for element in top.walk():
            use = uses.get(element.start + 1) if element.kind == "element" else None
            if use is not None:
                yield from _of_template(parsed, element, use)


def _of_jsx(parsed: Parsed, node: Node, use: Use) -> Iterator[Passed]:
    for one in node.named_children:
        if one.type == "jsx_attribute" and one.named_children:
            yield Passed(use, "prop", one.named_children[0].text, parsed.line(one.start))
    element = node.parent
    if (
        node.type == "jsx_opening_element"
        and element is not None
        and len(element.named_children) > 2
    ):
        content = element.named_children[1:-1]
        yield Passed(use, "slot", "children", parsed.line(node.start), all(map(_is_text, content)))


def _is_text(node: Node) -> bool:
    """Whether content of an element is text, or a value that holds no elements and no given content."""
    if node.type.startswith("jsx_") and node.type != "jsx_text" and node.type != "jsx_expression":
        return False
    names = [node.text] if node.type in ("identifier", "property_identifier") else []
    return "children" not in names and all(map(_is_text, node.named_children))


def _of_template(parsed: Parsed, element: TemplateNode, use: Use) -> Iterator[Passed]:
    for one in element.attributes:
        line = parsed.line(one.start)
        name = one.name.partition(".")[0]
        if name.startswith(_LISTENED):
            yield Passed(use, "event", _without(name, _LISTENED), line)
        elif name == "v-slot" or name.startswith(_CONTENT):
            yield Passed(
                use, "slot", _without(name, (*_CONTENT, "v-slot")) or "default", line, False
            )
        elif name == "v-model":
            yield Passed(use, "prop", "modelValue", line)
        elif not name.startswith("v-") or name.startswith(_BOUND):
            yield Passed(use, "prop", _without(name, _BOUND), line)
    for child in element.children:
        slot = next((a.name for a in child.attributes if a.name.startswith(_CONTENT)), "")
        if slot:
            yield Passed(
                use, "slot", _without(slot, _CONTENT) or "default", parsed.line(child.start), False
            )
        elif child.kind != "comment" and parsed.source.slice(child.start, child.end).strip():
            yield Passed(use, "slot", "default", parsed.line(child.start), child.kind != "element")


def _without(name: str, marks: tuple[str, ...]) -> str:
    return next((name[len(mark) :] for mark in marks if name.startswith(mark)), name)
