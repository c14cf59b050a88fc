"""Write the reference pages of the docs from the data they describe.

python tools/reference.py           write the pages
python tools/reference.py --check   exit with 1 if a page is not up to date
"""

from __future__ import annotations

import json
import sys
from collections.abc import Callable, Iterator
from itertools import groupby
from pathlib import Path
from typing import Any

from clean_carry.component.rules import Rule
from clean_carry.syntaxes.rules import every_rule
from clean_carry.verify.normalise import RULES

ROOT = Path(__file__).parent.parent
SCHEMA = ROOT / "src/clean_carry/project/settings.schema.json"
_MADE = "<!-- Made by tools/reference.py. -->"


def findings() -> Iterator[str]:
    """Yield the lines of the page of all findings, by topic."""
    yield from (
        "# Findings",
        "",
        _MADE,
        "",
        "`clean-carry explain RULE` prints one of them in the terminal.",
    )
    yield "An **error** refuses the component, a **warning** leaves a marked place, a **note** informs."
    by_topic = sorted(every_rule().values(), key=lambda rule: rule.topic)
    for topic, rules in groupby(by_topic, key=lambda rule: rule.topic):
        yield from ("", f"## {topic}")
        for rule in rules:
            yield from _finding(rule)


def _finding(rule: Rule) -> Iterator[str]:
    yield from ("", f"### `{rule.name}`", "", f"**{rule.level}**: {_first_up(rule.title)}.", "")
    yield f"{rule.advice}."
    for heading, text in (("Before", rule.before), ("After", rule.after)):
        if text:
            yield from ("", f"{heading}:", "", "```text", text, "```")


def project_file() -> Iterator[str]:
    """Yield the lines of the page of the project file, from its schema."""
    schema = json.loads(SCHEMA.read_text("utf-8"))
    yield from ("# The project file", "", _MADE, "")
    yield "`clean-carry.toml` stands at the root of a project. The nearest one above a file counts."
    yield "All settings are optional."
    yield from ("", "| setting | type | meaning |", "|---|---|---|")
    for name, setting in schema["properties"].items():
        yield f"| `{name}` | {_type_of(setting)} | {setting['description']} |"
    yield from ("", "## `accepted`", "", "| field | type | meaning |", "|---|---|---|")
    accepted = schema["properties"]["accepted"]["items"]
    for name, setting in accepted["properties"].items():
        needed = " (required)" if name in accepted["required"] else ""
        yield f"| `{name}` | {_type_of(setting)}{needed} | {setting['description']} |"
    yield from ("", "## Example", "", "```toml", *_EXAMPLE, "```")


_EXAMPLE = (
    'sources = ["src"]', 'ignore = ["**/*.test.jsx"]', 'setup = "src/testing/setup.js"',
    'styles = ["src/page.css"]', "", "[imports]", '"@" = "src"', "", "[defines]",
    '"process.env.NODE_ENV" = "\'production\'"', "", "[naming]", 'jsx-function = "{stem}.next{ending}"', "",
    "[runtimes]", "react = 18", "", "[[accepted]]", 'component = "TideStrip"', 'what = "style"',
    'place = "/div[1]"', 'reason = "the strip got its colour from the old theme"',
)  # fmt: skip


def _type_of(setting: dict[str, Any]) -> str:
    kinds = setting.get("type", "any")
    if kinds == "array":
        return f"list of {_type_of(setting.get('items', {}))}s"
    if kinds == "object" and "additionalProperties" in setting and setting["additionalProperties"]:
        return f"table of {_type_of(setting['additionalProperties'])}s"
    if isinstance(kinds, list):
        return " or ".join(kinds)
    return {"object": "table"}.get(kinds, kinds)


def normalised() -> Iterator[str]:
    """Yield the lines of the page of normalised differences."""
    yield from ("# Normalised differences", "", _MADE, "")
    yield "These differences are not counted. Reports list how often each rule applied, as do the commands"
    yield "with `--verbose`."
    yield from ("", "| rule | reason |", "|---|---|")
    for rule in RULES:
        yield f"| `{rule.name}` | {rule.reason} |"


def _first_up(text: str) -> str:
    return text[:1].upper() + text[1:]


PAGES: dict[str, Callable[[], Iterator[str]]] = {
    "docs/findings.md": findings,
    "docs/project-file.md": project_file,
    "docs/normalised-differences.md": normalised,
}


def main(arguments: list[str]) -> int:
    """Write or check the pages; return 1 if one is not up to date."""
    old = []
    for name, lines in PAGES.items():
        text = "\n".join(lines()) + "\n"
        path = ROOT / name
        if "--check" not in arguments:
            path.write_text(text, "utf-8")
        elif not path.is_file() or path.read_text("utf-8") != text:
            old.append(name)
    for name in old:
        print(f"{name} is not up to date: run python tools/reference.py", file=sys.stderr)
    return int(bool(old))


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
