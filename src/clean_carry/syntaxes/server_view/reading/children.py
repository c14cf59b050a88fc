"""Views that a view uses by their tags: where they are, and what they are given."""

from __future__ import annotations

import os
import re
from collections.abc import Iterator, Mapping
from pathlib import Path

from clean_carry.syntaxes.single_file.names import pascal

_TAG = re.compile(r"<x-((?!slot\b)[a-z][\w.-]*)")


def root_of(view: Path) -> Path:
    """The folder that tags are looked up from: that of all components, else that of the view."""
    parts = view.parts
    if "components" in parts[:-1]:
        return Path(*parts[: parts.index("components") + 1])
    return view.parent


def tag_of(view: Path) -> str:
    """The tag by which other views use a view."""
    way = view.relative_to(root_of(view)).as_posix().removesuffix(".blade.php")
    return "x-" + way.removesuffix("/index").replace("/", ".")


def child_of(view: Path, tag: str) -> Path | None:
    """The view of a tag such as `x-forms.field`; None where there is none."""
    root = root_of(view)
    parts = tag.removeprefix("x-").split(".")
    for place in (root.joinpath(*parts), root.joinpath(*parts, "index")):
        found = place.with_name(f"{place.name}.blade.php")
        if found.is_file():
            return found
    return None


def request_to(view: Path, child: Path) -> str:
    """The request that imports the single file which a child is read as."""
    way = os.path.relpath(child, view.parent).replace(os.sep, "/")
    way = way if way.startswith(".") else f"./{way}"
    return way.removesuffix(".php") + ".vue"


def name_of(tag: str) -> str:
    """The name under which a child is imported."""
    return pascal(tag.removeprefix("x-").replace(".", "-"))


def all_children(
    view: Path, text: str, known: Mapping[str, str]
) -> Iterator[tuple[str, Path, str]]:
    """The views that a view uses, and those that they use: tag without its mark, path, text. `known` are
    texts of files beside the view, by their names."""
    open_, seen = [text], {view.resolve()}
    while open_:
        for name in dict.fromkeys(_TAG.findall(open_.pop())):
            written = f"{name}.blade.php"
            child = view.with_name(written) if written in known else child_of(view, name)
            if child is not None and child.resolve() not in seen:
                seen.add(child.resolve())
                own = known.get(child.name) if written in known else None
                own = own if own is not None else child.read_text("utf-8", "replace")
                yield name, child, own
                open_.append(own)
