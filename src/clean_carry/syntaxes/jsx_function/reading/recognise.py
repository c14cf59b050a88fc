"""Find the components of a script that are functions."""

from __future__ import annotations

import re
from dataclasses import dataclass, replace

from clean_carry.source.javascript.scope import Binding, Names
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.javascript.values import is_identifier
from clean_carry.syntaxes.jsx.drawing.locals import bare, holds_markup, parameters_of
from clean_carry.syntaxes.jsx.runtime_names import RuntimeNames

# Calls that only a component makes: of hooks, and of what makes elements.
_OF_RUNTIME = re.compile(r"\b(?:use[A-Z]\w*|createPortal|createElement|cloneElement)\(")
_FUNCTIONS = ("function_declaration", "function_expression", "arrow_function")
# Wrappers of components: the first skips renders with equal inputs, the second passes a reference.
_MEMO, _FORWARD = "memo", "forwardRef"


@dataclass(frozen=True)
class Candidate:
    """A function that renders: `place` is what is written anew, `statement` what it stands in.

    `reference` is the parameter a parent's reference comes by; `exports` is a statement apart that exports
    it, wrapped; `refusal` is (rule, detail) where it is refused from the outside.
    """

    node: Node
    name: str
    place: Node
    statement: Node
    exported: str
    binding: Binding | None
    reference: Node | None = None
    pure: bool = False
    exports: Node | None = None
    refusal: tuple[str, str] | None = None


def candidates(
    tree: Tree, names: Names, runtime: RuntimeNames, *, bare: bool = False
) -> list[Candidate]:
    """Every function at the top of a script that returns markup and is called like a component.

    With `bare`, functions without markup count too if they call a hook, or make elements by calls.
    """
    found: list[Candidate] = []
    for statement in tree.root.named_children:
        inner = statement
        exported = ""
        if statement.type == "export_statement":
            exported = "default" if statement.has("default") else "named"
            inner = statement.child("declaration") or statement.child("value") or statement
        candidate = _candidate(tree, names, runtime, statement, inner, exported)
        if candidate is not None and (_is_component(candidate) or (bare and _is_bare(candidate))):
            found.append(candidate)
    return [_exported_apart(one, tree, names, runtime) for one in found]


def _is_component(candidate: Candidate) -> bool:
    name = candidate.name
    return name[:1].isupper() and holds_markup(candidate.node) and not candidate.node.has("*")


def _is_bare(candidate: Candidate) -> bool:
    """Whether a function without markup can only be a component."""
    node = candidate.node
    return candidate.name[:1].isupper() and node.is_function and bool(_OF_RUNTIME.search(node.text))


def _candidate(
    tree: Tree, names: Names, runtime: RuntimeNames, statement: Node, inner: Node, exported: str
) -> Candidate | None:
    if inner.type == "function_declaration" or (
        inner.type in _FUNCTIONS and statement.type == "export_statement"
    ):
        name = inner.child("name")
        own = name.text if name is not None else _made_name(tree, names)
        binding = names.module.names.get(own) if name is not None else None
        return _parts(Candidate(inner, own, inner, statement, exported, binding))
    if inner.type == "lexical_declaration" and len(inner.named_children) == 1:
        declarator = inner.named_children[0]
        name, value = declarator.child("name"), declarator.child("value")
        if name is None or name.type != "identifier" or value is None:
            return None
        return _unwrapped(
            Candidate(value, name.text, inner, statement, exported, names.module.names.get(name.text)),
            names, runtime,
        )  # fmt: skip
    if inner.type == "call_expression" and exported == "default":
        made = Candidate(inner, _made_name(tree, names), inner, statement, exported, None)
        return _unwrapped(made, names, runtime)
    return None


def _unwrapped(made: Candidate, names: Names, runtime: RuntimeNames) -> Candidate | None:
    """The function behind what wraps it; None where the value is no function."""
    value, pure, forwarded = bare(made.node), False, False
    refusal: tuple[str, str] | None = None
    while value.type == "call_expression":
        callee, arguments = value.child("function"), value.child("arguments")
        given = arguments.named_children if arguments is not None else []
        wrapper = runtime.imported(callee, names) if callee is not None else None
        if not given or callee is None or (wrapper is None and not bare(given[0]).is_function):
            return None
        if wrapper not in (_MEMO, _FORWARD):
            refusal = ("wrapped-in-target", callee.text[:40])
        elif wrapper == _MEMO and len(given) > 1:
            refusal = ("wrapped-in-target", "memo with a comparison of its own")
        pure = pure or wrapper == _MEMO
        forwarded = forwarded or wrapper == _FORWARD
        value = bare(given[0])
    if value.type not in _FUNCTIONS:
        return None
    name = value.child("name")
    own = name.text if made.binding is None and name is not None else made.name
    return _parts(replace(made, node=value, name=own, pure=pure, refusal=refusal), forwarded)


def _parts(made: Candidate, forwarded: bool = False) -> Candidate:
    parameters = parameters_of(made.node)
    reference = parameters[1] if len(parameters) > 1 else None
    if reference is not None and not forwarded and made.refusal is None:
        return replace(made, refusal=("signature-unread", reference.text[:40]))
    return replace(made, reference=reference)


def _made_name(tree: Tree, names: Names) -> str:
    """A name for a component without one: after the file, or its folder."""
    parts = tree.source.path.replace("\\", "/").split("/")
    for wish in (parts[-1].split(".")[0], *parts[-2:-1], "Component"):
        name = wish[:1].upper() + wish[1:]
        if is_identifier(name) and name not in names.module.names:
            return name
    return "Component"


def _exported_apart(made: Candidate, tree: Tree, names: Names, runtime: RuntimeNames) -> Candidate:
    """A component that a statement of its own exports as the default, wrapped or not."""
    for statement in tree.root.named_children:
        if statement.type != "export_statement" or not statement.has("default"):
            continue
        value = statement.child("value")
        if value is None or statement is made.statement:
            continue
        here, pure = bare(value), False
        while here.type == "call_expression":
            callee, arguments = here.child("function"), here.child("arguments")
            given = arguments.named_children if arguments is not None else []
            if callee is None or len(given) != 1:
                return made
            if runtime.imported(callee, names) != _MEMO:
                if given[0].text == made.name:
                    return replace(made, refusal=("wrapped-in-target", callee.text[:40]))
                return made
            here, pure = bare(given[0]), True
        if here.type == "identifier" and here.text == made.name:
            return replace(made, exported="default", pure=made.pure or pure, exports=statement)
    return made
