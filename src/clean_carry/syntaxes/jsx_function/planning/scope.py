"""The one scope that members, inputs and locals meet in, and how a name is picked that is clear in it."""

from __future__ import annotations

from clean_carry.component.model import Component
from clean_carry.source.javascript.script_style import RESERVED
from clean_carry.source.javascript.values import is_identifier


class Scope:
    """The names that are taken, and the locals at each place; those of vanishing patterns do not count."""

    def __init__(self, component: Component, hook_names: frozenset[str]) -> None:
        self.taken = set(RESERVED) | set(component.facts.reserved) | set(hook_names)
        self.locals_at = component.facts.locals_at
        self.drawing_locals = component.view.locals
        self.vanished: set[tuple[str, int]] = set()

    def clear(self, name: str, sites: list[int], strict: bool = True) -> bool:
        """Whether a name hides nothing, and nothing hides it, where it is used."""
        if (strict and name in self.taken) or not is_identifier(name):
            return False
        if any(key == name and (key, at) not in self.vanished for key, at in self.drawing_locals):
            return False
        return not any(
            key == name and (key, at) not in self.vanished
            for site in sites
            for key, at in self.locals_at.get(site, ())
        )

    def pick(
        self, wishes: list[str], sites: list[int], beside: frozenset[str] = frozenset()
    ) -> str:
        """The first wish that is clear, else the last one with a number.

        `beside` are names declared in the scope it is used in, which none of its uses tells of.
        """
        number = 2
        if not is_identifier(wishes[-1]):
            raise ValueError(f"no name can be made of {wishes}")
        candidates = list(wishes)
        while True:
            for wish in candidates:
                if wish not in beside and self.clear(wish, sites):
                    self.taken.add(wish)
                    return wish
            candidates = [f"{wishes[-1]}{number}"]
            number += 1


def identifier(name: str) -> str:
    """A name as an identifier: `aria-label` becomes `ariaLabel`."""
    plain = "".join(sign if is_identifier(f"a{sign}") else "-" for sign in name)
    head, *rest = [part for part in plain.split("-") if part] or ["value"]
    head = head if is_identifier(head) else f"value{head}"
    return head + "".join(part[:1].upper() + part[1:] for part in rest)


def capital(name: str) -> str:
    """A name that begins with a capital, signs before it left out."""
    plain = name.lstrip("_$#") or name
    return plain[:1].upper() + plain[1:]
