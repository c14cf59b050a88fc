"""Normalising trees of decorated classes, each of which has an element of its own in the page."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from clean_carry.verify.normalise import Normaliser, Tree

# The adapter marks elements to which the component binds something; those stand for a `div` elsewhere.
_BOUND = "trial-host"
# Classes by which the runtime's forms say what has happened to a field.
_OF_FORMS = frozenset(
    "ng-untouched ng-touched ng-pristine ng-dirty ng-valid ng-invalid ng-pending ng-submitted".split()
)


class CheckedNormaliser(Normaliser):
    """Applies the rule for views that are checked again and again, and fail each time."""

    def errors(self, errors: list[str]) -> list[str]:
        """The errors, each once; a listener's failure is reported between two checks."""
        made = super().errors(errors)
        once = sorted(set(made))
        self.used["checked-again"] += once != made
        return once


class DecoratedNormaliser(Normaliser):
    """Applies the rules of this runtime before all others, where the other side runs in another one.

    `bound` are the names of elements to which something is bound, as far as they were seen.
    """

    bound: frozenset[str] = frozenset()

    def place(self, path: str) -> str:
        """A place without the elements that only hold a component."""
        parts = [
            f"div[{part.partition('[')[2]}" if part.partition("[")[0] in self.bound else part
            for part in path.split("/")
        ]
        kept = [part for part in parts if "-" not in part.partition("[")[0]]
        self.used["host-element"] += len(kept) < len(parts)
        return "/".join(kept)

    def tree(self, tree: Tree) -> Tree:
        """A normalised copy of a tree."""
        return super().tree(list(self._without_hosts(tree)))

    def _without_hosts(self, nodes: list[Any]) -> Iterator[Any]:
        """Nodes, those of a component's own element in its place."""
        for node in nodes:
            if node is None or isinstance(node, str):
                yield node
                continue
            name, attributes, state, children = node
            inner = list(self._without_hosts(children))
            if "-" in name and not name.startswith("trial-"):
                self.used["host-element"] += 1
                if _BOUND not in attributes:
                    yield from self._passed_on(attributes, inner)
                    continue
                self.bound |= {name}
                words = f"{attributes.get('class', '')} {name}"
                attributes = {**attributes, "class": words}
                attributes.pop(_BOUND, None)
                name = "div"
            if "class" in attributes and "ng-" in attributes["class"]:
                attributes = self._without_forms(attributes)
            yield [name, attributes, state, inner]

    def _passed_on(self, attributes: dict[str, str], inner: list[Any]) -> list[Any]:
        """The content of an element, whose attributes another runtime gives its root, if it has one."""
        own = {
            name: value
            for name, value in attributes.items()
            if not any(name == m or (m[-1] == "*" and name.startswith(m[:-1])) for m in self.marks)
        }
        roots = [at for at, one in enumerate(inner) if one is not None and not isinstance(one, str)]
        if not own or len(roots) != 1:
            return inner
        name, kept, state, children = inner[roots[0]]
        words = " ".join(one for one in (kept.get("class"), own.get("class")) if one)
        merged = {**kept, **own, **({"class": words} if words else {})}
        return [*inner[: roots[0]], [name, merged, state, children], *inner[roots[0] + 1 :]]

    def _without_forms(self, attributes: dict[str, str]) -> dict[str, str]:
        words = attributes["class"].split()
        kept = [word for word in words if word not in _OF_FORMS]
        if len(kept) == len(words):
            return attributes
        self.used["runtime-marks"] += 1
        rest = {name: value for name, value in attributes.items() if name != "class"}
        return {**rest, "class": " ".join(kept)} if kept else rest
