"""The components that the template of a decorated class renders, and how each of them is used."""

from __future__ import annotations

import re
from dataclasses import dataclass

from clean_carry.component.errors import InputError
from clean_carry.source.javascript.tree import Tree
from clean_carry.source.template.tree import TemplateAttribute, TemplateNode, read_markup
from clean_carry.source.text import SourceText
from clean_carry.source.workspace import Workspace
from clean_carry.syntaxes.decorated_class.attributes import interpolated, quoted
from clean_carry.syntaxes.decorated_class.markup import Flow, Part
from clean_carry.syntaxes.decorated_class.markup_of import TemplateText, template_of
from clean_carry.syntaxes.decorated_class.members import Members, read_members
from clean_carry.syntaxes.decorated_class.recognise import Decorated, decorated_in
from clean_carry.syntaxes.decorated_class.scope import Usable, usable_in
from clean_carry.syntaxes.piped_expressions import Spelling, Unread, respelled
from clean_carry.syntaxes.single_file.stands_for import NotAFile

_RUNTIME = "@angular/"
# Selectors whose matches are known: an attribute, a class or a tag.
_SIMPLE = re.compile(r"\[[\w-]+\]$|\.[\w-]+$|[\w-]+$")
_TAG = re.compile(r"[a-z][a-z0-9]*(?:-[a-z0-9]+)+$")


@dataclass(frozen=True)
class Slot:
    """A place for content: the selector of what goes there, its name, and whether it shows other content
    where nothing is given."""

    selector: str
    name: str
    has_content: bool


@dataclass(frozen=True)
class Child:
    """A component that a template renders: its name there, its members and its slots."""

    name: str
    usable: Usable
    members: Members
    slots: tuple[Slot, ...]

    @property
    def inputs(self) -> set[str]:
        """The public names of its inputs."""
        return {one.public for one in self.members.inputs}

    @property
    def models(self) -> set[str]:
        """The inputs that are bound both ways by a function."""
        return {one.public for one in self.members.inputs if one.two_way}

    @property
    def events(self) -> set[str]:
        """The public names of its outputs."""
        return {one.public for one in self.members.outputs}

    def attribute(
        self, one: TemplateAttribute, source: SourceText, spelling: Spelling
    ) -> str | None:
        """An attribute that gives an input or listens to an output; None for any other. Raises `Unread`."""
        name, value = one.name, source.slice(*one.value) if one.value is not None else ""
        if name.startswith("[("):
            return self._two_way(name[2:-2], respelled(value, spelling))
        if name.startswith("("):
            event = name[1:-1]
            if event in self.events:
                return f'@{event}="{quoted(respelled(value, spelling))}"'
            if event.removesuffix("Change") in self.models:
                model = event.removesuffix("Change")
                return f'@update:{model}="{quoted(respelled(value, spelling))}"'
            raise Unread(f"({event}) of {self.name}, which is no output")
        if name.startswith("["):
            if name[1:-1] in self.inputs:
                return f':{name[1:-1]}="{quoted(respelled(value, spelling))}"'
            if name[1:-1].partition(".")[0] not in ("class", "style", "attr", "ngClass", "ngStyle"):
                raise Unread(f"{name} of {self.name}, which is no input")
            return None
        if name in self.inputs:
            if "{{" in value:
                return f':{name}="{quoted(interpolated(value, spelling))}"'
            if not value:
                raise Unread(f"{name} of {self.name}, which gives an empty text")
            return source.slice(one.start, one.end)
        return None

    def _two_way(self, name: str, code: str) -> str:
        if name in self.models:
            return f'v-model:{name}="{quoted(code)}"'
        if name in self.inputs and f"{name}Change" in self.events:
            return f':{name}="{quoted(code)}" @{name}Change="{quoted(f"{code} = $event")}"'
        raise Unread(f"[({name})]")

    def slot_of(self, part: Part, source: SourceText) -> Slot | None:
        """The slot that a part of the content goes to; None for the one without a name. Raises `Unread`."""
        slot = self._chosen(part, source)
        if slot is not None and slot.has_content and _is_conditional(part):
            raise Unread(f"a condition on content for a slot of {self.name}", part.start)
        return slot if slot is None or slot.name else None

    def _chosen(self, part: Part, source: SourceText) -> Slot | None:
        rest = next((one for one in self.slots if not one.selector), None)
        if isinstance(part, Flow):
            inner = [one for one in part.children if not _is_blank(one, source)]
            found = {self._chosen(one, source) for one in inner} - {None, rest}
            if found and (len(inner) > 1 or part.kind != "if"):
                raise Unread(f"a block around content for a slot of {self.name}", part.start)
            return found.pop() if found else rest
        if part.kind != "element":
            return None
        named = (one for one in self.slots if one.selector)
        return next((one for one in named if _matches(part, one.selector, source)), rest)


def _is_conditional(part: Part) -> bool:
    return isinstance(part, Flow) or any(one.name.startswith("*") for one in part.attributes)


def _is_blank(part: Part, source: SourceText) -> bool:
    return (
        isinstance(part, TemplateNode)
        and part.kind == "text"
        and not source.slice(part.start, part.end).strip()
    )


def _matches(node: TemplateNode, selector: str, source: SourceText) -> bool:
    """Whether an element is chosen by a selector: a tag, an attribute or a class."""
    told = node.attribute("ngProjectAs")
    if told is not None and told.value is not None:
        return source.slice(*told.value) == selector
    if selector.startswith("["):
        name = selector[1:-1]
        return any(one.name in (name, f"[{name}]") for one in node.attributes)
    if selector.startswith("."):
        classes = node.attribute("class")
        words = source.slice(*classes.value).split() if classes and classes.value else []
        return selector[1:] in words
    return node.tag == selector


def slot_name(selector: str) -> str:
    """The name of a slot by its selector; "" for the one that takes the rest."""
    found = re.search(r"([\w-]+)['\"]?\]?$", selector)
    return found[1] if found is not None else ""


def children_of(
    one: Decorated, tree: Tree, workspace: Workspace, markup: TemplateText
) -> dict[str, Child]:
    """The components of the project that a template renders, by their tags. Raises `NotAFile` for what a
    template may use and is no component that can be read."""
    found: dict[str, Child] = {}
    usable = [each for each in usable_in(one, tree, workspace) if not _of_runtime(each)]
    tags = _tags_of(markup)
    for each in usable:
        child = _child(each, workspace)
        if child is None:
            what = f"{each.name}, which is no component that is read"
            raise NotAFile("template-unread", what, one.options.start)
        if child[0] in tags:
            found[child[0]] = child[1]
    return found


def _of_runtime(one: Usable) -> bool:
    return one.file is None and one.request.startswith(_RUNTIME)


def _tags_of(markup: TemplateText) -> set[str]:
    try:
        nodes = read_markup(markup.source, markup.start, markup.end)
    except InputError:
        return set()
    return {inner.tag for node in nodes for inner in node.walk()}


def _child(one: Usable, workspace: Workspace) -> tuple[str, Child] | None:
    """The tag of a component and what it is; None where it cannot be read."""
    tree = workspace.tree(one.file) if one.file is not None else None
    if tree is None or one.file is None:
        return None
    decorated = next((each for each in decorated_in(tree) if each.name == one.name), None)
    if decorated is None or not _TAG.match(decorated.selector):
        return None
    try:
        members = read_members(decorated)
        slots = tuple(_slots(template_of(decorated, tree.source, one.file)))
    except (NotAFile, InputError):
        return None
    return decorated.selector, Child(one.name.removesuffix("Component"), one, members, slots)


def _slots(markup: TemplateText) -> list[Slot]:
    """The slots of a template in their order, each once; the one that takes the rest has no selector."""
    found: dict[str, Slot] = {}
    for node in read_markup(markup.source, markup.start, markup.end):
        for inner in node.walk():
            if inner.tag != "ng-content":
                continue
            select = inner.attribute("select")
            has_value = select is not None and select.value is not None
            selector = markup.source.slice(*select.value) if has_value else ""  # type: ignore[union-attr, misc]
            if selector and _SIMPLE.match(selector) is None:
                raise NotAFile("template-unread", selector, 0)
            found[selector] = Slot(selector, slot_name(selector), bool(inner.children))
    return list(found.values())
