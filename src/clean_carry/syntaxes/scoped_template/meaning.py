"""How the value of an attribute is read that is none of the runtime's: by what the project registers."""

from __future__ import annotations

import re
from functools import lru_cache
from pathlib import Path

from clean_carry.component.errors import InputError
from clean_carry.source.importers import files_of, project_of
from clean_carry.source.javascript.scope import Names
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.template.tree import TemplateNode
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.scoped_template.definition import Definition, Option, define
from clean_carry.syntaxes.scoped_template.directives import normalised
from clean_carry.syntaxes.scoped_template.registrations import Registration, Registrations, text_of

# HTML attributes (HTML §6, §15 and ARIA): their values are texts with interpolations.
_HTML = frozenset(
    "accept action align alt async autocapitalize autocomplete autocorrect autofocus border "
    "cellpadding cellspacing charset checked cite class color cols colspan content "
    "contenteditable controls coords data datetime dir disabled draggable enctype for form frame "
    "height hidden href hreflang id inputmode ismap itemprop kind label lang list loop max "
    "maxlength media method min multiple name novalidate open pattern placeholder poster preload "
    "readonly rel required reversed role rows rowspan sandbox scope selected shape size sizes "
    "slot spellcheck src srcdoc srclang srcset start step style summary tabindex target title "
    "translate type usemap valign value width wrap xmlns "
    # SVG's own, as far as they are common in templates.
    "d cx cy r x y x1 x2 y1 y2 fill stroke points transform viewbox".split()
)
# HTML §3.2.6: attributes of every element.
_GLOBAL = frozenset(
    "accesskey autofocus class contenteditable dir draggable hidden id lang slot spellcheck style tabindex "
    "title translate role name".split()
)
_DATA = re.compile(r"(data|aria)[A-Z].*|on[a-z]+$")


def is_plain(name: str) -> bool:
    """Whether an attribute, by its normalised name, is the page's own: its value is a text."""
    return name.lower() in _HTML or _DATA.match(name) is not None or name.startswith("aria")


class Meaning:
    """The meaning of attributes in a project."""

    def __init__(self, file: Path, own: Registrations) -> None:
        self.file = file
        self.root = project_of(file)
        self.own = own
        self._known: dict[str, Definition | None] = {}

    def directive(self, name: str) -> Definition | None:
        """The definition of a directive or component of the project, by its registered name."""
        if name not in self._known:
            mine = [*self.own.of("directive", name), *self.own.of("component", name)]
            found = define_any(mine[0], self.own.names) if mine else None
            if found is None and self.root is not None:
                found = _in_project(self.root, name)
            self._known[name] = found
        return self._known[name]

    def kind(self, node: TemplateNode, name: str) -> str:
        """How an attribute of an element is read: `value`, `text`, or "" where nobody knows."""
        for owner in dict.fromkeys(
            (normalised(node.tag), *(normalised(a.name) for a in node.attributes))
        ):
            definition = self.directive(owner)
            kind = kind_in(definition, name, owner) if definition is not None else ""
            if kind:
                return kind
        if "-" in node.tag and name.lower() in _HTML and name not in _GLOBAL:
            # Of an element nobody knows only what every element has is known.
            return ""
        return "text" if is_plain(name) else ""


def define_any(registration: Registration, names: Names) -> Definition:
    """The definition of a directive, or of a component, whose object is its definition."""
    if registration.kind == "directive":
        return define(registration, names)
    found = Definition(registration)
    if registration.value.type == "object":
        found.object = registration.value
        for pair in registration.value.named_children:
            key, value = pair.child("key"), pair.child("value")
            if key is not None and value is not None:
                found.options[text_of(key) or key.text] = Option(key.text, value, pair)
    return found


_KINDS = {"=": "value", "<": "value", "&": "statement", "@": "text"}


def kind_in(definition: Definition, name: str, owner: str) -> str:
    """How a directive reads one of its attributes: by its bindings, or by what its code does with it."""
    for option in ("scope", "bindToController", "bindings"):
        node = definition.value(option)
        for pair in node.named_children if node is not None and node.type == "object" else []:
            key, text = pair.child("key"), text_of(pair.child("value"))
            if key is None or text is None:
                continue
            mark = text.strip()[:1]
            attribute = text.strip().lstrip("=<@&?* ") or (text_of(key) or key.text)
            if attribute == name:
                return _KINDS.get(mark, "")
    function = definition.registration.function
    if function is None or definition.registration.kind != "directive":
        return ""
    asked = _asked_of_attributes(function, name)
    if asked is not None:
        return asked
    return "text" if name == owner else ""


# Attributes whose text is evaluated, and those whose text is plain.
_EVALUATES = frozenset(
    "$eval $parse $watch $watchCollection $evalAsync $apply parseAsHtml parseAsResourceUrl parseAsUrl "
    "parseAsCss parseAsJs parseAs".split()
)
_READS = frozenset(
    "isDefined isUndefined parseInt parseFloat Number String Boolean isString trim toLowerCase "
    "toUpperCase addClass removeClass toggleClass attr $interpolate indexOf".split()
)


def _asked_of_attributes(function: Node, name: str) -> str | None:
    """Return how code uses an attribute: `value` if it evaluates it, `text` if it reads it, "" if it passes
    it on, None if it does not use it."""
    found: str | None = None
    for node in function.walk():
        if node.type != "member_expression":
            continue
        asked, inner = node.child("property"), node.child("object")
        if asked is None or asked.text != name or inner is None or "ttr" not in inner.text:
            continue
        kind = "text"
        given = node.parent
        call = given.parent if given is not None and given.type == "arguments" else None
        callee = call.child("function") if call is not None else None
        last = callee.child("property") or callee if callee is not None else None
        if last is not None and last.text in _EVALUATES:
            return "value"
        if last is not None and last.text not in _READS:
            kind = ""
        found = kind if found is None or kind == "" else found
    return found


@lru_cache(maxsize=1024)
def _in_project(root: Path, name: str) -> Definition | None:
    """The definition another file of the project registers."""
    call = re.compile(rf"""\.(?:directive|component)\(\s*['"]{re.escape(name)}['"]""")
    for path, text in files_of(root, ".js"):
        if call.search(text):
            try:
                tree = Tree(SourceText(str(path), text.encode()))
            except InputError:
                continue
            names = Names(tree)
            registrations = Registrations(tree, names)
            for kind in ("directive", "component"):
                for registration in registrations.of(kind, name):
                    return define_any(registration, names)
    return None
