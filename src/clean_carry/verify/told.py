"""Values that the inputs of a component may have, for writers that ask for types."""

from __future__ import annotations

import json
from dataclasses import replace
from pathlib import Path
from typing import Any

from clean_carry.component.errors import CarryError
from clean_carry.syntaxes.member_types import REPLY
from clean_carry.verify.search.inputs.read_inputs import read_inputs
from clean_carry.verify.search.values.shape import Shape
from clean_carry.verify.search.values.values import typical
from clean_carry.verify.trials import beside, load


def fits(told: Any, value: Any) -> bool:
    """Whether a value is of the type of another one, with all that it holds."""
    if isinstance(told, bool) or isinstance(value, bool):
        return isinstance(told, bool) and isinstance(value, bool)
    match told:
        case int():
            return isinstance(value, int)
        case float():
            return isinstance(value, int | float)
        case str():
            return isinstance(value, str)
        case list():
            return isinstance(value, list) and all(fits(told[0], one) for one in value if told)
        case dict():
            return (
                isinstance(value, dict)
                and "$" not in value
                and all(name in value and fits(one, value[name]) for name, one in told.items())
            )
    return True


def shaped(told: Any, shape: Shape) -> Shape:
    """A shape with the types of a value, and what else was known."""
    kind = {
        bool: "boolean",
        int: "number",
        float: "number",
        str: "string",
        list: "array",
        dict: "object",
    }
    found = kind.get(type(told))
    if found is None:
        return shape
    literals = [one for one in shape.literals if fits(told, one)]
    made = replace(shape, kinds={found}, literals=literals, fields={}, items=None, declared=True)
    if isinstance(told, dict):
        made.fields = {
            n: shaped(one, replace(shape.fields.get(n, Shape()), required=True))
            for n, one in told.items()
        }
    elif isinstance(told, list):
        made.items = shaped(told[0], shape.items or Shape()) if told else shape.items
    return made


def told_of(path: Path, text: str) -> str:
    """JSON of the values that trials give the inputs of a file, and answer its requests with. They come
    from its trial file, where it has one; the rest are plausible ones."""
    inputs = read_inputs(text, str(path))
    found: dict[str, Any] = {
        name: _broken(typical(name, shape)) for name, shape in inputs.shapes.items()
    }
    if inputs.reply is not None:
        found[REPLY] = _broken(typical("reply", inputs.reply))
    if beside(path).is_file():
        try:
            trials = load(beside(path)).trials
        except CarryError:
            trials = ()
        for trial in trials:
            found |= {
                name: value for name, value in trial.inputs.items() if value not in ([], {}, None)
            }
            for one in trial.replies:
                if one.get("json") not in ([], {}, None):
                    found[REPLY] = one["json"]
    return json.dumps(found)


def _broken(value: Any) -> Any:
    """A plausible value with fractions for its numbers: nothing tells that they are always whole."""
    match value:
        case bool():
            return value
        case int():
            return value + 0.5
        case list():
            return [_broken(one) for one in value]
        case dict():
            return {name: _broken(one) for name, one in value.items()}
    return value
