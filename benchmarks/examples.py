"""Ten carried components of each family of the open corpora, old and new side by side, in docs/examples/.

    python benchmarks/examples.py

To be read: what reads oddly in one of them is something to mend in the tool. Each keeps the licence of the
package it comes from.
"""

from __future__ import annotations

import shutil
from pathlib import Path

import single_files
from clean_carry.crossing.carry import Request, carry_file
from clean_carry.project.settings import settings_for
from corpus import CORPORA, Corpus, fetched

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
SINGLE = (
    ("element-ui-2.15.14", "slider/src/main.vue"),
    ("element-ui-2.15.14", "menu/src/menu-item.vue"),
    ("element-ui-2.15.14", "cascader-panel/src/cascader-panel.vue"),
    ("buefy-0.9.29", "components/datepicker/Datepicker.vue"),
    ("primevue-2.10.4", "orderlist/OrderList.vue"),
    ("primevue-2.10.4", "dropdown/Dropdown.vue"),
    ("buefy-3.1.0", "components/colorpicker/Colorpicker.vue"),
    ("buefy-3.1.0", "components/pagination/Pagination.vue"),
    ("primevue-3.53.1", "listbox/Listbox.vue"),
    ("primevue-3.53.1", "tabview/TabView.vue"),
)
PLACE = Path(__file__).parent.parent / "docs" / "examples"
HEAD = """# Carried components, side by side

Made by `python benchmarks/examples.py`: components of the open corpora as they are, and as they are
carried. They keep the licence of their package, which lies beside them.

"""
COLUMNS = """| component | package | lines, old and new |
|---|---|---|
"""


def written(corpus: Corpus, name: str, target: str) -> str:
    """Write one component, old and new, and its licence; its row of the table."""
    folder = fetched(corpus)
    path = folder / corpus.sources / name
    aliases = tuple(settings_for(path).aliases.items())
    result = next(r for r in carry_file(Request(path, name, target, aliases=aliases)) if r.files)
    stem = result.component
    if (PLACE / f"{stem}.old{path.suffix}").exists():
        stem = f"{stem}-{corpus.runtime[0]}"
    old, new = path.read_text("utf-8"), result.files[0].text
    (PLACE / f"{stem}.old{path.suffix}").write_text(old, "utf-8")
    (PLACE / f"{stem}.new{path.suffix}").write_text(new, "utf-8")
    licence = next(p for p in sorted(folder.iterdir()) if p.name.startswith("LICENSE"))
    shutil.copy(licence, PLACE / f"LICENSE-{corpus.package.strip('@').replace('/', '-')}.txt")
    count = f"{len(old.splitlines())}, {len(new.splitlines())}"
    links = f"[old]({stem}.old{path.suffix}), [new]({stem}.new{path.suffix})"
    return f"| {stem}: {links} | {corpus.package} {corpus.version} | {count} |\n"


def main() -> None:
    """Write all of them anew."""
    shutil.rmtree(PLACE, ignore_errors=True)
    PLACE.mkdir(parents=True)
    rows = "".join(written(CORPORA[package], name, "jsx-function") for package, name in CHOSEN)
    known = {f"{c.package}-{c.version}": c for c in single_files.CORPORA}
    flat = "".join(written(known[corpus], name, "single-file-flat") for corpus, name in SINGLE)
    text = f"{HEAD}## Classes to functions, runtime 16\n\n{COLUMNS}{rows}\n"
    text += f"## Single files, object form to flat form\n\n{COLUMNS}{flat}"
    (PLACE / "README.md").write_text(text, "utf-8")


if __name__ == "__main__":
    main()
