"""Single files, as a survey sees them: by their blocks and options, without being read."""

from __future__ import annotations

import re
from typing import NamedTuple

from clean_carry.source.index.facts import Sighting
from clean_carry.source.index.parsed import Parsed
from clean_carry.source.javascript.tree import Node
from clean_carry.source.javascript.values import property_name

_SLOT = re.compile(r"<slot[\s/>]")
_EMITS = re.compile(r"""\bemit\(\s*['"]([\w:-]+)['"]""")
_HOOK = re.compile(
    r"(?:before(?:Create|Mount|Update|Unmount|Destroy)|created|mounted|updated|unmounted|destroyed|"
    r"activated|deactivated|errorCaptured)"
)
_FLAT = {
    "state": re.compile(r"\b(?:shallowRef|ref|reactive|shallowReactive)(?:<[^()]*>)?\("),
    "derived": re.compile(r"\bcomputed(?:<[^()]*>)?\("),
    "effects": re.compile(
        r"\b(?:watch\w*|on(?:Before)?(?:Mount|Mounted|Update|Updated|Unmount|Unmounted))\("
    ),
}


def census(parsed: Parsed) -> list[Sighting]:
    """The component that a single file is."""
    if not parsed.is_single_file or not parsed.blocks:
        return []
    scripts = [block for block in parsed.blocks if block.tag == "script"]
    flat = any(block.attribute("setup") is not None for block in scripts)
    source = parsed.source
    code = "\n".join(source.slice(*block.inner) for block in scripts)
    markup = [source.slice(*block.inner) for block in parsed.blocks if block.tag == "template"]
    counts = _flat(parsed, code) if flat else _options(parsed)
    counts["events"] = len(set(_EMITS.findall(code + "".join(markup))))
    counts["slots"] = sum(len(_SLOT.findall(text)) for text in markup)
    counts["styles"] = sum(block.tag == "style" for block in parsed.blocks)
    name = _name_option(parsed) if not flat else ""
    *folders, file = source.path.replace("\\", "/").split("/")
    stem = file.partition(".")[0]
    stem = folders[-1] if stem == "index" and folders else stem
    found = Sighting(
        stem[:1].upper() + stem[1:],
        "single-file-flat" if flat else "single-file-object",
        0,
        len(source.data),
        1,
        parsed.line(len(source.data) - 1),
        exports=("default",),
        tags=(name,) if name else (),
        counts={key: value for key, value in counts.items() if value},
    )
    return [found]


def _flat(parsed: Parsed, code: str) -> dict[str, int]:
    counts = {kind: len(calls.findall(code)) for kind, calls in _FLAT.items()}
    for call in parsed.tree.of("call_expression") if parsed.tree is not None else ():
        callee = call.child("function")
        if callee is not None and callee.text == "defineProps":
            counts["props"] = _keys(call)
    return counts


class DeclaredProps(NamedTuple):
    """The text of a declaration of props, and the names it uses that it does not declare itself."""

    text: str
    names: set[str]


def declared_props(parsed: Parsed) -> DeclaredProps | None:
    """The props of a single file as its script declares them by values; None where it does not."""
    names = parsed.names
    value = options_of(parsed).get("props")
    for call in parsed.tree.of("call_expression") if parsed.tree is not None else ():
        callee, given = call.child("function"), call.child("arguments")
        if callee is not None and callee.text == "defineProps" and given is not None:
            value = given.named_children[0] if given.named_children else None
    if value is None or names is None:
        return None
    used = {
        ref.text
        for ref, binding in names.references_in(value)
        if binding is None or not value.start <= binding.node.start < value.end
    }
    return DeclaredProps(value.text, used)


def _keys(call: Node) -> int:
    """How many props a declaration lists: in a list, an object, or a type written in place."""
    for node in call.walk():
        if node.type in ("array", "object"):
            return len(node.named_children)
        if node.type in ("object_type", "interface_body"):
            return len(node.named_children)
    return 0


def options_of(parsed: Parsed) -> dict[str, Node]:
    """The options of the object that a script exports, by name."""
    for statement in parsed.tree.of("export_statement") if parsed.tree is not None else ():
        if not statement.has("default"):
            continue
        for node in statement.walk():
            if node.type == "object":
                return parts_of_object(node)
    return {}


def parts_of_object(table: Node) -> dict[str, Node]:
    """The values of an object by their keys; of a method the method."""
    found = {}
    for part in table.named_children:
        key = part.child("key") or part.child("name")
        name = property_name(key) if key is not None else None
        if name is not None:
            found[name] = part.child("value") or part
    return found


def _name_option(parsed: Parsed) -> str:
    value = options_of(parsed).get("name")
    return value.text[1:-1] if value is not None and value.type == "string" else ""


def _options(parsed: Parsed) -> dict[str, int]:
    options = options_of(parsed)
    counts = {
        "props": size_of(options.get("props")),
        "derived": size_of(options.get("computed")),
        "effects": size_of(options.get("watch")) + sum(bool(_HOOK.fullmatch(n)) for n in options),
    }
    data = options.get("data")
    if data is not None:
        tables = [node for node in data.walk() if node.type == "object"]
        counts["state"] = len(tables[0].named_children) if tables else 0
    return counts


def size_of(value: Node | None) -> int:
    """The number of entries of an object or a list."""
    if value is None or value.type not in ("object", "array"):
        return 0
    return len(value.named_children)
