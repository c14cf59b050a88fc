"""The demo company's tourist page, lifted into components and compared."""

from __future__ import annotations

from dataclasses import dataclass
from pathlib import Path

from clean_carry.project.lift.lift import Wishes, lift
from clean_carry.project.writing import write_new
from clean_carry.verify.pair import Trials, sides_of, verified, with_drawn
from clean_carry.verify.verify import Effort, read_text
from clean_carry.verify.worker_pool import Bench

PAGE, TARGET = "tourist/tourist.html", "jsx-function"


@dataclass(frozen=True)
class Lifting:
    """The page lifted: how many copies each component had, its lines before and after, and the verdict."""

    page: str
    copies: dict[str, int]
    lines: tuple[int, int]
    verdict: str


def lifted_page(folder: Path, bench: Bench) -> Lifting:
    """Lift the page's blocks, and its head bar for the name's sake; compare before and after."""
    page = folder / PAGE
    made = lift([page], TARGET, Wishes(once=(".head-bar",)))
    for path, text in made.files.items():
        write_new(path, text.encode())
    entry = made.entries[page]
    old, new, interface = sides_of(page, read_text(page), entry, made.files[entry])
    texts = [(path.resolve(), text) for path, text in made.files.items()]
    found = verified(bench, (old, with_drawn(new, texts)), interface, Trials(None), Effort())
    copies = {group.name: len(group.copies) for group in made.groups if id(group) in made.lifted}
    lines = read_text(page).count("\n"), made.files[entry].count("\n")
    return Lifting(PAGE, copies, lines, found.verdict)
