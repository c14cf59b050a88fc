"""Which comments belong to which node.

Own-line comments that touch the next node, and same-line trailing ones, belong to that node.
"""

from __future__ import annotations

from clean_carry.source.javascript.tree import Node, Tree


def leading(tree: Tree, node: Node) -> list[Node]:
    """Own-line comments directly above `node`, in order, no blank line between."""
    data = tree.source.data
    found: list[Node] = []
    start = node.start
    for comment in reversed(_before(tree, node.start)):
        gap = data[comment.end : start]
        if gap.strip() or gap.count(b"\n") > 1 or not _own_line(data, comment):
            break
        found.append(comment)
        start = comment.start
    return found[::-1]


def trailing(tree: Tree, node: Node) -> list[Node]:
    """Comments after `node` on its last line."""
    data = tree.source.data
    found: list[Node] = []
    end = node.end
    for comment in tree.comments:
        if comment.start < end:
            continue
        gap = data[end : comment.start]
        if gap.strip(b" \t;,"):
            break
        found.append(comment)
        end = comment.end
    return found


def within(tree: Tree, start: int, end: int) -> list[Node]:
    """Comments that lie in a byte range."""
    return [c for c in tree.comments if start <= c.start and c.end <= end]


def _before(tree: Tree, offset: int) -> list[Node]:
    return [c for c in tree.comments if c.end <= offset]


def _own_line(data: bytes, comment: Node) -> bool:
    line = data.rfind(b"\n", 0, comment.start) + 1
    return not data[line : comment.start].strip()
