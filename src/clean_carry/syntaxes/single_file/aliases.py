"""Rows of a list under other names: where they are changed in place, the field that holds the list is
changed.

`<li v-for="line in lines" @click="line.count++">` changes what `lines` holds; so does a method that is
called with `line`, and a constant that was taken from the field. Where a name cannot be followed to a
field, the component is left to a person.
"""

from __future__ import annotations

import re
from collections import Counter
from dataclasses import dataclass, field
from functools import cached_property

from clean_carry.source.javascript.scope import Binding
from clean_carry.source.javascript.tree import Node
from clean_carry.source.template.tree import TemplateNode
from clean_carry.syntaxes.single_file.changes import changed_names, note_change
from clean_carry.syntaxes.single_file.expressions import TemplateCode
from clean_carry.syntaxes.single_file.members import Members
from clean_carry.syntaxes.uses import Uses

_FRESH = frozenset("object array new_expression arrow_function function_expression".split())
Roots = frozenset[str] | None


@dataclass
class Aliases:
    """Follows the names of one component; `given` are the fields behind what methods are called with, None
    where one is not followed. `template` are the changes in the template: (the place, the field)."""

    uses: Uses
    members: Members
    code: TemplateCode | None
    methods: dict[str, Node]
    given: dict[tuple[str, int], Roots] = field(default_factory=dict)
    template: list[tuple[Node, str]] = field(default_factory=list)
    rows: dict[int, frozenset[str]] = field(default_factory=dict)

    def follow(self, nodes: list[TemplateNode]) -> None:
        """Follow the names the template gives, then those of the script."""
        for node in nodes:
            self._element(node, {})
        for name, method in self.methods.items():
            self._method(name, method)

    # -- the template ---------------------------------------------------------------------------

    def _element(self, node: TemplateNode, known: dict[str, Roots]) -> None:
        if node.kind != "element" or self.code is None:
            return
        inside = dict(known)
        loop = node.attribute("v-for")
        if loop is not None and loop.value is not None:
            function = self.code.loops.get(loop.value[0])
            body = function.child("body") if function is not None else None
            parameters = function.child("parameters") if function is not None else None
            roots = self._roots(body, inside) if body is not None else None
            for part in parameters.named_children if parameters is not None else []:
                for name in part.walk():
                    if name.type in ("identifier", "shorthand_property_identifier_pattern"):
                        inside[name.text] = roots
        for attribute in node.attributes:
            if attribute.value is None:
                continue
            at = attribute.value[0]
            for statement in self.code.handlers.get(at, ()):
                self._handler(statement, inside)
            value = self.code.values.get(at)
            if value is not None and attribute.name.startswith("v-model"):
                self._bound(value, inside)
        for child in node.children:
            self._element(child, inside)

    def _handler(self, statement: Node, known: dict[str, Roots]) -> None:
        for name, ref in changed_names(statement, self.uses.names):
            if name in known:
                self._changed(ref, known[name])
        for call in statement.walk():
            callee, arguments = call.child("function"), call.child("arguments")
            if call.type != "call_expression" or callee is None or arguments is None:
                continue
            if callee.text not in self.methods:
                continue
            for at, given in enumerate(arguments.named_children):
                base = _base(given)
                if base is not None and base.text in known:
                    self._give(callee.text, at, known[base.text])
                elif base is not None and base.text in self.members.state:
                    self._give(callee.text, at, frozenset({base.text}))

    def _bound(self, value: Node, known: dict[str, Roots]) -> None:
        base = _base(value)
        if base is None or base is value:
            return
        roots = known.get(base.text)
        if base.text in self.members.state:
            roots = frozenset({base.text})
        if roots is None:
            self.members.kept_only("alias-not-followed", value.text[:40], value.start)
        else:
            self.rows[value.start] = roots

    def _give(self, method: str, at: int, roots: Roots) -> None:
        before = self.given.get((method, at), frozenset())
        self.given[(method, at)] = (
            before | roots if before is not None and roots is not None else None
        )

    def _changed(self, ref: Node, roots: Roots) -> None:
        if not roots:
            self.members.kept_only("alias-not-followed", ref.text, ref.start)
        else:
            self.template += [(ref, root) for root in sorted(roots)]

    def _roots(self, items: Node, known: dict[str, Roots]) -> Roots:
        """The fields whose rows a list gives; None where it is not seen."""
        found: set[str] = set()
        for below in items.walk():
            if below.type != "identifier":
                continue
            name = below.text
            if name in known:
                roots = known[name]
                if roots is None:
                    return None
                found |= roots
            elif name in self.members.state:
                found.add(name)
            elif name in self.members.derived or name in self.members.methods:
                found |= self._behind(name)
        return frozenset(found) if found else None

    def _behind(self, name: str) -> set[str]:
        """The fields that a derived value, or a method, names."""
        node = self.members.initial.get(name) or self.methods.get(name)
        text = node.text if node is not None else self._derived_text(name)
        return set(re.findall(r"\bthis\.([\w$]+)", text)) & self.members.state

    def _derived_text(self, name: str) -> str:
        for node in self.uses.tree.of("method_definition", "pair"):
            key = node.child("name") or node.child("key")
            if key is not None and key.text == name:
                return node.text
        return ""

    # -- the script -----------------------------------------------------------------------------

    def _method(self, name: str, method: Node) -> None:
        for _, ref in changed_names(method, self.uses.names):
            binding = self.uses.names.meaning(ref)
            if binding is None or not method.start <= binding.node.start < method.end:
                continue
            roots = self._of_binding(name, method, binding)
            if roots is None:
                self.members.kept_only("alias-not-followed", ref.text, ref.start)
            for root in sorted(roots or ()):
                note_change(self.uses, ref, root)

    @cached_property
    def _heard(self) -> set[str]:
        """Methods that are only called with events of the page: no row of a list comes with one."""
        listening = set(re.findall(r"addEventListener\([^,()]+,\s*this\.([\w$]+)", self._script))
        named = re.findall(r"\bthis\.([\w$]+)", self._script)
        for name, count in Counter(named).items():
            ending = len(
                re.findall(rf"EventListener\([^,()]+,\s*this\.{re.escape(name)}\b", self._script)
            )
            if name in listening and (count != ending or name in self._named_drawn):
                listening.discard(name)
        return listening

    @cached_property
    def _script(self) -> str:
        return self.uses.tree.root.text

    @cached_property
    def _named_drawn(self) -> set[str]:
        return {one.node.text for one in self.code.used} if self.code is not None else set()

    def _of_binding(self, name: str, method: Node, binding: Binding) -> Roots:
        if binding.kind == "param":
            parameters = method.child("parameters")
            own = [p.child("pattern") or p for p in parameters.named_children] if parameters else []
            for at, part in enumerate(own):
                if part.start <= binding.node.start < part.end:
                    heard = at == 0 and name in self._heard
                    return self.given.get((name, at), frozenset() if heard else None)
            # A callback's own: what it goes through is named before it.
            call = next((up for up in binding.node.up() if up.type == "call_expression"), None)
            return self._named(call.text) if call is not None else None
        declared = binding.node.parent
        value = declared.child("value") if declared is not None else None
        while value is not None and value.type in ("await_expression", "parenthesized_expression"):
            value = value.named_children[0]
        if value is None and declared is not None and declared.type == "for_in_statement":
            value = declared.child("right")
        if value is None or value.type in _FRESH:
            return frozenset()
        found = self._named(value.text)
        return found if found else frozenset()

    def _named(self, text: str) -> frozenset[str]:
        fields = set(re.findall(r"\bthis\.([\w$]+)", text))
        found = fields & self.members.state
        for name in fields & (self.members.derived | self.members.methods):
            found |= self._behind(name)
        return frozenset(found)


def _base(node: Node) -> Node | None:
    """The name an access begins with."""
    here = node
    while here.type in ("member_expression", "subscript_expression", "non_null_expression"):
        here = here.children[0]
    return here if here.type == "identifier" else None
