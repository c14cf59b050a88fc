"""Markup of the neutral component as JSX."""

from __future__ import annotations

import re
from dataclasses import dataclass

from clean_carry.component.code import Code, Member
from clean_carry.component.fragment import Fragment, copy, joined, length, new, settled
from clean_carry.component.markup import (
    Attribute,
    BoundAttribute,
    Branch,
    ClassList,
    Condition,
    Element,
    Expression,
    Form,
    Handler,
    Markup,
    MarkupComment,
    SlotOutlet,
    StaticAttribute,
    Text,
)
from clean_carry.source.template.tree import VOID
from clean_carry.syntaxes.jsx.attributes import BOOLEAN, EVENTS, STATEFUL, spelled
from clean_carry.syntaxes.jsx_function.operations import Speller
from clean_carry.syntaxes.jsx_function.planning.plan import OTHERS, Refused

LINE = 100
# HTML §4.4.3, §4.11.14 (rendering of white space): what JSX would trim counts in these.
_OWN_SPACE = frozenset({"pre", "textarea", "listing"})
_PLAIN_NAME = re.compile(r"^[A-Za-z_][\w-]*$")
CLASS_NAME = Member("prop", "className")


@dataclass
class MarkupWriter:
    """Writes the markup of one component.

    `mark` is the attribute that scopes its styles ("" where none does); `slots` maps the names of
    slots to inputs. Raises `Refused` for what would not be drawn alike.
    """

    speller: Speller
    mark: str
    slots: dict[str, str]

    def element(self, node: Element, *, root: bool = False) -> Fragment:
        """One element with all in it; the root takes what a parent passes on."""
        if node.tag in _OWN_SPACE:
            raise Refused(
                "markup-unread", f"<{node.tag}>, which keeps its white space", node.span.start
            )
        attributes = self._attributes(node, root)
        indent = self.speller.source.indent_at(node.span.start)
        head = new(f"<{node.tag}", node.entry, "element")
        flat = head + joined((new(" ") + a for a in attributes), "")
        if length(flat) + len(indent) > LINE:
            deep = f"\n{indent}{self.speller.unit}"
            flat = head + joined((new(deep) + a for a in attributes), "") + new(f"\n{indent}")
            closing = ">"
        else:
            closing = ""
        if node.tag in VOID or (node.closed_itself and not node.children):
            return flat + new("/>" if closing else " />")
        inside = joined((self.node(child) for child in node.children), "")
        return flat + new(">") + inside + new(f"</{node.tag}>")

    def node(self, node: Markup) -> Fragment:
        """One node among the children of an element."""
        match node:
            case Element():
                return self.element(node)
            case Text():
                return self._text(node)
            case Expression():
                shown = self._shown(node.code, node.form)
                return new("{", node.entry, "interpolation") + shown + new("}")
            case MarkupComment():
                text = self.speller.source.slice(node.inner.start, node.inner.end)
                body = copy(node.inner) if "*/" not in text else new(text.replace("*/", "* /"))
                return new("{/*", node.entry, "comment") + body + new("*/}")
            case Condition():
                return new("{") + self._condition(node) + new("}")
            case SlotOutlet():
                return new("{", node.entry, "slot-to-input") + self._slot(node) + new("}")
        raise Refused("markup-unread", "a list, or nodes without an element", node.span.start)

    def _shown(self, code: Code, form: Form) -> Fragment:
        if form == "text":
            return self.speller.code(code)
        if form == "boolean":
            return new("String(") + self.speller.code(code) + new(")")
        text = self.speller.source.slice(code.span.start, code.span.end)
        raise Refused("shown-value-unknown", text[:60], code.span.start)

    def _text(self, node: Text) -> Fragment:
        raw = self.speller.source.slice(node.span.start, node.span.end)
        if not any(c in raw for c in "{}<>") and _jsx_text(raw) == _template_text(raw):
            return copy(node.span)
        if not raw.strip():
            return settled(node.entry, "text") + new("{' '}" if "\n" not in raw else "")
        if "&" in raw:
            raise Refused(
                "markup-unread", "a character reference at the end of a line", node.span.start
            )
        text = _template_text(raw).replace("\\", "\\\\").replace("'", "\\'")
        return new(f"{{'{text}'}}", node.entry, "text-as-string")

    def _condition(self, node: Condition) -> Fragment:
        arms = [(b, self.element(_element_of(b))) for b in node.branches]
        tests = [self._test(b.test) if b.test is not None else Fragment() for b, _ in arms]
        for number, (branch, _) in enumerate(arms):
            tests[number] = settled(branch.entry, "condition") + tests[number]
        indent = self.speller.source.indent_at(node.span.start)
        unit = self.speller.unit
        many = any(self._broken(_element_of(b)) for b, _ in arms)
        if len(arms) == 1 and arms[0][0].form == "boolean":
            if not many:
                return tests[0] + new(" && ") + arms[0][1]
            inner = new(f" && (\n{indent}{unit}") + arms[0][1].shifted(1)
            return tests[0] + inner + new(f"\n{indent})")
        result = Fragment()
        for number, (branch, element) in enumerate(arms):
            last = branch.test is None
            if many:
                body = new(f"(\n{indent}{unit}") + element.shifted(1) + new(f"\n{indent})")
            else:
                body = element
            result += tests[number] + (body if last else new(" ? ") + body + new(" : "))
        if arms[-1][0].test is not None:
            result += new("null")
        return result

    def _broken(self, element: Element) -> bool:
        return "\n" in self.speller.source.slice(element.span.start, element.span.end)

    def _test(self, code: Code) -> Fragment:
        text = self.speller.source.slice(code.span.start, code.span.end)
        spelt = self.speller.code(code)
        if any(mark in text for mark in ("?", "||", ",", "=>")):
            return new("(") + spelt + new(")")
        return spelt

    def _slot(self, node: SlotOutlet) -> Fragment:
        name = self.speller.plan.names[Member("prop", self.slots[node.name])]
        fallback = [n for n in node.fallback if not self._blank(n)]
        if not fallback:
            return new(name)
        if len(fallback) == 1 and isinstance(fallback[0], Element):
            return new(f"{name} ?? ") + self.element(fallback[0])
        inside = joined((self.node(child) for child in node.fallback), "")
        return new(f"{name} ?? <>") + inside + new("</>")

    def _blank(self, node: Markup) -> bool:
        if not isinstance(node, Text):
            return False
        return not self.speller.source.data[node.span.start : node.span.end].strip()

    def _attributes(self, node: Element, root: bool) -> list[Fragment]:
        plan = self.speller.plan
        classes = [a for a in node.attributes if _is_class(a)]
        own: list[Fragment] = []
        if root:
            own.append(new(f"{{...{plan.names[OTHERS]}}}"))
        if root and not classes:
            own.append(new(f"className={{{plan.names[CLASS_NAME]}}}"))
        for attribute in node.attributes:
            if classes and attribute is classes[0]:
                own.append(self._classes(classes, root))
            elif attribute not in classes:
                own.append(self._attribute(node, attribute, root))
        if self.mark:
            own.append(new(f'{self.mark}=""'))
        return own

    def _attribute(self, node: Element, attribute: Attribute, root: bool) -> Fragment:
        at = node.span.start
        match attribute:
            case StaticAttribute(name=name, value=value, entry=entry):
                if name in STATEFUL or name.startswith("on") or not _PLAIN_NAME.match(name):
                    raise Refused("markup-unread", f"{name} on <{node.tag}>", at)
                if name in BOOLEAN:  # there at all means true, whatever its value
                    return new(spelled(name), entry, "attribute")
                if value is None:
                    return new(f'{spelled(name)}=""', entry, "attribute")
                raw = self.speller.source.slice(value.start, value.end)
                if "\n" in raw or ('"' in raw and "'" in raw):
                    raise Refused("markup-unread", f"the value of {name}", value.start)
                quote = "'" if '"' in raw else '"'
                return (
                    new(f"{spelled(name)}={quote}", entry, "attribute") + copy(value) + new(quote)
                )
            case BoundAttribute(name=name, code=code, form=form, entry=entry):
                if name in STATEFUL or (form != "boolean" if name in BOOLEAN else form == ""):
                    raise Refused("shown-value-unknown", f":{name}", code.span.start)
                if name not in BOOLEAN and form == "boolean":
                    if not name.startswith(("aria-", "data-")):
                        raise Refused("shown-value-unknown", f":{name}", code.span.start)
                head = new(f"{spelled(name)}={{", entry, "bound-attribute")
                return head + self.speller.code(code) + new("}")
            case Handler(event=event, code=code, entry=entry):
                if event not in EVENTS or root:
                    where = " on the root, where a parent may listen too" if root else ""
                    raise Refused("markup-unread", f"@{event}{where}", code.span.start)
                head = new(f"{EVENTS[event]}={{() => ", entry, "handler")
                return head + self.speller.code(code) + new("}")
        raise Refused("markup-unread", "an attribute", at)

    def _classes(self, given: list[Attribute], root: bool) -> Fragment:
        parts: list[Fragment] = []
        for attribute in given:
            if isinstance(attribute, StaticAttribute) and attribute.value is not None:
                raw = self.speller.source.slice(attribute.value.start, attribute.value.end)
                if any(mark in raw for mark in "\"'\\&"):
                    raise Refused("markup-unread", "the value of class", attribute.value.start)
                words = " ".join(raw.split())
                if not root and len(given) == 1:
                    return new(f'className="{words}"', attribute.entry, "attribute")
                parts.append(new(f"'{words}'", attribute.entry, "attribute"))
            elif isinstance(attribute, ClassList):
                for number, (name, code, _) in enumerate(attribute.items):
                    settle = settled(attribute.entry, "class-list") if number == 0 else Fragment()
                    parts.append(settle + self._test(code) + new(f" && '{name}'"))
        if root:
            parts.append(new(self.speller.plan.names[CLASS_NAME]))
        return new("className={[") + joined(parts, ", ") + new("].filter(Boolean).join(' ')}")


def _element_of(arm: Branch) -> Element:
    """The element of an arm; raises `Refused` where it holds anything else."""
    element = arm.children[0] if len(arm.children) == 1 else None
    if not isinstance(element, Element):
        at = arm.test.span.start if arm.test is not None else 0
        raise Refused("markup-unread", "a condition over more than one element", at)
    return element


def _is_class(attribute: Attribute) -> bool:
    if isinstance(attribute, StaticAttribute):
        return attribute.name == "class"
    return isinstance(attribute, ClassList)


def _template_text(raw: str) -> str:
    """Text as the template's compiler draws it: white space condensed, lines between tags gone."""
    if not raw.strip():
        return "" if "\n" in raw else " "
    lead = " " if raw[0].isspace() else ""
    tail = " " if raw[-1].isspace() else ""
    return lead + " ".join(raw.split()) + tail


def _jsx_text(raw: str) -> str:
    """Text as JSX draws it: lines trimmed and joined by one space, blank ones gone."""
    if "\n" not in raw:
        return raw
    lines = raw.split("\n")
    kept = []
    for number, line in enumerate(lines):
        text = line if number == 0 else line.lstrip()
        text = text if number == len(lines) - 1 else text.rstrip()
        if text:
            kept.append(text)
    return " ".join(kept)
