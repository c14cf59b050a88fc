"""Names for what is lifted: components after what they are, props after the role of their content."""

from __future__ import annotations

import re

from clean_carry.crossing.lift.align import Part
from clean_carry.crossing.lift.block import Block

_HUMP = re.compile(r"(?<=[a-z])(?=[A-Z])")
_WORD = re.compile(r"[^\W\d_]+|\d+")
# Names of the text of elements, where nothing else names it.
_TEXT_ROLES = {
    "h1": "title", "h2": "title", "h3": "title", "h4": "title", "h5": "title", "h6": "title",
    "p": "text", "a": "label", "button": "label", "label": "label", "li": "label", "legend": "title",
    "small": "note", "strong": "name", "b": "name", "time": "time", "figcaption": "caption",
    "span": "text", "dt": "term", "dd": "description", "td": "value", "th": "heading", "em": "note",
    "code": "code", "sup": "unit", "sub": "unit", "option": "label", "blockquote": "quote",
    "cite": "source", "address": "address", "summary": "title", "output": "value",
}  # fmt: skip
# Names of elements as parts, for flags and lists.
_PART_ROLES = {
    "a": "link", "img": "image", "li": "item", "tr": "row", "td": "cell", "p": "paragraph", "i": "icon",
    "svg": "icon", "button": "button", "option": "option", "div": "part", "span": "part", "ul": "list",
    "input": "field", "label": "option", "article": "article", "section": "section", "hr": "rule",
    "dt": "term", "iframe": "frame",
}  # fmt: skip
# Words of class names that name their content.
_SAID = frozenset(
    "title subtitle heading header name label text number value badge price date time meta "
    "description desc "
    "note caption message author amount count count status unit icon username location address phone email "
    "subject summary quote rating total timestamp category kicker lead author role info tag".split()
)
_RENAMED = {"desc": "description", "header": "heading", "timestamp": "time", "meta": "info"}
_TONES = re.compile(
    r"(?:^|-)(?:primary|secondary|success|danger|warning|info|light|dark|default|muted|red|green|blue|yellow|"
    r"purple|teal|orange|gray|maroon)$"
)
_STATES = frozenset("active disabled selected current open show collapsed checked hidden".split())
# Words no prop may be called: of the language, and of the runtimes.
_FORBIDDEN = frozenset(
    "key ref is slot style class children default new in of for if else case do this true "
    "false null delete "
    "return switch typeof var void while with const let function import export super try catch throw "
    "enum await yield static index props package private protected public interface implements let "
    "arguments eval undefined".split()
)
# Starts of class names that say how a variant looks, and not of what it is one.
PLACING = frozenset("bg btn text badge border card alert label icon col fas far fab uk".split())
_BY_ATTRIBUTE = {"class": "tone", "for": "field", "style": "style", "datetime": "date"}


def camel(text: str) -> str:
    """A name in camel case of the words in a text: `Serial #` is `serial`."""
    words = [word.lower() for word in _WORD.findall(_HUMP.sub(" ", text))]
    joined = "".join(words[:1] + [word.capitalize() for word in words[1:]])
    return joined if joined[:1].isalpha() else f"value{joined.capitalize()}" if joined else ""


def pascal(text: str) -> str:
    """A name in Pascal case of the words in a text."""
    return "".join(word.capitalize() for word in _WORD.findall(text))


def plural(name: str) -> str:
    """The plural of a name."""
    if name.endswith("s") and not name.endswith("ss"):
        return f"{name}List"
    if re.search(r"(?:x|ch|sh|ss)$", name):
        return f"{name}es"
    return f"{name[:-1]}ies" if re.search(r"[^aeiou]y$", name) else f"{name}s"


def component_name(copies: list[Block]) -> str:
    """The name of a component: of the class name that all copies share, or of what the block is."""
    first = copies[0]
    shared = [one for one in first.classes if all(one in other.classes for other in copies)]
    own = [one for one in shared if one in first.names] or sorted(
        frozenset.intersection(*(one.names for one in copies))
    )
    if own:
        name = pascal(_without_prefix(_telling(own)))
    else:
        name = _by_content(first)
    if name.lower() in _TAGS or not name[:1].isalpha():
        name += "Block"
    return name


def _telling(names: list[str]) -> str:
    """The first name that says more than a kind of box; else the last one."""
    for name in names:
        if _without_prefix(name) not in _GENERIC:
            return name
    return names[-1]


_GENERIC = frozenset(
    "card btn button nav list item box media alert badge panel block widget tile section link "
    "row post table "
    "form field input label image img icon text content body".split()
)
_TAGS = frozenset(
    "a article aside button form header footer section nav main table tr li ul ol p label span "
    "div input img "
    "figure link menu dialog details summary option select".split()
)


def _without_prefix(name: str) -> str:
    """A class name without the two letters by which a stylesheet marks all of its own."""
    return re.sub(r"^[a-z]{1,2}-(?=[a-z]{3})", "", name)


def _by_content(block: Block) -> str:
    around = next((name for one in block.above() for name in _named(one)), "")
    told = [one for one in block.elements if one.tag not in _SHOWN_BY_TAG]
    inner = next((name for one in told for name in _named(one)), "")
    match block.tag:
        case "tr":
            return pascal(_singular(around)) + "Row" if around else "TableRow"
        case "li":
            return pascal(_singular(around)) + "Item" if around else "ListItem"
        case "a":
            return "LinkBlock"
        case "div" | "span" | "section":
            return pascal(inner) if inner else pascal(_singular(around)) + "Part"
    return block.tag.capitalize() + "Block"


def _named(block: Block) -> list[str]:
    return [_without_prefix(one) for one in block.classes if one in block.names]


def _singular(name: str) -> str:
    return re.sub(r"(?<=[a-z]{3})s$", "", name)


def text_name(part: Part, parent: Part) -> list[str]:
    """Names for the text in an element, the best first."""
    block = parent.base
    column = _heading_of_column(block)
    said = [word for name in block.classes for word in _said(name)]
    plain = camel(block.tag) if block.tag[:1].isupper() else _TEXT_ROLES.get(block.tag, "text")
    if plain == "name" and block.parent is not None and block.parent.elements[0] is block:
        plain = "title"
    around = next((word for one in block.above() for word in _last_words(one)), "")
    said = [_IN_FULL.get(word, word) for word in said]
    return [one for one in (column, *said, plain, around and around + plain.capitalize()) if one]


def _said(name: str) -> list[str]:
    words = [word.lower() for word in re.split(r"[-_]+", name)]
    found = [word for word in reversed(words) if word in _SAID]
    return [_RENAMED.get(word, word) for word in found[:1]]


def _last_words(block: Block) -> list[str]:
    return [
        camel(_without_prefix(name).rpartition("-")[2])
        for name in block.classes
        if name in block.names
    ]


def _heading_of_column(block: Block) -> str:
    """The name of a cell's column, of the head of its table."""
    row = block.parent
    while row is not None and row.tag != "tr":
        if row.tag in ("td", "th"):
            block = row
        row = row.parent
    table = (
        next((one for one in row.above() if one.tag == "table"), None) if row is not None else None
    )
    if table is None or row is None or block not in row.elements:
        return ""
    head = next((one for one in table.walk() if one.tag == "tr" and one is not row), None)
    cells = head.elements if head is not None and all(c.tag == "th" for c in head.elements) else []
    at = row.elements.index(block)
    text = "".join(one.text for one in cells[at].walk()) if at < len(cells) else ""
    return camel(text)[:24]


def attribute_name(part: Part, name: str, values: list[str | None]) -> list[str]:
    """Names for an attribute of an element, the best first."""
    block = part.base
    if name == "class":
        given = [one or "" for one in values]
        if block.tag in ("i", "svg") or any("icon" in one or "fa-" in one for one in given):
            return ["icon", "iconName"]
        if any(_TONES.search(word) for one in given for word in one.split()):
            return ["tone", f"{_role(block)}Tone"]
        return ["variant", f"{_role(block)}Variant"]
    plain = _BY_ATTRIBUTE.get(name) or camel(re.sub(r"^(?:data|aria)-", "", name))
    return [plain, f"{_role(block)}{plain[:1].upper()}{plain[1:]}"]


def state_name(word: str) -> str | None:
    """The flag that a class name stands for; None for names that are no state."""
    plain = re.sub(r"^[a-z]{1,3}-", "", word)
    return plain if plain in _STATES else None


def part_name(block: Block) -> str:
    """The name of a part, for a flag or a list."""
    return _role(block)


def _role(block: Block) -> str:
    words = [] if block.tag in _SHOWN_BY_TAG else _last_words(block)
    word = words[0] if words and words[0].isalpha() and len(words[0]) > 2 else ""
    plain = camel(block.tag) if block.tag[:1].isupper() else _PART_ROLES.get(block.tag, "part")
    return _IN_FULL.get(word, word) or plain


# Elements whose class names say less than their tags; words that class names shorten.
_SHOWN_BY_TAG = frozenset("i svg img input textarea iframe video canvas".split())
_IN_FULL = {"btn": "button", "img": "image", "nav": "link", "desc": "description"}


# Names by which runtimes take listeners.
_LISTENER = re.compile(r"on[A-Z]")


def free(wishes: list[str], taken: set[str]) -> str:
    """The first of some names that is not taken; it is taken from then on."""
    plain = [one for one in wishes if one and one.isidentifier()]
    first = plain[0]
    if wishes == [first] and _LISTENER.match(first) and first not in taken:
        # A listener that a copy is given.
        taken.add(first)
        return first
    last = f"{first}Value" if first in _FORBIDDEN else first
    if _LISTENER.match(first):
        last = f"value{first[:1].upper()}{first[1:]}"
    for name in [first, last, *plain[1:], *(f"{last}{n}" for n in range(2, 99))]:
        if name not in taken and name not in _FORBIDDEN and not _LISTENER.match(name):
            taken.add(name)
            return name
    raise AssertionError(wishes)
