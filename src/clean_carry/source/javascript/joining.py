"""Code that a formatter with a line width would write on one line.

Code that moves out of a class is dedented, and wrapped lines may fit on one line now. Each rule
here says how one construct reads on one line; it is used in a file only where it finds nothing to do in
the old text, that is where whatever formats the file keeps to it. So hand-made line breaks stay.
"""

from __future__ import annotations

import re
from collections.abc import Callable
from dataclasses import dataclass

from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.text import SourceText

WIDTHS = (80, 100, 120)
# Of so many lines one may be longer: what cannot be broken.
LONG_LINES = 50
_PASSES = 6
# So many lines in which a formatter finds nothing to do show that there is one.
_MUCH = 48
_STRINGS = re.compile(r"'[^']*'|\"[^\"]*\"|`[^`]*`")
_ELEMENTS = ("jsx_element", "jsx_self_closing_element")


View = Callable[[SourceText], bytes]


@dataclass(frozen=True)
class Fit:
    """The width a file is kept to, the columns of a tab, and the rules its formatter follows.

    `shown` says that something in the file is broken as they would, for want of width, or that there is
    much in it they find nothing to do with.
    """

    width: int
    tab: int
    rules: tuple[str, ...]
    shown: bool = False

    def columns(self, text: str) -> int:
        """How wide a line is."""
        return len(text) + text.count("\t") * (self.tab - 1)


def fit_of(tree: Tree, widths: tuple[int, ...] = WIDTHS, around: int = 0) -> Fit:
    """Read the width off a script: of `widths` the one it keeps to under which most rules find nothing
    to do; where several are as good, the least that is not less than what files `around` it keep to."""
    lines = tree.view.decode("utf-8", "replace").split("\n")
    tabs = (2, 4) if any(line.startswith("\t") for line in lines) else (2,)
    best = Fit(WIDTHS[1] if WIDTHS[1] in widths else widths[0], tabs[0], ())
    long = [line for line in lines if len(line) + 3 * line.count("\t") > min(widths)]
    long = [line for line in long if is_breakable(line)]
    lines_of = {name: _on_one_line(tree, name) for name in RULES}
    whole = {
        name: [line for one in found if (line := _whole(tree, *one)) is not None]
        for name, found in lines_of.items()
    }
    for width in widths:
        for tab in tabs:
            plain = Fit(width, tab, tuple(RULES))
            if sum(plain.columns(line) > width for line in long) > max(2, len(lines) // LONG_LINES):
                continue
            kept = tuple(
                name
                for name, found in whole.items()
                if all(plain.columns(line) > width for line in found)
                and (name != "text" or not _edits(tree, plain, name, lines_of[name]))
            )
            better = width >= around > best.width and len(kept) == len(best.rules)
            if len(kept) > len(best.rules) or better:
                shown = any(whole[name] for name in kept)
                shown = shown or sum(bool(line.strip()) for line in lines) >= _MUCH
                best = Fit(width, tab, kept, shown)
        if len(best.rules) == len(RULES) and best.width >= around:
            break
    return best


def is_breakable(line: str) -> bool:
    """Whether a line could be broken: comments and imports are not, nor what is mostly one string."""
    text = line.strip()
    if text.startswith(("//", "*", "/*", "import ", "} from", "{/*")):
        return False
    longest = max((len(found) for found in _STRINGS.findall(text)), default=0)
    return 2 * longest < len(text)


def joined(text: str, path: str, fit: Fit, view: View | None = None) -> str:
    """The text with what fits on one line on one line; in a file that holds more than a script, `view`
    gives the bytes to parse, of the same length."""
    if not fit.rules:
        return text
    for _ in range(_PASSES):
        data = text.encode()
        source = SourceText(path, data)
        tree = Tree(source, view(source) if view is not None else None, broken=True)
        edits = [e for name in fit.rules for e in _edits(tree, fit, name, _on_one_line(tree, name))]
        tree.release()
        if not edits:
            return text
        for start, end, new in reversed(_apart(edits)):
            data = data[:start] + new.encode() + data[end:]
        text = data.decode()
    return text


Edit = tuple[int, int, str]


def _on_one_line(tree: Tree, name: str) -> list[tuple[Node, str | None]]:
    """The broken nodes a rule is for, as it would write them at any width; None where it would not."""
    kinds, rule = RULES[name]
    find = tree.source.data.find
    return [(n, rule(n)) for n in tree.of(*kinds) if find(b"\n", n.start, n.end) >= 0]


def _edits(tree: Tree, fit: Fit, name: str, found: list[tuple[Node, str | None]]) -> list[Edit]:
    """Return the edits of a rule in a file of this width."""
    edits: list[Edit] = []
    for node, line in found:
        whole = _whole(tree, node, line)
        new = line if whole is not None and fit.columns(whole) <= fit.width else None
        if new is None and name == "text":
            new = _filled(tree, fit, node)
        if new is not None:
            edits.append((node.start, node.end, new))
    return edits


def _apart(edits: list[Edit]) -> list[Edit]:
    """Edits that do not overlap, the innermost first where they would; in source order."""
    chosen: list[Edit] = []
    for start, end, new in sorted(edits, key=lambda edit: (edit[1] - edit[0], edit[0])):
        if not any(start < b and a < end for a, b, _ in chosen):
            chosen.append((start, end, new))
    return sorted(chosen)


def _whole(tree: Tree, node: Node, line: str | None) -> str | None:
    """The whole line a node on one line would stand in."""
    if line is None:
        return None
    source = tree.source
    before = source.slice(source.line_start(node.start), node.start)
    rest = source.data.find(b"\n", node.end)
    after = source.slice(node.end, rest if rest >= 0 else len(source.data)).rstrip()
    return before + line + after


def _one(node: Node | None) -> str | None:
    """The text of a node that stands on one line; None where it does not."""
    if node is None:
        return None
    text = node.text
    return None if "\n" in text else text


def _ones(nodes: list[Node]) -> list[str] | None:
    found = [_one(node) for node in nodes]
    return None if None in found else [text for text in found if text is not None]


def _bare(node: Node) -> bool:
    """Whether no comment stands directly in a node."""
    return not any(child.type == "comment" for child in node.children)


def _tag(node: Node) -> str | None:
    if node.type == "jsx_opening_element" and node.parent is None:
        return None
    parts = _ones(node.named_children)
    if parts is None or len(parts) < 2 or not _bare(node):
        return None
    end = " />" if node.type == "jsx_self_closing_element" else ">"
    return f"<{' '.join(parts)}{end}"


def _text(node: Node) -> str | None:
    """An element with at most one attribute, and text or one expression in it."""
    opening, closing = node.children[0], node.children[-1]
    inside = node.children[1:-1]
    if len([c for c in opening.children if c.type.startswith("jsx_")]) > 1 or not _bare(node):
        return None
    if any(
        c.type not in ("jsx_text", "jsx_expression", "html_character_reference") for c in inside
    ):
        return None
    if sum(c.type == "jsx_expression" for c in inside) > 1:
        return None
    head, tail = _one(opening), _one(closing)
    content = "".join(c.text for c in inside)
    if any("\n" in c.text for c in inside if c.type == "jsx_expression"):
        return None
    if head is None or tail is None or not content.strip():
        return None
    lines = [part.strip() for part in content.strip().split("\n")]
    if not all(lines):
        return None
    return head + " ".join(lines) + tail


def _filled(tree: Tree, fit: Fit, node: Node) -> str | None:
    """An element of nothing but text, its words filled into lines; None where they are already."""
    inside = node.children[1:-1]
    if any(c.type not in ("jsx_text", "html_character_reference") for c in inside):
        return None
    source = tree.source
    start, end = node.children[0].end, node.children[-1].start
    content = source.slice(start, end)
    if not content.startswith("\n") or "\n" not in content.strip():
        return None
    below = content.strip().split("\n")
    indent = source.indent_at(start + content.encode().index(below[0].encode()))
    lines: list[str] = []
    for word in content.split():
        if lines and fit.columns(f"{lines[-1]} {word}") <= fit.width:
            lines[-1] += f" {word}"
        else:
            lines.append(indent + word)
    last = source.indent_at(end)
    filled = "\n" + "\n".join(lines) + f"\n{last}"
    if filled == content:
        return None
    return source.slice(node.start, start) + filled + source.slice(end, node.end)


def _parentheses(node: Node) -> str | None:
    """Parentheses around markup that stands on one line go; others stay around what they hold."""
    inner = node.named_children
    if len(inner) != 1 or not _bare(node):
        return None
    text = _one(inner[0])
    parent = node.parent
    if text is None or parent is None:
        return None
    called_back = parent.type == "arrow_function" and parent.parent is not None
    if parent.type == "ternary_expression" or (called_back and parent.parent.type == "arguments"):  # type: ignore[union-attr]
        return None
    if node.field == "condition" or parent.type in ("call_expression", "member_expression"):
        return f"({text})"
    if inner[0].type in _ELEMENTS or parent.type in ("return_statement", "arrow_function"):
        return text
    return f"({text})"


def _list(node: Node) -> str | None:
    """Arguments, parameters, and arrays of plain values."""
    parts = _ones(node.named_children)
    if parts is None or not parts or not _bare(node):
        return None
    if node.type == "array" and any(
        c.type in ("object", "array") or c.type in _ELEMENTS for c in node.named_children
    ):
        return None
    if node.type == "array" and all(c.type == "number" for c in node.named_children):
        return None
    first, last = node.children[0].text, node.children[-1].text
    return f"{first}{', '.join(parts)}{last}"


def _pattern(node: Node) -> str | None:
    """The names a declaration takes."""
    if node.parent is None or node.parent.type != "variable_declarator":
        return None
    parts = _ones(node.named_children)
    if parts is None or not _bare(node) or any("{" in part or "=" in part for part in parts):
        return None
    return f"{{ {', '.join(parts)} }}"


def _after_sign(sign: str, field: str) -> Callable[[Node], str | None]:
    """A construct whose last part was put on a line of its own."""

    def rule(node: Node) -> str | None:
        last = node.child(field)
        if last is None or not _bare(node) or last.type in _ELEMENTS:
            return None
        before = node.text_of.slice(node.start, last.start)
        text = _one(last)
        if text is None or not re.search(rf"{re.escape(sign)}\s*\n\s*$", before):
            return None
        head = before.rstrip()
        return None if "\n" in head else f"{head} {text}"

    return rule


def _operands(node: Node) -> str | None:
    """A chain of operators, one operand a line."""
    parent = node.parent
    if parent is not None and parent.type == "binary_expression":
        return None
    parts: list[str] = []
    stack = [node]
    while stack:
        here = stack.pop()
        if not _bare(here):
            return None
        if here.type == "binary_expression" and here.children:
            stack.extend(reversed(here.children))
            continue
        text = _one(here)
        if text is None or here.type in (*_ELEMENTS, "jsx_fragment"):
            return None
        parts.append(text)
    return " ".join(parts)


def _choice(node: Node) -> str | None:
    """Either of two, one a line."""
    parts = [node.child(name) for name in ("condition", "consequence", "alternative")]
    texts = [_one(part) for part in parts]
    nested = any(
        part is None or part.type in (*_ELEMENTS, "ternary_expression", "parenthesized_expression")
        for part in parts
    )
    up = node.parent
    if None in texts or nested or not _bare(node) or (up and up.type == "ternary_expression"):
        return None
    return f"{texts[0]} ? {texts[1]} : {texts[2]}"


def _braces(node: Node) -> str | None:
    """An expression in markup, its braces on lines of their own."""
    inner = node.named_children
    text = _one(inner[0]) if len(inner) == 1 and _bare(node) else None
    return None if text is None else f"{{{text}}}"


Rule = tuple[tuple[str, ...], Callable[[Node], str | None]]
RULES: dict[str, Rule] = {
    "tag": (("jsx_opening_element", "jsx_self_closing_element"), _tag),
    "text": (("jsx_element",), _text),
    "parentheses": (("parenthesized_expression",), _parentheses),
    "list": (("arguments", "formal_parameters", "array"), _list),
    "pattern": (("object_pattern",), _pattern),
    "arrow": (("arrow_function",), _after_sign("=>", "body")),
    "value": (("variable_declarator",), _after_sign("=", "value")),
    "assigned": (("assignment_expression",), _after_sign("=", "right")),
    "field": (("pair",), _after_sign(":", "value")),
    "operands": (("binary_expression",), _operands),
    "choice": (("ternary_expression",), _choice),
    "braces": (("jsx_expression",), _braces),
}
