"""Every use of a scope and of a required controller in code, spelled as one of the component's instance."""

from __future__ import annotations

from collections.abc import Iterable

from clean_carry.component.fragment import new
from clean_carry.source.javascript.scope import is_write
from clean_carry.source.javascript.tree import Node
from clean_carry.source.template.expression import NameUse
from clean_carry.syntaxes.controller_component.controller_arguments import (
    HANDED,
    Giving,
    plain_name,
)
from clean_carry.syntaxes.scoped_template.inherited_scope import found_by_children
from clean_carry.syntaxes.scoped_template.instance_passed_on import Unfollowed, follow
from clean_carry.syntaxes.scoped_template.model import CONTROLLER, NotRead
from clean_carry.syntaxes.scoped_template.registrations import parameters_of, plain
from clean_carry.syntaxes.scoped_template.scope_uses import ScopeUse, escaped_offsets

# Methods of a wrapped element that go to what is around it, or put something there.
_AROUND = frozenset(
    "parent parents closest after before next prev siblings wrap insertAfter insertBefore replaceWith "
    "remove detach".split()
)


class Spelling(Giving):
    """Spells the uses in the code of one directive."""

    def check(self) -> None:
        """Raise `NotRead` for what a component cannot hold, before anything is written."""
        for use in self.directive.scope.uses:
            if use.kind == "escape":
                self._follow(use)
            if use.kind == "parent" and not self.directive.isolated:
                raise NotRead("scope-around", use.ref.text, use.ref.start)
        own = {*self.directive.scope.members(), *self.directive.bindings}
        for node in self.directive.instance.listed if own else ():
            raise NotRead("instance-listed", (node.parent or node).text[:60], node.start)
        for node, what in self.directive.scope.unread:
            if self.directive.isolated or not _is_attribute(node):
                raise NotRead("scope-expression-unread", f"{node.text[:60]} ({what})", node.start)
        if not self.directive.isolated:
            self._not_isolated()
        self._children_apart()
        if self._root:
            self._root_alone()

    def _root_alone(self) -> None:
        """Raise `NotRead` where code goes from the template's root to what is around it: that is the
        element now, and was the page."""
        elements = [p for _, f in self.directive.links for p in parameters_of(f)[1:2]]
        elements += [
            i.parameter
            for i in self.directive.controller.injections
            if i.name == "$element" and i.parameter is not None
        ]
        queue = [self.js.scope_at(node).find(node.text) for node in elements]
        seen: set[int] = set()
        while queue:
            binding = queue.pop()
            if binding is None or binding.node.start in seen:
                continue
            seen.add(binding.node.start)
            for ref in binding.references:
                asked = ref.parent.child("property") if ref.parent is not None else None
                if ref.field == "object" and asked is not None and asked.text in _AROUND:
                    raise NotRead("element-around", f"{ref.text}.{asked.text}", ref.start)
                value: Node = ref
                while value.parent is not None and value.parent.type == "assignment_expression":
                    value = value.parent
                holder = value.parent
                name = holder.child("name") if holder is not None else None
                if holder is not None and holder.type == "variable_declarator" and name is not None:
                    queue.append(self.js.scope_at(holder).find(name.text))

    def _children_apart(self) -> None:
        """Raise `NotRead` where directives of the template find this one's names in the scope around."""
        members = {*self.directive.scope.members(), *self.directive.bindings}
        if self.file.meaning is None or not members:
            return
        elements = {e for _, found in self.directive.templates for e in found.elements}
        children = found_by_children(elements - {self.directive.name}, members, self.file.meaning)
        for name, taken in children:
            detail = f"{name} ({', '.join(taken)})"
            raise NotRead("child-inherits", detail, self.definition.registration.at)

    def _follow(self, use: ScopeUse) -> None:
        """A scope that is passed to a required controller: what is asked of it there must be known."""
        where = use.where.text.split("\n")[0][:60] if use.where is not None else use.ref.text
        call = use.where.parent if use.where is not None and use.where.type == "arguments" else None
        function = call.child("function") if call is not None else None
        receiver = plain(function.child("object")) if function is not None else None
        required = self._required_of(receiver) if receiver is not None else None
        if call is None or required is None:
            raise NotRead("scope-handed-on", where, use.ref.start)
        try:
            self.handed_on.append(
                follow(self.file.registrations, required, self.definition.name, call, use.ref)
            )
        except Unfollowed:
            raise NotRead("scope-handed-on", where, use.ref.start) from None

    def _required_of(self, receiver: Node) -> str | None:
        """The directive whose controller an expression of a link function stands for."""
        for _, function in self.directive.links:
            taken = parameters_of(function)
            binding = self.js.meaning(receiver) if receiver.type == "identifier" else None
            if len(taken) < 4 or binding is None:
                continue
            if binding.node is taken[3] and len(self.directive.required) == 1:
                return plain_name(self.directive.required[0][0])
            value = binding.node.parent.child("value") if binding.node.parent is not None else None
            index = (
                value.child("index")
                if value is not None and value.type == "subscript_expression"
                else None
            )
            whole = value.child("object") if index is not None and value is not None else None
            held = self.js.meaning(whole) if whole is not None else None
            if (
                index is not None
                and held is not None
                and held.node is taken[3]
                and index.text.isdigit()
            ):
                if int(index.text) < len(self.directive.required):
                    return plain_name(self.directive.required[int(index.text)][0])
        return None

    def _not_isolated(self) -> None:
        """A scope that inherits: what it takes from the scope around becomes bindings, one way in.

        A field it writes must be its own from the start: a scope of its own, and each name given a value
        when it is linked. Raises `NotRead` else.
        """
        at = self.definition.registration.at
        code = self.directive.scope.members()
        used = {**dict.fromkeys(self.directive.template_names(), False), **code}
        written = {
            name.name
            for _, found in self.directive.templates
            for name in found.names
            if name.written and not name.path and name.up == name.level
        }
        own = {name for name in used if code.get(name) or name in written}
        shared = not self.definition.true("scope")
        unsure = sorted(own) if shared else sorted(n for n in own if not self._given(n))
        if unsure:
            raise NotRead("scope-inherits", ", ".join(unsure), at)
        if shared and any(use.name == "$broadcast" for use in self.directive.scope.uses):
            raise NotRead("scope-inherits", "$broadcast", at)
        self.outer = sorted(name for name in used if name not in own)

    def _given(self, name: str) -> bool:
        """Whether a name is given a value by a statement that always runs when the directive is made."""
        functions = [function for _, function in self.directive.links]
        if self.directive.controller.function is not None:
            functions.append(self.directive.controller.function)
        bodies = {body.start for f in functions if (body := f.child("body")) is not None}
        for use in self.directive.scope.uses:
            if use.kind != "member" or use.name != name or not use.written or use.where is None:
                continue
            assignment = use.where.parent
            statement = assignment.parent if assignment is not None else None
            block = statement.parent if statement is not None else None
            plain_write = assignment is not None and assignment.type == "assignment_expression"
            if plain_write and block is not None and block.start in bodies:
                return True
        return False

    def _scope(self) -> None:
        """Every use of the scope is spelled as one of the instance, or of the injected scope."""
        for assignment in self.members.twice:
            if self._is_done(assignment):
                continue
            value = assignment.child("right")
            assert value is not None
            self.edits.spell(assignment.start, value.start, "", "scope-member", "member-twice")
        dropped = [(n.start, n.child("right").start) for n in self.members.twice]  # type: ignore[union-attr]
        for use in self.directive.scope.uses:
            at = use.ref.start
            if not any(low <= at < high for low, high in dropped) and not self._is_done(use.ref):
                self._use(use)
        for literal, uses in self.directive.scope.expressions:
            if not self._is_done(literal):
                self._expression(literal, uses)
        for handed in self.handed_on:
            for node in handed.asked:
                if not self.edits.has(node.end, node.end):
                    self.edits.put(node.end, node.end, new(f".{HANDED}"))

    def _use(self, use: ScopeUse) -> None:
        ref, instance = use.ref, self.instance_at(use.ref)
        match use.kind:
            case "member":
                assert use.where is not None
                name = self.members.of(use.name)
                renamed = name != use.name
                end = use.where.end if renamed else ref.end
                text = f"{instance}.{name}" if renamed else instance
                rule = "member-renamed" if renamed else "scope-member"
                self.edits.spell(ref.start, end, text, "scope-member", rule)
            case "computed" | "fill":
                if self.members.renamed:
                    shown = use.where.text[:60] if use.where else ""
                    raise NotRead("scope-handed-on", shown, ref.start)
                rule = f"scope-{use.kind}"
                self.edits.spell(ref.start, ref.end, instance, "scope-member", rule)
            case "alias":
                self._alias_gone(ref, use.where)
            case "own" | "parent":
                self._own(ref, use.name, self.handed.services.get("$scope", "$scope"))
            case "escape" | "compared":
                rule = "controller-handed-on"
                self.edits.spell(ref.start, ref.end, instance, "scope-use", rule)

    def _alias_gone(self, ref: Node, declarator: Node | None) -> None:
        """A name that stood for the scope: each of its uses is spelled by itself, so that it can go."""
        statement = declarator.parent if declarator is not None else None
        if statement is not None and len(statement.named_children) == 1:
            start, end, _ = self.source.statement_line(statement.start, statement.end)
            self.edits.spell(start, end, "", "scope-alias", "receiver-alias", "dropped")
            return
        self.edits.spell(ref.start, ref.end, self.instance_at(ref), "scope-use", "scope-member")

    def _own(self, ref: Node, name: str, scope_name: str) -> None:
        """Read members of the framework from the injected scope."""
        shared = self.sharing is not None and self._in_controller(ref)
        text = scope_name if not shared else ref.text
        if not self.directive.isolated and name in ("$eval", "$watch", "$watchCollection"):
            # Texts of attributes are meant for the scope around, which was this one.
            call = ref.parent.parent if ref.parent is not None else None
            given = (
                call.child("arguments")
                if call is not None and call.type == "call_expression"
                else None
            )
            first = (
                plain(given.named_children[0])
                if given is not None and given.named_children
                else None
            )
            if first is not None and _is_attribute(first):
                text = f"{scope_name}.$parent"
        if text != ref.text:
            meaning = self.js.scope_at(ref).find(scope_name)
            own = {b.node.start for b in self.directive.scope.bindings}
            if (
                meaning is not None
                and meaning.node.start not in own
                and meaning.scope.node is not self.js.module.node
            ):
                raise NotRead("names-meet", scope_name, ref.start)
            self.edits.spell(ref.start, ref.end, text, "scope-use", "scope-injected")

    def _expression(self, literal: Node, uses: Iterable[NameUse]) -> None:

        offsets = escaped_offsets(literal)
        for use in uses:
            start, end = offsets[use.start], offsets[use.end]
            if use.name.startswith("$") and use.name not in self.directive.scope.members():
                continue
            if self.directive.controller.form == "closed":
                continue
            if self.directive.alias and use.name == self.directive.alias:
                continue
            text = f"{self.directive.holder}.{self.members.of(use.name)}"
            if use.shorthand:
                text = f"{use.name}: {text}"
            self.edits.spell(start, end, text, "scope-expression", "scope-name")

    def _required(self) -> None:
        """Read the controllers of a link function from the instance."""
        required = self.directive.required
        value = self.definition.value("require")
        for _, function in self.directive.links:
            taken = parameters_of(function)
            if len(taken) < 4:
                continue
            binding = self.js.scope_at(taken[3]).find(taken[3].text)
            refs = binding.references if binding is not None else []
            if not required:
                for ref in refs:
                    self._controller_ref(
                        ref,
                        self.instance_at(ref) if self.directive.controller.form else "undefined",
                    )
            elif value is not None and value.type not in ("array", "object"):
                name = self._key(0, taken[3].text)
                for ref in refs:
                    self._controller_ref(ref, name)
            else:
                for ref in refs:
                    self._one_of(ref, value)

    def _key(self, number: int, wanted: str) -> str:
        """Return the key of the controller that is required at this place."""
        asked, key = self.directive.required[number]
        instance = CONTROLLER if self.sharing is not None else self.instance
        if self._own_name(asked):
            return instance
        if number not in self.keys:
            taken = {
                *self.members.renamed.values(),
                *self.directive.instance.members,
                *self.directive.scope.members(),
                *self.directive.bindings,
                *self.keys.values(),
            }
            name = key or wanted
            while name in taken:
                name += "Controller"
            self.keys[number] = name
        return f"{instance}.{self.keys[number]}"

    def _controller_ref(self, ref: Node, text: str) -> None:
        if is_write(ref):
            raise NotRead("require-written", ref.text, ref.start)
        if ref.parent is not None and ref.parent.type == "shorthand_property_identifier":
            raise NotRead("require-unread", ref.text, ref.start)
        self.edits.spell(ref.start, ref.end, text, "required", "required-by-name")

    def _one_of(self, ref: Node, value: Node | None) -> None:
        """One of several: `controllers[1]`, or `controllers.harbour`."""
        parent = ref.parent
        if parent is not None and parent.type == "subscript_expression" and ref.field == "object":
            index = parent.child("index")
            if (
                index is not None
                and index.type == "number"
                and int(index.text) < len(self.directive.required)
            ):
                number = int(index.text)
                wanted = (
                    _declared_name(parent)
                    or plain_name(self.directive.required[number][0]) + "Ctrl"
                )
                self.edits.spell(
                    parent.start,
                    parent.end,
                    self._key(number, wanted),
                    "required",
                    "required-by-name",
                )
                return
        if (
            parent is not None
            and parent.type == "member_expression"
            and ref.field == "object"
            and value is not None
            and value.type == "object"
        ):
            asked = parent.child("property")
            for number, (_, key) in enumerate(self.directive.required):
                if asked is not None and key == asked.text:
                    self.edits.spell(
                        parent.start,
                        parent.end,
                        self._key(number, key),
                        "required",
                        "required-by-name",
                    )
                    return
        raise NotRead("require-unread", (parent or ref).text[:60], ref.start)


def _is_attribute(node: Node) -> bool:
    """Whether a text comes from an attribute: `attrs.tide`."""
    inner = node.child("object") if node.type == "member_expression" else None
    return inner is not None and "ttr" in inner.text


def _declared_name(node: Node) -> str | None:
    parent = node.parent
    name = (
        parent.child("name")
        if parent is not None and parent.type == "variable_declarator"
        else None
    )
    return name.text if name is not None and name.type == "identifier" else None
