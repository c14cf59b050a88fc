"""Write the expected output of pairs that have none yet. Read what it wrote before you keep it."""

from __future__ import annotations

from pathlib import Path

from clean_carry.crossing.carry import Request, carry_file

PAIRS = Path(__file__).parent / "syntaxes"


def main() -> None:
    """Write `new.*` beside every `old.*` that stands alone."""
    for old in sorted(PAIRS.glob("*/pairs/*/old.*")):
        if old.suffix == ".yaml":
            continue
        new = old.with_name("new" + old.suffix)
        if new.exists():
            continue
        results = carry_file(Request(old, old.name, "jsx-function"))
        new.write_text(results[0].files[0].text, "utf-8")
        print(new)


if __name__ == "__main__":
    main()
