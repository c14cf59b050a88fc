"""The blocks of a single file: one template, one script, stylesheets."""

from __future__ import annotations

from dataclasses import dataclass

from clean_carry.component.errors import HoldsNone
from clean_carry.source.template.tree import TemplateNode, read_blocks
from clean_carry.source.text import SourceText

_BLOCKS = frozenset({"template", "script", "style"})


@dataclass(frozen=True)
class FileBlocks:
    """The blocks of a file. `unread` is what only a target that keeps it as it is can carry, `refusal`
    what nobody can: (rule, detail, offset)."""

    template: TemplateNode | None
    script: TemplateNode | None
    styles: tuple[TemplateNode, ...]
    refusal: tuple[str, str, int] | None
    unread: tuple[tuple[str, str, int], ...] = ()


def read_file(source: SourceText) -> FileBlocks:
    """Split a file into its blocks. Raises `InputError` for what is not balanced."""
    found: dict[str, list[TemplateNode]] = {"template": [], "script": [], "style": []}
    refusal: tuple[str, str, int] | None = None
    unread: list[tuple[str, str, int]] = []
    for node in read_blocks(source):
        if node.kind == "element" and node.tag in _BLOCKS:
            found[node.tag].append(node)
            what = _unread(node)
            if what is not None and node.tag == "style":
                unread.append(what)
            else:
                refusal = refusal or what
        elif node.kind == "element":
            unread.append(("block-unread", f"<{node.tag}>", node.start))
    for name in ("template", "script"):
        if len(found[name]) > 1:
            refusal = refusal or ("block-unread", f"a second <{name}>", found[name][1].start)
    if not found["script"] and not found["template"]:
        raise HoldsNone("holds no component", file=source.path)
    return FileBlocks(
        found["template"][0] if found["template"] else None,
        found["script"][0] if found["script"] else None,
        tuple(found["style"]),
        refusal,
        tuple(unread),
    )


def _unread(node: TemplateNode) -> tuple[str, str, int] | None:
    if node.tag == "style" and node.attribute("scoped") is None:
        return None  # it goes along as it is, wherever it is and whatever it is written in
    for attribute in node.attributes:
        if attribute.name == "src" or (attribute.name == "lang" and node.tag != "script"):
            return "block-unread", f"<{node.tag} {attribute.name}>", attribute.start
    return None
