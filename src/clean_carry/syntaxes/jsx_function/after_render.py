"""The file's own hook for what is called once a write of state is rendered."""

from __future__ import annotations

from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from clean_carry.syntaxes.jsx_function.write import Style

_WISHES = ("useAfterRender", "useCallAfterRender", "useRunAfterRender")
# A render calls back what was noted before it began: the state written beside it is in it. A callback noted
# by the effects of that render waits for the next one.
_BODY = (
    "const queue = {ref}([])",
    "const due = queue.current.length",
    "{effect}(() => {{",
    "{unit}queue.current.splice(0, due).forEach({run} => run())",
    "}})",
)


def hook_name(taken: set[str]) -> str:
    """The first name for the hook that the file does not have yet."""
    return next((name for name in _WISHES if name not in taken), f"{_WISHES[0]}2")


def after_render_hook(style: Style, *, typed: bool, annotated: bool) -> str:
    """The declaration of the hook, in the style of the file."""
    semi, unit = style.semicolon, style.unit
    queue = parameter = ""
    if annotated:
        queue, parameter = "<Array<() => mixed>>", ": ?() => mixed"
    elif typed:
        queue, parameter = "<(() => void)[]>", "?: (() => void) | null"
    words = {
        "ref": f"{style.hook('useRef')}{queue}",
        "effect": style.hook("useLayoutEffect"),
        "unit": unit,
        "run": style.one("run"),
    }
    lines = [line.format(**words) for line in _BODY]
    ended = [line if line.endswith("{") else f"{line}{semi}" for line in lines]
    run = f"(run{parameter})" if parameter else style.one("run")
    return "".join(
        [
            "// Calls back once the state written next to it is rendered, as the second argument of "
            "setState.\n",
            f"function {style.after_hook}() {{\n",
            *(f"{unit}{line}\n" for line in ended),
            f"{unit}return {run} => {{\n",
            f"{unit * 2}if (run) queue.current.push(run){semi}\n",
            f"{unit}}}{semi}\n",
            "}\n\n",
        ]
    )
