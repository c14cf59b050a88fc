"""The script: what version 3 took from instances and from the module of the runtime."""

from __future__ import annotations

import re
from collections.abc import Iterator

from clean_carry.source.javascript.scope import Names
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.syntaxes.single_file.options.functions import FUNCTIONS, parts_of, returned
from clean_carry.syntaxes.single_file.upgrade.changes import Changes

_RUNTIME = "vue"
# ECMA-262 §23.1: methods that change the list they are called on.
_IN_PLACE = r"(?:push|pop|shift|unshift|splice|sort|reverse)\("
_HOOKS = {"beforeDestroy": "beforeUnmount", "destroyed": "unmounted"}
_GONE = ("$listeners", "$children", "$destroy", "$mount")


def upgrade_script(changes: Changes, tree: Tree, names: Names, literal: Node) -> None:
    """Go through the module and its object."""
    _runtime(changes, tree, names)
    for node in tree.of("member_expression"):
        part = node.child("property")
        if part is None or node.children[0].type != "this":
            continue
        if part.text == "$scopedSlots":
            changes.put(part.start, part.end, "$slots")
        elif part.text in _GONE:
            changes.refuse("removed-from-runtime", f"this.{part.text}", node.start)
    for node in tree.of("method_definition", "pair"):
        _drawing(changes, node)
    for name, part, value in parts_of(literal):
        key = part.child("name") or part.child("key")
        if name in _HOOKS and key is not None:
            changes.put(key.start, key.end, _HOOKS[name])
        if name == "model":
            changes.note("model-by-name", "", part.start)
            _without(changes, tree, part)
        elif name == "functional":
            changes.refuse("removed-from-runtime", "functional: true", part.start)
        elif name == "data" and value.type == "object":
            changes.refuse("removed-from-runtime", "data that is no function", part.start)
    _watchers(changes, tree, literal)
    _events(changes, literal)


def _events(changes: Changes, literal: Node) -> None:
    """Declare the events it sends: a listener of another one would be one of the root's now (migration
    guide, "emits Option")."""
    if any(name == "emits" for name, _, _ in parts_of(literal)):
        return
    text = changes.source.data.decode("utf-8", "replace")
    sent = re.findall(r"\$emit\(\s*(?:(['\"`])([^'\"`]*)\1\s*[,)])?", text)
    names = list(dict.fromkeys(name for _, name in sent))
    if not names or "" in names:
        return
    after = next((part for name, part, _ in parts_of(literal) if name == "props"), None)
    at = after.end if after is not None else literal.start + 1
    source = changes.source
    indent = source.indent_at(after.start) if after is not None else "  "
    listed = ", ".join(f"'{name}'" for name in names)
    if after is not None:
        at += source.data[at : at + 1] == b","
        comma = "" if source.data[at - 1 : at] == b"," else ","
        changes.put(at, at, f"{comma}\n{indent}emits: [{listed}],")
    else:
        changes.put(at, at, f"\n{indent}emits: [{listed}],")


def _drawing(changes: Changes, node: Node) -> None:
    """Change render functions, which get no `h` any more (migration guide, "Render Function API")."""
    key = node.child("name") or node.child("key")
    function = node if node.type == "method_definition" else node.child("value")
    given = function.child("parameters") if function is not None and function.is_function else None
    if key is not None and key.text == "render" and given is not None and given.named_children:
        changes.refuse("removed-from-runtime", "render(h)", node.start)


def _without(changes: Changes, tree: Tree, part: Node) -> None:
    """The object without one of its options."""
    end = part.end + (tree.source.data[part.end : part.end + 1] == b",")
    line = tree.source.statement_line(part.start, end)
    changes.put(line.start, line.end, "")


def _runtime(changes: Changes, tree: Tree, names: Names) -> None:
    """The runtime itself is no constructor any more, and nothing hangs on it."""
    for statement in tree.of("import_statement"):
        source = statement.child("source")
        if source is None or source.text[1:-1] != _RUNTIME:
            continue
        for node in statement.walk():
            above = node.parent.type if node.parent is not None else ""
            if node.type != "identifier" or above != "import_clause":
                continue
            binding = names.module.names.get(node.text)
            for ref in binding.references if binding is not None else ():
                asked = ref.parent
                if asked is not None and asked.text == f"{node.text}.extend":
                    continue
                detail = asked.text.partition("\n")[0][:40] if asked is not None else ref.text
                changes.refuse("removed-from-runtime", detail, ref.start)
                return


# -- watchers -------------------------------------------------------------------------------------


def _watchers(changes: Changes, tree: Tree, literal: Node) -> None:
    """Make watchers of lists that are changed in place deep (migration guide, "Watch on Arrays")."""
    text = changes.source.data.decode("utf-8", "replace")
    lists = set(_lists(literal))
    for name, _, value in parts_of(literal):
        if name != "watch" or value.type != "object":
            continue
        for key, part, handler in parts_of(value):
            if key not in lists or not _changed_in_place(key or "", text):
                continue
            _look_inside(changes, part, handler)


def _lists(literal: Node) -> Iterator[str]:
    """The fields of state that begin as lists."""
    for name, _, value in parts_of(literal):
        given = returned(value) if name == "data" and value.type in FUNCTIONS else None
        for key, _, first in (
            parts_of(given) if given is not None and given.type == "object" else ()
        ):
            listed = first.type == "array" or re.search(r"\.(?:map|filter|slice)\(", first.text)
            if key is not None and listed:
                yield key


def _changed_in_place(name: str, text: str) -> bool:
    own = rf"\b{re.escape(name)}"
    return re.search(rf"{own}\.{_IN_PLACE}|{own}\[[^\]]+\]\s*=[^=]", text) is not None


def _look_inside(changes: Changes, part: Node, handler: Node) -> None:
    if handler.type == "object":
        keys = {key for key, _, _ in parts_of(handler)}
        if "deep" not in keys:
            changes.put(handler.start + 1, handler.start + 1, " deep: 1,")
        return
    key = part.child("name") or part.child("key")
    if key is None:
        return
    if part.type == "method_definition":
        waits = "async " if part.has("async") else ""
        changes.put(part.start, key.end, f"{key.text}: {{ deep: 1, {waits}handler")
        changes.put(part.end, part.end, " }")
    else:
        changes.put(handler.start, handler.start, "{ deep: 1, handler: ")
        changes.put(handler.end, handler.end, " }")
