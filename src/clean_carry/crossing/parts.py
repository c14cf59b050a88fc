"""The parts of a written component: in files of their own, or together in one."""

from __future__ import annotations

import posixpath
from collections.abc import Iterable
from dataclasses import replace
from importlib import import_module
from pathlib import Path
from typing import Any, Literal

from clean_carry.component.result import NewFile, Result
from clean_carry.syntaxes.registry import declared

Parts = Literal["together", "apart"]


def laid_out(results: list[Result], parts: Parts, folder: Path) -> list[Result]:
    """The results with the parts of their first files `together` or `apart`; `folder` is that of the old
    file. Syntaxes whose parts cannot stand apart keep theirs."""
    made = []
    for result in results:
        syntax = declared(result.target)
        if not syntax.parts or not result.files:
            made.append(result)
            continue
        layout = import_module(syntax.parts)
        first, *others = result.files
        if parts == "apart":
            files = _apart(layout, first, others)
        else:
            files = _together(layout, first, others, folder)
        made.append(replace(result, files=files))
    return made


def _apart(layout: Any, first: NewFile, others: Iterable[NewFile]) -> tuple[NewFile, ...]:
    where, stem = posixpath.split(first.path)
    texts: dict[str, str] = layout.apart(first.text, stem.rpartition(".")[0])
    known = {posixpath.basename(one.path) for one in others}
    if known & texts.keys():
        return (first, *others)
    new = [NewFile(posixpath.join(where, n), t, t.encode()) for n, t in texts.items() if n]
    return (_with_text(first, texts[""]), *others, *new)


def _together(
    layout: Any, first: NewFile, others: list[NewFile], folder: Path
) -> tuple[NewFile, ...]:
    by_name = {f"./{posixpath.basename(one.path)}": one for one in others}
    taken: set[str] = set()

    def read(request: str) -> str | None:
        if request in by_name:
            taken.add(request)
            return by_name[request].text
        place = folder / request
        return place.read_text("utf-8") if request and place.is_file() else None

    text = layout.together(first.text, read)
    rest = [one for name, one in by_name.items() if name not in taken]
    return (_with_text(first, text), *rest)


def _with_text(file: NewFile, text: str) -> NewFile:
    mark = file.data[:3] if file.data.startswith(b"\xef\xbb\xbf") else b""
    return replace(file, text=text, data=mark + text.encode())
