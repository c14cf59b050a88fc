"""Names and what they mean: scopes, bindings and references of one file, hoisting included.

The rules are those of ECMA-262 (§8.2, §14.3, §15): `var` and functions belong to the function,
`let`, `const` and classes to the block, parameters and body of a function share one scope here.
"""

from __future__ import annotations

from bisect import bisect_left
from collections.abc import Iterator

from clean_carry.source.javascript.tree import Node, Tree

# Which part of a pattern binds names ("" for all the others), and which hold expressions or types.
_PATTERN_PARTS = {
    "pair_pattern": ("value", {"computed_property_name"}),
    "assignment_pattern": ("", {"right"}),
    "object_assignment_pattern": ("", {"right"}),
    "required_parameter": ("pattern", {"type", "value", "decorator"}),
    "optional_parameter": ("pattern", {"type", "value", "decorator"}),
}
# Imports that name a whole module, or its default export.
_IMPORTING = ("import_clause", "namespace_import", "import_require_clause")


class Binding:
    """One declared name. `kind` is how: import, const, let, var, function, class, param, type."""

    __slots__ = ("kind", "name", "node", "references", "scope")

    def __init__(self, name: str, kind: str, node: Node, scope: Scope) -> None:
        self.name = name
        self.kind = kind
        self.node = node
        self.scope = scope
        self.references: list[Node] = []

    @property
    def written(self) -> bool:
        """Whether any reference assigns to it."""
        return any(is_write(ref) for ref in self.references)


class Scope:
    """One stretch of source in which names are declared."""

    __slots__ = ("children", "names", "node", "parent")

    def __init__(self, node: Node, parent: Scope | None) -> None:
        self.node = node
        self.parent = parent
        self.names: dict[str, Binding] = {}
        self.children: list[Scope] = []
        if parent is not None:
            parent.children.append(self)

    def find(self, name: str) -> Binding | None:
        """The binding a reference to `name` made here means."""
        scope: Scope | None = self
        while scope is not None:
            binding = scope.names.get(name)
            if binding is not None:
                return binding
            scope = scope.parent
        return None

    def chain(self) -> Iterator[Scope]:
        """This scope and those around it."""
        scope: Scope | None = self
        while scope is not None:
            yield scope
            scope = scope.parent


def is_write(ref: Node) -> bool:
    """Whether an identifier (or member expression) stands where it is assigned to."""
    parent = ref.parent
    if parent is None:
        return False
    match parent.type:
        case "assignment_expression" | "augmented_assignment_expression":
            return ref.field == "left"
        case "update_expression":
            return True
        case "unary_expression":
            return parent.has("delete")
        case "for_in_statement":
            return ref.field == "left"
        case "array_pattern" | "rest_pattern" | "object_pattern":
            return True
        case "pair_pattern":
            return ref.field == "value"
        case "assignment_pattern" | "object_assignment_pattern":
            return ref.field == "left"
        case "parenthesized_expression" | "non_null_expression":
            return is_write(parent)
    return False


# Leaves that name something: `{ pier } = given` writes `pier`.
_NAMING = frozenset(
    {
        "identifier",
        "shorthand_property_identifier",
        "shorthand_property_identifier_pattern",
        "type_identifier",
    }
)


class Names:
    """All scopes of a file. `scope_at` and `meaning` answer for any node."""

    def __init__(self, tree: Tree) -> None:
        self.tree = tree
        self.module = Scope(tree.root, None)
        self._scopes: dict[int, Scope] = {id(tree.root): self.module}
        self._refs: list[tuple[Node, Scope]] = []
        self._meaning: dict[int, Binding | None] = {}
        self.free: dict[str, list[Node]] = {}
        for node in tree.root.children:
            self._visit(node, self.module, self.module)
        for ref, scope in self._refs:
            name = ref.text
            binding = scope.find(name)
            self._meaning[id(ref)] = binding
            if binding is not None:
                binding.references.append(ref)
            else:
                self.free.setdefault(name, []).append(ref)
        self._refs.sort(key=lambda found: found[0].start)
        self._starts = [ref.start for ref, _ in self._refs]
        tree.at_end(self._release)

    def _release(self) -> None:
        for scope in self._scopes.values():
            scope.children.clear()
            scope.names.clear()

    def scope_at(self, node: Node) -> Scope:
        """The scope in which an expression at `node` looks its names up."""
        here: Node | None = node
        while here is not None:
            scope = self._scopes.get(id(here))
            if scope is not None:
                return scope
            here = here.parent
        return self.module

    def inner_scope(self, node: Node) -> Scope | None:
        """The scope this very node opens."""
        return self._scopes.get(id(node))

    def meaning(self, ref: Node) -> Binding | None:
        """Return the declaration behind an identifier; None for a global."""
        return self._meaning.get(id(ref))

    def references_in(self, node: Node) -> Iterator[tuple[Node, Binding | None]]:
        """Every reference below `node` with its meaning."""
        first = bisect_left(self._starts, node.start)
        for ref, _ in self._refs[first : bisect_left(self._starts, node.end)]:
            yield ref, self._meaning[id(ref)]

    # -- building -------------------------------------------------------------------------

    def _open(self, node: Node, parent: Scope) -> Scope:
        scope = Scope(node, parent)
        self._scopes[id(node)] = scope
        return scope

    def _declare(self, scope: Scope, node: Node, kind: str) -> None:
        name = node.text
        known = scope.names.get(name)
        if known is None or known.kind == "type":
            scope.names[name] = Binding(name, kind, node, scope)

    def _pattern(self, node: Node, scope: Scope, kind: str, block: Scope, function: Scope) -> None:
        """Declare the names a binding pattern makes; visit the expressions in it."""
        if node.type in ("identifier", "shorthand_property_identifier_pattern"):
            self._declare(scope, node, kind)
        elif node.type in ("array_pattern", "object_pattern", "rest_pattern"):
            for part in node.named_children:
                self._pattern(part, scope, kind, block, function)
        elif node.type in _PATTERN_PARTS:
            bound, visited = _PATTERN_PARTS[node.type]
            for part in node.children:
                if part.named and {part.field, part.type} & visited:
                    self._visit(part, block, function)
                elif part.named and (bound == "" or part.field == bound):
                    self._pattern(part, scope, kind, block, function)
        else:
            self._visit(node, block, function)

    def _function(self, node: Node, block: Scope) -> None:
        scope = self._open(node, block)
        for part in node.children:
            if part.field == "name":
                if node.type in ("function_expression", "generator_function"):
                    self._declare(scope, part, "function")
                elif part.type == "computed_property_name":
                    self._visit(part, block, block)
            elif part.field == "parameter":
                self._pattern(part, scope, "param", scope, scope)
            elif part.type == "formal_parameters":
                for parameter in part.named_children:
                    self._pattern(parameter, scope, "param", scope, scope)
            elif part.field == "body" and part.type == "statement_block":
                for statement in part.children:
                    self._visit(statement, scope, scope)
            elif part.type == "type_parameters":
                self._type_parameters(part, scope)
            elif part.named:
                self._visit(part, scope, scope)

    def _type_parameters(self, node: Node, scope: Scope) -> None:
        for parameter in node.named_children:
            for part in parameter.children:
                if part.field == "name":
                    self._declare(scope, part, "type")
                elif part.named:
                    self._visit(part, scope, scope)

    def _visit(self, node: Node, block: Scope, function: Scope) -> None:
        kind = node.type
        if not node.children:
            if kind in _NAMING:
                self._refs.append((node, block))
        elif node.is_function:
            if kind in ("function_declaration", "generator_function_declaration"):
                name = node.child("name")
                if name is not None:
                    self._declare(block, name, "function")
            self._function(node, block)
        else:
            _VISITS.get(kind, Names._parts)(self, node, block, function)

    def _parts(self, node: Node, block: Scope, function: Scope) -> None:
        for part in node.children:
            self._visit(part, block, function)

    def _block(self, node: Node, block: Scope, function: Scope) -> None:
        self._parts(node, self._open(node, block), function)

    def _static_block(self, node: Node, block: Scope, function: Scope) -> None:
        scope = self._open(node, block)
        self._parts(node, scope, scope)

    def _declaration(self, node: Node, block: Scope, function: Scope) -> None:
        word = node.children[0].type
        target = function if word == "var" else block
        for declarator in node.named_children:
            self._declarator(declarator, target, word, block, function)

    def _catch(self, node: Node, block: Scope, function: Scope) -> None:
        scope = self._open(node, block)
        for part in node.children:
            if part.field == "parameter":
                self._pattern(part, scope, "param", scope, function)
            else:
                self._visit(part, scope, function)

    def _import(self, node: Node, block: Scope, function: Scope) -> None:
        for clause in node.walk():
            if clause.type == "import_specifier":
                name = clause.child("alias") or clause.child("name")
                if name is not None:
                    self._declare(block, name, "import")
            elif clause.type == "identifier" and clause.parent is not None:
                if clause.parent.type in _IMPORTING:
                    self._declare(block, clause, "import")

    def _export(self, node: Node, block: Scope, function: Scope) -> None:
        if node.child("source") is None:
            self._parts(node, block, function)

    def _first(self, node: Node, block: Scope, function: Scope) -> None:
        """The first part alone holds names: what follows a dot is a property, though the grammar may call
        it an identifier, and what follows `as` the name outside."""
        self._visit(node.children[0], block, function)

    def _attribute(self, node: Node, block: Scope, function: Scope) -> None:
        for part in node.children[1:]:
            self._visit(part, block, function)

    def _tag(self, node: Node, block: Scope, function: Scope) -> None:
        for part in node.children:
            if part.field == "name" and part.type == "identifier":
                if is_component_name(part.text):
                    self._refs.append((part, block))
            else:
                self._visit(part, block, function)

    def _type(self, node: Node, block: Scope, function: Scope) -> None:
        scope = self._open(node, block)
        for part in node.children:
            if part.field == "name":
                self._declare(block, part, "const" if "enum" in node.type else "type")
            elif part.type == "type_parameters":
                self._type_parameters(part, scope)
            else:
                self._visit(part, scope, function)

    def _signature(self, node: Node, block: Scope, function: Scope) -> None:
        scope = self._open(node, block)
        for part in node.children:
            if part.type == "formal_parameters":
                for parameter in part.named_children:
                    self._pattern(parameter, scope, "type", scope, function)
            elif part.type == "type_parameters":
                self._type_parameters(part, scope)
            elif part.field != "name":
                self._visit(part, scope, function)

    def _index(self, node: Node, block: Scope, function: Scope) -> None:
        for part in node.children:
            if part.field != "name":
                self._visit(part, block, function)

    def _declarator(
        self, node: Node, target: Scope, word: str, block: Scope, function: Scope
    ) -> None:
        if node.type != "variable_declarator":
            self._visit(node, block, function)
            return
        for part in node.children:
            if part.field == "name":
                self._pattern(part, target, word, block, function)
            else:
                self._visit(part, block, function)

    def _for_in(self, node: Node, block: Scope, function: Scope) -> None:
        scope = self._open(node, block)
        word = next((c.type for c in node.children if c.type in ("const", "let", "var")), "")
        for part in node.children:
            if part.field == "left" and word:
                self._pattern(part, function if word == "var" else scope, word, scope, function)
            else:
                self._visit(part, scope, function)

    def _class(self, node: Node, block: Scope, function: Scope) -> None:
        name = node.child("name")
        scope = self._open(node, block)
        if name is not None:
            self._declare(block if node.type != "class" else scope, name, "class")
        for part in node.children:
            if part.field == "name":
                continue
            if part.type == "type_parameters":
                self._type_parameters(part, scope)
            else:
                self._visit(part, scope, scope)


def is_component_name(name: str) -> bool:
    """Whether JSX reads a tag name as a reference (it starts with other than a small letter)."""
    return not name[:1].islower() or "." in name


# Nodes that open a scope, declare names, or have parts that are no references; others are visited whole.
_VISITS = {
    "class_declaration": Names._class,
    "class": Names._class,
    "abstract_class_declaration": Names._class,
    "statement_block": Names._block,
    "for_statement": Names._block,
    "switch_body": Names._block,
    "class_static_block": Names._static_block,
    "for_in_statement": Names._for_in,
    "lexical_declaration": Names._declaration,
    "variable_declaration": Names._declaration,
    "catch_clause": Names._catch,
    "import_statement": Names._import,
    "export_statement": Names._export,
    "export_specifier": Names._first,
    "member_expression": Names._first,
    "jsx_attribute": Names._attribute,
    "jsx_opening_element": Names._tag,
    "jsx_closing_element": Names._tag,
    "jsx_self_closing_element": Names._tag,
    "interface_declaration": Names._type,
    "type_alias_declaration": Names._type,
    "enum_declaration": Names._type,
    "internal_module": Names._type,
    "function_type": Names._signature,
    "construct_signature": Names._signature,
    "method_signature": Names._signature,
    "call_signature": Names._signature,
    "index_signature": Names._index,
}
