"""The scripts of a single file in the flat form: its statements, and the module's script beside them."""

from __future__ import annotations

from dataclasses import dataclass

from clean_carry.component.errors import HoldsNone
from clean_carry.source.javascript.scope import Names
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.template.tree import TemplateNode, read_blocks
from clean_carry.source.text import SourceText


@dataclass(frozen=True)
class FlatBlocks:
    """The blocks of a file in the flat form, and one parse of both scripts: they share their names.

    `module` is the script whose code runs once, `refused` why the file cannot be read: (rule, detail,
    offset).
    """

    setup: TemplateNode
    module: TemplateNode | None
    template: TemplateNode | None
    styles: tuple[TemplateNode, ...]
    tree: Tree
    names: Names
    refused: tuple[tuple[str, str, int], ...]

    def of(self, block: TemplateNode | None) -> list[Node]:
        """The top-level statements of one script."""
        if block is None:
            return []
        start, end = block.inner
        return [node for node in self.tree.root.named_children if start <= node.start < end]


def flat_blocks(source: SourceText) -> FlatBlocks:
    """Split and parse a file; raises `InputError`, and `HoldsNone` where no script is in the flat form."""
    found: dict[str, list[TemplateNode]] = {}
    refused: list[tuple[str, str, int]] = []
    for node in read_blocks(source):
        if node.kind != "element":
            continue
        kind = "setup" if node.tag == "script" and node.attribute("setup") else node.tag
        found.setdefault(kind, []).append(node)
        linked = node.attribute("src") is not None and node.tag != "style"
        language = node.attribute("lang") is not None and node.tag == "template"
        if node.tag not in ("script", "template", "style") or linked or language:
            refused.append(("block-unread", f"<{node.tag}>", node.start))
    for kind in ("setup", "script", "template"):
        if len(found.get(kind, ())) > 1:
            refused.append(("block-unread", f"a second <{kind}>", found[kind][1].start))
    if "setup" not in found:
        raise HoldsNone("holds no component", file=source.path)
    setup, module = found["setup"][0], found.get("script", [None])[0]
    shown = [block.inner for block in (setup, module) if block is not None]
    tree = Tree(source, bytes(source.blanked(sorted(shown))))
    return FlatBlocks(
        setup,
        module,
        found.get("template", [None])[0],
        tuple(found.get("style", ())),
        tree,
        Names(tree),
        tuple(refused),
    )


def language_of(source: SourceText, block: TemplateNode) -> str:
    """The language of a block, "" where it names none."""
    attribute = block.attribute("lang")
    return source.slice(*attribute.value) if attribute is not None and attribute.value else ""
