"""Whether code at a place runs now or later.

Later means: after an `await`, in a timer, a listener, a promise, or in a function that got away.
When in doubt a place counts as later, since reading the latest value is right in either case.
"""

from __future__ import annotations

from clean_carry.source.javascript.scope import Names
from clean_carry.source.javascript.tree import Node
from clean_carry.source.javascript.values import last_name

_LOOPS = frozenset({"for_statement", "for_in_statement", "while_statement", "do_statement"})
# Methods of ECMAScript built-ins (ECMA-262 §22.1, §23.1, §24) and of React's children helper that
# call their callback before they return.
_AT_ONCE = frozenset(
    (
        "map filter forEach reduce reduceRight some every find findIndex findLast findLastIndex "
        "flatMap sort toSorted replace replaceAll from keys values entries"
    ).split()
)
_TRANSPARENT = frozenset(
    (
        "parenthesized_expression ternary_expression binary_expression object array pair "
        "jsx_expression as_expression non_null_expression satisfies_expression spread_element"
    ).split()
)


# The runtime's functions that make elements, by whatever name the runtime is imported.
MAKE_ELEMENTS = frozenset({"cloneElement", "createElement"})


# Functions of the runtime that have everything rendered before they return (its reference, react-dom).
_RENDERS_NOW = ("flushSync", "unstable_batchedUpdates")


def is_deferred(node: Node, root: Node, names: Names, depth: int = 0) -> bool:
    """Whether `node` runs later than the call of the function (or expression) `root`."""
    for above in node.up():
        if above.is_function:
            if _after_wait(node, above) or _after_rendering(node, above):
                return True
            if above is root:
                return False
            if _function_deferred(above, root, names, depth):
                return True
        if above is root:
            return False
    return False


def in_handler(node: Node, root: Node) -> bool:
    """Whether `node` lies in a function that is an attribute's value, so that rendering never runs
    it."""
    inside = False
    for above in node.up():
        if above is root:
            return False
        inside = inside or above.is_function
        if above.type == "jsx_attribute" and inside:
            return True
    return False


def _after_wait(node: Node, function: Node) -> bool:
    """Whether an `await` or `yield` of this very function comes before `node`, or around in a loop."""
    if not (function.has("async") or function.has("*")):
        return False
    loops = [
        up
        for up in node.up()
        if up.type.startswith(("for", "while", "do_")) and function.start <= up.start
    ]
    outermost = loops[-1] if loops else None
    for wait in function.walk():
        if wait.type not in ("await_expression", "yield_expression") and not (
            wait.type == "for_in_statement" and wait.has("await")
        ):
            continue
        owner = next((up for up in wait.up() if up.is_function), None)
        if owner is not function:
            continue
        if wait.end <= node.start:
            return True
        if outermost is not None and outermost.start <= wait.start and wait.end <= outermost.end:
            return True
    return False


def _after_rendering(node: Node, function: Node) -> bool:
    """Whether a call that renders at once comes before `node` in this very function, or around in a
    loop."""
    data = node.text_of.data
    if not any(
        data.find(name.encode(), function.start, function.end) >= 0 for name in _RENDERS_NOW
    ):
        return False
    for call in function.walk():
        if call.type != "call_expression" or last_name(call.child("function")) not in _RENDERS_NOW:
            continue
        owner = next((up for up in call.up() if up.is_function), None)
        if owner is not function:
            continue
        loop = next((up for up in reversed(list(call.up())) if up.type in _LOOPS), None)
        around = loop is not None and loop.start <= node.start < loop.end
        if call.end <= node.start or (around and function.start <= loop.start):  # type: ignore[union-attr]
            return True
    return False


def _function_deferred(function: Node, root: Node, names: Names, depth: int) -> bool:
    if depth > 6:
        return True
    if function.type in ("function_declaration", "generator_function_declaration"):
        name = function.child("name")
        return name is None or _name_deferred(name, root, names, depth)
    use: Node = function
    for above in function.up():
        kind = above.type
        if kind in _TRANSPARENT:
            use = above
            continue
        if kind == "jsx_attribute":
            # A reference is taken back when the next render is done, by the function it was given to.
            return above.children[0].text == "ref"
        if kind == "jsx_element":
            return False
        if kind == "call_expression":
            return use.field != "function"
        if kind == "arguments":
            return argument_deferred(above, use)
        if kind == "variable_declarator":
            name = above.child("name")
            if name is not None and name.type == "identifier":
                return _name_deferred(name, root, names, depth)
            return True
        return True
    return True


def argument_deferred(arguments: Node, argument: Node) -> bool:
    call = arguments.parent
    if call is None:
        return True
    if call.type == "new_expression":
        constructor = call.child("constructor")
        return not (constructor is not None and constructor.text == "Promise")
    callee = call.child("function")
    if callee is None:
        return True
    if callee.type == "member_expression":
        name = callee.child("property")
        if name is not None and name.text in _AT_ONCE:
            return False
        if name is not None and name.text == "cloneElement":
            return False
        # A write calls its updater at once as far as it can tell, what comes after it when all is rendered.
        # A function inside of what is written is kept with it.
        first = arguments.named_children[0] is argument
        updater = first and argument.type not in ("object", "array")
        return not (name is not None and name.text == "setState" and updater)
    return callee.text not in MAKE_ELEMENTS


def _name_deferred(name: Node, root: Node, names: Names, depth: int) -> bool:
    binding = names.scope_at(name).find(name.text)
    if binding is None:
        return True
    for reference in binding.references:
        parent = reference.parent
        if parent is None:
            return True
        if parent.type == "call_expression" and reference.field == "function":
            if is_deferred(reference, root, names, depth + 1):
                return True
            continue
        use: Node = reference
        for above in reference.up():
            if above.type in _TRANSPARENT:
                use = above
                continue
            break
        else:
            return True
        if above.type == "jsx_attribute":
            if above.children[0].text == "ref" or is_deferred(reference, root, names, depth + 1):
                return True
            continue
        if above.type == "arguments" and not argument_deferred(above, use):
            continue
        return True
    return False
