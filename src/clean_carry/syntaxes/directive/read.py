"""Read the directives of a file: definition, templates, scope, controller, and whether they can go."""

from __future__ import annotations

import re
from pathlib import Path

from clean_carry.component.errors import InputError
from clean_carry.component.model import Component, Inputs, Place, Prop, Refusal
from clean_carry.source.javascript.scope import Names
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.directive.must_stay_directive import made_by_code, why_it_stays
from clean_carry.syntaxes.directive.syntax import SYNTAX
from clean_carry.syntaxes.scoped_template.definition import Definition, define, link_functions
from clean_carry.syntaxes.scoped_template.directives import dashed
from clean_carry.syntaxes.scoped_template.markup import TemplateNames, names_of
from clean_carry.syntaxes.scoped_template.meaning import Meaning
from clean_carry.syntaxes.scoped_template.model import (
    Binding,
    Controller,
    Directive,
    DirectiveFile,
    NotRead,
)
from clean_carry.syntaxes.scoped_template.registrations import (
    Injection,
    Registrations,
    parameters_of,
    plain,
    text_of,
)
from clean_carry.syntaxes.scoped_template.scope_uses import (
    InstanceUses,
    instance_uses,
    own_this,
    uses_of,
)
from clean_carry.syntaxes.scoped_template.templates import Template, Templates

# How a binding is written: its kind, whether it may be missing, the attribute it is named by.
_BINDING = re.compile(r"\s*([@&]|[=<](\*?))\s*(\??)\s*([$\w]*)\s*$")
# Options a component has none of: it cannot say them.
_NOT_SAID = ("priority", "templateNamespace", "multiElement", "type")


def read(source: SourceText, file: Path) -> DirectiveFile:
    """Read a file. Raises `InputError` where it is no script, or registers no directive."""
    tree = Tree(source)
    names = Names(tree)
    registrations = Registrations(tree, names)
    whole = (0, len(source.data))
    found = DirectiveFile(
        SYNTAX, source, (), (), tree, whole, names=names, registrations=registrations
    )
    listed = registrations.of("directive")
    refused: list[Refusal] = []
    for node in registrations.unnamed:
        told = "its name is made by code"
        refused.append(Refusal(node.text[:40], "definition-unread", told, node.start))
    if not listed and not refused:
        raise InputError("registers no directive", advice="Name a file that does", file=source.path)
    templates = Templates(tree, names, file)
    found.meaning = meaning = Meaning(file, registrations)
    for registration in listed:
        definition = define(registration, names)
        controller = definition.text("controller")
        if controller is not None:
            found.controllers.setdefault(controller.split(" as ")[0].strip(), []).append(
                definition.name
            )
        try:
            found.directives.append(_directive(found, definition, templates, meaning))
        except NotRead as reason:
            refused.append(Refusal(registration.name, reason.rule, reason.detail, reason.at))
    found.refusals = tuple(refused)
    found.components = tuple(_component(directive, source) for directive in found.directives)
    return found


def _component(directive: Directive, source: SourceText) -> Component:
    registration = directive.definition.registration
    span = source.span(registration.at, registration.call.end)
    props = tuple(
        Prop(binding.attribute, kind=binding.kind, required=not binding.optional)
        for binding in directive.bindings.values()
    )
    function = directive.controller.function
    apart = [function] if directive.controller.form in ("registered", "declared") else []
    # The compile and link functions, where they stand beside the registration.
    apart += [registration.function, *(function for _, function in directive.links)]
    beside = tuple(
        source.span(part.start, part.end)
        for part in apart
        if part is not None and not registration.at <= part.start < registration.call.end
    )
    place = Place(span, span, "named", beside=beside)
    return Component(directive.name, place, Inputs(props))


def _directive(
    file: DirectiveFile, definition: Definition, templates: Templates, meaning: Meaning
) -> Directive:
    """Read one directive. Raises `NotRead` where it stays one, or cannot be read."""
    at = definition.registration.at
    read_templates = _templates(file, definition, templates, meaning)
    bindings, to_controller = _bindings(definition)
    controller = _controller(file, definition)
    links = list(link_functions(definition))
    _check_links(file, definition, links)
    instance = InstanceUses()
    if controller.function is not None:
        instance = instance_uses(file.names, controller.function)
        _check_controller(controller, controller.function)
    _hooks_apart(instance, links, definition)
    parameters = [p for _, fn in links for p in parameters_of(fn)[:1]]
    parameters += [
        i.parameter for i in controller.injections if i.name == "$scope" and i.parameter is not None
    ]
    for parameter in parameters:
        if parameter.type != "identifier":
            raise NotRead("scope-pattern", parameter.text, parameter.start)
    if controller.form == "closed":
        _closed(definition, controller, links, bool(bindings) and not to_controller)
    scope = uses_of(file.names, parameters)
    used = {**scope.members(), **dict.fromkeys(n.name for _, t in read_templates for n in t.names)}
    if not definition.isolated and used and made_by_code(definition, file.tree, templates.file):
        raise NotRead("stays-made-by-code", dashed(definition.name), at)
    alias = definition.text("controllerAs") or _named_with_alias(definition) or ""
    scope.alias = alias
    plain_names = {n.name for _, t in read_templates for n in t.names if n.up <= n.level}
    members = {*scope.members(), *(n for n in plain_names if n != alias and not n.startswith("$"))}
    if controller.form == "closed" and members:
        shown = f"{', '.join(sorted(members))} of {controller.name or 'a class'}"
        raise NotRead("controller-elsewhere", shown, definition.options["controller"].whole.start)
    return Directive(
        definition, read_templates, bindings, controller, links, scope, instance, alias,
        to_controller, _required(definition),
    )  # fmt: skip


def _templates(
    file: DirectiveFile, definition: Definition, templates: Templates, meaning: Meaning
) -> list[tuple[Template, TemplateNames]]:
    """The templates of a directive with the names they use. Raises `NotRead` where it stays a directive."""
    at = definition.registration.at
    if definition.unread and definition.object is None and definition.link_alone is None:
        raise NotRead("definition-unread", definition.unread, at)
    known, missing = templates.of(definition)
    reason = why_it_stays(definition, known, file.names)
    if reason is not None:
        raise NotRead(reason.rule, reason.detail, reason.at)
    if definition.unread:
        raise NotRead("definition-unread", definition.unread, at)
    for option in _NOT_SAID:
        if option in definition.options and definition.value(option) is not None:
            if definition.options[option].value.text not in ("0", "false"):
                raise NotRead("option-not-said", option, definition.options[option].whole.start)
    if missing:
        raise NotRead("template-unread", missing, at)
    found = []
    for template in known:
        try:
            names = names_of(template.source, meaning.kind)
        except InputError as error:
            raise NotRead("template-unread", error.what, at) from None
        _included(templates, names.included, meaning, at, 0)
        found.append((template, names))
    return found


def _check_links(
    file: DirectiveFile, definition: Definition, links: list[tuple[str, Node]]
) -> None:
    """Raise `NotRead` for a function that links and cannot be moved."""
    _all_linked(definition, links)
    for _, function in links:
        if next(own_this(function), None) is not None:
            raise NotRead("link-this", "", function.start)
        _moves(function, "link-unread")
        _stands_alone(file.names, definition, function)


def _check_controller(controller: Controller, function: Node) -> None:
    """Raise `NotRead` for a controller that makes no instance of its own."""
    _moves(function, "controller-unread")
    named = controller.form in ("registered", "declared")
    if function.type == "arrow_function" and (named or next(own_this(function), None)):
        raise NotRead("controller-unread", "an arrow function", function.start)
    if _returns_value(function):
        raise NotRead("controller-unread", "it returns its instance", function.start)


def _included(
    templates: Templates, included: list[str], meaning: Meaning, at: int, depth: int
) -> None:
    """Raise `NotRead` where a template takes another one in that looks names up in its scope."""
    for expression in included:
        url = re.fullmatch(r"'([^']*)'|\"([^\"]*)\"", expression)
        found = templates.at(url.group(1) or url.group(2) or "") if url is not None else None
        if found is None:
            raise NotRead("template-included", expression, at)
        try:
            names = names_of(found.source, meaning.kind)
        except InputError as error:
            raise NotRead("template-included", f"{expression}: {error.what}", at) from None
        used = [n.name for n in names.names if n.up <= n.level]
        if used or names.unread or depth > 3:
            raise NotRead("template-included", f"{expression} uses {', '.join(used)}", at)
        _included(templates, names.included, meaning, at, depth + 1)


def _closed(
    definition: Definition, controller: Controller, links: list[tuple[str, Node]], on_scope: bool
) -> None:
    """Raise `NotRead` where something would have to be written into a controller that is closed."""
    at = definition.options["controller"].whole.start
    linked = any((b := f.child("body")) is not None and b.named_children for _, f in links)
    unnamed = [asked for asked, key in _required(definition) if not key]
    own = [asked for asked in unnamed if asked.lstrip("?") == definition.name]
    if on_scope or (linked and not controller.name) or (linked and len(own) < len(unnamed)):
        shown = controller.name or "a class, or from another file"
        raise NotRead("controller-elsewhere", shown, at)


def _moves(function: Node, rule: str) -> None:
    """Raise `NotRead` for a function whose statements cannot stand in another one."""
    if function.has("async") or function.has("*"):
        raise NotRead(rule, "it is asynchronous or a generator", function.start)
    stack = list(function.children)
    while stack:
        node = stack.pop()
        if node.type == "identifier" and node.text == "arguments":
            raise NotRead(rule, "arguments", node.start)
        if not node.is_function or node.type == "arrow_function":
            stack.extend(node.children)


def _stands_alone(names: Names, definition: Definition, function: Node) -> None:
    """Raise `NotRead` where a link function uses what the function that compiles has of its own."""
    compiled = definition.function(definition.value("compile"))
    if compiled is None:
        return
    for ref, binding in names.references_in(function):
        at = binding.node.start if binding is not None else -1
        if compiled.start < at < compiled.end and not function.start <= at < function.end:
            raise NotRead("link-unread", ref.text, ref.start)


def _returns_value(function: Node) -> bool:
    """Whether a controller gives another object than the one it is called on."""
    stack = list(function.children)
    while stack:
        node = stack.pop()
        if node.type == "return_statement" and node.named_children:
            return True
        if not node.is_function:
            stack.extend(node.children)
    return False


def _hooks_apart(
    instance: InstanceUses, links: list[tuple[str, Node]], definition: Definition
) -> None:
    """Raise `NotRead` if a controller already has a hook that code is moved to."""
    for when, function in links:
        moment = "$postLink" if when == "post" else "$onInit"
        if moment in instance.members:
            raise NotRead("names-meet", moment, function.start)


def _all_linked(definition: Definition, links: list[tuple[str, Node]]) -> None:
    """Raise `NotRead` where something links that is no function that can be read."""
    for name in ("link", "compile"):
        value = definition.value(name)
        if (
            value is None
            or value.text in ("undefined", "null", "false")
            or (definition.true("compile") and name == "link")
        ):
            continue
        parts = value.named_children if value.type == "object" else [value]
        wanted = {"pre", "post"} & {when for when, _ in links}
        if not links or (value.type == "object" and len(wanted) < len(parts)):
            raise NotRead("link-unread", value.text.split("\n")[0][:60], value.start)


def _named_with_alias(definition: Definition) -> str | None:
    text = definition.text("controller")
    found = re.search(r"\sas\s+([\w$]+)\s*$", text) if text else None
    return found.group(1) if found else None


def _bindings(definition: Definition) -> tuple[dict[str, Binding], bool]:
    """The bindings of a definition, and whether they are the controller's."""
    found: dict[str, Binding] = {}
    own = definition.value("bindToController")
    to_controller = definition.true("bindToController")
    for option in ("scope", "bindToController"):
        node = definition.value(option)
        if node is None or node.type != "object":
            continue
        for pair in node.named_children:
            key, value = pair.child("key"), pair.child("value")
            text = text_of(value)
            match = _BINDING.match(text) if text is not None else None
            if key is None or match is None:
                raise NotRead("binding-unread", pair.text[:60], pair.start)
            if match.group(2):
                raise NotRead("binding-unread", pair.text[:60], pair.start)
            name = text_of(key) or key.text
            found[name] = Binding(
                name, match.group(1)[0], bool(match.group(3)), match.group(4) or name, pair
            )
        if (
            option == "scope"
            and found
            and own is not None
            and own.type == "object"
            and own.named_children
        ):
            raise NotRead("binding-unread", "on the scope and on the controller", pair.start)
    return found, to_controller


def _controller(file: DirectiveFile, definition: Definition) -> Controller:
    value = definition.value("controller")
    if value is None:
        return Controller()
    option = definition.options["controller"]
    text = text_of(value)
    if text is not None:
        name = re.sub(r"\s+as\s+[\w$]+\s*$", "", text)
        registered = file.registrations.of("controller", name)
        if not registered:
            return Controller("closed", name, value=value)
        one = registered[-1]
        if one.function is None or one.function.type.startswith("class"):
            return Controller("closed", name, value=value)
        return Controller(
            "registered", name, one.function, one.injections, one.explicit, value, one
        )
    function, listed = file.registrations.followed(value)
    if function is None or function.type.startswith("class"):
        inner = plain(value)
        if inner is None or inner.type not in ("identifier", "class", "member_expression"):
            raise NotRead("controller-unread", value.text.split("\n")[0][:60], option.whole.start)
        return Controller("closed", value=value)
    taken = parameters_of(function)
    if listed is not None:
        injections = tuple(
            Injection(n, taken[i] if i < len(taken) else None) for i, n in enumerate(listed)
        )
    else:
        injections = tuple(Injection(p.text, p) for p in taken if p.type == "identifier")
    inner = plain(value)
    form = "inline"
    if inner is not None and inner.type == "identifier":
        factory = definition.registration.function
        inside = factory is not None and factory.start <= function.start < factory.end
        form = "local" if inside else "declared"
    return Controller(form, "", function, injections, listed is not None, value)


def _required(definition: Definition) -> list[tuple[str, str]]:
    """Yield required controllers: (the name with its prefixes; the key, "" for none)."""
    value = definition.value("require")
    if value is None:
        return []
    text = text_of(value)
    if text is not None:
        return [(text, "")]
    found: list[tuple[str, str]] = []
    if value.type == "array":
        for node in value.named_children:
            one = text_of(node)
            if one is None:
                raise NotRead("require-unread", node.text[:60], node.start)
            found.append((one, ""))
        return found
    if value.type == "object":
        for pair in value.named_children:
            key, inner = pair.child("key"), text_of(pair.child("value"))
            if key is None or inner is None:
                raise NotRead("require-unread", pair.text[:60], pair.start)
            found.append((inner, text_of(key) or key.text))
        return found
    raise NotRead("require-unread", value.text[:60], value.start)
