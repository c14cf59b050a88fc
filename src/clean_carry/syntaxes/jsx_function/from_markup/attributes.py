"""Attributes of the neutral markup as JSX spells them."""

from __future__ import annotations

import html
import re
from dataclasses import dataclass, field

from clean_carry.component.code import Builtin, Code, Member, Read
from clean_carry.component.fragment import Fragment, copy, joined, new, settled
from clean_carry.component.markup import (
    Attribute,
    BoundAttribute,
    ClassList,
    Element,
    Handler,
    Key,
    RawHtml,
    Reference,
    Shown,
    Spread,
    StaticAttribute,
    StyleMap,
    TwoWay,
)
from clean_carry.source.css.declarations import declarations
from clean_carry.source.javascript.values import is_identifier
from clean_carry.syntaxes.jsx.attributes import BOOLEAN, RENAMED
from clean_carry.syntaxes.jsx_function.from_markup.listeners import Heard, Listeners, unbraced
from clean_carry.syntaxes.jsx_function.from_markup.spelling import Speller
from clean_carry.syntaxes.jsx_function.from_markup.two_way import TwoWays, is_typed_in, value_of
from clean_carry.syntaxes.unsaid import Unsaid

# Attributes that a parent may override.
_TAKEN_OVER = (StaticAttribute, BoundAttribute, Spread, RawHtml)
# Types of `input` whose value nobody types.
_KEPT_TYPES = frozenset({"checkbox", "radio", "submit", "button", "hidden", "reset", "image"})
# Attributes whose false is written as a word (HTML, "Enumerated attributes").
_WORDS = frozenset({"contenteditable", "draggable", "spellcheck"})
_HYPHENS = re.compile(r"-([a-z])")
# SVG 2, appendix "Presentation attributes", as React DOM names them.
_SVG = frozenset(
    "clip-path clip-rule dominant-baseline fill-opacity fill-rule font-family font-size font-weight "
    "letter-spacing marker-end marker-mid marker-start stop-color stop-opacity stroke-dasharray "
    "stroke-dashoffset stroke-linecap stroke-linejoin stroke-miterlimit stroke-opacity stroke-width "
    "text-anchor text-decoration pointer-events".split()
)


@dataclass
class Attributes:
    """Writes the attributes of one component's elements. `mark` is the attribute that scopes its styles."""

    speller: Speller
    mark: str
    notes: list[tuple[str, str, int]]
    # Whether elements are repeated here; what gives fields their values: (reference, property, value);
    # references of elements that had none, by where the element stands.
    in_list: bool = False
    fields: list[tuple[str, str, Fragment]] = field(default_factory=list)
    references: dict[int, str] = field(default_factory=dict)
    # Statements that hear when typing ends.
    hearing: list[Fragment] = field(default_factory=list)

    def __post_init__(self) -> None:
        self.listeners = Listeners(self.speller)
        self.two_ways = TwoWays(self.speller, self.notes)

    def key(self, key: Key) -> Fragment:
        """Return the key of a list's element."""
        return new("key={", key.entry, "key") + self.speller.code(key.code) + new("}")

    def written(self, node: Element, depth: int, *, root: bool) -> list[Fragment]:
        """Return the attributes of an element; the `root` takes those that a parent passes.

        A parent's attributes replace those of the element and join its classes, styles and listeners
        (version 3's guide, "Fallthrough attributes"): `{...others}` stands between them.
        """
        spread = not root and _hands_attributes_on(node)
        others = self.speller.names.others if root or spread else ""
        classes = [one for one in node.attributes if _named(one, "class")]
        styles = [one for one in node.attributes if _is_style(one)]
        typing = self._typing(node)
        rest = [one for one in node.attributes if one not in (*classes, *styles, *typing)]
        own = any(isinstance(one, _TAKEN_OVER) for one in rest)
        handed = [new(f"{{...{others}}}")] if root else []
        found, handed = (handed, []) if not own else ([], handed)
        behind: list[Fragment] = []
        # Joined attributes stand behind the spread of a parent's.
        after = behind if handed or spread else found
        after += self._root_reference(node) if root else []
        if self.mark and not node.component:
            found.append(new(f'{self.mark}=""'))
        passed_class = "className" if root else f"{others}.className" if spread else ""
        heard = Heard(self.listeners, node, "" if node.component else others, after, depth)
        for one in node.attributes:
            if classes and one is classes[0]:
                (after if spread else found).append(self._classes(classes, passed_class))
            elif styles and one is styles[0]:
                after.append(self._styles(styles, others))
            elif one in rest:
                found += self._plain(one, node, others, heard)
        heard.written()
        after += self._end_of_typing(typing, node) if typing else []
        if others and not node.children and not node.component:
            # The component renders no children that a parent passes.
            behind.append(new("children={null}"))
        if root and not classes:
            found.append(new("className={className}"))
        return _with_text(found + handed + behind)

    def _plain(self, one: Attribute, node: Element, others: str, heard: Heard) -> list[Fragment]:
        """Return an attribute that is neither class nor style; listeners go to `heard`."""
        match one:
            case Handler():
                heard.hear(one)
                return []
            case TwoWay():
                value, *listeners = self.two_ways.written(one, node)
                if not self.two_ways.may_stay(one) or not is_typed_in(one, node):
                    heard.bind([value, *listeners])
                    return []
                if self.in_list or node.tag == "select":
                    self.notes.append(("put-back-at-once", "v-model", one.code.span.start))
                    heard.bind([value, *listeners])
                    return []
                heard.bind(listeners)
                name = "checked" if one.kind == "checkbox" else "value"
                return self._field(name, value_of(value), node)
            case BoundAttribute() if self._is_field(one, node):
                settle = settled(one.entry, "field-by-reference")
                return self._field(one.name, settle + self.speller.code(one.code), node)
        return [self._one(one, node, others)]

    def _root_reference(self, node: Element) -> list[Fragment]:
        """Return the ref of the root, if code reads the root and it has no ref of its own."""
        asked = self.speller.root_named
        if not asked or any(isinstance(one, Reference) for one in node.attributes):
            return []
        self.references[node.span.start] = asked
        return [new(f"ref={{{asked}}}")]

    def _typing(self, node: Element) -> list[Attribute]:
        """Return the attributes of an element that wait until editing ends."""
        found: list[Attribute] = []
        for one in node.attributes:
            lazy = isinstance(one, TwoWay) and "lazy" in one.modifiers and not node.component
            if lazy or (isinstance(one, Handler) and self.listeners.ends_typing(one, node)):
                found.append(one)
        return found

    def _end_of_typing(self, typing: list[Attribute], node: Element) -> list[Fragment]:
        """Return the ref callback that reads a field's text when editing ends."""
        at = node.span.start
        calls: list[Fragment] = []
        value = Fragment()
        for one in typing:
            if isinstance(one, TwoWay):
                if node.tag != "textarea" and one.kind in ("checkbox", "radio", "?", "multiple"):
                    raise Unsaid("markup-unread", "v-model.lazy", at)
                call, value = self.two_ways.at_end(one)
                calls.append(call)
            elif isinstance(one, Handler):
                settle = settled(one.entry, "listener")
                calls.append(settle + self.listeners.function(one, node))
        alone = len(typing) == 1 and isinstance(typing[0], Handler)
        take = calls[0] if alone else new("(event) => { ") + joined(
            (self._run(one, call) for one, call in zip(typing, calls, strict=True)), " "
        ) + new(" }")  # fmt: skip
        own = next((one.member for one in node.attributes if isinstance(one, Reference)), "")
        local = self.speller.names.of(Member("element", own)) if own else self.references.get(at)
        if local is not None and value.pieces:
            raise Unsaid("change-of-text", "v-model.lazy", at)
        if local is not None:
            hook = self.speller.helper("useEndOfTyping")
            self.hearing.append(new(f"{hook}({local}, ") + take + new(f"){self.speller.end}"))
            return []
        self.speller.helper("endOfTyping")
        shown = new(", ") + value if value.pieces else Fragment()
        return [new("ref={endOfTyping(") + take + shown + new(")}")]

    def _run(self, one: Attribute, call: Fragment) -> Fragment:
        """A call as a statement."""
        if isinstance(one, TwoWay):
            return unbraced(call)
        text = self.speller.source.slice(*one.code.span[:2]) if isinstance(one, Handler) else ""
        plain = is_identifier(text.replace(".", "_"))
        return (call if plain else new("(") + call + new(")")) + new("(event);")

    def _one(self, attribute: Attribute, node: Element, others: str = "") -> Fragment:
        match attribute:
            case StaticAttribute(name=name, value=value, entry=entry):
                return self._static(name, value, entry, node)
            case BoundAttribute(name=name, code=code, form=form, entry=entry):
                spelt = self._name(name, node)
                head = new(f"{spelt}={{", entry, "bound-attribute")
                if self._is_held(name, node):
                    self.notes.append(("put-back-at-once", name, code.span.start))
                told = name.startswith(("aria-", "data-")) and not node.component
                if attribute.may_go and told and form == "boolean":
                    return head + self._or_nothing(code)
                if attribute.may_go and told and not form:
                    self.notes.append(("false-is-told", name, code.span.start))
                plain = name not in BOOLEAN and not node.component and form == "boolean"
                if (
                    plain
                    and not name.startswith(("aria-", "data-"))
                    and name not in ("checked", "value")
                ):
                    # An attribute that is no boolean gets the word.
                    if attribute.may_go and name not in _WORDS:
                        return head + self._or_nothing(code)
                    return head + new("String(") + self.speller.code(code) + new(")}")
                return head + self.speller.code(code) + new("}")
            case Key():
                return self.key(attribute)
            case Reference(member=member, entry=entry):
                name = self.speller.names.of(Member("element", member))
                if self.in_list:
                    name = f"{self.speller.helper('keepIn')}({name})"
                return new(f"ref={{{name}}}", entry, "element-reference")
            case Spread(code=code, entry=entry):
                own = code.operations[0] if code.operations else None
                if isinstance(own, Builtin) and own.name == "$listeners":
                    if not others and not _hands_attributes_on(node):
                        raise Unsaid("not-in-target", "$listeners", code.span.start)
                    # A parent's listeners are among what it passes on.
                    return settled(entry, "spread") + settled(own.entry, "spread")
                return new("{...", entry, "spread") + self.speller.code(code) + new("}")
            case RawHtml(code=code, entry=entry):
                head = new("dangerouslySetInnerHTML={{ __html: ", entry, "raw-html")
                return head + self.speller.code(code) + new(" }}")
        raise Unsaid("markup-unread", type(attribute).__name__, node.span.start)

    def _static(self, name: str, value, entry: int, node: Element) -> Fragment:  # type: ignore[no-untyped-def]
        spelt = self._name(name, node)
        if name.startswith("on") and not node.component:
            raise Unsaid("markup-unread", name, node.span.start)
        if value is None:
            if node.component:
                return new(spelt, entry, "attribute")
            empty = spelt if name in BOOLEAN else f'{spelt}=""'
            return new(empty, entry, "attribute")
        if name in BOOLEAN and not node.component:
            return new(spelt, entry, "attribute")
        raw = self.speller.source.slice(value.start, value.end)
        if "\n" in raw or ('"' in raw and "'" in raw):
            raise Unsaid("markup-unread", f"the value of {name}", value.start)
        quote = "'" if '"' in raw else '"'
        if (
            not node.component
            and name in ("value", "checked")
            and node.tag in ("input", "textarea")
        ):
            if self._literal_type(node) not in _KEPT_TYPES:
                spelt = "defaultValue"
        return new(f"{spelt}={quote}", entry, "attribute") + copy(value) + new(quote)

    def _is_held(self, name: str, node: Element) -> bool:
        """Whether the target keeps what a person changes as it is bound (its reference, `input`)."""
        if node.component or node.tag not in ("input", "textarea", "select"):
            return False
        kind = self._literal_type(node)
        if name == "checked":
            return kind in ("checkbox", "radio")
        return name == "value" and kind not in _KEPT_TYPES

    def _is_field(self, attribute: BoundAttribute, node: Element) -> bool:
        """Whether a reference can give a field its value."""
        return not self.in_list and node.tag != "select" and self._is_held(attribute.name, node)

    def _field(self, name: str, value: Fragment, node: Element) -> list[Fragment]:
        """Return the ref by which a field gets its value after rendering, if it has none yet."""
        names = self.speller.names
        own = next((one.member for one in node.attributes if isinstance(one, Reference)), "")
        if not own and node.span.start not in self.references:
            self.references[node.span.start] = names.choose("field", "fieldElement")
        local = names.of(Member("element", own)) if own else self.references[node.span.start]
        known = any(known == local for known, _, _ in self.fields)
        first = not own and not known and local != self.speller.root_named
        self.fields.append((local, name, value))
        return [new(f"ref={{{local}}}")] if first else []

    def _literal_type(self, node: Element) -> str:
        """The type an element is written with; "" for none, or one by code."""
        for one in node.attributes:
            if isinstance(one, StaticAttribute) and one.name == "type" and one.value is not None:
                return self.speller.source.slice(*one.value[:2])
        return ""

    def _or_nothing(self, code: Code) -> Fragment:
        """The word true, or no attribute."""
        value = self.speller.code(code)
        text = self.speller.source.slice(code.span.start, code.span.end)
        simple = text.replace(".", "").replace("_", "").replace("$", "").isalnum()
        return (value if simple else new("(") + value + new(")")) + new(" ? 'true' : undefined}")

    def _name(self, name: str, node: Element) -> str:
        if ":" in name and not node.component:
            prefix, _, rest = name.partition(":")
            return prefix + rest[:1].upper() + rest[1:]
        if node.component:
            return _HYPHENS.sub(lambda found: found[1].upper(), name)
        if name in _SVG:
            return _HYPHENS.sub(lambda found: found[1].upper(), name)
        return RENAMED.get(name, name)

    # -- classes and styles ---------------------------------------------------------------------

    def _classes(self, given: list[Attribute], passed: str) -> Fragment:
        parts: list[Fragment] = []
        for one in given:
            match one:
                case StaticAttribute(value=value, entry=entry) if value is not None:
                    raw = " ".join(self.speller.source.slice(value.start, value.end).split())
                    if len(given) == 1 and not passed:
                        return new(f'className="{raw}"', entry, "attribute")
                    parts.append(new(f"'{raw}'", entry, "attribute"))
                case ClassList(items=items, entry=entry):
                    parts.append(settled(entry, "class-list"))
                    parts += self._listed(items)
                case BoundAttribute(code=code, entry=entry):
                    parts += [settled(entry, "class-list"), *self._given(code)]
        if passed:
            parts.append(new(passed))
        real = [part for part in parts if any(p.text or p.span for p in part.pieces)]
        silent = joined((part for part in parts if part not in real), "")
        if len(real) == 1 and len(given) == 1 and isinstance(given[0], ClassList):
            name, code, _ = given[0].items[0]
            return (
                new("className={") + silent + self._test(code) + new(f" ? '{name}' : undefined}}")
            )
        if len(real) == 1:
            return new("className={") + silent + real[0] + new("}")
        return (
            new("className={[") + silent + joined(real, ", ") + new("].filter(Boolean).join(' ')}")
        )

    def _listed(self, items) -> list[Fragment]:  # type: ignore[no-untyped-def]
        found = []
        for name, code, _ in items:
            found.append(self._test(code) + new(f" && '{name}'"))
        return found

    def _test(self, code: Code) -> Fragment:
        """A condition before a sign that binds more than some do."""
        text = self.speller.source.slice(code.span.start, code.span.end)
        spelt = self.speller.code(code)
        if any(sign in text for sign in ("?", "||", "=>")):
            return new("(") + spelt + new(")")
        return spelt

    def _given(self, code: Code) -> list[Fragment]:
        """Classes by an expression: text, or a list of text and of conditions written in place."""
        text = self.speller.source.slice(code.span.start, code.span.end)
        if text.lstrip().startswith("["):
            self.speller.helper("classes")
            return [new("classes(") + self.speller.code(code) + new(")")]
        if text.lstrip().startswith(("'", '"', "`")) or "?" in text or "+" in text:
            grouped = "?" in text
            spelt = self.speller.code(code)
            return [new("(") + spelt + new(")") if grouped else spelt]
        self.speller.helper("classes")
        return [new("classes(") + self.speller.code(code) + new(")")]

    def _is_text(self, code: Code) -> bool:
        """Whether a value is an input that is declared as text."""
        first = code.operations[0] if len(code.operations) == 1 else None
        if not isinstance(first, Read) or first.span != code.span or first.member.kind != "prop":
            return False
        props = self.speller.times.component.inputs.props
        return any(one.name == first.member.name and one.kind == "String" for one in props)

    def _styles(self, given: list[Attribute], others: str) -> Fragment:
        parts: list[Fragment] = []
        for one in given:
            match one:
                case StaticAttribute(value=value, entry=entry) if value is not None:
                    raw = self.speller.source.slice(value.start, value.end)
                    text = _declarations(raw, value.start)
                    parts += [new(text, entry, "style-to-object")] if text else []
                case BoundAttribute(code=code, entry=entry):
                    text = self.speller.source.slice(code.span.start, code.span.end).strip()
                    if (
                        text.startswith("{")
                        and text.endswith("}")
                        and "-" not in re.sub(r"'[^']*'|`[^`]*`", "", text)
                    ):
                        inner = self.speller.code(code)
                        parts.append(new("...", entry, "style-to-object") + inner)
                    elif text.startswith("{"):
                        raise Unsaid("markup-unread", "a style with hyphens", code.span.start)
                    elif self._is_text(code):
                        raise Unsaid(
                            "not-in-target", f"a style given as text: {text[:40]}", code.span.start
                        )
                    else:
                        self.notes.append(("style-object", text[:40], code.span.start))
                        parts.append(new("...", entry, "style-to-object") + self.speller.code(code))
                case Shown(code=code, entry=entry):
                    test = self.speller.code(code)
                    text = self.speller.source.slice(code.span.start, code.span.end)
                    simple = is_identifier(text.replace(".", "_"))
                    test = test if simple else new("(") + test + new(")")
                    parts.append(
                        new("display: ", entry, "shown-to-style")
                        + test
                        + new(" ? undefined : 'none'")
                    )
        if others:
            parts.append(new(f"...{others}.style"))
        if len(parts) == 1 and parts[0].pieces[0].text == "...":
            first, *rest = parts[0].pieces
            return new("style={") + Fragment([first._replace(text=""), *rest]) + new("}")
        return new("style={{ ") + joined(parts, ", ") + new(" }}")


def _is_style(attribute: Attribute) -> bool:
    return _named(attribute, "style") or isinstance(attribute, Shown | StyleMap)


def _hands_attributes_on(node: Element) -> bool:
    """Whether an element takes all that is not declared, a parent's listeners among it."""
    return any(
        isinstance(one, Spread)
        and len(one.code.operations) == 1
        and getattr(one.code.operations[0], "name", "") == "$attrs"
        for one in node.attributes
    )


def _with_text(parts: list[Fragment]) -> list[Fragment]:
    """The parts that write something; what the others settle goes with the first."""
    real = [part for part in parts if any(p.text or p.span for p in part.pieces)]
    silent = joined((part for part in parts if part not in real), "")
    if not real:
        return [silent] if silent.pieces else []
    return [silent + real[0], *real[1:]]


def _declarations(raw: str, at: int) -> str:
    """Declarations of a style attribute as parts of an object."""
    parts = []
    for name, value, important in declarations(html.unescape(raw)):
        if important:
            # The runtime sets properties one by one, and passes over a value with this word.
            raise Unsaid("not-in-target", f"!important in a style attribute: {name}", at)
        key = _HYPHENS.sub(lambda found: found[1].upper(), name)
        key = f"'{name}'" if name.startswith("--") else key
        quote = '"' if "'" in value and '"' not in value else "'"
        text = value.replace("\\", "\\\\")
        text = text.replace(quote, f"\\{quote}")
        parts.append(f"{key}: {quote}{text}{quote}")
    return ", ".join(parts)


def _named(attribute: Attribute, name: str) -> bool:
    match attribute:
        case StaticAttribute(name=own) | BoundAttribute(name=own):
            return own == name
        case ClassList():
            return name == "class"
    return False
