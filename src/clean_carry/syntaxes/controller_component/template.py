"""The template of a component: what was a name of the scope is asked of the controller."""

from __future__ import annotations

from collections.abc import Iterator

from clean_carry.syntaxes.controller_component.names import MemberNames
from clean_carry.syntaxes.directive.read import Directive, NotRead
from clean_carry.syntaxes.directive.templates import Template
from clean_carry.syntaxes.scoped_template.markup import TemplateNames

CONTROLLER = "$ctrl"


def template_edits(
    directive: Directive, template: Template, found: TemplateNames, names: MemberNames, at: int
) -> Iterator[tuple[int, int, str, str]]:
    """The places to spell anew: (start, end, text, rule), offsets of the template's own text.

    Raises `NotRead` for what the new template could not say.
    """
    members = {*directive.scope.members(), *directive.bindings, *directive.template_names()}
    for what, _ in found.unread:
        raise NotRead("template-unread", what, at)
    for attribute, value, _ in found.unknown:
        if any(name in value for name in members):
            raise NotRead("attribute-unread", f"{attribute}=“{value}”", at)
    for use in found.names:
        if use.name == "this":
            raise NotRead("template-unread", "the scope itself (`this`)", at)
        start = use.above if use.above >= 0 else use.start
        if use.up > use.level:
            continue
        if directive.controller.form == "closed":
            # What it watches may name it: its name stays.
            continue
        if directive.alias and use.name == directive.alias:
            if directive.alias != CONTROLLER or use.up:
                yield start, use.end, CONTROLLER, "alias-renamed"
            continue
        if use.name.startswith("$") and use.name not in directive.scope.members():
            continue
        if use.written and use.level > use.up and not use.path:
            raise NotRead("template-writes-inside", use.name, at)
        text = f"{CONTROLLER}.{names.of(use.name)}"
        if use.shorthand:
            text = f"{use.name}: {text}"
        yield start, use.end, text, "scope-name"
