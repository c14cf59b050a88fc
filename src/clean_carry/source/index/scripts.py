"""The facts of a script: imports, exports, and uses of the names at its top."""

from __future__ import annotations

from collections.abc import Iterator

from clean_carry.source.index.facts import Export, FileFacts, Import, NameUse, Registration
from clean_carry.source.index.parsed import Parsed
from clean_carry.source.javascript.scope import Binding, Names
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.javascript.values import property_name

# Functions of test runners that take the path of a module to replace.
_MOCKS = frozenset({"mock", "doMock", "unmock", "dontMock", "requireActual", "importActual"})
_RUNNERS = frozenset({"jest", "vi"})
# Calls that load all files of a pattern.
_GLOBS = frozenset({"require.context", "import.meta.glob", "import.meta.globEager"})
_TAGS = frozenset({"jsx_opening_element", "jsx_self_closing_element"})
_TYPES = frozenset(
    "type_annotation type_arguments type_alias_declaration interface_declaration type_query "
    "generic_type union_type extends_type_clause".split()
)
# Functions of applications that register a component under a name, and the map of a component's own.
_REGISTER, _COMPONENTS = "component", "components"
# Keys of an entry of a route table.
_ROUTE_KEYS = frozenset({"component", "components", "element", "Component"})


def read_script(parsed: Parsed, facts: FileFacts) -> None:
    """Note the imports, exports and uses of a script. Raises `InputError`."""
    tree, names = parsed.tree, parsed.names
    if tree is None or names is None:
        return
    facts.imports += sorted(_imports(parsed, tree), key=lambda one: one.start)
    facts.exports += _exports(parsed, tree, names)
    facts.registrations += _registrations(parsed, tree, names)
    lazy = _aliases(facts, tree)
    for binding in names.module.names.values():
        if binding.kind == "type":
            continue
        if binding.kind == "import" or binding.name in lazy or binding.name[:1].isupper():
            facts.names += filter(None, (_use(parsed, ref, binding) for ref in binding.references))
    facts.names.sort(key=lambda one: one.start)


def _text(node: Node | None) -> str | None:
    """The value of a string without interpolations."""
    if node is None or node.type not in ("string", "template_string") or len(node.text) < 2:
        return None
    return None if node.has("template_substitution") else node.text[1:-1]


# -- imports ------------------------------------------------------------------------------


def _imports(parsed: Parsed, tree: Tree) -> Iterator[Import]:
    def made(
        node: Node, how: str, names: tuple[tuple[str, str], ...], whole: Node | None = None
    ) -> Import:
        start, end = node.start + 1, node.end - 1
        line = parsed.line((whole or node).start)
        return Import(node.text[1:-1], how, names, start, end, line)

    for statement in tree.of("import_statement"):
        source = statement.child("source")
        required = next((c for c in statement.children if c.type == "import_require_clause"), None)
        if required is not None:
            source = required.child("source")
        if source is not None:
            how = "type" if statement.has("type") else "import"
            yield made(source, how, tuple(_imported(statement)), statement)
    for statement in tree.of("export_statement"):
        source = statement.child("source")
        if source is not None:
            yield made(source, "re-export", tuple(_passed_on(statement)), statement)
    for call in tree.of("call_expression"):
        callee, given = call.child("function"), call.child("arguments")
        first = given.named_children[0] if given is not None and given.named_children else None
        if callee is None or first is None or _text(first) is None:
            continue
        if callee.text in _GLOBS:
            yield made(first, "glob", ())
        elif callee.type == "import":
            yield made(first, "lazy", (("*", _held(call)),))
        elif callee.type == "identifier" and callee.text == "require":
            yield made(first, "require", tuple(_required(call)))
        elif callee.type == "member_expression" and callee.children[0].text in _RUNNERS:
            part = callee.child("property")
            if part is not None and part.text in _MOCKS:
                yield made(first, "mock", ())


def _imported(statement: Node) -> Iterator[tuple[str, str]]:
    for node in statement.walk():
        above = node.parent.type if node.parent is not None else ""
        if node.type == "import_specifier":
            name, alias = node.child("name"), node.child("alias")
            if name is not None:
                yield name.text, (alias or name).text
        elif node.type == "identifier" and above == "import_clause":
            yield "default", node.text
        elif node.type == "identifier" and above in ("namespace_import", "import_require_clause"):
            yield "*", node.text


def _passed_on(statement: Node) -> Iterator[tuple[str, str]]:
    """(name there, name here) of a statement that exports another module's names."""
    if "{" not in statement.text:
        name = next((c for c in statement.walk() if c.type == "identifier"), None)
        if statement.has("*") or any(c.type == "namespace_export" for c in statement.children):
            yield "*", name.text if name is not None else "*"
        elif name is not None:
            # A short form of old: the default of the other module under a name.
            yield "default", name.text
        return
    for node in statement.walk():
        if node.type == "export_specifier":
            name, alias = node.child("name"), node.child("alias")
            if name is not None:
                yield name.text, (alias or name).text


def _required(call: Node) -> Iterator[tuple[str, str]]:
    """The names that a file takes of a module it requires, as (name there, name here)."""
    above = call.parent
    if above is not None and above.type == "member_expression" and above.children[0] is call:
        part, holder = above.child("property"), above.parent
        if part is not None and holder is not None and holder.type == "variable_declarator":
            name = holder.child("name")
            yield part.text, name.text if name is not None and name.type == "identifier" else ""
            return
        yield (part.text if part is not None else "*"), ""
        return
    holder = above if above is not None and above.type == "variable_declarator" else None
    name = holder.child("name") if holder is not None else None
    if name is not None and name.type == "object_pattern":
        for part in name.named_children:
            key, value = part.child("key"), part.child("value")
            if part.type == "shorthand_property_identifier_pattern":
                yield part.text, part.text
            elif key is not None and value is not None:
                yield key.text, value.text
        return
    yield "*", name.text if name is not None and name.type == "identifier" else ""


def _held(call: Node) -> str:
    """The constant whose value a lazy import is a part of; "" for none."""
    for up in call.up():
        if up.type == "variable_declarator":
            name = up.child("name")
            return name.text if name is not None and name.type == "identifier" else ""
        if up.type in ("object", "array", "statement_block", "class_body"):
            return ""
    return ""


def _aliases(facts: FileFacts, tree: Tree) -> set[str]:
    """The names that hold a lazy import or a required module."""
    ways = ("lazy", "require")
    return {name for one in facts.imports if one.how in ways for _, name in one.names if name}


# -- exports ------------------------------------------------------------------------------


def _exports(parsed: Parsed, tree: Tree, names: Names) -> Iterator[Export]:
    for statement in tree.of("export_statement"):
        if statement.parent is not tree.root or statement.child("source") is not None:
            continue
        line = parsed.line(statement.start)
        clause = next((c for c in statement.children if c.type == "export_clause"), None)
        for node in clause.named_children if clause is not None else ():
            own, alias = node.child("name"), node.child("alias")
            if own is not None:
                yield Export((alias or own).text, (own.text,), node.start, line)
        inner = statement.child("declaration") or statement.child("value")
        if inner is None:
            continue
        declared = list(_declared(inner))
        if statement.has("default"):
            made_of = tuple(declared) or tuple(_wrapped(inner, names))
            yield Export("default", made_of, statement.start, line)
        else:
            for name in declared:
                yield Export(name, (name,), statement.start, line)
    for node in tree.of("assignment_expression"):
        left, right = node.child("left"), node.child("right")
        if (
            left is None
            or right is None
            or not left.text.startswith(("module.exports", "exports."))
        ):
            continue
        text, line = left.text, parsed.line(node.start)
        name = "default" if text in ("module.exports", "exports.default") else text.split(".")[-1]
        yield Export(name, tuple(_wrapped(right, names)), node.start, line)


def _wrapped(node: Node, names: Names) -> Iterator[str]:
    """The names at the top of the file that a value is, or wraps by calls; an object only holds them."""
    inner = node
    while inner.type in ("as_expression", "parenthesized_expression", "satisfies_expression"):
        inner = inner.named_children[0]
    if inner.type in ("identifier", "call_expression"):
        yield from _module_names(inner, names)


def _declared(node: Node) -> Iterator[str]:
    if node.type in ("lexical_declaration", "variable_declaration"):
        for part in node.named_children:
            name = part.child("name")
            if name is not None and name.type == "identifier":
                yield name.text
    elif node.type.endswith(("_declaration", "function_expression", "class")):
        name = node.child("name")
        if name is not None:
            yield name.text


def _module_names(node: Node, names: Names) -> Iterator[str]:
    """The names at the top of the file that an expression is made of."""
    found: dict[str, None] = {}
    for ref, binding in names.references_in(node):
        if binding is not None and binding.scope is names.module:
            found[ref.text] = None
    yield from found


# -- registrations ------------------------------------------------------------------------


def _registrations(parsed: Parsed, tree: Tree, names: Names) -> Iterator[Registration]:
    for pair in tree.of("pair"):
        key, value = pair.child("key"), pair.child("value")
        if key is not None and value is not None and property_name(key) == _COMPONENTS:
            if value.type == "object":
                yield from _in_map(parsed, value)
    for call in tree.of("call_expression"):
        callee, given = call.child("function"), call.child("arguments")
        part = callee.child("property") if callee is not None else None
        if part is None or part.text != _REGISTER or given is None:
            continue
        first, *rest = given.named_children or [call]
        value = rest[0] if rest else None
        if value is None or value.type in ("object", "array"):
            continue
        name, request = _text(first) or "", _lazily(value)
        start, end = (first.start + 1, first.end - 1) if name else (first.start, first.end)
        local = next(_module_names(value, names), "") if not request else ""
        yield Registration(name, local, request, "global", start, end, parsed.line(call.start))


def _in_map(parsed: Parsed, value: Node) -> Iterator[Registration]:
    for part in value.named_children:
        line = parsed.line(part.start)
        if part.type == "shorthand_property_identifier":
            yield Registration(part.text, part.text, "", _COMPONENTS, part.start, part.end, line)
        elif part.type == "pair":
            key, held = part.child("key"), part.child("value")
            if key is None or held is None:
                continue
            local = held.text if held.type == "identifier" else ""
            quoted = key.type == "string"
            start, end = (key.start + 1, key.end - 1) if quoted else (key.start, key.end)
            name = property_name(key) or ""
            yield Registration(name, local, _lazily(held), _COMPONENTS, start, end, line)


def _lazily(value: Node) -> str:
    """The request of a lazy import in a value."""
    for node in value.walk() if value.type != "identifier" else ():
        if node.type == "call_expression":
            callee, given = node.child("function"), node.child("arguments")
            if callee is not None and callee.type == "import" and given is not None:
                return (_text(given.named_children[0]) if given.named_children else None) or ""
    return ""


# -- uses ---------------------------------------------------------------------------------


def _use(parsed: Parsed, ref: Node, binding: Binding) -> NameUse | None:
    """The use that a reference is; None where it is part of an end tag."""
    parent = ref.parent
    if parent is None or parent.type == "jsx_closing_element":
        return None
    if parent.type == "export_specifier":
        line = parsed.line(ref.start)
        return NameUse(binding.name, "", "re-export", "", ref.start, ref.end, line)
    member, whole = "", ref
    while parent is not None and parent.type == "member_expression" and parent.children[0] is whole:
        part = parent.child("property")
        member = member or (part.text if part is not None else "")
        whole, parent = parent, parent.parent
    if parent is not None and parent.type == "jsx_closing_element":
        return None
    how, key = _how(whole, parent)
    line = parsed.line(ref.start)
    return NameUse(binding.name, member, how, key, ref.start, ref.end, line)


def _how(node: Node, parent: Node | None) -> tuple[str, str]:
    if parent is None:
        return "value", ""
    if parent.type in _TAGS and node.field == "name":
        return "tag", ""
    if node.type == "type_identifier" or parent.type in _TYPES:
        return "type", ""
    if node.type == "shorthand_property_identifier" or parent.type == "pair":
        holder = parent if parent.type == "pair" else node
        key = holder.child("key") if holder is parent else node
        name = (property_name(key) if key is not None else None) or ""
        table = holder.parent
        above = table.parent if table is not None else None
        owner = above.child("key") if above is not None and above.type == "pair" else None
        if owner is not None and property_name(owner) == _COMPONENTS:
            return "registration", name
        if name in _ROUTE_KEYS and table is not None and _is_route(table):
            return "route", name
        return "value", name
    if parent.type == "arguments" and parent.parent is not None:
        callee = parent.parent.child("function")
        part = callee.child("property") if callee is not None else None
        if part is not None and part.text == _REGISTER and len(parent.named_children) > 1:
            return "registration", _text(parent.named_children[0]) or ""
    return "value", ""


def _is_route(table: Node) -> bool:
    keys = {
        property_name(key)
        for pair in table.named_children
        if (key := pair.child("key")) is not None
    }
    return "path" in keys
