"""Normalising trees of decorated classes, each of which has an element of its own in the page."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator, Mapping
from types import MappingProxyType
from typing import Any

from clean_carry.verify.normalise import Normaliser, Tree

# The adapter marks elements to which the component binds something; those stand for a `div` elsewhere.
_BOUND = "trial-host"
# The path of the page, before the place of an element outside of the first instance.
_PAGE = "html[1]/body[1]/"
# The element around a second instance of the component.
_INSTANCE = "trial-place"
# Classes by which the runtime's forms say what has happened to a field.
_OF_FORMS = frozenset(
    "ng-untouched ng-touched ng-pristine ng-dirty ng-valid ng-invalid ng-pending ng-submitted".split()
)


def _is_host(name: str) -> bool:
    return "-" in name and not name.startswith("trial-")


class CheckedNormaliser(Normaliser):
    """Applies the rule for views that are checked again and again, and fail each time."""

    empties_classes = True

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
    # Elements of the tree that came last: the place of each, and its place without the hosts around it.
    _places: Mapping[str, str] = MappingProxyType({})

    def place(self, path: str) -> str:
        """A place without the elements that only hold a component, numbered as without them."""
        outer = _PAGE if path.startswith(_PAGE) else ""
        inner = path[len(outer) :]
        if inner in self._places:
            self.used["host-element"] += self._places[inner] != inner
            return f"{outer}{self._places[inner]}"
        parts = [
            f"div[{part.partition('[')[2]}" if part.partition("[")[0] in self.bound else part
            for part in path.split("/")
        ]
        kept = [part for part in parts if "-" not in part.partition("[")[0]]
        self.used["host-element"] += len(kept) < len(parts)
        return "/".join(kept)

    def tree(self, tree: Tree) -> Tree:
        """A normalised copy of a tree."""
        without = list(self._without_hosts(tree))
        places: dict[str, str] = {}
        self._number(tree, ("", ""), Counter(), places)
        self._places = places
        return super().tree(without)

    def _number(
        self,
        nodes: list[Any],
        inside: tuple[str, str],
        counts: Counter[str],
        places: dict[str, str],
    ) -> None:
        """Note the places of elements `inside` of a place, as it is and without hosts; `counts` are the
        elements so far in the second one."""
        path, without = inside
        own: Counter[str] = Counter()
        for node in nodes:
            if node is None or isinstance(node, str):
                continue
            name, attributes, _, children = node
            own[name] += 1
            if name == _INSTANCE:
                # It stands beside the first instance, both in an element that holds the trial.
                stands = f"div[1]/div[{own[name] + 1}]/"
                self._number(children, (stands, stands), Counter(), places)
                continue
            place = f"{path}{name}[{own[name]}]"
            if _is_host(name) and _BOUND not in attributes:
                self._number(children, (f"{place}/", without), counts, places)
                continue
            shown = "div" if _is_host(name) else name
            counts[shown] += 1
            places[place] = f"{without}{shown}[{counts[shown]}]"
            self._number(children, (f"{place}/", f"{places[place]}/"), Counter(), places)

    def _without_hosts(self, nodes: list[Any]) -> Iterator[Any]:
        """Nodes, those of a component's own element in its place."""
        for node in nodes:
            if node is None or isinstance(node, str):
                yield node
                continue
            name, attributes, state, children = node
            inner = list(self._without_hosts(children))
            if _is_host(name):
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
