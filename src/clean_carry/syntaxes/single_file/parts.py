"""Blocks of a single file in files of their own, and back: `src` attributes name them.

Both ways are inverse: a block that would not come back byte for byte stays where it is.
"""

from __future__ import annotations

import re
from collections.abc import Callable

from clean_carry.component.errors import InputError
from clean_carry.source.template.tree import TemplateNode, read_blocks
from clean_carry.source.text import SourceText

# Gives the text of a file by its request, None where there is none.
Read = Callable[[str], str | None]
_ENDINGS = {"template": "html", "script": "js", "style": "css"}
_SRC = re.compile(r"""\s+src=(["'])(\./[^"']+)\1(?=\s*>$)""")


def apart(text: str, stem: str) -> dict[str, str]:
    """The file with its blocks in files: texts by name, "" for the file itself.

    `stem` is the name of the file without its ending.
    """
    files: dict[str, str] = {}
    made, here = "", 0
    for start, inner, end, node in _blocks(text):
        body = text[inner:end]
        ending = _attribute(node, text, "lang") or _ENDINGS[node.tag]
        name = f"{stem}.{ending}"
        count = 2
        while name in files:
            name, count = f"{stem}.{count}.{ending}", count + 1
        tag = text[start:inner]
        opens = f'{tag[:-1]} src="./{name}">'
        stays = node.attribute("setup") is not None or node.attribute("src") is not None
        if stays or not body.startswith("\n") or len(body) < 2 or not body.strip():
            continue
        files[name] = body[1:]
        made += text[here:start] + opens
        here = end
    return {"": made + text[here:], **files}


def together(text: str, read: Read) -> str:
    """The file with the texts of its blocks in it; a file that is not there stays named."""
    made, here = "", 0
    for start, inner, end, _ in _blocks(text):
        tag = text[start:inner]
        found = _SRC.search(tag)
        held = read(found[2]) if found is not None and not text[inner:end].strip() else None
        if found is None or held is None:
            continue
        made += text[here:start] + tag[: found.start()] + tag[found.end() :] + "\n" + held
        here = end
    return made + text[here:]


def requests(text: str) -> list[str]:
    """The files that blocks are in."""
    tags = (text[start:inner] for start, inner, *_ in _blocks(text))
    return [found[2] for tag in tags if (found := _SRC.search(tag)) is not None]


def _attribute(node: TemplateNode, text: str, name: str) -> str:
    found = node.attribute(name)
    if found is None or found.value is None:
        return ""
    data = text.encode()
    return data[found.value[0] : found.value[1]].decode()


def _blocks(text: str) -> list[tuple[int, int, int, TemplateNode]]:
    """Each block with its start, and the start and end of its inside, in characters."""
    data = text.encode()
    try:
        nodes = read_blocks(SourceText("x.vue", data))
    except InputError:
        return []
    found = []
    for node in nodes:
        if node.kind == "element" and node.tag in _ENDINGS and node.inner is not None:
            at = [len(data[:place].decode()) for place in (node.start, *node.inner)]
            found.append((at[0], at[1], at[2], node))
    return found
