"""The query that answers an address: looked up in the project's route files, and in the controller there.

Only a plain method is taken: one that gives the data it queries, by parameters of its address alone. Its
code comes along as it is, with the names that it imports.
"""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import dataclass, field
from pathlib import Path

from clean_carry.source.expressions.model import Unsayable
from clean_carry.source.php.tree import PhpNode, parsed

# Code that needs a request, a session or the controller itself.
_OF_REQUEST = re.compile(
    r"\$this\b|\$request\b|\b(?:request|auth|session|abort\w*|redirect|view|response|dispatch)\s*\(|"
    r"\b(?:Auth|Request|Session|Gate|Cache)::"
)
# Anything that a route is given but its name: guards, conditions of its address.
_GUARDED = re.compile(r"\)\s*->(?!name\b)\w+")
_RESPONSE = re.compile(r"response\(\)->json\(")
_NAMING = frozenset(
    {"scoped_call_expression", "class_constant_access_expression", "object_creation_expression"}
)
_OWN_NAMESPACE = "App\\"
_SCALARS = frozenset({"string", "int", "float", "bool"})


@dataclass(frozen=True)
class Query:
    """A query, and where it was found (`SailingController::index`): its statements but the last, and the
    expression that it gives. `parameters` are names with types, `imports` the classes that it names."""

    origin: str
    pattern: str
    statements: tuple[str, ...]
    value: str
    parameters: tuple[tuple[str, str], ...] = ()
    imports: tuple[str, ...] = ()

    @property
    def given(self) -> str:
        """The code for the data as arrays, as they travel to a browser."""
        if re.search(r"->get\([^()]*\)$|->all\(\)$", self.value):
            return f"{self.value}->toArray()"
        return f"json_decode(json_encode({self.value}), true)"


@dataclass
class Routes:
    """The routes of the project around a file."""

    file: Path
    root: Path | None = field(init=False)

    def __post_init__(self) -> None:
        above = self.file.resolve().parents
        self.root = next((one for one in above if (one / "routes").is_dir()), None)

    def query_of(self, segments: list[str]) -> Query | None:
        """The query that answers an address; None where no controller does, or one that does more.

        `segments` are the parts of the address, `{}` for each that is computed."""
        for uri, controller, method in self._routes():
            known = [one for one in uri.strip("/").split("/") if one]
            if len(known) != len(segments):
                continue
            pairs = zip(known, segments, strict=True)
            if all(_is_parameter(own) if one == "{}" else own == one for own, one in pairs):
                return self._query(controller, method, f"/{'/'.join(known)}")
        return None

    def _routes(self) -> Iterator[tuple[str, str, str]]:
        """Address, class and method of each plain route for reading."""
        if self.root is None:
            return
        for path in sorted((self.root / "routes").glob("*.php")):
            tree = _tree(path)
            if tree is None:
                continue
            prefix = "api/" if path.name == "api.php" else ""
            imports = dict(_imports(tree))
            for node in tree.named:
                yield from self._of_statement(node, prefix, imports)

    def _of_statement(
        self, node: PhpNode, prefix: str, imports: dict[str, str]
    ) -> Iterator[tuple[str, str, str]]:
        """The route of a statement. One in a group, or with a guard, is passed over."""
        if _GUARDED.search(node.text):
            return
        for one in node.walk():
            if one.type == "anonymous_function":
                return
            if one.type != "scoped_call_expression":
                continue
            if (one.part("scope").text, one.part("name").text) != ("Route", "get"):
                continue
            given = [each.named[0] for each in one.part("arguments").named]
            if len(given) != 2 or given[0].type != "string":
                continue
            found = re.fullmatch(
                r"\[\s*(\w+)::class\s*,\s*'(\w+)'\s*,?\s*\]|(\w+)::class", given[1].text
            )
            if found is not None:
                name = found[1] or found[3]
                uri = prefix + given[0].text.strip("'").strip("/")
                yield uri, imports.get(name, name), found[2] or "__invoke"

    def _query(self, controller: str, method: str, pattern: str) -> Query | None:
        assert self.root is not None
        if not controller.startswith(_OWN_NAMESPACE):
            return None
        way = controller.removeprefix(_OWN_NAMESPACE).replace("\\", "/")
        tree = _tree(self.root / "app" / f"{way}.php")
        if tree is None:
            return None
        methods = [one for one in tree.walk() if one.type == "method_declaration"]
        if any(one.part("name").text == "__construct" for one in methods):
            # It may guard what its methods answer.
            return None
        found = next((one for one in methods if one.part("name").text == method), None)
        try:
            return _of_method(found, tree, controller, pattern) if found is not None else None
        except Unsayable:
            return None


@dataclass
class Queries:
    """The queries of one component, each a method of its class. `taken` are names of others."""

    routes: Routes
    taken: frozenset[str] = frozenset()
    methods: dict[Query, str] = field(default_factory=dict)

    def of(self, segments: list[str]) -> Query | None:
        """The query that answers an address."""
        return self.routes.query_of(segments)

    def method_of(self, query: Query) -> str:
        """The name of the method for a query: `loadSailings` for `/api/sailings`."""
        if query not in self.methods:
            words = [one for one in query.pattern.split("/") if one and not _is_parameter(one)]
            last = (
                re.sub(r"\W+(\w?)", lambda found: found[1].upper(), words[-1]) if words else "Data"
            )
            name = f"load{last[:1].upper()}{last[1:]}"
            while name in self.taken or name in self.methods.values():
                name += "Data"
            self.methods[query] = name
        return self.methods[query]


def _of_method(node: PhpNode, tree: PhpNode, controller: str, pattern: str) -> Query | None:
    """The query of a method; None for one that does more than give data."""
    parameters = []
    names = [one.strip("{}") for one in pattern.split("/") if _is_parameter(one)]
    for one in node.part("parameters").named:
        type_ = one.child("type")
        name = one.part("name").text[1:]
        if name not in names or type_ is None or type_.text not in _SCALARS:
            return None
        parameters.append((name, type_.text))
    *before, last = node.part("body").named
    if last.type != "return_statement" or not last.named or len(parameters) != len(names):
        return None
    if any(one.type != "expression_statement" for one in before):
        return None
    value = last.named[0]
    text = value.text
    if _RESPONSE.match(text) and value.type == "member_call_expression":
        given = value.part("arguments").named
        if len(given) != 1:
            return None
        text = given[0].text
    statements = [one.text for one in before]
    if any(_OF_REQUEST.search(one) for one in (text, *statements)):
        return None
    origin = f"{controller.rpartition(chr(92))[2]}::{node.part('name').text}"
    imports = _used(node, dict(_imports(tree)), controller.rpartition("\\")[0])
    return Query(origin, pattern, tuple(statements), text, tuple(parameters), imports)


def _used(node: PhpNode, imports: dict[str, str], namespace: str) -> tuple[str, ...]:
    """The classes that a method names, in full."""
    found: dict[str, None] = {}
    for one in node.part("body").walk():
        name = one.named[0] if one.type in _NAMING else None
        if (
            name is not None
            and name.type == "name"
            and name.text not in ("self", "static", "parent")
        ):
            found[imports.get(name.text, f"{namespace}\\{name.text}")] = None
    return tuple(found)


def _imports(tree: PhpNode) -> Iterator[tuple[str, str]]:
    for one in tree.walk():
        if one.type == "namespace_use_clause":
            full, _, alias = one.text.partition(" as ")
            yield alias.strip() or full.rpartition("\\")[2], full.strip().lstrip("\\")


def _is_parameter(segment: str) -> bool:
    return re.fullmatch(r"\{\w+\}", segment) is not None


def _tree(path: Path) -> PhpNode | None:
    """The statements of a script; None for one that cannot be read."""
    try:
        data = path.read_bytes()
    except OSError:
        return None
    begin = re.match(rb"\s*<\?php", data)
    if begin is None:
        return None
    try:
        return parsed(data[begin.end() :], begin.end())
    except Unsayable:
        return None
