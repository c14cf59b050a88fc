"""The notions of a component class and of a component object, read off the runtimes' type declarations.

    python benchmarks/notions.py

Fetches the declarations of every major version that is carried for, lists the members a class may have
or inherit, and writes them to tests/syntaxes/jsx_class/runtime-members.json; and the options and instance
members of a component object, to tests/syntaxes/single_file_object/; and what directives and components
say, off the runtime's source, to tests/syntaxes/directive/. A test asks for a row of constructs.md for
each.
"""

from __future__ import annotations

import json
import re
import subprocess
import tempfile
from pathlib import Path

from corpus import tools

PACKAGE = "@types/react"
SCOPED = "angular@1.8.3"
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
# The declarations of the single-file runtime: package, file, what declares options, what an instance.
SINGLE = (
    ("vue@2.7.16", "types/options.d.ts", ("ComponentOptions",), ()),
    ("vue@2.7.16", "types/vue.d.ts", (), ("Vue",)),
    (
        "@vue/runtime-core@3.5.45",
        "dist/runtime-core.d.ts",
        ("ComponentOptionsBase", "LegacyOptions"),
        ("ComponentPublicInstance",),
    ),
)
PAGE = Path(__file__).parent.parent / "tests/syntaxes/jsx_class/runtime-members.json"
LISTER = """
const ts = require('typescript');
const fs = require('fs');
const [, , file, names] = process.argv;
const wanted = JSON.parse(names);
const source = ts.createSourceFile(file, fs.readFileSync(file, 'utf8'), ts.ScriptTarget.Latest, true);
const found = {};
const members = (type) => {
  if (ts.isTypeLiteralNode(type)) return [...type.members];
  return ts.isIntersectionTypeNode(type) ? type.types.flatMap(members) : [];
};
const visit = (node) => {
  if (ts.isTypeAliasDeclaration(node) && wanted.includes(node.name.text)) {
    const names = members(node.type).flatMap((member) => member.name?.getText(source) ?? []);
    (found[node.name.text] ??= []).push(...names);
  }
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


def unpacked(package: str, folder: Path) -> Path:
    """A package, fetched and unpacked into a folder of its own."""
    place = folder / package.replace("/", "-")
    if place.exists():
        return place
    done = subprocess.run(
        ["npm", "pack", package, "--silent"], cwd=folder, capture_output=True, text=True, check=True
    )
    place.mkdir()
    archive = folder / done.stdout.split()[-1]
    subprocess.run(["tar", "xzf", archive, "--strip-components=1"], cwd=place, check=True)
    return place


def members(file: Path, names: list[str]) -> dict[str, list[str]]:
    """{interface, class or type: the members it declares} of one file."""
    listed = subprocess.run(
        ["node", "-e", LISTER, "-", str(file), json.dumps(names)],
        cwd=tools(),
        capture_output=True,
        text=True,
        check=True,
    )
    found: dict[str, list[str]] = json.loads(listed.stdout)
    return found


def single_files(folder: Path) -> dict[str, list[str]]:
    """The options of a component object and the members of its instance, of both versions."""
    found: dict[str, set[str]] = {"options": set(), "instance": set()}
    for package, file, options, instances in SINGLE:
        listed = members(unpacked(package, folder) / file, [*options, *instances])
        for owner, names in listed.items():
            found["options" if owner in options else "instance"].update(names)
    return {
        "options": sorted(n for n in found["options"] if n.isalpha()),
        "instance": sorted(n for n in found["instance"] if n.startswith("$")),
    }


def scoped(folder: Path) -> dict[str, list[str]]:
    """What a directive may say, a component may say, a scope offers, and the runtime's own directives.

    Read off the runtime's source: the headings of its documentation of a definition, the list in that of
    a component, the methods of its scope, and what it registers itself.
    """
    text = (unpacked(SCOPED, folder) / "angular.js").read_text("utf-8")
    definition = text[text.index("### Directive Definition Object") :]
    component = text[: text.index("this.component = function")]
    component = component[component.rindex("/**") :]
    scope = text[text.index("Scope.prototype = {\n") :]
    scope = scope[: scope.index("var $rootScope = new Scope()")]
    own = text[text.index("function publishExternalAPI") :]
    own = own[
        own.index("$CompileProvider).") : own.index("$$AnimateCssDriver")
        if "$$AnimateCssDriver" in own
        else 9000
    ]
    own = own[: own.index("$provide.provider(")]
    return {
        "definition": sorted(set(re.findall(r"#### `(\w+)`", definition))),
        "component": sorted(set(re.findall(r"- `(\w+)`", component))),
        "scope": sorted(set(re.findall(r"\n      (\$\w+): function", scope))),
        "directives": sorted(
            set(re.findall(r"\n\s+(\w+): \w+(?:Directive|DirectiveFactory)\b", own))
        ),
    }


def main() -> None:
    """Write the lists."""
    found: dict[str, set[str]] = {"instance": set(), "static": set()}
    names = sorted({name for group in INTERFACES.values() for name in group} | set(BASES))
    with tempfile.TemporaryDirectory() as name:
        for major in MAJORS:
            file = unpacked(f"{PACKAGE}@{major}", Path(name)) / "index.d.ts"
            for owner, listed in members(file, names).items():
                plain = owner.removesuffix(" static")
                static = owner.endswith(" static") or plain in INTERFACES["static"]
                found["static" if static else "instance"].update(listed)
        single = single_files(Path(name))
        directives = scoped(Path(name))
    PAGE.write_text(json.dumps({k: sorted(v) for k, v in found.items()}, indent=2) + "\n")
    place = PAGE.parent.parent / "single_file_object" / PAGE.name
    place.write_text(json.dumps(single, indent=2) + "\n")
    place = PAGE.parent.parent / "directive" / PAGE.name
    place.write_text(json.dumps(directives, indent=2) + "\n")


if __name__ == "__main__":
    main()
