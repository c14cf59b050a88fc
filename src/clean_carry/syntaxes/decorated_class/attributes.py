"""Attributes and bindings of one element, as those of the other template."""

from __future__ import annotations

import re
from collections.abc import Callable
from dataclasses import dataclass, field

from clean_carry.source.template.tree import TemplateAttribute, TemplateNode
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.piped_expressions import Spelling, Unread, respelled

_EVENT_KEYS = {
    "enter": "enter", "escape": "esc", "esc": "esc", "space": "space", "tab": "tab", "delete": "delete",
    "arrowup": "up", "arrowdown": "down", "arrowleft": "left", "arrowright": "right",
    "control": "ctrl", "shift": "shift", "alt": "alt", "meta": "meta",
}  # fmt: skip
# Properties of elements that attributes have another name for.
_PROPERTIES = {
    "className": "class", "htmlFor": "for", "readOnly": "readonly", "tabIndex": "tabindex",
    "colSpan": "colspan", "rowSpan": "rowspan", "maxLength": "maxlength", "innerText": "textContent",
}  # fmt: skip
# Elements of drawings, whose attributes may have capitals.
_DRAWN = (
    "svg",
    "path",
    "g",
    "linear",
    "radial",
    "clip",
    "marker",
    "pattern",
    "symbol",
    "text",
    "fe",
    ":svg",
)
_UNSAFE = frozenset({"innerHTML", "outerHTML", "srcdoc"})
# Properties that elements have (HTML, the interfaces of its elements).
_OF_ELEMENTS = frozenset(
    (
        "accept action allow alt async autocomplete autofocus autoplay checked cite className colSpan "
        "cols content contentEditable controls coords crossOrigin currentTime data dateTime default "
        "defer dir dirName disabled download draggable encType form formAction headers height hidden "
        "high href hreflang htmlFor id indeterminate inert innerText kind label lang list loop low max "
        "maxLength media method min minLength multiple muted name noValidate open optimum pattern "
        "placeholder playsInline poster preload readOnly referrerPolicy rel required reversed role "
        "rowSpan rows sandbox scope scrollLeft scrollTop selected selectedIndex shape size sizes span "
        "spellcheck src srcset start step summary tabIndex target textContent title translate type "
        "useMap value width wrap readonly tabindex for class"
    ).split()
)
# Attributes that say something to the runtime alone.
_DROPPED = frozenset({"ngNonBindable", "[ngModelOptions]", "ngModelOptions", "ngNoForm"})
_NUMBER = re.compile(r"^[\d.]+$|[-*/%]|\.length$")


# Elements that do something when they are pressed, and statements whose value may be false.
_DOING = frozenset({"a", "input", "label", "summary"})
_FALSE = re.compile(r"(?<![=!<>])=(?!=)\s*(?:!|false\b)|^\s*(?:!|false\b)")


# Gives the text of an attribute that a component takes, None for any other.
OfChild = Callable[[TemplateAttribute, SourceText, Spelling], str | None]


@dataclass
class Attributes:
    """The attributes of an element: their texts with the white space in front of them. `classes` and
    `styles` are parts of one binding each."""

    texts: list[tuple[str, str]] = field(default_factory=list)
    classes: list[str] = field(default_factory=list)
    styles: list[str] = field(default_factory=list)
    class_at: int = -1
    style_at: int = -1

    def written(self) -> str:
        """All attributes as they stand in the tag."""
        texts = [list(one) for one in self.texts]
        for at, name, parts in (
            (self.class_at, "class", self.classes),
            (self.style_at, "style", self.styles),
        ):
            if parts:
                texts[at][1] = f':{name}="{quoted(joined(parts))}"'
        return "".join(space + text for space, text in texts)


def joined(parts: list[str]) -> str:
    """Parts of one class or style binding: objects become one object, others a list."""
    objects = [one[1:-1].strip() for one in parts if one.startswith("{") and one.endswith("}")]
    rest = [one for one in parts if not (one.startswith("{") and one.endswith("}"))]
    if objects and not rest:
        return "{ " + ", ".join(one.rstrip(",") for one in objects if one) + " }"
    if len(parts) == 1:
        return parts[0]
    whole = ["{ " + ", ".join(one.rstrip(",") for one in objects if one) + " }"] if objects else []
    return f"[{', '.join([*rest, *whole])}]"


def quoted(code: str) -> str:
    """Code within the double quotes of an attribute. Raises `Unread` where it needs both kinds."""
    if '"' not in code:
        return code
    swapped = re.sub(r'"([^"\'\\]*)"', r"'\1'", code)
    if '"' in swapped:
        raise Unread(code)
    return swapped


def read_attributes(
    node: TemplateNode,
    source: SourceText,
    spelling: Spelling,
    *,
    forms: bool,
    references: set[str],
    of_child: OfChild | None = None,
) -> Attributes:
    """The attributes of an element. `forms` says that the module of forms is imported, `references` are the
    names of references that anything needs. `of_child` gives those that a component takes. Raises `Unread`.
    """
    made = Attributes()
    end = node.start + 1 + len(node.tag.encode())
    for one in node.attributes:
        gap = source.slice(end, one.start)
        space = gap[len(gap.rstrip()) :] or " "
        end = one.end
        try:
            text = of_child(one, source, spelling) if of_child is not None else None
            if of_child is not None and text is None and one.name[1:] in references:
                raise Unread(f"{one.name} of a component")
            text = text or _attribute(
                one, node, source, spelling, made, forms=forms, references=references
            )
        except Unread as reason:
            raise Unread(reason.what, one.start) from None
        if text is not None:
            made.texts.append((space, text))
    if forms and node.tag == "form" and node.attribute("novalidate") is None:
        made.texts.append((" ", "novalidate"))
        if not any(text.startswith("@submit") for _, text in made.texts):
            made.texts.append((" ", "@submit.prevent"))
    return made


def _attribute(
    one: TemplateAttribute,
    node: TemplateNode,
    source: SourceText,
    spelling: Spelling,
    made: Attributes,
    *,
    forms: bool,
    references: set[str],
) -> str | None:
    """The new text of an attribute; None where it goes, or is a part of another one."""
    name = one.name
    value = source.slice(*one.value) if one.value is not None else ""
    if name in _DROPPED or name.startswith("i18n"):
        return None
    if forms and name == "type" and value == "reset":
        raise Unread("a field that resets its form, which also empties the values")
    if name.startswith("#"):
        if one.value is not None:
            raise Unread(f"{name}=…")
        return f'ref="{name[1:]}"' if name[1:] in references else None
    if name.startswith("[("):
        return _two_way(name[2:-2], value, node, _kind_of(node, source), spelling)
    if name.startswith("("):
        if node.tag in _DOING and _FALSE.search(value):
            raise Unread(
                f"{name} with a value that may be false, which prevents what the element does"
            )
        reached = spelling.within({one: f"$refs.{one}" for one in references})
        return _listener(name[1:-1], value, reached, forms=forms and node.tag == "form")
    if name.startswith("["):
        return _bound(name[1:-1], respelled(value, spelling), made)
    if name.startswith(("*", "@", "on-", "bind-", "bindon-")):
        raise Unread(name)
    if re.search(r"[a-z][A-Z]", name) and not node.tag.startswith(_DRAWN):
        # No attribute of HTML has capitals: a directive of the project takes it.
        raise Unread(name)
    if name == "class" and one.value is not None:
        if any(other.name == "[class]" for other in node.attributes):
            # The binding takes nothing away from it.
            return source.slice(one.start, one.end)
    if "{{" in value:
        code = interpolated(value, spelling)
        return _bound(name if name in ("class", "style") else f"attr.{name}", code, made)
    return source.slice(one.start, one.end)


def interpolated(text: str, spelling: Spelling) -> str:
    """Text with interpolations as one expression."""
    parts = re.split(r"\{\{(.*?)\}\}", text, flags=re.DOTALL)
    if len(parts) == 3 and not parts[0] and not parts[2]:
        return respelled(parts[1], spelling)
    found = ""
    for at, part in enumerate(parts):
        if at % 2:
            code = respelled(part, spelling)
            found += f"${{{code} ?? ''}}" if not _is_text(code) else f"${{{code}}}"
        else:
            found += part.replace("`", "\\`").replace("${", "\\${")
    return f"`{found}`"


def _is_text(code: str) -> bool:
    """Whether a value is certainly there: no null or undefined could be shown as such."""
    return re.search(r"^['\"`]|\+|^[\d.]+$|\.length$", code) is not None


def _bound(name: str, code: str, made: Attributes) -> str | None:
    """A binding of a property, an attribute, a class or a style."""
    kind, _, part = name.partition(".")
    if kind == "class" or name == "ngClass":
        if made.class_at < 0:
            made.class_at = len(made.texts)
            made.texts.append((" ", ""))
        key = part if part.isidentifier() else f"'{part}'"
        made.classes.append(f"{{ {key}: {code} }}" if part else code)
        return None
    if kind == "style" or name == "ngStyle":
        if made.style_at < 0:
            made.style_at = len(made.texts)
            made.texts.append((" ", ""))
        made.styles.append(_style(part, code) if part else code)
        return None
    if kind == "attr":
        if code in ("true", "false"):
            code = f"'{code}'"
        return f':{part}="{quoted(code)}"'
    if name in _UNSAFE or name not in _OF_ELEMENTS:
        # No element has it: a directive of the project takes it.
        raise Unread(f"[{name}]")
    if name in ("textContent", "innerText"):
        return f'v-text="{quoted(code)}"'
    return f':{_PROPERTIES.get(name, name)}="{quoted(code)}"'


def _style(part: str, code: str) -> str:
    name, _, unit = part.partition(".")
    key = re.sub(r"-([a-z])", lambda found: found[1].upper(), name)
    if name.startswith("--"):
        key = f"'{name}'"
    if not unit:
        return f"{{ {key}: {code} }}"
    simple = re.fullmatch(r"[\w$.]+", code)
    if _NUMBER.search(code):
        text = f"`${{{code}}}{unit}`"
    elif simple is not None:
        text = f"{code} == null ? null : `${{{code}}}{unit}`"
    else:
        raise Unread(f"[style.{part}] with a value that may be missing")
    return f"{{ {key}: {text} }}"


def _listener(event: str, value: str, spelling: Spelling, *, forms: bool) -> str:
    """A listener with the keys and modifiers of its name."""
    name, _, rest = event.partition(".")
    if ":" in event or name.startswith("@"):
        raise Unread(f"({event})")
    if name == "ngSubmit":
        name = "submit"
    keys = []
    for key in rest.split(".") if rest else ():
        if name not in ("keydown", "keyup") or (
            key not in _EVENT_KEYS and not re.fullmatch(r"[a-z0-9]", key)
        ):
            raise Unread(f"({event})")
        keys.append(_EVENT_KEYS.get(key, key))
    if keys and name in ("keydown", "keyup"):
        # The runtime wants exactly these modifiers.
        keys.append("exact")
    prevented = ["prevent"] if forms and name == "submit" else []
    modifiers = "".join(f".{one}" for one in (*keys, *prevented))
    return f'@{name}{modifiers}="{quoted(respelled(value, spelling))}"'


def _kind_of(node: TemplateNode, source: SourceText) -> str:
    """The type of a field as it is written; "" where it has none."""
    one = node.attribute("type")
    return source.slice(*one.value) if one is not None and one.value is not None else ""


def _two_way(name: str, value: str, node: TemplateNode, kind: str, spelling: Spelling) -> str:
    code = respelled(value, spelling)
    if name != "ngModel":
        raise Unread(f"[({name})]")
    if node.attribute("[type]") is not None:
        raise Unread(f"[({name})] of a field whose type is computed")
    if kind in ("number", "range"):
        raise Unread(f"[({name})] of a field with a number, which is null where it is empty")
    return f'v-model="{quoted(code)}"'
