"""Ten carried components of the open corpora, old and new side by side, in docs/examples/.

    python benchmarks/examples.py

To be read: what reads oddly in one of them is something to mend in the tool. Each keeps the licence of the
package it comes from.
"""

from __future__ import annotations

import shutil
from pathlib import Path

from clean_carry.crossing.carry import Request, carry_file
from corpus import CORPORA, fetched

CHOSEN = (
    ("@salesforce/design-system-react", "lookup/lookup.jsx"),
    ("@salesforce/design-system-react", "carousel/index.jsx"),
    ("@salesforce/design-system-react", "tooltip/index.jsx"),
    ("@salesforce/design-system-react", "utilities/dialog/index.jsx"),
    ("react-md", "Menus/MenuButton.js"),
    ("react-md", "Menus/DropdownMenu.js"),
    ("react-md", "Grids/GridList.js"),
    ("reactstrap", "Modal.js"),
    ("reactstrap", "TooltipPopoverWrapper.js"),
    ("react-mdl", "Snackbar/index.js"),
)
PLACE = Path(__file__).parent.parent / "docs" / "examples"
HEAD = """# Carried components, side by side

Made by `python benchmarks/examples.py`: components of the open corpora as they are, and as they are
carried to functions for runtime 16. They keep the licence of their package, which lies beside them.

| component | package | lines, old and new |
|---|---|---|
"""


def main() -> None:
    """Write all of them anew."""
    shutil.rmtree(PLACE, ignore_errors=True)
    PLACE.mkdir(parents=True)
    rows = ""
    for package, name in CHOSEN:
        corpus = CORPORA[package]
        folder = fetched(corpus)
        path = folder / corpus.sources / name
        results = carry_file(Request(path, name, "jsx-function"))
        result = next(r for r in results if r.files)
        stem = result.component
        old, new = path.read_text("utf-8"), result.files[0].text
        (PLACE / f"{stem}.old{path.suffix}").write_text(old, "utf-8")
        (PLACE / f"{stem}.new{path.suffix}").write_text(new, "utf-8")
        licence = next(p for p in sorted(folder.iterdir()) if p.name.startswith("LICENSE"))
        shutil.copy(licence, PLACE / f"LICENSE-{package.strip('@').replace('/', '-')}.txt")
        count = f"{len(old.splitlines())}, {len(new.splitlines())}"
        links = f"[old]({stem}.old{path.suffix}), [new]({stem}.new{path.suffix})"
        rows += f"| {stem}: {links} | {package} {corpus.version} | {count} |\n"
    (PLACE / "README.md").write_text(HEAD + rows, "utf-8")
    print(rows)


if __name__ == "__main__":
    main()
