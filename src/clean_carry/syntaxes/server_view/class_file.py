"""The class of a view: its inputs as public members, its derived values as methods."""

from __future__ import annotations

from clean_carry.component.code import Code, Member
from clean_carry.component.fragment import Fragment, settled
from clean_carry.component.model import Component, Prop
from clean_carry.source.expressions.model import Unsayable
from clean_carry.source.expressions.types import Type
from clean_carry.syntaxes.server_view.expressions import Expressions
from clean_carry.syntaxes.server_view.names import php_type, variable, view_of
from clean_carry.syntaxes.unsaid import Unsaid

_RULE = "member-of-view"
_HEAD = """<?php

namespace App\\View\\Components;

{uses}
class {name} extends Component
{{
"""


class ClassWriter:
    """Writes the class of one component; raises `Unsaid`. `settled` are the entries of what was written."""

    def __init__(self, component: Component, name: str, expressions: Expressions) -> None:
        self.component, self.name, self.expressions = component, name, expressions
        self.settled = Fragment()

    def written(self) -> str:
        """The whole script."""
        members = [*self._constants(), self._constructor(), *self._derived(), self._render()]
        uses = ["Illuminate\\View\\Component", "Illuminate\\View\\View"]
        if self.expressions.helpers:
            uses.append("App\\Support\\Js")
        head = _HEAD.format(uses="".join(f"use {one};\n" for one in sorted(uses)), name=self.name)
        return head + "\n".join(one for one in members if one) + "}\n"

    def settle(self, entry: int) -> None:
        """Settle an entry of the ledger."""
        if entry >= 0:
            self.settled += settled(entry, _RULE)

    # -- inputs --------------------------------------------------------------------------------

    def _constructor(self) -> str:
        props = sorted(self.component.inputs.props, key=lambda one: not one.required)
        if not props:
            return ""
        lines = "".join(f"        {self._parameter(one)},\n" for one in props)
        return f"    public function __construct(\n{lines}    ) {{\n    }}\n"

    def _parameter(self, prop: Prop) -> str:
        self.settle(prop.entry)
        type_ = self.expressions.types.of(Member("prop", prop.name))
        name = f"public {{}} ${variable(prop.name)}"
        if prop.required:
            return name.format(php_type(type_))
        default = "null"
        if prop.default is not None:
            self.settle(prop.default.entry)
            default = self._default(prop)
        elif type_.kind == "flag" and not type_.missing:
            default = "false"
        if default == "null" and not type_.missing and type_.kind != "any":
            type_ = type_.or_missing("null")
        return f"{name.format(php_type(type_))} = {default}"

    def _default(self, prop: Prop) -> str:
        assert prop.default is not None
        code = self.expressions.types.default_code(prop.default)
        if code is None:
            raise Unsaid(
                "not-said-in-view", f"the default of {prop.name}", prop.default.code.span.start
            )
        text = self.expressions.said(code, "value")
        if "(" in text or "$" in text:
            raise Unsaid("not-said-in-view", f"the default of {prop.name}", code.span.start)
        return text

    # -- values --------------------------------------------------------------------------------

    def _constants(self) -> list[str]:
        """State that never changes, as public members."""
        state = self.component.state
        if state is None:
            return []
        self.settled += settled(state.entry, _RULE)
        found = []
        for one in state.fields or ():
            if one.code is None:
                raise Unsaid("runs-in-browser", f"the state {one.name}", self.component.span.start)
            self.settled += settled(one.entry, _RULE)
            type_ = self.expressions.types.of(Member("state", one.name))
            text = self.expressions.said(one.code, "value")
            if "(" in text or "$" in text:
                raise Unsaid(
                    "not-said-in-view", f"the first value of {one.name}", one.code.span.start
                )
            found.append(f"    public {php_type(type_)} ${variable(one.name)} = {text};\n")
        return found

    def _derived(self) -> list[str]:
        found = []
        for one in self.component.derived:
            if one.setter is not None or one.returned is None:
                raise Unsaid(
                    "not-said-in-view", f"the computed value {one.name}", one.text.span.start
                )
            for entry in (one.entry, one.text_entry):
                if entry >= 0:
                    self.settled += settled(entry, _RULE)
            for operation in one.text.all():
                self.settled += settled(operation.entry, _RULE)
            with self.expressions.of_class():
                value = self.expressions.said(one.returned, "value")
            type_ = self._type_of(one.returned)
            found.append(
                f"    public function {variable(one.name)}(): {php_type(type_)}\n"
                f"    {{\n        return {value};\n    }}\n"
            )
        return found

    def _type_of(self, code: Code) -> Type:
        try:
            return self.expressions.types.read(code, {}).type
        except Unsayable as reason:
            raise Unsaid("not-said-in-view", reason.what, reason.at) from None

    def _render(self) -> str:
        return (
            "    public function render(): View\n"
            f"    {{\n        return view('components.{view_of(self.name)}');\n    }}\n"
        )
