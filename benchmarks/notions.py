"""The notions of a component class, read off the runtime's own type declarations.

    python benchmarks/notions.py

Fetches the declarations of every major version that is carried for, lists the members a class may have
or inherit, and writes them to tests/syntaxes/jsx_class/runtime-members.json. A test asks for a row of
constructs.md, and a pair or a test, for each.
"""

from __future__ import annotations

import json
import subprocess
import tempfile
from pathlib import Path

from corpus import tools

PACKAGE = "@types/react"
MAJORS = ("16", "17", "18", "19")
# The declarations that say what a class is made of: of its instances, and of itself.
INTERFACES = {
    "instance": (
        "Component",
        "ComponentLifecycle",
        "NewLifecycle",
        "DeprecatedLifecycle",
        "ChildContextProvider",
    ),
    "static": ("ComponentClass", "StaticLifecycle"),
}
BASES = ("Component", "PureComponent")
PAGE = Path(__file__).parent.parent / "tests/syntaxes/jsx_class/runtime-members.json"
LISTER = """
const ts = require('typescript');
const fs = require('fs');
const [, , file, names] = process.argv;
const wanted = JSON.parse(names);
const source = ts.createSourceFile(file, fs.readFileSync(file, 'utf8'), ts.ScriptTarget.Latest, true);
const found = {};
const visit = (node) => {
  const declares = ts.isInterfaceDeclaration(node) || ts.isClassDeclaration(node);
  if (declares && wanted.includes(node.name?.text)) {
    for (const member of node.members) {
      const name = member.name?.getText(source);
      if (!name) continue;
      const isStatic = member.modifiers?.some((m) => m.kind === ts.SyntaxKind.StaticKeyword);
      (found[`${node.name.text}${isStatic ? ' static' : ''}`] ??= []).push(name);
    }
  }
  ts.forEachChild(node, visit);
};
visit(source);
process.stdout.write(JSON.stringify(found));
"""


def members(major: str, folder: Path) -> dict[str, list[str]]:
    """{interface or class: the members it declares} of one version."""
    done = subprocess.run(
        ["npm", "pack", f"{PACKAGE}@{major}", "--silent"],
        cwd=folder,
        capture_output=True,
        text=True,
        check=True,
    )
    place = folder / major
    place.mkdir()
    archive = folder / done.stdout.split()[-1]
    subprocess.run(["tar", "xzf", archive, "--strip-components=1"], cwd=place, check=True)
    names = sorted({name for group in INTERFACES.values() for name in group} | set(BASES))
    listed = subprocess.run(
        ["node", "-e", LISTER, "-", str(place / "index.d.ts"), json.dumps(names)],
        cwd=tools(),
        capture_output=True,
        text=True,
        check=True,
    )
    found: dict[str, list[str]] = json.loads(listed.stdout)
    return found


def main() -> None:
    """Write the list."""
    found: dict[str, set[str]] = {"instance": set(), "static": set()}
    with tempfile.TemporaryDirectory() as name:
        for major in MAJORS:
            for owner, names in members(major, Path(name)).items():
                plain = owner.removesuffix(" static")
                static = owner.endswith(" static") or plain in INTERFACES["static"]
                found["static" if static else "instance"].update(names)
    text = json.dumps({kind: sorted(names) for kind, names in found.items()}, indent=2)
    PAGE.write_text(text + "\n")
    print(text)


if __name__ == "__main__":
    main()
