"""The template of a decorated class as a tree: elements, texts, interpolations, blocks of control flow."""

from __future__ import annotations

import re
from dataclasses import dataclass, field

from clean_carry.source.template.tree import TemplateNode, read_markup
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.piped_expressions import Unread

_BLOCK = re.compile(r"@(else\s+if|if|else|for|empty|switch|case|default|let|defer)(?![\w.-])\s*")
_KNOWN = frozenset({"if", "else if", "else", "for", "empty", "switch", "case", "default", "let"})


@dataclass
class Flow:
    """A block of control flow such as `@if (late) { … }`: its kind, the code in its parentheses (`given`),
    and its content.

    `start` and `end` are offsets of the file; `given` begins at `given_at`.
    """

    kind: str
    given: str
    given_at: int
    start: int
    end: int
    children: list[Part] = field(default_factory=list)


Part = TemplateNode | Flow


def read_template(source: SourceText, start: int, end: int) -> list[Part]:
    """The parts of a template. Raises `Unread`, and `InputError` for markup that is not balanced."""
    return folded(read_markup(source, start, end), source)


def folded(nodes: list[TemplateNode], source: SourceText) -> list[Part]:
    """Siblings with their blocks as trees. Raises `Unread`."""
    root = Flow("", "", 0, 0, 0)
    stack = [root]
    queue = list(nodes)
    while queue:
        node = queue.pop(0)
        if node.kind != "text":
            stack[-1].children.append(node)
            continue
        _fold(node, queue, stack, source)
    if len(stack) > 1:
        raise Unread(f"@{stack[-1].kind} is never closed", stack[-1].start)
    return root.children


def _fold(
    node: TemplateNode, queue: list[TemplateNode], stack: list[Flow], source: SourceText
) -> None:
    """Part a text at the marks of blocks."""
    text = source.slice(node.start, node.end)
    at = 0

    def offset(index: int) -> int:
        return node.start + len(text[:index].encode())

    while at < len(text):
        mark = _BLOCK.search(text, at)
        close = text.find("}", at) if len(stack) > 1 else -1
        if close >= 0 and (mark is None or close < mark.start()):
            _add(stack[-1], offset(at), offset(close))
            flow = stack.pop()
            flow.end = offset(close) + 1
            at = close + 1
            continue
        if mark is None:
            break
        _add(stack[-1], offset(at), offset(mark.start()))
        kind = re.sub(r"\s+", " ", mark[1])
        if kind not in _KNOWN:
            raise Unread(f"@{kind}", offset(mark.start()))
        if kind == "let":
            end = text.find(";", mark.end())
            if end < 0:
                raise Unread("@let", offset(mark.start()))
            given = text[mark.end() : end]
            stack[-1].children.append(
                Flow(kind, given, offset(mark.end()), offset(mark.start()), offset(end) + 1)
            )
            at = end + 1
            continue
        given, given_at, brace = _head(text, mark.end())
        if brace < 0 and kind == "case":
            # Several cases may share one block.
            stack[-1].children.append(
                Flow("case", given, offset(given_at), offset(mark.start()), offset(mark.end()))
            )
            at = given_at + len(given) + 1
            continue
        if brace < 0:
            raise Unread(f"@{kind} without a block", offset(mark.start()))
        flow = Flow(kind, given, offset(given_at), offset(mark.start()), 0)
        stack[-1].children.append(flow)
        stack.append(flow)
        at = brace + 1
    _add(stack[-1], offset(at), node.end)


def _head(text: str, at: int) -> tuple[str, int, int]:
    """The text in the parentheses behind a mark, where it begins, and where the brace is; -1 for none."""
    given, given_at = "", at
    if text[at : at + 1] == "(":
        depth, here = 0, at
        while here < len(text):
            sign = text[here]
            if sign in "'\"`":
                here = text.find(sign, here + 1)
                if here < 0:
                    return "", at, -1
            depth += (sign == "(") - (sign == ")")
            if depth == 0:
                break
            here += 1
        given, given_at = text[at + 1 : here], at + 1
        at = here + 1
    rest = len(text[at:]) - len(text[at:].lstrip())
    brace = at + rest if text[at + rest : at + rest + 1] == "{" else -1
    return given, given_at, brace


def _add(flow: Flow, start: int, end: int) -> None:
    if end > start:
        flow.children.append(TemplateNode("text", start, end, (start, end)))
