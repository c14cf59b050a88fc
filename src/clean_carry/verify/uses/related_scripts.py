"""Content from related components, if the project shows no use of a component.

Components that belong together stand beside each other and share a name: a `MenuItem` goes into a `Menu`,
a `Tab` into `Tabs` or a `TabBar`, a `TabPane` into a `TabContent`. Usable combinations are found by
showing it.
"""

from __future__ import annotations

import json
import re
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from clean_carry.verify.search.inputs.read_inputs import read_inputs
from clean_carry.verify.search.values.shape import Shape
from clean_carry.verify.search.values.values import is_function, typical
from clean_carry.verify.uses.model import Uses, meant_by

MOST_KIN = 5
_ENDINGS = (".js", ".jsx", ".tsx")
_WORDS = re.compile(r"[A-Z][a-z0-9]*")


@dataclass(frozen=True)
class _Kin:
    """A component of the family: the import that gives it, and its tag with what it requires.

    `known` is what it is known by to the component: an input that is equal to one of the component's.
    """

    name: str
    line: str
    tag: str
    known: str = ""

    def around(self, inside: str, known: bool = False) -> str:
        return f"<{self.tag}{self.known if known else ''}>{inside}</{self.name}>"


def kin_of(component: str, file: Path, inputs: dict[str, list[Any]]) -> Uses:
    """Return contents made of related components: each once, each around the others, two of each.

    `inputs` are the constants the project is known to give the component's inputs.
    """
    place = file.with_name("content-of-the-trial.jsx")
    own = {
        name: inputs[name][0] if inputs.get(name) else typical(name, shape)
        for name, shape in _own_inputs(component, file).items()
    }
    kin = [found for path in _family(component, file) if (found := _member(path, own)) is not None]
    kin = kin[:MOST_KIN]
    if not kin:
        return Uses(place, inputs=inputs)
    contents = [f"{one.around(f'{one.name} 1', True)}{one.around(f'{one.name} 2')}" for one in kin]
    if len(kin) > 1:
        every = [one.around(one.name) for one in kin]
        nested = [
            one.around(
                "".join(part for part, other in zip(every, kin, strict=True) if other != one)
            )
            for one in kin
        ]
        contents = ["".join(nested), "".join(every), *contents]
    functions = "".join(f"  () => (<>{text}</>).props.children,\n" for text in contents)
    text = "\n".join(one.line for one in kin) + f"\nexport default [\n{functions}];\n"
    return Uses(place, text, len(contents), inputs)


def _family(component: str, file: Path) -> list[Path]:
    """Return files beside the component's whose names begin like its parts, the closest first."""
    words = _WORDS.findall(component)
    ranked: list[tuple[int, str, Path]] = []
    for path in file.parent.iterdir():
        name = path.stem
        if path.suffix not in _ENDINGS or path == file or not name[:1].isupper() or not words:
            continue
        if name.startswith(component) and name[len(component) :][:1].isupper():
            ranked.append((0, name, path))
        elif component.startswith(name) and component != name:
            ranked.append((1, name, path))
        elif len(words) == 2 and _WORDS.findall(name)[:1] == words[:1]:
            ranked.append((2, name, path))
    ranked.sort()
    closest = [path for rank, _, path in ranked if rank < 2]
    # A first word that many share says little.
    return closest or [path for _, _, path in ranked if len(ranked) < MOST_KIN]


def _own_inputs(component: str, file: Path) -> dict[str, Shape]:
    """The inputs of the component itself."""
    try:
        return read_inputs(file.read_text("utf-8"), str(file), component).shapes
    except (OSError, UnicodeDecodeError):
        return {}


def _member(path: Path, own: dict[str, Any]) -> _Kin | None:
    """How a component of another file is written; None where it exports none of its name."""
    name = path.stem
    try:
        text = path.read_text("utf-8")
    except (OSError, UnicodeDecodeError):
        return None
    if re.search(rf"\b{name}\s*=\s*(\w+\.)?createContext\(", text):
        return None
    found = read_inputs(text, str(path), name)
    if "default" in found.exports:
        line = f"import {name} from {json.dumps(str(path.resolve()))};"
    elif name in found.exports:
        line = f"import {{ {name} }} from {json.dumps(str(path.resolve()))};"
    else:
        return None
    tag, known = name, ""
    for given, shape in found.shapes.items():
        meant = meant_by(given, own)
        if meant and not shape.required:
            known += f" {given}={{{json.dumps(own[meant])}}}"
        if not shape.required or given == "children" or not given.isidentifier():
            continue
        value = "() => {}" if is_function(given, shape) else json.dumps(typical(given, shape))
        tag += f" {given}={{{value}}}"
    return _Kin(name, line, tag, known)
