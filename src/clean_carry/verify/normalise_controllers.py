"""Normalising trees of the scope-and-digest runtime where the other side runs in another one.

Its page keeps the template's own attributes, marks of its own, and an element around each template.
"""

from __future__ import annotations

import re
from collections.abc import Iterator
from typing import Any

from clean_carry.syntaxes.scoped_template.directives import normalised
from clean_carry.verify.normalise import Tree
from clean_carry.verify.normalise_decorated import DecoratedNormaliser

# Classes of the runtime itself: of scopes and bindings, of hidden elements, and of the state of forms.
_MARK = re.compile(
    r"ng-(?:scope|isolate-scope|binding|hide|pristine|dirty|touched|untouched|submitted|pending"
    r"|(?:not-)?empty|(?:in)?valid(?:-[\w-]+)?)"
)
_HIDDEN = "ng-hide"
# The arguments of a call for a value that is bound to nothing any more.
_LOST = [{"$": "undefined"}]
# How a trial itself gives values and functions to the element it mounts.
_OF_TRIAL = re.compile(r"given\[|\$locals|kin\.")
_OWN = re.compile(r"(?:data-|x-)?ng[-A-Z]|on$")


class ControllerNormaliser(DecoratedNormaliser):
    """Applies the rules of this runtime before those for elements around templates."""

    def tree(self, tree: Tree) -> Tree:
        """A normalised copy of a tree."""
        return super().tree(list(self._plain(tree)))

    def unchecked(self, calls: list[Any]) -> list[Any]:
        """The calls, without those by which the trial's own scope tells that it lost a value."""
        kept = [one for one in calls if not (str(one[0]).endswith(" is set") and one[1:] == _LOST)]
        self.used["template-expression"] += len(calls) - len(kept)
        return super().unchecked(kept)

    def _passed_on(self, attributes: dict[str, str], inner: list[Any]) -> list[Any]:
        """The content of an element, whose attributes are its bindings."""
        return inner

    def _plain(self, nodes: list[Any]) -> Iterator[Any]:
        """Nodes without what only the runtime reads."""
        for node in nodes:
            if not isinstance(node, list):
                yield node
                continue
            name, attributes, state, children = node
            yield [name, self._attributes(attributes), state, list(self._plain(children))]

    def _attributes(self, attributes: dict[str, str]) -> dict[str, str]:
        kept: dict[str, str] = {}
        for key, value in attributes.items():
            own = _OWN.match(key) or normalised(key).startswith("ng")
            if own or _OF_TRIAL.search(value):
                self.used["template-expression"] += 1
            else:
                kept[key] = value
        words = kept.get("class", "").split()
        plain = [word for word in words if not _MARK.fullmatch(word)]
        if len(plain) < len(words):
            self.used["runtime-marks"] += 1
            if _HIDDEN in words:
                # The stylesheet of the runtime hides elements of this class.
                self.used["hidden-by-class"] += 1
                kept["style"] = f"{kept.get('style', '')} display: none;".strip()
            kept["class"] = " ".join(plain)
            if not plain:
                del kept["class"]
        return kept
