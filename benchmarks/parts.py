"""Split components of the open corpora into files, and join them again.

    python benchmarks/parts.py FOLDER…

Prints how many components had parts to split, how many files that gave, and those that did not come back
byte for byte.
"""

from __future__ import annotations

import sys
from importlib import import_module
from pathlib import Path

from clean_carry.component.errors import InputError
from clean_carry.syntaxes.registry import declared

LAYOUTS = {".ts": "decorated-class", ".vue": "single-file-object"}


def main(folders: list[str]) -> int:
    """Split and join every component below the folders."""
    split = files = 0
    lost = []
    for path in sorted(p for folder in folders for p in Path(folder).rglob("*")):
        syntax = LAYOUTS.get(path.suffix)
        if syntax is None or not path.is_file():
            continue
        text = path.read_bytes().decode("utf-8", "replace")
        layout = import_module(declared(syntax).parts)
        try:
            made = layout.apart(text, path.stem)
        except InputError:
            continue
        if len(made) == 1:
            continue
        split += 1
        files += len(made) - 1
        named = {f"./{name}": held for name, held in made.items()}
        if layout.together(made[""], named.get) != text:
            lost.append(str(path))
    print(f"{split} components split into {files} files more, {len(lost)} did not come back")
    print("\n".join(lost))
    return int(bool(lost))


if __name__ == "__main__":
    raise SystemExit(main(sys.argv[1:]))
