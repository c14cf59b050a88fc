"""Write the expected output of pairs that have none yet. Read what it wrote before you keep it."""

from __future__ import annotations

from pathlib import Path

from clean_carry.crossing.carry import Request, carry_file
from tests_support import TARGETS

PAIRS = Path(__file__).parent / "syntaxes"


def main() -> None:
    """Write `new.*` beside every `old.*` that stands alone."""
    for old in sorted(PAIRS.glob("*/pairs/*/old.*")):
        if old.suffix in (".yaml", ".css"):
            continue
        for target, names in TARGETS[old.parent.parent.parent.name].items():
            wanted = [n for n in names if old.suffix == ".vue" or n.endswith(old.suffix)]
            results = carry_file(Request(old, old.name, target))
            for number, file in enumerate(results[0].files):
                name = wanted[0] if number == 0 else file.path  # imported by its name
                new = old.with_name(name)
                if not new.exists():
                    new.write_text(file.text, "utf-8")
                    print(new)


if __name__ == "__main__":
    main()
