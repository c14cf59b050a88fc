"""The class of a stateful view: typed public members, preparation, actions, computed values."""

from __future__ import annotations

from clean_carry.component.code import Code, Member
from clean_carry.component.fragment import settled
from clean_carry.component.members import Derived, Method, Timed
from clean_carry.component.model import Prop
from clean_carry.source.expressions.types import Type
from clean_carry.syntaxes.server_view.class_file import ClassWriter
from clean_carry.syntaxes.server_view.names import action, php_type, variable, view_of
from clean_carry.syntaxes.stateful_view.actions import Statements
from clean_carry.syntaxes.stateful_view.loading import Loading
from clean_carry.syntaxes.stateful_view.routes import Query
from clean_carry.syntaxes.unsaid import Unsaid

_HEAD = """<?php

namespace App\\Livewire;

{uses}
{lazy}class {name} extends Component
{{
"""


class StatefulClass(ClassWriter):
    """Writes the class of one component; `given` are the types that actions are called with, and `inline`
    the statements of listeners that become actions."""

    loading: Loading | None = None
    # Code for the first values of what the placeholder shows, by their names.
    shown: dict[str, str] = {}  # noqa: RUF012
    given: dict[str, list[Type]] = {}  # noqa: RUF012
    inline: dict[str, Code] = {}  # noqa: RUF012

    def written(self) -> str:
        """The whole script."""
        uses = {"Illuminate\\View\\View", "Livewire\\Component"}
        members = [
            *self._inputs(),
            *self._fields(),
            self._mount(),
            *self._computed(),
            *self._actions(),
        ]
        members += [*map(self._query, self._queries()), self._placeholder(), self._render()]
        text = "\n".join(one for one in members if one)
        for attribute in ("Computed", "Reactive"):
            if f"#[{attribute}]" in text:
                uses.add(f"Livewire\\Attributes\\{attribute}")
        if self.expressions.helpers:
            uses.add("App\\Support\\Js")
        lazy = ""
        if self.loading is not None and self.loading.hook is not None:
            uses.add("Livewire\\Attributes\\Lazy")
            uses |= {"App\\DataSource"} if "DataSource $source" in text else set()
            uses |= {"App\\DataSourceError"} if "(DataSourceError)" in text else set()
            uses |= {"Throwable"} if "(Throwable)" in text else set()
            uses |= {one for query in self._queries() for one in query.imports}
            lazy = "#[Lazy]\n"
        lines = "".join(f"use {one};\n" for one in sorted(uses))
        return f"{_HEAD.format(uses=lines, lazy=lazy, name=self.name)}{text}}}\n"

    # -- members -----------------------------------------------------------------------------

    def _inputs(self) -> list[str]:
        props = sorted(self.component.inputs.props, key=lambda one: not one.required)
        return [f"    #[Reactive]\n    {self._parameter(one)};\n" for one in props]

    def _parameter(self, prop: Prop) -> str:
        made = super()._parameter(prop)
        return made.removesuffix(" = null") if prop.required else made

    def _fields(self) -> list[str]:
        """State as public members; what is made of inputs is given in the preparation."""
        self.prepared: list[str] = []
        state = self.component.state
        if state is None:
            return []
        self.settle(state.entry)
        found = []
        for one in state.fields or ():
            if one.code is None:
                raise Unsaid("not-said-in-view", f"the state {one.name}", self.component.span.start)
            self.settle(one.entry)
            if self.loading is not None and one.name in self.loading.pending:
                self.expressions.passed_over(one.code)
                continue
            type_ = self.expressions.types.of(Member("state", one.name))
            name = variable(one.name)
            if any(True for _ in one.code.all()):
                with self.expressions.of_class():
                    value = self.expressions.said(one.code, "value")
                self.prepared.append(f"        $this->{name} = {value};\n")
                found.append(f"    public {php_type(type_)} ${name};\n")
                continue
            text = self.expressions.said(one.code, "value")
            if "(" in text:
                raise Unsaid(
                    "not-said-in-view", f"the first value of {one.name}", one.code.span.start
                )
            found.append(f"    public {php_type(type_)} ${name} = {text};\n")
        return found

    def _mount(self) -> str:
        body = "".join(self.prepared)
        given = ""
        if self.loading is not None and self.loading.hook is not None:
            body += self._loaded(self.loading.hook)
            given = "DataSource $source" if self.loading.opens else ""
        return f"    public function mount({given}): void\n    {{\n{body}    }}\n" if body else ""

    def _loaded(self, hook: Timed) -> str:
        """The statements of the hook that asks for data."""
        assert self.loading is not None
        if self.loading.opens:
            self.settled += settled(hook.entry, "data-source-open", "left")
        else:
            self.settled += settled(hook.entry, "query-not-run")
        self.settle(hook.callback.entry)
        code = hook.callback.text
        if code is None or hook.callback.method:
            given = "$source" if self.loading.opens else ""
            return f"        $this->{action(hook.callback.method)}({given});\n"
        with self.expressions.of_class():
            made = self.loading.statements(self.expressions, code)
            made.asking = frozenset(self.loading.methods)
            _, body = made.written({}, 2)
        return body

    def _queries(self) -> list[Query]:
        """The queries that give the data."""
        queries = self.loading.queries if self.loading is not None else None
        return [*queries.methods] if queries is not None else []

    def _query(self, query: Query) -> str:
        """A query as a method, its statements as they stand in the controller."""
        assert self.loading is not None
        assert self.loading.queries is not None
        name = self.loading.queries.method_of(query)
        given = ", ".join(f"{type_} ${own}" for own, type_ in query.parameters)
        statements = [*query.statements, f"return {query.given};"]
        body = "".join(f"        {_moved(one)}\n" for one in statements)
        return (
            f"    /** The data that `{query.pattern}` answers with: the query of {query.origin}. */\n"
            f"    protected function {name}({given}): array\n    {{\n{body}    }}\n"
        )

    def _placeholder(self) -> str:
        """The method for the time until the data are there: a view with the values of then."""
        if self.loading is None or self.loading.hook is None:
            return ""
        view = f"livewire.{view_of(self.name)}-placeholder"
        head = "    public function placeholder(array $params = []): View\n    {\n"
        if not self.shown:
            return f"{head}        return view('{view}');\n    }}\n"
        lines = "".join(
            f"            '{name}' => {value},\n" for name, value in sorted(self.shown.items())
        )
        return f"{head}        return view('{view}', [\n{lines}        ]);\n    }}\n"

    def _computed(self) -> list[str]:
        return [self._one_computed(one) for one in self.component.derived]

    def _one_computed(self, one: Derived) -> str:
        if one.setter is not None:
            raise Unsaid("not-said-in-view", f"the setter of {one.name}", one.text.span.start)
        for entry in (one.entry, one.text_entry):
            self.settle(entry)
        with self.expressions.of_class():
            if one.returned is not None:
                value = self.expressions.said(one.returned, "value")
                self.expressions.passed_over(one.text)
                body = f"        return {value};\n"
                type_ = self._type_of(one.returned)
            else:
                made = Statements(self.expressions.types.source, self.expressions, one.text)
                _, body = made.written({}, 2)
                type_ = self.expressions.types.of(Member("derived", one.name))
        returned = f": {php_type(type_)}" if type_.kind != "any" else ""
        return (
            f"    #[Computed]\n    public function {variable(one.name)}(){returned}\n"
            f"    {{\n{body}    }}\n"
        )

    def _actions(self) -> list[str]:
        methods = (one for one in self.component.members if isinstance(one, Method))
        listeners = [self._listener(name, code) for name, code in self.inline.items()]
        return [*(self._action(one) for one in methods), *listeners]

    def _listener(self, name: str, code: Code) -> str:
        with self.expressions.of_class():
            made = Statements(
                self.expressions.types.source, self.expressions, code, stands_alone=True
            )
            _, body = made.written({}, 2)
        return f"    public function {name}(): void\n    {{\n{body}    }}\n"

    def _action(self, one: Method) -> str:
        at = one.text.span.start
        asks = self.loading is not None and one.name in self.loading.methods
        if (
            one.form != "declared"
            or (one.asynchronous and not asks)
            or one.shared is not None
            or "*" in one.prefix
        ):
            raise Unsaid("runs-in-browser", f"the method {one.name}", at)
        self.settle(one.entry)
        types = self.given.get(one.name, [])
        with self.expressions.of_class():
            made = (
                self.loading.statements(self.expressions, one.text)
                if asks and self.loading is not None
                else Statements(self.expressions.types.source, self.expressions, one.text)
            )
            names = made.parameter_names()
            known = dict(zip(names, types, strict=False))
            parameters, body = made.written(known, 2)
        shown = ", ".join(
            f"{php_type(known[name])} ${name}" if name in known else f"${name}"
            for name in parameters
        )
        returned = "" if "return " in body else ": void"
        if asks and self.loading is not None and self.loading.opens:
            shown = ", ".join(one for one in ("DataSource $source", shown) if one)
        sees = "private" if asks else "public"
        return f"    {sees} function {action(one.name)}({shown}){returned}\n    {{\n{body}    }}\n"

    def _render(self) -> str:
        return (
            "    public function render(): View\n"
            f"    {{\n        return view('livewire.{view_of(self.name)}');\n    }}\n"
        )


def _moved(statement: str) -> str:
    """A statement whose further lines stand one level to the right of where its first one will."""
    first, *rest = statement.split("\n")
    own = min((len(one) - len(one.lstrip()) for one in rest if one.strip()), default=0)
    return "\n".join([first, *(f"            {one[own:]}" for one in rest)])
