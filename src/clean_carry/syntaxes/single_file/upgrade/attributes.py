"""Attributes of elements: two-way bindings, listeners, and attributes passed on."""

from __future__ import annotations

import re
from collections.abc import Mapping

from clean_carry.source.javascript.tree import Node
from clean_carry.source.template.tree import TemplateAttribute, TemplateNode
from clean_carry.source.text import SourceText
from clean_carry.source.workspace import Workspace
from clean_carry.syntaxes.single_file.expressions import TemplateCode, is_handler
from clean_carry.syntaxes.single_file.names import ELEMENTS, pascal
from clean_carry.syntaxes.single_file.upgrade.changes import Changes

# UI Events, "keyCode": what numbers of keys stand for, by the compiler's names.
_KEY_NUMBERS = {
    "8": "delete", "9": "tab", "13": "enter", "27": "esc", "32": "space", "37": "left", "38": "up",
    "39": "right", "40": "down", "46": "delete",
}  # fmt: skip
_OWN = frozenset("template slot transition transition-group keep-alive component".split())
_MODEL = re.compile(
    r"model\s*:\s*\{\s*prop\s*:\s*['\"]([\w-]+)['\"]\s*,\s*event\s*:\s*['\"]([\w:-]+)['\"]"
)
_IMPORTED = r"import\s+{name}\s+from\s+['\"]([^'\"]+)['\"]"
# Attributes whose false is written as a word, and those that never hold a word.
_WORDS = frozenset({"contenteditable", "draggable", "spellcheck"})
_PROPERTIES = frozenset("value checked selected muted class style key ref is".split())
_BOOLEAN = frozenset(
    "allowfullscreen async autofocus autoplay controls default defer disabled formnovalidate hidden inert "
    "ismap itemscope loop multiple muted nomodule novalidate open readonly required reversed "
    "selected".split()
)
# Of these the first hold on every element, the others on tags that know them (HTML, "Attributes").
_EVERYWHERE = frozenset({"hidden", "inert", "autofocus"})
_FIELDS = frozenset(
    "button input select textarea option optgroup fieldset details dialog audio video ol form iframe img "
    "script track link".split()
)
_TRUTH = re.compile(r"^!|[^=!<>]==|!=|[<>](?!=?>)|\bincludes\(|^Boolean\(|\bfalse\b")


def upgrade_elements(
    changes: Changes,
    template: TemplateNode,
    code: TemplateCode,
    options: Mapping[str, Node],
    workspace: Workspace,
) -> None:
    """Go through the attributes of all elements."""
    flags = _flags(options)
    kept = "inheritAttrs" in options
    roots = [node for node in template.children if node.kind == "element"]
    for node in template.walk():
        if node.kind != "element" or node is template:
            continue
        component = is_component(node.tag)
        for attribute in node.attributes:
            if attribute.name.startswith("v-model") and component:
                bind_value(changes, node, attribute, workspace)
            elif is_handler(attribute):
                _listener(changes, attribute, component)
                name_arguments(changes, attribute)
            elif attribute.name == "v-on" and _value(changes, attribute) == "$listeners":
                _handed_on(changes, node, attribute, kept, roots)
            elif attribute.name.startswith((":", "v-bind:")):
                _bound(changes, node, attribute, flags, code)
            elif attribute.name == "is" and not component and attribute.value is not None:
                at = attribute.value[0]
                changes.put(at, at, "vue:")
            elif attribute.name == "inline-template":
                changes.refuse("removed-from-runtime", "inline-template", attribute.start)
        _spread(changes, node)


def is_component(tag: str) -> bool:
    """Whether a tag means a component of somebody's."""
    return tag not in ELEMENTS and tag not in _OWN


def _value(changes: Changes, attribute: TemplateAttribute) -> str:
    return changes.source.slice(*attribute.value).strip() if attribute.value is not None else ""


def _flags(options: Mapping[str, Node]) -> set[str]:
    """Members that hold truth values, by their declarations."""
    found: set[str] = set()
    for option in ("props", "data"):
        text = options[option].text if option in options else ""
        found |= set(re.findall(r"(\w+)\s*:\s*(?:\{\s*type\s*:\s*)?(?:Boolean|true|false)\b", text))
    return found


# -- bindings both ways ---------------------------------------------------------------------------


def bind_value(
    changes: Changes, node: TemplateNode, attribute: TemplateAttribute, workspace: Workspace
) -> None:
    """`v-model` of a component binds another input and hears another event now: both are written out, by
    the names the component itself says (migration guide, "v-model")."""
    plain, *modifiers = attribute.name.split(".")
    if attribute.value is None or plain != "v-model":
        return
    text = _value(changes, attribute)
    if modifiers:
        changes.refuse("removed-from-runtime", f"{attribute.name} of a component", attribute.start)
        return
    prop, event = _model_of(changes.source, node.tag, workspace)
    if '"' in text:
        changes.refuse("removed-from-runtime", f"v-model with {text[:30]}", attribute.start)
        return
    written = f':{prop}="{text}" @{event}="{text} = $event"'
    changes.put(attribute.start, attribute.end, written)


def _model_of(source: SourceText, tag: str, workspace: Workspace) -> tuple[str, str]:
    """The input and the event that a component is bound both ways by."""
    text = source.data.decode("utf-8", "replace")
    found = re.search(_IMPORTED.format(name=re.escape(pascal(tag))), text)
    path = workspace.resolve(found[1], workspace.file) if found is not None else None
    declared = (
        _MODEL.search(path.read_text("utf-8", "replace")) if path and path.is_file() else None
    )
    return (declared[1], declared[2]) if declared is not None else ("value", "input")


# -- listeners ------------------------------------------------------------------------------------


def _listener(changes: Changes, attribute: TemplateAttribute, component: bool) -> None:
    """Modifiers that are gone: `native`, and numbers of keys (migration guide, "KeyCode Modifiers")."""
    name, *modifiers = attribute.name.split(".")
    made = []
    for one in modifiers:
        if one == "native" and component:
            changes.note("native-removed", attribute.name, attribute.start)
        elif one.isdigit() and one in _KEY_NUMBERS:
            made.append(_KEY_NUMBERS[one])
        elif one.isdigit():
            changes.refuse("removed-from-runtime", attribute.name, attribute.start)
        else:
            made.append(one)
    if made != modifiers:
        changes.put(attribute.start, attribute.name_end, ".".join([name, *made]))


def name_arguments(changes: Changes, attribute: TemplateAttribute) -> None:
    """Name the arguments of a listener, which an expression can no longer read by `arguments`."""
    if attribute.value is None or not re.search(r"\barguments\b", _value(changes, attribute)):
        return
    start, end = attribute.value
    text = re.sub(r"\barguments\b", "given", changes.source.slice(start, end))
    changes.put(
        start,
        end,
        f"(...given) => {{ {text.strip()} }}" if ";" in text else f"(...given) => {text}",
    )


def _handed_on(
    changes: Changes,
    node: TemplateNode,
    attribute: TemplateAttribute,
    kept: bool,
    roots: list[TemplateNode],
) -> None:
    """A parent's listeners are among the attributes now (migration guide, "$listeners removed")."""
    beside = any(
        one.name == "v-bind" and _value(changes, one) == "$attrs" for one in node.attributes
    )
    if not beside and (kept or roots != [node]):
        changes.refuse("removed-from-runtime", "$listeners", attribute.start)
        return
    _gone(changes, attribute)


def _gone(changes: Changes, attribute: TemplateAttribute) -> None:
    """The element without an attribute, and without the white space before it."""
    start, data = attribute.start, changes.source.data
    while data[start - 1 : start].isspace():
        start -= 1
    changes.put(start, attribute.end, "")


# -- bound attributes -----------------------------------------------------------------------------


def _bound(
    changes: Changes,
    node: TemplateNode,
    attribute: TemplateAttribute,
    flags: set[str],
    code: TemplateCode,
) -> None:
    if bound_both_ways(changes, attribute):
        return
    plain = attribute.name.partition(":")[2].partition(".")[0]
    known = plain in _EVERYWHERE or (plain in _BOOLEAN and node.tag in _FIELDS)
    drawn = node.tag == "component" or node.tag in ELEMENTS - _OWN
    if not drawn or attribute.value is None or plain in _PROPERTIES | _WORDS or known:
        return
    text = _value(changes, attribute)
    # False took any attribute away (migration guide, "Attribute Coercion Behavior").
    value = code.values.get(attribute.value[0])
    if text in flags or _TRUTH.search(text) or plain in _BOOLEAN:
        negated = value is not None and value.type == "unary_expression"
        simple = text.replace(".", "").isidentifier() or negated
        shown = text if simple else f"({text})"
        changes.put(attribute.value[0], attribute.value[1], f"{shown} || undefined")


def bound_both_ways(changes: Changes, attribute: TemplateAttribute) -> bool:
    """Whether an input is bound both ways by `.sync`, which is `v-model:` now."""
    plain, *modifiers = attribute.name.partition(":")[2].split(".")
    bound = attribute.name.startswith((":", "v-bind:"))
    if not bound or "sync" not in modifiers:
        return False
    if modifiers != ["sync"] or attribute.value is None:
        changes.refuse("removed-from-runtime", attribute.name, attribute.start)
    else:
        changes.put(attribute.start, attribute.name_end, f"v-model:{plain}")
    return True


def _spread(changes: Changes, node: TemplateNode) -> None:
    """Of attributes of one name the last one counts now; up to version 2 it was never the object's
    (migration guide, "v-bind Merge Behavior")."""
    at = next((n for n, one in enumerate(node.attributes) if one.name == "v-bind"), -1)
    if at <= 0:
        return
    moved, first = node.attributes[at], node.attributes[0]
    if moved.value is None:
        return
    own = {one.name.lstrip(":").removeprefix("v-bind:") for one in node.attributes[:at]}
    if own <= {"class", "style", "ref", "key", "v-if", "v-else", "v-else-if", "v-for", "v-show"}:
        return
    text = changes.source.slice(moved.start, moved.end)
    _gone(changes, moved)
    changes.put(first.start, first.start, f"{text} ")
