"""The template of a controller component as one of a single file.

The source is the framework's reference of its directives. A path into something that may be missing is
followed as far as there is something, as the old expressions are.
"""

from __future__ import annotations

import re
from dataclasses import dataclass, field

from clean_carry.source.html.display import BLOCKS
from clean_carry.source.template.tree import VOID, TemplateAttribute, TemplateNode, read_markup
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.controller_component.reading.filters import NAMES
from clean_carry.syntaxes.controller_component.reading.recognise import Bound, event_of
from clean_carry.syntaxes.piped_expressions import Spelling, Unread, respelled

_EVENTS = frozenset(
    "click dblclick mousedown mouseup mouseover mouseenter mouseleave mousemove keydown keyup keypress "
    "focus blur submit copy cut paste".split()
)
_FLAGS = frozenset("disabled checked readonly selected open".split())
_REPEAT = re.compile(
    r"\s*(?:\(\s*([\w$]+)\s*,\s*([\w$]+)\s*\)|([\w$]+))\s+in\s+(.+?)(?:\s+track\s+by\s+(.+?))?\s*$",
    re.DOTALL,
)
_PLACES = {
    "$first": "{0} === 0",
    "$last": "{0} === {1}.length - 1",
    "$odd": "{0} % 2 === 1",
    "$even": "{0} % 2 === 0",
    "$middle": "{0} > 0 && {0} < {1}.length - 1",
}
_TEXT = re.compile(r"'(?:[^'\\]|\\.)*'|\"(?:[^\"\\]|\\.)*\"")
_MARKED = re.compile(r"'(\d+)'")
_INTERPOLATION = re.compile(r"\{\{(.*?)\}\}", re.DOTALL)


@dataclass
class TemplateReading:
    """Writes a template anew. `pieces` are texts with the offsets they come from, `filters` those used."""

    source: SourceText
    alias: str
    bindings: dict[str, Bound]
    nullable: set[str]
    members: set[str]
    slots: dict[str, str]
    pieces: list[tuple[str, int]] = field(default_factory=list)
    filters: list[str] = field(default_factory=list)
    lists: set[str] = field(default_factory=set)
    notes: list[tuple[str, str, int]] = field(default_factory=list)

    def __post_init__(self) -> None:
        nothing: dict[str, str] = {}
        self.spelling = Spelling(nothing, nothing, nothing, self._filter)

    def write(self) -> None:
        """Write all of it. Raises `Unread` at an offset, and `InputError` for unbalanced markup."""
        self._nodes(read_markup(self.source, 0, len(self.source.data)), self.spelling)

    def _put(self, text: str, at: int) -> None:
        self.pieces.append((text, at))

    # -- code ----------------------------------------------------------------------------------

    def _filter(self, name: str, value: str, given: list[str]) -> str:
        if name not in NAMES:
            raise Unread(f"the filter {name}")
        if name not in self.filters:
            self.filters.append(name)
        return f"{NAMES[name]}({', '.join([value, *given])})"

    def code(self, text: str, at: int, spelling: Spelling) -> str:
        """An expression or statements in the new spelling. Raises `Unread` at its place."""
        if text.strip().startswith("::"):
            raise Unread("a binding that is read once", at)
        # Quoted text stays as it is: numbered marks stand for it.
        quoted: list[str] = []

        def mark(found: re.Match[str]) -> str:
            quoted.append(found[0])
            return f"'{len(quoted) - 1}'"

        plain = _TEXT.sub(mark, text.strip())
        made = self._respelled(plain, at, spelling)
        return _MARKED.sub(lambda found: quoted[int(found[1])], made)

    def _respelled(self, text: str, at: int, spelling: Spelling) -> str:
        """Code in which marks stand for quoted text."""
        alias = re.escape(self.alias)
        own = re.sub(rf"(?<![\w$.]){alias}\.", "this.", text)
        for bound in self.bindings.values():
            if bound.mode == "&":
                event, name = event_of(bound.name), re.escape(bound.name)
                own = re.sub(rf"this\.{name}\(\s*\)", f"this.$emit('{event}')", own)
                own = re.sub(rf"this\.{name}\(\s*", f"this.$emit('{event}', ", own)
        if re.search(rf"(?<![\w$.]){alias}(?![\w$])", own):
            raise Unread("the controller itself", at)
        try:
            made = respelled(own, spelling)
        except Unread as reason:
            raise Unread(reason.what, at) from None
        return self._joined(self._forgiving(made))

    def _joined(self, text: str) -> str:
        """Text joined of what may be missing: the old expressions leave that out."""
        if not self.nullable or not re.search(r"\+\s*['\"`]|['\"`]\s*\+", text):
            return text
        heads = "|".join(map(re.escape, sorted(self.nullable, key=len, reverse=True)))
        path = rf"(?<![\w$.])((?:{heads})(?:\(\))?(?:\?\.[\w$]+)*)"
        text = re.sub(rf"{path}(?=\s*\+)", r"(\1 ?? '')", text)
        return re.sub(rf"(\+\s*){path}(?![\w$.?(\[])", r"\1(\2 ?? '')", text)

    def _forgiving(self, text: str) -> str:
        """Paths into what may be missing end there."""
        names = sorted(self.nullable, key=len, reverse=True)
        if not names:
            return text
        heads = "|".join(map(re.escape, names))
        pattern = (
            rf"(?<![\w$.])((?:{heads})(?:\(\))?)((?:\.[\w$]+)+)(?!\s*(?:=(?!=)|\+\+|--|[-+*/]=))"
        )
        return re.sub(pattern, lambda found: found[1] + found[2].replace(".", "?."), text)

    # -- nodes ---------------------------------------------------------------------------------

    def _nodes(self, nodes: list[TemplateNode], spelling: Spelling, parent: str = "") -> None:
        """Several nodes, of an element of the tag `parent`."""
        inline = parent in _INLINE
        for at, node in enumerate(nodes):
            rows = node.tag == "tr" and parent == "table"
            if rows and not _is_row(nodes[:at]):
                # The page's own parser puts rows into a body.
                self._put("<tbody>", node.start)
            if node.kind == "element":
                self._element(node, spelling)
            elif node.kind == "interpolation":
                text = self.source.slice(*node.inner)
                self._put(f"{{{{ {self.code(text, node.inner[0], spelling)} }}}}", node.start)
            elif node.kind == "text":
                edges = (inline and not at, inline and at == len(nodes) - 1)
                self._text(node, nodes[at - 1 : at], nodes[at + 1 : at + 2], edges)
            else:
                self._put(self.source.slice(node.start, node.end), node.start)
            if rows and not _is_row(nodes[at + 1 :][::-1]):
                self._put("</tbody>", node.end)

    def _text(
        self,
        node: TemplateNode,
        before: list[TemplateNode],
        after: list[TemplateNode],
        edges: tuple[bool, bool],
    ) -> None:
        text = self.source.slice(node.start, node.end)
        if edges[0] and text[:1].isspace():
            # White space that shows at the edge of an element in a line.
            text = "{{ ' ' }}" + text.lstrip()
        elif edges[1] and text[-1:].isspace():
            text = text.rstrip() + "{{ ' ' }}"
        shows = before and after and not text.strip() and "\n" in text
        if shows and all(_is_inline(one) for one in (*before, *after)):
            # White space that shows between two elements in a line would vanish with its line break.
            text = " "
        self._put(text, node.start)

    def _element(self, node: TemplateNode, spelling: Spelling) -> None:
        if "-" in node.tag and node.tag != "ng-transclude":
            raise Unread(f"the element <{node.tag}>", node.start)
        own = {_plain(one.name): one for one in node.attributes}
        for name in ("ng-include", "ng-controller", "ng-init", "ng-repeat-start", "ng-bind-html"):
            if name in own:
                raise Unread(name, own[name].start)
        around = ""
        given: list[str] = []
        repeat = own.get("ng-repeat")
        if repeat is not None:
            said, spelling = self._repeat(node, repeat, spelling)
            if "ng-if" in own:
                self._put(f"<template {' '.join(said)}>", node.start)
                around = "</template>"
            else:
                given += said
        if "ng-if" in own:
            given.append(f'v-if="{self._value(own["ng-if"], spelling)}"')
        given += self._attributes(node, own, spelling)
        self._whole(node, own, given, spelling)
        if around:
            self._put(around, node.end)

    def _whole(
        self,
        node: TemplateNode,
        own: dict[str, TemplateAttribute],
        given: list[str],
        spelling: Spelling,
    ) -> None:
        tag = "div" if node.tag == "ng-transclude" else node.tag
        head = f"<{tag}{''.join(f' {one}' for one in given)}"
        if node.tag in VOID:
            self._put(f"{head}>", node.start)
            return
        self._put(f"{head}>", node.start)
        if "ng-bind" in own:
            self._put(
                f"{{{{ {self._value(own['ng-bind'], spelling, quoted=False)} }}}}", node.start
            )
        elif "ng-transclude" in own or node.tag == "ng-transclude":
            self._slot(node, own, spelling)
        elif "ng-switch" in own:
            self._switch(node, own["ng-switch"], own.get("on"), spelling)
        else:
            self._nodes(node.children, spelling, node.tag)
        self._put(f"</{tag}>", node.end)

    def _slot(
        self, node: TemplateNode, own: dict[str, TemplateAttribute], spelling: Spelling
    ) -> None:
        place = own.get("ng-transclude") or own.get("ng-transclude-slot")
        name = self.source.slice(*place.value) if place is not None and place.value else ""
        if name not in self.slots:
            raise Unread(f"the slot {name}", node.start)
        self._put(f'<slot name="{name}">' if name else "<slot>", node.start)
        self._nodes(node.children, spelling)
        self._put("</slot>", node.end)

    def _repeat(
        self, node: TemplateNode, repeat: TemplateAttribute, spelling: Spelling
    ) -> tuple[list[str], Spelling]:
        text = self._text_of(repeat)
        read = _REPEAT.match(text)
        if read is None or re.search(r"\sas\s+[\w$]+\s*$", read[4]):
            raise Unread(f"ng-repeat {text[:40]}", repeat.start)
        items = self.code(read[4], repeat.start, spelling)
        self._listed(read[4].strip())
        inner = self.source.slice(node.start, node.end)
        item = read[3] or read[2]
        names = {item: self._apart(item, inner)}
        key = read[1]
        if key:
            names[key] = self._apart(key, inner)
        simple = re.fullmatch(r"[\w$.?]+(?:\(\)[\w$.?]*)*", items) is not None
        asked = [one for one in _PLACES if re.search(rf"\{one}(?![\w$])", inner)]
        track = (read[5] or "").strip()
        placed = "$index" in inner or asked or track == "$index"
        index = self._apart("index", inner) if placed and not key else ""
        if index:
            names["$index"] = index
        for one in asked:
            if "{1}" in _PLACES[one] and not simple:
                raise Unread(f"{one} of such a list", repeat.start)
            names[one] = f"({_PLACES[one].format(index or names.get(key, key), items)})"
        within = spelling.within(names)
        second = names[key] if key else index
        said = [
            f'v-for="({names[item]}, {second}) in {items}"'
            if second
            else f'v-for="{names[item]} in {items}"'
        ]
        if key:
            said.append(f':key="{second}"')
        elif not track:
            self.notes.append(("told-by-place", read[4].strip(), repeat.start))
        else:
            said.append(f':key="{self.code(track, repeat.start, within)}"')
        return said, within

    def _listed(self, items: str) -> None:
        found = re.fullmatch(rf"{re.escape(self.alias)}\.([\w$]+)", items)
        if found is not None and found[1] in self.bindings:
            self.lists.add(found[1])

    def _apart(self, name: str, text: str) -> str:
        """A name for what a list gives, other than a member that is used inside."""
        if name not in self.members:
            return name
        return f"each{name[:1].upper()}{name[1:]}"

    def _switch(
        self,
        node: TemplateNode,
        switch: TemplateAttribute,
        on: TemplateAttribute | None,
        spelling: Spelling,
    ) -> None:
        attribute = switch if switch.value and self._text_of(switch).strip() else on
        if attribute is None:
            raise Unread("ng-switch", node.start)
        value = self._value(attribute, spelling)
        first = True
        for child in node.children:
            own = {_plain(one.name): one for one in child.attributes}
            when, last = own.get("ng-switch-when"), own.get("ng-switch-default")
            if child.kind != "element" or (when is None and last is None):
                if child.kind == "text" and not self.source.slice(child.start, child.end).strip():
                    continue
                raise Unread("ng-switch with other content", child.start)
            if when is not None:
                text = self._text_of(when)
                test = (
                    value if not re.fullmatch(r"-?[\d.]+|true|false", text) else f"String({value})"
                )
                said = f"{'v-if' if first else 'v-else-if'}=\"{test} === '{text}'\""
            else:
                if first or child is not _last_element(node):
                    raise Unread("ng-switch-default before others", child.start)
                said = "v-else"
            first = False
            given = [said, *self._attributes(child, own, spelling)]
            self._whole(child, own, given, spelling)

    # -- attributes ----------------------------------------------------------------------------

    def _attributes(
        self, node: TemplateNode, own: dict[str, TemplateAttribute], spelling: Spelling
    ) -> list[str]:
        found: list[str] = []
        for name, one in own.items():
            found += self._attribute(node, name, one, own, spelling)
        return found

    def _attribute(
        self,
        node: TemplateNode,
        name: str,
        one: TemplateAttribute,
        own: dict[str, TemplateAttribute],
        spelling: Spelling,
    ) -> list[str]:
        bare = name.removeprefix("ng-")
        if name in _ELSEWHERE:
            return []
        if name in ("ng-class", "ng-style"):
            return [f':{bare}="{self._value(one, spelling)}"']
        if name in ("ng-show", "ng-hide"):
            value = self._value(one, spelling)
            return [f'v-show="{value}"' if name == "ng-show" else f'v-show="!({value})"']
        if name.startswith("ng-") and bare in _EVENTS:
            prevents = ".prevent" if bare == "submit" else ""
            return [f'@{bare}{prevents}="{self._value(one, spelling)}"']
        if name == "ng-model":
            return [self._model(node, one, own, spelling)]
        if name == "ng-change":
            chosen = self._kind(node, own) in ("checkbox", "radio", "select")
            return [f'@{"change" if chosen else "input"}="{self._value(one, spelling)}"']
        if name.startswith("ng-") and bare in _FLAGS:
            return [f':{bare}="{self._value(one, spelling)}"']
        if name == "ng-value":
            return [f':value="{self._value(one, spelling)}"']
        if name in ("ng-href", "ng-src", "ng-srcset") or name.startswith("ng-attr-"):
            return [
                self._interpolated(name.removeprefix("ng-attr-").removeprefix("ng-"), one, spelling)
            ]
        if name.startswith("ng-"):
            raise Unread(name, one.start)
        if one.value is not None and "{{" in self.source.slice(*one.value):
            return [self._interpolated(name, one, spelling)]
        if node.tag == "form" and name == "name":
            raise Unread("a form with a name", one.start)
        return [self.source.slice(one.start, one.end)]

    def _interpolated(self, name: str, one: TemplateAttribute, spelling: Spelling) -> str:
        text = self._text_of(one)
        alone = _INTERPOLATION.fullmatch(text.strip())
        if alone is not None:
            value = self.code(alone[1], one.start, spelling)
            if value in self.members and value not in self.nullable:
                # Null is shown as no text, where other runtimes take the attribute away.
                value += " ?? ''"
            return f':{name}="{_quoted(value)}"'
        if "`" in text:
            raise Unread(f"{name} with a backtick", one.start)

        def shown(found: re.Match[str]) -> str:
            return f"${{{self.code(found[1], one.start, spelling)} ?? ''}}"

        return f':{name}="{_quoted("`" + _INTERPOLATION.sub(shown, text) + "`")}"'

    def _kind(self, node: TemplateNode, own: dict[str, TemplateAttribute]) -> str:
        if node.tag != "input":
            return node.tag
        kind = own.get("type")
        return self._text_of(kind) if kind is not None else "text"

    def _model(
        self,
        node: TemplateNode,
        one: TemplateAttribute,
        own: dict[str, TemplateAttribute],
        spelling: Spelling,
    ) -> str:
        checks = [name for name in own if name in _CHECKS or name in ("ng-options", "ng-trim")]
        kind = self._kind(node, own)
        if checks or kind not in _MODELS:
            raise Unread(f"ng-model with {(checks or [kind])[0]}", one.start)
        path = self._text_of(one).strip()
        bound = re.match(rf"{re.escape(self.alias)}\.([\w$]+)", path)
        if bound is not None and bound[1] in self.bindings:
            raise Unread(f"ng-model of the binding {bound[1]}", one.start)
        place = self.code(path, one.start, spelling).replace("?.", ".")
        if _MODELS[kind] == ".trim":
            self.notes.append(("field-trimmed", path, one.start))
        return f'v-model{_MODELS[kind]}="{place}"'

    def _text_of(self, one: TemplateAttribute) -> str:
        return self.source.slice(*one.value) if one.value is not None else ""

    def _value(self, one: TemplateAttribute, spelling: Spelling, *, quoted: bool = True) -> str:
        made = self.code(self._text_of(one), one.start, spelling)
        return _quoted(made) if quoted else made


# Attributes that are written with the element itself.
_ELSEWHERE = frozenset(
    "ng-if ng-repeat ng-bind ng-transclude ng-transclude-slot ng-switch ng-switch-when ng-switch-default "
    "ng-cloak on".split()
)
# Fields, and how their values are taken.
_MODELS = {
    "text": ".trim", "search": ".trim", "tel": ".trim", "password": ".trim", "textarea": ".trim",
    "number": ".number", "checkbox": "", "radio": "", "select": "", "range": ".number",
}  # fmt: skip
_CHECKS = frozenset(
    "required ng-required ng-minlength ng-maxlength ng-pattern ng-model-options ng-true-value "
    "ng-false-value minlength maxlength pattern min max ng-min ng-max multiple ng-list".split()
)


# Elements in a line whose white space at the edges shows.
_INLINE = frozenset(
    "a abbr b cite code em i label mark q s small span strong sub sup time u".split()
)


def _is_row(nodes: list[TemplateNode]) -> bool:
    """Whether the last element of some nodes is a row."""
    found = [one for one in nodes if one.kind == "element"]
    return bool(found) and found[-1].tag == "tr"


def _plain(name: str) -> str:
    return name.removeprefix("data-") if name.startswith("data-ng-") else name


def _quoted(text: str) -> str:
    return text.replace('"', "'") if "'" not in text else text.replace('"', "&quot;")


def _is_inline(node: TemplateNode) -> bool:
    return node.kind == "interpolation" or (node.kind == "element" and node.tag not in BLOCKS)


def _last_element(node: TemplateNode) -> TemplateNode:
    return [one for one in node.children if one.kind == "element"][-1]
