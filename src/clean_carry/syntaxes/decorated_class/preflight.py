"""Checks of a written class: whether its template finds all that it uses, and shows values rightly."""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import dataclass, field
from itertools import pairwise

from clean_carry.component.errors import InputError
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.template.tree import TemplateNode, read_markup
from clean_carry.source.text import SourceText
from clean_carry.source.workspace import Workspace
from clean_carry.syntaxes.decorated_class.recognise import (
    Decorated,
    classes_with,
    decorated_in,
    property_of,
    text_of,
)
from clean_carry.syntaxes.decorated_class.renewal.imports import PIPES
from clean_carry.syntaxes.decorated_class.scope import Usable, declaring, usable_in
from clean_carry.syntaxes.decorated_class.syntax import SYNTAX
from clean_carry.syntaxes.piped_expressions import Unread, free_names, tokens

# Classes of the runtime, of which one must be imported, by the attribute that templates use.
_NEEDS = {
    "ngModel": ("FormsModule",),
    "formGroup": ("ReactiveFormsModule",),
    "formControl": ("ReactiveFormsModule",),
    "formControlName": ("ReactiveFormsModule",),
    "routerLink": ("RouterLink", "RouterModule"),
    "*ngIf": ("NgIf", "CommonModule"),
    "*ngFor": ("NgFor", "NgForOf", "CommonModule"),
    "ngSwitch": ("NgSwitch", "CommonModule"),
    "ngClass": ("NgClass", "CommonModule"),
    "ngStyle": ("NgStyle", "CommonModule"),
    "*ngTemplateOutlet": ("NgTemplateOutlet", "CommonModule"),
    "ngTemplateOutlet": ("NgTemplateOutlet", "CommonModule"),
}
# Tags with a dash that belong to the runtime.
_OWN = frozenset({"ng-container", "ng-content", "ng-template"})
_SCHEMA = re.compile(r"\b(?:CUSTOM_ELEMENTS|NO_ERRORS)_SCHEMA\b")
_LIST_OR_OBJECT = re.compile(r"^:?\s*(?:readonly\s+)?(?:[\w$.]+(?:<[^>]*>)?\[\]|Array<|Record<|\{)")
Finding = tuple[str, str]


@dataclass
class _Given:
    """The things a scope gives: names of classes of packages, tags, attributes and pipes of the project.
    `known` says that there is nothing else."""

    classes: set[str] = field(default_factory=set)
    tags: set[str] = field(default_factory=set)
    attributes: set[str] = field(default_factory=set)
    pipes: set[str] = field(default_factory=set)
    known: bool = True


def preflight(script: SourceText, template: str | None, workspace: Workspace) -> Iterator[Finding]:
    """Findings about the class of a script: rule, detail. `template` is the text of a file that has it."""
    tree = Tree(script)
    one = next(iter(decorated_in(tree)), None)
    if one is None:
        return
    yield from _registered(one, tree, workspace)
    inline = property_of(one.options, "template")
    text = template if template is not None else text_of(inline) if inline is not None else None
    try:
        nodes = _nodes(text or "")
        given = _given(one, tree, workspace)
        yield from _missing(nodes, text or "", given, one)
        yield from _private(nodes, text or "", one)
        yield from _shown(nodes, text or "", one)
    except (InputError, Unread):
        return


def _nodes(text: str) -> list[TemplateNode]:
    data = text.encode()
    source = SourceText("template.html", data)
    return [inner for node in read_markup(source, 0, len(data)) for inner in node.walk()]


def _registered(one: Decorated, tree: Tree, workspace: Workspace) -> Iterator[Finding]:
    """Whether a module declares what needs it, once; and whether the tag has the project's prefix."""
    told = property_of(one.options, "standalone")
    modules = declaring(one.name, workspace.file, workspace)
    if told is not None and told.text == "false" and not modules:
        yield "declared-nowhere", one.name
    elif len(modules) > 1 and (told is None or told.text == "false"):
        yield "declared-twice", f"{one.name}, by {' and '.join(each.name for each in modules)}"
    prefix = workspace.prefix
    if prefix and re.match(r"[\w-]+$", one.selector) and not one.selector.startswith(f"{prefix}-"):
        yield "tag-without-prefix", f"<{one.selector}>"


def _given(one: Decorated, tree: Tree, workspace: Workspace) -> _Given:
    made = _Given(known=_SCHEMA.search(one.options.text) is None)
    for each in usable_in(one, tree, workspace):
        made.classes.add(each.name)
        source = _script_of(each, workspace)
        if source is not None:
            made.known &= _add(made, each.name, source)
        elif not each.request.startswith("@angular/"):
            made.known = False
    return made


def _script_of(one: Usable, workspace: Workspace) -> Tree | None:
    """The script of a class, or its old script while its new file is not written."""
    if one.file is not None:
        return workspace.tree(one.file)
    found = workspace.resolve(one.request.removesuffix(f".{SYNTAX.suffix}"))
    return workspace.tree(found) if found is not None else None


def _add(made: _Given, name: str, tree: Tree) -> bool:
    """Add what a class gives to templates; False where it cannot be read."""
    for kind in ("Component", "Directive", "Pipe"):
        for one in classes_with(tree, kind):
            if one.name != name:
                continue
            named = property_of(one.options, "name")
            if kind == "Pipe":
                made.pipes.add((text_of(named) if named is not None else None) or "")
            for attribute, tag in re.findall(r"\[([\w-]+)[^\]]*\]|([a-z][\w-]*)", one.selector):
                made.attributes.add(attribute)
                made.tags.add(tag)
            return True
    return False


def _missing(
    nodes: list[TemplateNode], text: str, given: _Given, one: Decorated
) -> Iterator[Finding]:
    """Whatever the template uses and nothing gives."""
    data = text.encode()
    found: dict[Finding, None] = {}
    for node in nodes:
        if "-" in node.tag and node.tag not in given.tags | _OWN and given.known:
            found["tag-undeclared", f"<{node.tag}>"] = None
        for attribute in node.attributes:
            name = attribute.name
            plain = name if name.startswith("*") else name.strip("[]()")
            needs = _NEEDS.get(plain, ())
            if needs and not given.classes & set(needs) and plain not in given.attributes:
                if plain != "ngModel" or name.startswith("["):
                    found["import-missing", f"{name}: {needs[0]}"] = None
    for code in _codes(nodes, data):
        for pipe in _pipes(code):
            class_ = PIPES.get(pipe)
            if pipe in given.pipes or (class_ and given.classes & {class_, "CommonModule"}):
                continue
            if class_ or given.known:
                found["import-missing", f"the pipe {pipe}{f': {class_}' if class_ else ''}"] = None
    yield from found


def _codes(nodes: list[TemplateNode], data: bytes) -> Iterator[str]:
    """The code of bindings, statements and interpolations."""
    for node in nodes:
        if node.kind == "interpolation":
            yield data[node.inner[0] : node.inner[1]].decode()
        for one in node.attributes:
            if one.value is not None and one.name[0] in "[(*":
                yield data[one.value[0] : one.value[1]].decode()


def _pipes(code: str) -> Iterator[str]:
    for sign, name in pairwise(tokens(code)):
        if sign.text == "|" and name.kind == "name":
            yield name.text


def _private(nodes: list[TemplateNode], text: str, one: Decorated) -> Iterator[Finding]:
    """Members that only the class may use, in the template."""
    private = {name for name, node in _members(one) if _is_private(node)}
    if not private:
        return
    used: set[str] = set()
    for code in _codes(nodes, text.encode()):
        try:
            used |= free_names(code)
        except Unread:
            continue
    for name in sorted(private & used):
        yield "private-in-template", name


def _members(one: Decorated) -> Iterator[tuple[str, Node]]:
    body = one.node.child("body")
    for node in body.named_children if body is not None else ():
        name = node.child("name")
        if name is not None:
            yield name.text, node
        if name is not None and name.text == "constructor":
            parameters = node.child("parameters")
            for each in parameters.named_children if parameters is not None else ():
                pattern = each.child("pattern")
                if pattern is not None:
                    yield pattern.text, each


def _is_private(node: Node) -> bool:
    return any(
        child.type == "accessibility_modifier" and child.text == "private"
        for child in node.children
    )


def _shown(nodes: list[TemplateNode], text: str, one: Decorated) -> Iterator[Finding]:
    """Lists and objects that are shown as text."""
    kinds = {name for name, node in _members(one) if _is_compound(node)}
    data = text.encode()
    for node in nodes:
        if node.kind == "interpolation":
            code = data[node.inner[0] : node.inner[1]].decode().strip().removesuffix("()")
            if code in kinds:
                yield "object-shown", code


def _is_compound(node: Node) -> bool:
    """Whether a member is declared to be a list or an object."""
    type_, value = node.child("type"), node.child("value")
    if value is not None and value.type == "call_expression":
        types = value.child("type_arguments")
        inner = types.text[1:-1].strip() if types is not None else ""
        return _LIST_OR_OBJECT.match(inner) is not None
    if type_ is not None:
        return _LIST_OR_OBJECT.match(type_.text) is not None
    return value is not None and value.type in ("array", "object")
