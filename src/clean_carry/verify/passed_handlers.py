"""Handlers that a component hands to its children: functions of its own that other components call.

No user of the page calls them by themselves, so trials do. Where none was ever called, nothing was seen of
what the component does when a child tells it something.
"""

from __future__ import annotations

import re
from collections.abc import Callable, Iterable, Iterator
from dataclasses import dataclass
from typing import Any

from clean_carry.component.errors import InputError
from clean_carry.source.javascript.scope import Names
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.template.tree import TemplateNode, read_blocks
from clean_carry.source.text import SourceText
from clean_carry.verify.reach import Reach
from clean_carry.verify.search.values.functions import functions_of

_EVENT = re.compile(r"(?:@|v-on:)([\w:-]+)")
_CALLED = re.compile(r"\s*([A-Za-z_$][\w$]*)\s*(?:\(|$)")
# Tags of a template that are no components of the project.
_BUILT_IN = frozenset(
    "component slot template transition transition-group keep-alive teleport suspense Transition "
    "TransitionGroup KeepAlive Teleport Suspense router-link router-view RouterLink RouterView".split()
)


@dataclass(frozen=True)
class Handed:
    """`child` is the tag it is passed to, `name` what the runtime knows it by there: `onPick`, or the event
    `pick`; `apart` says that the child is a component of another file."""

    child: str
    name: str
    function: Node
    apart: bool = True


def handed_in(tree: Tree) -> Iterator[Handed]:
    """The functions of its own that code hands to other components."""
    functions = functions_of([tree])
    module = Names(tree).module.names
    for node in tree.of("variable_declarator"):
        # Arguments of a hook, or of any function that makes a function of another one.
        name, value = node.child("name"), node.child("value")
        given = value.child("arguments") if value is not None else None
        inner = given.named_children[:1] if given is not None else []
        if name is not None and inner and inner[0].is_function:
            functions.setdefault(name.text, inner[0])
    for element in tree.of("jsx_opening_element", "jsx_self_closing_element"):
        tag = element.child("name")
        if tag is None or (tag.text[:1].islower() and "." not in tag.text):
            continue
        for attribute in element.children:
            if attribute.type != "jsx_attribute" or len(attribute.named_children) != 2:
                continue
            name, value = attribute.named_children
            inner = value.named_children[:1]
            function = _meant(inner[0], functions) if inner else None
            if function is not None:
                binding = module.get(tag.text.split(".")[0])
                apart = binding is not None and binding.kind == "import"
                yield Handed(tag.text, name.text, function, apart)


def handed_in_template(
    source: SourceText, template: TemplateNode, functions: dict[str, Node]
) -> Iterator[Handed]:
    """The functions of the script that a template hands to other components as listeners."""
    for node in template.walk():
        if node.kind != "element" or node.tag in _BUILT_IN:
            continue
        if node.tag.islower() and "-" not in node.tag:
            continue
        for attribute in node.attributes:
            event = _EVENT.match(attribute.name)
            given = source.slice(*attribute.value) if attribute.value is not None else ""
            called = _CALLED.match(given)
            if event is not None and called is not None and called[1] in functions:
                name = re.sub(r"-(\w)", lambda found: found[1].upper(), event[1])
                yield Handed(node.tag, name, functions[called[1]])


def callable_by_children(
    handed: Iterable[Handed], given: Callable[[Node], list[Any]]
) -> dict[str, list[Any]]:
    """Return the handlers that a trial may have children call, with their arguments.

    Components of the same file are left out, and names that these are given too: another version of the
    file need not have them.
    """
    every = list(handed)
    own = {one.name for one in every if not one.apart}
    return {one.name: given(one.function) for one in every if one.name not in own}


def never_called(text: str, path: str, reach: Reach) -> tuple[str, ...]:
    """The handlers a version hands to children, where none of them was ever called.

    None where one was, where none is its own code, or where the file cannot be read.
    """
    source = SourceText(path, text.encode())
    try:
        handed = tuple(_handed(source))
    except InputError:
        return ()
    functions = {(line, hit) for _, line, kind, _, hit in reach.rows if kind == "function"}
    begins = {one: source.line_of(one.function.start) for one in handed}
    own = [one for one in handed if any(line == begins[one] for line, _ in functions)]
    if any(hit and line == begins[one] for one in own for line, hit in functions):
        return ()
    return tuple(dict.fromkeys(f"{one.name} of {one.child}" for one in own))


def _handed(source: SourceText) -> Iterator[Handed]:
    if not source.path.endswith(".vue"):
        yield from handed_in(Tree(source))
        return
    blocks = read_blocks(source)
    scripts = [block.inner for block in blocks if block.tag == "script"]
    functions = functions_of([Tree(source, bytes(source.blanked(scripts)))])
    for block in blocks:
        if block.tag == "template":
            yield from handed_in_template(source, block, functions)


def _meant(value: Node, functions: dict[str, Node]) -> Node | None:
    """The function of its own that a value is, or is bound from."""
    if value.is_function:
        return value
    if value.type == "call_expression":
        callee = value.child("function")
        if callee is None or not callee.text.endswith(".bind"):
            return None
        value = callee.children[0]
    if value.type == "identifier":
        return functions.get(value.text)
    part = value.child("property") if value.type == "member_expression" else None
    return (
        functions.get(part.text) if part is not None and value.text == f"this.{part.text}" else None
    )


__all__ = ["Handed", "callable_by_children", "handed_in", "handed_in_template", "never_called"]
