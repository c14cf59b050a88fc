"""Normalising: what is not counted as a difference, each rule named, justified and counted.

A tree is a list of nodes: text as a string, a comment as None, an element as
[name, attributes, form state, children].
"""

from __future__ import annotations

import posixpath
import re
from collections import Counter
from collections.abc import Collection, Iterator
from dataclasses import dataclass
from typing import Any

Tree = list[Any]
# Under which name the harness records what a development build says of an input.
OBJECTION = "an input type objects"
# How an error that was passed out is described (`worker/describe.mjs`).
_OF_ERROR = frozenset({"$", "name", "message"})


@dataclass(frozen=True)
class NormalisingRule:
    """A rule of the comparison."""

    name: str
    reason: str


RULES = (
    NormalisingRule("comments", "comments are not rendered"),
    NormalisingRule("split-text", "two neighbouring text nodes read as one"),
    NormalisingRule(
        "white-space",
        "white space that the default display of the elements collapses is not visible; between "
        "inline elements it counts",
    ),
    NormalisingRule("class-order", "the order and spacing of class names selects nothing"),
    NormalisingRule(
        "empty-class",
        "between two frameworks, and where lists keep other elements in the newer notation, an empty "
        "class attribute equals a missing one",
    ),
    NormalisingRule(
        "lifted-class",
        "a class that copies of a lifted block lack is empty in the component they share",
    ),
    NormalisingRule(
        "empty-style", "between two frameworks, an empty style attribute equals a missing one"
    ),
    NormalisingRule("boolean-attribute", "a boolean attribute is true whatever its value"),
    NormalisingRule(
        "form-state",
        "form fields are compared by their current value, not by the attribute with the initial "
        "value",
    ),
    NormalisingRule("style-spacing", "spaces in a style attribute mean nothing"),
    NormalisingRule(
        "made-up-id",
        "ids that a framework generates are renamed one to one, if all references agree",
    ),
    NormalisingRule("scope-mark", "the attribute that scopes styles differs by construction"),
    NormalisingRule(
        "function-source",
        "a function used as an attribute shows its source code, which differs by construction",
    ),
    NormalisingRule(
        "template-expression",
        "attributes such as ng-click hold the template's source, not rendered output",
    ),
    NormalisingRule(
        "used-as-attribute",
        "a directive without element form is used through an attribute, which its element carries "
        "in the page",
    ),
    NormalisingRule(
        "host-element",
        "an element that only holds a component of a decorated class is there in its runtime alone; one to "
        "which something is bound equals the div that stands for it, with its name as a class",
    ),
    NormalisingRule(
        "runtime-marks",
        "a framework adds classes for itself: ng-scope, ng-isolate-scope, ng-binding, and those for the "
        "state of a form, such as ng-dirty",
    ),
    NormalisingRule(
        "element-stays",
        "a template that replaced its element is compared with the root inside of the element, "
        "which stays now",
    ),
    NormalisingRule(
        "hidden-by-class",
        "the class ng-hide, by which a framework hides an element, equals the inline style "
        "display: none",
    ),
    NormalisingRule(
        "checked-again",
        "a view that fails does so with every check, so each error is compared once, in no order",
    ),
    NormalisingRule(
        "bridge-element",
        "a bridge renders a component of another framework in an element of its own, which has no "
        "box (display: contents)",
    ),
    NormalisingRule(
        "asset-path",
        "a component imports the picture that a page names by a relative path; where both mean the "
        "same file, the path that the bundler gives it is compared",
    ),
    NormalisingRule(
        "style-spelling",
        "a component may set styles by script, and the browser then writes the attribute anew; where "
        "the component has no attribute of the page's text, the text that the browser would write for "
        "the page is compared",
    ),
    NormalisingRule(
        "flat-name",
        "white space at the ends of an accessible name is dropped, and runs of it are one space "
        "(Accessible Name 1.2, flat string)",
    ),
    NormalisingRule(
        "split-text",
        "between two frameworks, one text may be two nodes, and the browser leaves white space between "
        "nodes out of accessible names; the tree compares the text",
    ),
    NormalisingRule(
        "page-alone",
        "a page has nothing beside it, and the styles of a component may be scoped: copies beside the "
        "page that only its own rules reach are not compared",
    ),
    NormalisingRule(
        "taken-away",
        "after both versions failed, a class may fail once more in its clean-up; a function has "
        "none to run",
    ),
    NormalisingRule(
        "after-failure",
        "between two frameworks, the page after a failure of both versions is not compared: one "
        "framework removes the component, the other keeps it",
    ),
    NormalisingRule(
        "drawn-between",
        "between two frameworks, renders between the events of one gesture are not compared, "
        "because each framework batches differently",
    ),
    NormalisingRule(
        "told-between",
        "between two frameworks, calls may come before or after the last event of a gesture; "
        "their order and arguments are compared",
    ),
    NormalisingRule(
        "input-types",
        "between two frameworks, warnings about prop types are not compared, because types are "
        "declared differently",
    ),
    NormalisingRule(
        "listens-for-page",
        "between two frameworks, a listener that a framework keeps on the document is not counted "
        "as left behind",
    ),
    NormalisingRule(
        "value-on",
        "between two frameworks, the value “on” of a checkbox or radio button is its default",
    ),
    NormalisingRule(
        "moved-focus",
        "between two frameworks, the focus is not compared while rows change places: each "
        "framework moves other rows",
    ),
    NormalisingRule(
        "error-wording",
        "the engine words an error by the failing expression, which differs by construction; the "
        "kind of error is compared",
    ),
    NormalisingRule(
        "error-shown",
        "the message of an engine error that is shown or emitted differs in its wording only",
    ),
)

# HTML §15 (rendering): elements whose default display is not inline; and where a trial mounts a second one.
BLOCKS = frozenset(
    (
        "address article aside blockquote body center dd details dialog dir div dl dt fieldset "
        "figcaption figure footer form h1 h2 h3 h4 h5 h6 header hgroup hr html legend li main "
        "menu nav ol optgroup option p search section summary ul table caption colgroup col "
        "thead tbody tfoot tr td th select trial-place"
    ).split()
)
# The attribute of the element in which a bridge renders (`project/walk/bridges.py`).
BRIDGE = "data-bridge"
# The attributes that the compiler of templates turns into imports, if their path is relative.
_IMPORTED = {
    "img": ("src",), "source": ("src",), "video": ("src", "poster"),
    "svg:image": ("href", "xlink:href"), "svg:use": ("href", "xlink:href"),
}  # fmt: skip
# The attribute by which the renderer of pages tells how the browser writes a style attribute.
_STYLE_AS_SET = "trial-style"
_SVG_TEXT = frozenset({"svg:text", "svg:tspan", "svg:textPath", "svg:title", "svg:desc", "svg:a"})
_KEEP_SPACE = frozenset({"pre", "textarea", "listing", "plaintext"})
_BOOLEAN = frozenset(
    (
        "disabled checked readonly required selected multiple hidden open autofocus novalidate "
        "controls loop muted autoplay reversed inert itemscope default defer async"
    ).split()
)
# The forms in which the runtimes write ids of their own.
_MADE_UP = re.compile(r"^(:[rR][0-9a-z]*:|«[rR][0-9a-z]*»|_[rR]_[0-9a-z]*_|v\d*-\d+)$")
# V8's own messages (its message templates) for a value that is not of the kind an expression needs.
_ENGINE_WORDING = re.compile(
    r"^(TypeError): (?:.+ is not (?:a function|iterable|a constructor|an object)\b.*"
    r"|Cannot (?:read|set) properties of (?:null|undefined).*|Cannot destructure .*"
    r"|Cannot convert undefined or null to object|object null is not iterable.*"
    r"|Spread syntax requires .*|Found non-callable @@iterator|Reduce of empty array.*)$",
    re.DOTALL,
)
# The same messages inside a text of the page, with or without `TypeError: ` before them.
_SHOWN = re.compile(
    r"(?:TypeError: )?(?:Cannot (?:read|set) properties of (?:null|undefined)"
    r"(?: \((?:reading|setting) '[^']*'\))?"
    r"|[\w$.()\[\]'\"]+ is not (?:a function|iterable|a constructor)"
    r"|Cannot destructure property '[^']*' of '[^']*' as it is (?:null|undefined)\.?)"
)
# The text of an error in the runtime's production build: its number, and names as in the bundle.
_NUMBERED = re.compile(r"^(Error: Minified React error #\d+);.*$", re.DOTALL)
# A required input that nobody gave, when it is read: elsewhere the engine fails with what is asked of it.
_ASKED_TOO_EARLY = frozenset({"Error: NG0950", "Error: NG0951"})
# The engine's words for a name or a class as it is called in the bundle.
_BUNDLED = re.compile(
    r"^(ReferenceError: Cannot access) '.*' before initialization$"
    r"|^(TypeError: Class constructor) \S+ cannot be invoked without 'new'$"
)
# An event nobody listens to at the page's body but a runtime that listens to all.
_LISTENED = "body abort"
# The text of a function (ECMA-262 §20.2.3.5).
_FUNCTION = re.compile(r"^(?:async\s+)?(?:function\b[^{]*\{|(?:\([^()]*\)|[\w$]+)\s*=>\s*[({\w])")
_REFERENCES = frozenset(
    (
        "id for aria-labelledby aria-describedby aria-controls aria-owns aria-activedescendant "
        "aria-details aria-errormessage aria-flowto list headers form"
    ).split()
)
_STATE_ATTRIBUTES = {
    "input": ("value", "checked"),
    "textarea": ("value",),
    "select": ("value",),
    "option": ("selected",),
}


class Normaliser:
    """Applies the rules to the trees of one side; `used` counts what each rule changed.

    `marks` are names (or prefixes ending in `*`) of attributes that only scope a style; `across`
    says that the other side runs in another framework, `stays` that this one's runtime listens at the
    document for all its components, once for each event, and never stops; `bridged` that it renders
    components of another framework through bridges. For a page, three more are set: `folder`, where it
    stands; `imported`, the files that the component on the other side imports; and `styles`, the style
    attributes that this component renders. `lifted` is set where blocks were lifted out of the component.
    """

    # Whether elements that are used again keep an attribute for classes that are gone.
    empties_classes = False

    def __init__(
        self,
        marks: tuple[str, ...] = (),
        *,
        across: bool = False,
        stays: bool = False,
        bridged: bool = False,
    ) -> None:
        self.used: Counter[str] = Counter()
        self.marks = marks
        self.across, self.stays, self.bridged = across, stays, bridged
        self.folder = ""
        self.imported: Collection[str] = ()
        self.styles: Collection[str] = ()
        self.lifted = False
        self._ids: dict[str, str] = {}
        # The tree that came last, what became of it, and what each rule changed: most steps change little.
        self._last: tuple[Tree, Tree, Counter[str]] | None = None

    def tree(self, tree: Tree) -> Tree:
        """A normalised copy of a tree. It is not to be changed: the next equal tree gives it again."""
        if self._last is not None and self._last[0] == tree:
            self.used.update(self._last[2])
            return self._last[1]
        before, self.used = self.used, Counter()
        result = self._children(tree, block=True, keep=False)
        # Marks of a runtime, which are comments, are nothing that is rendered elsewhere in the page.
        result = [one for one in result if isinstance(one, str) or one[0] != "elsewhere" or one[3]]
        self._last = tree, result, self.used
        self.used = before + self.used
        return result

    def failed(self, errors: list[str]) -> list[str]:
        """The errors of a component that is gone: the first is why."""
        self.used["taken-away"] += max(0, len(errors) - 1)
        return errors[:1]

    def unwatched(self, prevented: list[Any]) -> list[Any]:
        """Return prevented events, without renders between the events of a gesture and calls
        between them."""
        kept = [one for one in prevented if one[0] not in ("between", "call")]
        self.used["drawn-between"] += any(one == ["between", True] for one in prevented)
        self.used["told-between"] += any(one[0] == "call" for one in prevented)
        return kept

    def unchecked(self, calls: list[Any]) -> list[Any]:
        """The calls, without what a development build says of the types of inputs."""
        kept = [one for one in calls if one[0] != OBJECTION]
        self.used["input-types"] += len(calls) - len(kept)
        return kept

    def of_component(self, left: list[str]) -> list[str]:
        """Return the leftovers of a component, without the listeners that its runtime keeps for the
        whole page."""
        own = Counter({one for one in left if one.startswith("document ")} if self.stays else ())
        if _LISTENED in left:
            # It listens to all there is where a portal renders, on the way down and up, and never stops.
            counts = Counter(one for one in left if one.startswith("body "))
            own += Counter({one: min(2, count) for one, count in counts.items()})
        kept = Counter(left) - own
        self.used["listens-for-page"] += own.total()
        return sorted(kept.elements())

    def moved(self) -> None:
        """The focus went with an element that changed places."""
        self.used["moved-focus"] += 1

    def ended(self) -> None:
        """A component that failed on both sides is not compared any further."""
        self.used["after-failure"] += 1

    def errors(self, errors: list[str]) -> list[str]:
        """Errors, those the engine makes itself of an expression without its words."""
        return [self._worded(error) for error in errors]

    def _worded(self, error: str) -> str:
        if error in _ASKED_TOO_EARLY:
            self.used["error-wording"] += 1
            return "TypeError of the engine"
        found = _ENGINE_WORDING.match(error)
        told = found or _NUMBERED.match(error) or _BUNDLED.match(error)
        self.used["error-wording"] += told is not None
        if found is not None:
            return f"{found.group(1)} of the engine"
        return next(group for group in told.groups() if group) if told is not None else error

    def place(self, path: str) -> str:
        """The place of an element, as it is compared."""
        return path

    def values(self, value: Any) -> Any:
        """Return emitted values for the comparison: engine errors without their wording, and places
        of elements."""
        if isinstance(value, list):
            return [self.values(part) for part in value]
        if isinstance(value, str) and _SHOWN.fullmatch(value):
            return self._shown(value)
        if not isinstance(value, dict):
            return value
        kind = value.get("$")
        if kind == "error" and value.keys() == _OF_ERROR:
            worded = self._worded(f"{value['name']}: {value['message']}")
            return {"$": "error", "message": worded}
        placed = kind in ("event", "element")
        return {
            key: self.place(part)
            if placed and key == "target" and isinstance(part, str)
            else self.values(part)
            for key, part in value.items()
        }

    def _children(self, nodes: Tree, *, block: bool, keep: bool) -> Tree:
        joined: Tree = []
        for node in self._without_bridges(nodes) if self.bridged else nodes:
            if node is None:
                self.used["comments"] += 1
            elif isinstance(node, str):
                if joined and isinstance(joined[-1], str):
                    joined[-1] += node
                    self.used["split-text"] += 1
                elif node:
                    joined.append(node)
            else:
                joined.append(self._element(node, keep))
        return joined if keep else self._spaces(joined, block)

    def _without_bridges(self, nodes: Tree) -> Tree:
        """The nodes with the content of bridges in the place of their elements."""
        found: Tree = []
        for node in nodes:
            if isinstance(node, list) and BRIDGE in node[1]:
                self.used["bridge-element"] += 1
                found += self._without_bridges(node[3])
            else:
                found.append(node)
        return found

    def _spaces(self, nodes: Tree, block: bool) -> Tree:
        result: Tree = []
        for at, node in enumerate(nodes):
            if not isinstance(node, str):
                result.append(node)
                continue
            text = self._shown(re.sub(r"[ \t\n\r\f]+", " ", node))
            before = nodes[at - 1] if at else None
            after = nodes[at + 1] if at + 1 < len(nodes) else None
            if (before is None and block) or _is_block(before):
                text = text.lstrip(" ")
            if (after is None and block) or _is_block(after):
                text = text.rstrip(" ")
            if text != node:
                self.used["white-space"] += 1
            if text:
                result.append(text)
        return result

    def _shown(self, text: str) -> str:
        """A text of the page, without the engine's words for an error."""
        if "annot " not in text and " is not " not in text:
            return text
        result, count = _SHOWN.subn("an error of the engine", text)
        self.used["error-shown"] += count
        return result

    def _element(self, node: list[Any], keep: bool) -> list[Any]:
        name, attributes, state, children = node
        kept: dict[str, str] = {}
        for key, value in attributes.items():
            if any(key == m or (m.endswith("*") and key.startswith(m[:-1])) for m in self.marks):
                self.used["scope-mark"] += 1
                continue
            if key == "style" and self.across and not value.strip():
                self.used["empty-style"] += 1
                continue
            emptied = self.across or self.empties_classes
            if key == "class" and (emptied or self.lifted) and not value.strip():
                self.used["empty-class" if emptied else "lifted-class"] += 1
                continue
            if self.across and key == "value" and value == "on" and name == "input":
                if attributes.get("type") in ("checkbox", "radio"):
                    self.used["value-on"] += 1
                    continue
            if key in _STATE_ATTRIBUTES.get(name, ()) and state is not None:
                if key in state or "checked" not in state:
                    self.used["form-state"] += 1
                    continue
            if key == _STYLE_AS_SET:
                continue
            if (
                key == "style"
                and _STYLE_AS_SET in attributes
                and without_spaces(value) not in self.styles
            ):
                self.used["style-spelling"] += value != attributes[_STYLE_AS_SET]
                value = attributes[_STYLE_AS_SET]
                if not value:
                    # No declaration of the text is one of CSS.
                    continue
            elif self.imported and value[:1] == "." and key in _IMPORTED.get(name, ()):
                value = self._bundled(value)
            kept[key] = self._value(key, value)
        if name == "textarea" and state is not None and children:
            self.used["form-state"] += 1
            children = []
        inner = self._children(
            children,
            block=name in BLOCKS
            or name in ("button", "legend", "label-block")
            or _is_svg_part(name),
            keep=keep or name in _KEEP_SPACE,
        )
        return [name, dict(sorted(kept.items())), state, inner]

    def _bundled(self, value: str) -> str:
        """The path that the bundler gives a file of the page, if the component imports that file."""
        path, mark, part = value.partition("#")
        file = posixpath.normpath(posixpath.join(self.folder, path))
        if file not in self.imported:
            return value
        self.used["asset-path"] += 1
        return f"/{posixpath.basename(file)}{mark}{part}"

    def _value(self, key: str, value: str) -> str:
        result = value
        rule = ""
        if key == "class":
            result, rule = " ".join(sorted(dict.fromkeys(value.split()))), "class-order"
        elif key in _BOOLEAN:
            result, rule = "", "boolean-attribute"
        elif key == "style":
            result, rule = without_spaces(value), "style-spacing"
        elif _FUNCTION.match(value):
            result, rule = "a function", "function-source"
        elif key in _REFERENCES:
            result, rule = " ".join(self._id(word) for word in value.split(" ")), "made-up-id"
        if result != value:
            self.used[rule] += 1
        return result

    def _id(self, word: str) -> str:
        if not _MADE_UP.match(word):
            return word
        return self._ids.setdefault(word, f"made-up-{len(self._ids) + 1}")


def without_spaces(style: str) -> str:
    """A style attribute without spaces and semicolons that mean nothing."""
    parts = (re.sub(r"\s*([:,])\s*", r"\1", part.strip()) for part in style.split(";"))
    return ";".join(part for part in parts if part)


def styles_in(tree: Tree) -> Iterator[str]:
    """The style attributes of a tree, without spaces that mean nothing."""
    for node in tree:
        if isinstance(node, list):
            if "style" in node[1]:
                yield without_spaces(node[1]["style"])
            yield from styles_in(node[3])


def _is_block(node: Any) -> bool:
    if not isinstance(node, list):
        return False
    return node[0] in BLOCKS or node[0] == "br" or (node[0] != "svg:svg" and _is_svg_part(node[0]))


def _is_svg_part(name: str) -> bool:
    """Whether an element is a part of an SVG image that shows no text (SVG 2, "Text")."""
    return name.startswith("svg:") and name not in _SVG_TEXT
