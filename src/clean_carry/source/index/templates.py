"""The names that markup uses: of elements, of attributes, and in texts that name a component."""

from __future__ import annotations

import re
from collections.abc import Iterator

from clean_carry.source.index.facts import FileFacts, Import, TagUse
from clean_carry.source.index.parsed import Parsed
from clean_carry.source.javascript.tree import Node
from clean_carry.source.template.tree import TemplateNode

# Elements of HTML (§4): never a component by their own name.
_HTML = frozenset(
    "a abbr address area article aside audio b base bdi bdo blockquote body br button canvas caption cite "
    "code col colgroup data datalist dd del details dfn dialog div dl dt em embed fieldset figcaption "
    "figure footer form h1 h2 h3 h4 h5 h6 head header hgroup hr html i iframe img input ins kbd label "
    "legend li link main map mark menu meta meter nav noscript object ol optgroup option output p picture "
    "pre progress q rp rt ruby s samp script search section select slot small source span strong style sub "
    "summary sup table tbody td template textarea tfoot th thead time title tr track u ul var video wbr "
    "svg path g circle rect line polygon polyline text defs use".split()
)
# Names of attributes that only the page, or a template's own language, reads.
_PLAIN = re.compile(
    r"(?:[:@#]|v-|ng-|aria-|on[a-z]+$|(?:class|id|style|href|src|alt|type|name|value|title|for|role|"
    r"placeholder|width|height|disabled|checked|rel|target|action|method|tabindex|key|ref|slot)$)"
)
# Attributes whose text names a component: an element that stands for another one.
_IS = frozenset({"is", ":is", "v-bind:is"})
_NAME_IN_QUOTES = re.compile(rb"""['"]([A-Za-z][\w-]*)['"]""")
# A tag, an end tag or a comment in a text that code holds.
_IN_TEXT = re.compile(rb"<!--.*?-->|<(/?)([A-Za-z][\w.-]*)([^<>]*)", re.DOTALL)
_ATTRIBUTE = re.compile(rb"""([A-Za-z][\w.:-]*)(?:\s*=\s*(?:"[^"]*"|'[^']*'|[^\s"'>]+))?""")
# A name behind the marks of a required controller, without the ending of an injected definition.
_NAMING = re.compile(r"[?^]*([A-Za-z][\w$-]*?)(?:Directive)?")
# Keys whose texts name components, and functions whose first argument does.
_KEYS = frozenset({"component", "is", "tag", "require", "extends"})
_TITLED = frozenset({"describe", "it", "test", "context", "suite"})
_MAKERS = frozenset({"h", "createElement", "resolveComponent", "get", "_c"})


def read_templates(parsed: Parsed, facts: FileFacts) -> None:
    """Note the names in the markup of a file, and in texts of its script. Raises `InputError`."""
    for top in parsed.markup if not parsed.is_script else ():
        for node in top.walk():
            facts.tags += _of_element(parsed, node)
            facts.imports += _loaded(parsed, node) if parsed.is_page else ()
    if parsed.tree is not None:
        facts.tags += _in_strings(parsed)
    facts.tags.sort(key=lambda one: one.start)


def _of_element(parsed: Parsed, node: TemplateNode) -> Iterator[TagUse]:
    if node.kind != "element":
        return
    start = node.start + 1
    end = start + len(node.tag.encode())
    line = parsed.line(start)
    if node.tag.lower() not in _HTML or node.tag != node.tag.lower():
        closing = node.inner[1] + 2
        data = parsed.source.data
        named = data[closing - 2 : closing] == b"</" and not node.closed_itself
        yield TagUse(node.tag, "tag", start, end, closing if named else -1, line)
    for one in node.attributes:
        here = parsed.line(one.start)
        if one.name in _IS and one.value is not None:
            yield from _named_by(parsed, one.value, one.name == "is", here)
        elif not _PLAIN.match(one.name) and parsed.is_page:
            yield TagUse(one.name, "attribute", one.start, one.name_end, -1, here)


def _loaded(parsed: Parsed, node: TemplateNode) -> Iterator[Import]:
    """The script that an element of a page loads from a relative place."""
    source = node.attribute("src") if node.kind == "element" and node.tag == "script" else None
    if source is None or source.value is None:
        return
    request = parsed.source.slice(*source.value)
    if request and "//" not in request and not request.startswith(("/", "data:")):
        written = request if request.startswith(".") else f"./{request}"
        yield Import(written, "script", (), *source.value, parsed.line(source.start))


def _named_by(parsed: Parsed, value: tuple[int, int], plain: bool, line: int) -> Iterator[TagUse]:
    """The names of components in the text, or in the strings of the expression, of an attribute."""
    data = parsed.source.data[value[0] : value[1]]
    if plain:
        yield TagUse(data.decode(), "string", value[0], value[1], -1, line)
        return
    for found in _NAME_IN_QUOTES.finditer(data):
        start = value[0] + found.start(1)
        yield TagUse(found[1].decode(), "string", start, value[0] + found.end(1), -1, line)


def _in_strings(parsed: Parsed) -> Iterator[TagUse]:
    """Tags in texts of a script, and texts that stand where code names a component."""
    assert parsed.tree is not None
    data = parsed.source.data
    for node in parsed.tree.of("string", "template_string"):
        if node.end - node.start < 4:
            continue
        if data.find(b"<", node.start, node.end) >= 0:
            if _is_title(node):
                continue
            yield from _tags_in(parsed, node.start + 1, node.end - 1)
        elif node.end - node.start < 60 and _names_component(node):
            found = _NAMING.fullmatch(data[node.start + 1 : node.end - 1].decode())
            if found is not None:
                start = node.start + 1 + found.start(1)
                yield TagUse(
                    found[1], "string", start, start + len(found[1]), -1, parsed.line(start)
                )


def _is_title(node: Node) -> bool:
    """Whether a text is the title of a test, which may speak of tags."""
    call = node.parent.parent if node.parent is not None else None
    callee = call.child("function") if call is not None else None
    return callee is not None and callee.text.partition(".")[0] in _TITLED


def _names_component(node: Node) -> bool:
    """Whether a text stands where a component is named: under a key, or as what is to be made."""
    parent = node.parent
    while parent is not None and parent.type in ("array", "ternary_expression", "pair_pattern"):
        node, parent = parent, parent.parent
    if parent is None:
        return False
    if parent.type == "pair":
        key = parent.child("key")
        return node.field == "value" and key is not None and key.text in _KEYS
    if parent.type == "arguments" and parent.parent is not None:
        callee = parent.parent.child("function")
        last = callee.child("property") or callee if callee is not None else None
        if last is None or parent.named_children[0] is not node:
            return False
        # With a second argument it registers one.
        alone = last.text == "controller" and len(parent.named_children) == 1
        return alone or last.text in _MAKERS
    return False


def _tags_in(parsed: Parsed, start: int, end: int) -> Iterator[TagUse]:
    """The tags of a template that code holds as a text; a stack pairs them with their end tags."""
    data = parsed.source.data
    found: list[TagUse] = []
    open_: list[tuple[str, int]] = []
    for match in _IN_TEXT.finditer(data, start, end):
        if match[2] is None:
            continue
        name = match[2].decode()
        at, line = match.start(2), parsed.line(match.start())
        if match[1]:
            while open_:
                tag, index = open_.pop()
                if tag == name:
                    if index >= 0:
                        found[index] = found[index]._replace(closing=at)
                    break
            continue
        known = name in _HTML
        if not known:
            found.append(TagUse(name, "tag", at, match.end(2), -1, line))
        if not match[3].rstrip().endswith(b"/"):
            open_.append((name, -1 if known else len(found) - 1))
        for one in _ATTRIBUTE.finditer(data, match.start(3), match.end(3)):
            written = one[1].decode()
            if not _PLAIN.match(written):
                place = parsed.line(one.start())
                found.append(TagUse(written, "attribute", one.start(1), one.end(1), -1, place))
    yield from found
