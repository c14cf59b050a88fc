"""Normalising trees of the scope-and-digest runtime, whose page keeps the template's own attributes.

Directives of a template stay in the page as attributes: old and new have the same by other names.
"""

from __future__ import annotations

import re
from typing import Any

from clean_carry.syntaxes.scoped_template.directives import KINDS, dashed, normalised
from clean_carry.syntaxes.scoped_template.meaning import is_plain
from clean_carry.verify.normalise import Normaliser

_MARKS = frozenset({"ng-scope", "ng-isolate-scope", "ng-binding"})
_READ = frozenset({"value", "statement", "target", "loop", "options", "form"})
_CONTROLLER = "$ctrl"
_ROUNDS = "Error: [$rootScope:infdig]"
# How a trial itself gives a value to the element it mounts.
_OF_TRIAL = "given['"


class ScopedNormaliser(Normaliser):
    """Applies the rules of this runtime before all others.

    `replaced` are names of directives whose template replaced their element; `aliases` names that
    templates call a controller by.
    """

    def __init__(self, replaced: tuple[str, ...], aliases: tuple[str, ...]) -> None:
        super().__init__()
        self.replaced = frozenset(dashed(name) for name in replaced)
        names = "|".join(re.escape(name) for name in (_CONTROLLER, *aliases))
        self._asked = re.compile(rf"(?<![\w$.-])(?:{names})\.")

    def place(self, path: str) -> str:
        """A place without the elements that stay around their templates."""
        parts = path.split("/")
        kept = [part for part in parts if part.partition("[")[0] not in self.replaced]
        self.used["element-stays"] += len(kept) < len(parts)
        return "/".join(kept)

    def errors(self, errors: list[str]) -> list[str]:
        """Errors without what they quote of the template, and without the address of their explanation.

        Of one that counts the rounds of a digest only its first line: the others list the last expressions
        and values as text, as many as there is room for.
        """
        plain = [self._asked.sub("", error.split("\nhttp")[0]) for error in errors]
        plain = [e.split("\n")[0] if e.startswith(_ROUNDS) else e for e in plain]
        self.used["error-wording"] += sum(a != b for a, b in zip(plain, errors, strict=True))
        return super().errors(plain)

    def _element(self, node: list[Any], keep: bool) -> list[Any]:
        return super()._element(self._inside(self._own(node)), keep)

    def _own(self, node: list[Any]) -> list[Any]:
        """An element without what only its runtime reads."""
        name, attributes, state, children = node
        kept: dict[str, str] = {}
        for key, value in attributes.items():
            base = normalised(key).removesuffix("Start")
            if not value and (key == name or key in self.replaced):
                self.used["used-as-attribute"] += 1
                continue
            if KINDS.get(base) in _READ or value.startswith(_OF_TRIAL):
                self.used["template-expression"] += 1
                continue
            kept[key] = value
            if key == "class":
                words = [word for word in value.split() if word not in _MARKS]
                if len(words) < len(value.split()):
                    self.used["runtime-marks"] += 1
                kept[key] = " ".join(words)
                if not words:
                    del kept[key]
            elif (self._is_read(name, key, base) or "{{" in value) and self._asked.search(value):
                kept[key] = self._asked.sub("", value)
                self.used["template-expression"] += 1
        return [name, kept, state, children]

    @staticmethod
    def _is_read(tag: str, key: str, base: str) -> bool:
        """Whether the runtime may read an attribute: it is none of the page's, or the name of a form."""
        return not is_plain(base) or (key == "name" and tag in ("form", "ng-form"))

    def _inside(self, node: list[Any]) -> list[Any]:
        """An element that stays around the template, as the template's root that took its place.

        Attributes are put together as the runtime does where it replaces (its `mergeTemplateAttributes`).
        """
        name, attributes, _, children = node
        if name not in self.replaced:
            return node
        inner = [c for c in children if isinstance(c, list)]
        texts = [c for c in children if isinstance(c, str) and c.strip()]
        if len(inner) != 1 or texts:
            return node
        self.used["element-stays"] += 1
        tag, own, state, content = self._own(inner[0])
        merged = dict(own)
        for key, value in attributes.items():
            before = own.get(key)
            if key == "class":
                merged[key] = f"{before or ''} {value}".strip()
            elif key == "style" and before:
                merged[key] = f"{value};{before}"
            elif before and before != value and value:
                merged[key] = f"{value} {before}"
            else:
                merged[key] = value
        return self._inside([tag, merged, state, content])
