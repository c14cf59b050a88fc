"""Find the component classes of a file, and say which of them cannot be carried."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from clean_carry.source.exports import Imported, imported
from clean_carry.source.javascript.scope import Binding, Names
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.javascript.values import is_identifier
from clean_carry.source.workspace import Workspace
from clean_carry.syntaxes.jsx.runtime_names import RuntimeNames
from clean_carry.syntaxes.jsx_class.bases.heritage import BASES, CLASSES, heritage, is_component
from clean_carry.syntaxes.jsx_class.bases.read_in import why_not

# Functions that add the lifecycle methods of a newer runtime to classes.
FOR_CLASSES = (Imported("react-lifecycles-compat", "polyfill"),)
Form = Literal["declared", "constant", "returned", "expression"]


@dataclass(frozen=True)
class Candidate:
    """A class that renders. `refusal` is (rule, detail) where it is refused from the outside.

    `form` is how it stands there: declared, the value of a constant of its own, returned, or any
    other expression; `place` is what is written anew, `statement` what it stands in. `binding` is
    what the file calls it, None where it has no name there. `decorators` are those at the class, the
    outermost first; `idle` those that only make up for what classes of an older runtime lack. `pure` says
    that its base compares inputs and state before it renders again.
    """

    node: Node
    name: str
    form: Form
    place: Node
    statement: Node
    exported: str
    binding: Binding | None
    decorators: tuple[Node, ...]
    idle: tuple[Node, ...]
    pure: bool
    refusal: tuple[str, str] | None

    @property
    def siblings(self) -> list[Node]:
        """The statements it stands among."""
        return self.statement.parent.children if self.statement.parent is not None else []


def candidates(
    tree: Tree, names: Names, runtime: RuntimeNames, workspace: Workspace
) -> list[Candidate]:
    """Every class with a heritage clause and a render method, in source order."""
    found: list[Candidate] = []
    for node in sorted(tree.of(*CLASSES), key=lambda n: n.start):
        if is_component(node, runtime, names):
            found.append(_candidate(tree, node, names, runtime, workspace))
    return found


def _candidate(
    tree: Tree, node: Node, names: Names, runtime: RuntimeNames, workspace: Workspace
) -> Candidate:
    name_node = node.child("name")
    form, place, statement = _form(node)
    exported = ""
    if statement.type == "export_statement":
        exported = "default" if statement.has("default") else "named"
    if form == "constant":
        declarator = node.parent
        name_node = declarator.child("name") if declarator is not None else None
    binding = _binding(names, name_node)
    if name_node is not None:
        name = name_node.text
    else:
        name = _made_name(tree, node, names)
    base = heritage(node)
    pure = base is not None and runtime.imported(base, names) == "PureComponent"
    parts = (*statement.children, *node.children) if statement is not node else node.children
    decorators = [part for part in parts if part.type == "decorator"]
    idle = tuple(part for part in decorators if _is_for_classes(part, tree))
    kept = tuple(part for part in decorators if part not in idle)
    refusal = _refusal(tree, node, statement, names, runtime, binding, workspace)
    return Candidate(
        node, name, form, place, statement, exported, binding, kept, idle, pure, refusal
    )


def _is_for_classes(decorator: Node, tree: Tree) -> bool:
    """Whether a decorator teaches a class the lifecycle of a newer runtime; it refuses functions."""
    called = decorator.named_children[0]
    return called.type == "identifier" and imported(tree, called.text) in FOR_CLASSES


def _form(node: Node) -> tuple[Form, Node, Node]:
    """(form, what is written anew, the statement it stands in) of a class."""
    statement: Node = node
    while (
        statement.parent is not None
        and not statement.type.endswith(("_statement", "_declaration"))
        and statement.parent.type not in ("program", "class_body")
    ):
        statement = statement.parent
    inside = statement
    if statement.parent is not None and statement.parent.type == "export_statement":
        statement = statement.parent
    if node.type != "class":
        return "declared", node, statement
    parent = node.parent
    if parent is statement and statement.type == "export_statement":
        return "declared", node, statement
    if parent is inside and inside.type == "return_statement":
        return "returned", inside, statement
    if (
        parent is not None
        and parent.type == "variable_declarator"
        and inside.type == "lexical_declaration"
        and inside.has("const")
        and len(inside.named_children) == 1
        and parent.child("type") is None
        and node.child("name") is None
    ):
        return "constant", inside, statement
    return "expression", node, statement


def _binding(names: Names, name: Node | None) -> Binding | None:
    """Return the binding of a declared name."""
    if name is None:
        return None
    found = names.scope_at(name).find(name.text)
    return found if found is not None and found.node is name else None


def _made_name(tree: Tree, node: Node, names: Names) -> str:
    """A name for a class without one: after the function that makes it, the file, or its folder."""
    wishes: list[str] = []
    for up in node.up():
        maker = up.child("name") if up.type == "function_declaration" else None
        if up.type in ("arrow_function", "function_expression") and up.parent is not None:
            maker = up.parent.child("name") if up.parent.type == "variable_declarator" else None
        if maker is not None:
            wishes.append(maker.text)
    parts = tree.source.path.replace("\\", "/").split("/")
    wishes += [parts[-1].split(".")[0], *(parts[-2:-1]), "Component", "Wrapped"]
    scope = names.scope_at(node)
    for wish in wishes:
        name = wish[:1].upper() + wish[1:]
        if is_identifier(name) and scope.find(name) is None and name not in names.free:
            return name
    return ""


def _refusal(
    tree: Tree, node: Node, statement: Node, names: Names, runtime: RuntimeNames,
    binding: Binding | None, workspace: Workspace,
) -> tuple[str, str] | None:  # fmt: skip
    base = heritage(node)
    assert base is not None
    meaning = runtime.imported(base, names)
    if meaning not in BASES:
        reason = why_not(node, tree, names, workspace)
        return "own-base", f"it extends {base.text[:60]}{reason and ', '}{reason}"
    if node.type == "abstract_class_declaration":
        return "abstract-class", ""
    if statement.parent is None or statement.parent.type not in ("program", "statement_block"):
        return "class-in-expression", ""
    if any(up.type in CLASSES for up in node.up()):
        return "class-in-expression", "inside another class"
    if any(statement.start <= c.start < node.start for c in tree.of("comment")):
        return "class-in-expression", "a comment stands before it in its statement"
    for reference in binding.references if binding is not None else ():
        if any(up.type == "extends_clause" for up in reference.up()):
            return "extended-by", f"{reference.text} is a base class in this file"
        if reference.parent is not None and reference.parent.type == "binary_expression":
            if reference.parent.has("instanceof"):
                return "instance-escapes", f"instanceof {reference.text}"
        if reference.parent is not None and reference.parent.type == "new_expression":
            return "instance-escapes", f"new {reference.text}"
        if reference.type == "type_identifier":
            return "used-as-type", reference.text
    return None
