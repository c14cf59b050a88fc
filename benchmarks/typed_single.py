"""Whether typed single files type-check once they are carried, where they did before.

    python benchmarks/typed_single.py

All typed files of a corpus are carried at once, since they know each other by their types. A file counts
where it has more errors than before. Types do not know what is mixed in where a template names it
(`mixin-untyped`): such files are counted apart.
"""

from __future__ import annotations

import json
import re
import shutil
import subprocess
from collections import Counter
from pathlib import Path
from tempfile import TemporaryDirectory

from clean_carry.component.errors import CarryError
from clean_carry.crossing.carry import Request, carry_file
from clean_carry.project.settings import settings_for
from corpus import Corpus, fetched, put_section, tools
from single_files import CORPORA, sources

OPTIONS = {
    "target": "ESNext", "module": "ESNext", "moduleResolution": "Bundler", "strict": True,
    "jsx": "preserve", "skipLibCheck": True, "noEmit": True, "lib": ["ESNext", "DOM", "DOM.Iterable"],
    "types": [], "isolatedModules": True,
}  # fmt: skip
INTRODUCTION = """Made by `python benchmarks/typed_single.py`: all typed files of a corpus carried at once
and type-checked, before and after. Types do not know what is mixed in where a template names it
(`mixin-untyped`).
"""
_ERROR = re.compile(r"^(\S+?)\(\d+,\d+\): error TS", re.M)


def errors(folder: Path) -> Counter[str]:
    """The number of type errors of each file."""
    checker = tools() / "node_modules" / "vue-tsc" / "bin" / "vue-tsc.js"
    done = subprocess.run(
        ["node", str(checker), "--noEmit", "-p", "."],
        cwd=folder,
        capture_output=True,
        text=True,
        check=False,
    )
    return Counter(_ERROR.findall(done.stdout))


def measure(corpus: Corpus, place: Path) -> str | None:
    """Carry the typed files of a corpus in a copy of it; a line of figures, None where it has none."""
    folder = fetched(corpus)
    paths = [p for p in sources(folder / corpus.sources) if 'lang="ts"' in p.read_text("utf-8")]
    if not paths:
        return None
    shutil.copytree(folder / corpus.sources, place / "src")
    (place / "node_modules").symlink_to(folder / "node_modules")
    settings = {"compilerOptions": OPTIONS, "include": ["src"], "exclude": ["**/*.spec.*"]}
    (place / "tsconfig.json").write_text(json.dumps(settings))
    before = errors(place)
    carried: dict[str, bool] = {}
    for path in paths:
        aliases = tuple(settings_for(path).aliases.items())
        request = Request(path, str(path), "single-file-flat", aliases=aliases)
        try:
            result = carry_file(request)[0]
        except CarryError:
            continue
        if not result.files:
            continue
        name = f"src/{path.relative_to(folder / corpus.sources).as_posix()}"
        (place / name).write_text(result.files[0].text, "utf-8")
        carried[name] = any(f.rule == "mixin-untyped" for f in result.findings)
    after = errors(place)
    plain = [name for name, mixed in carried.items() if not mixed]
    worse = sorted(name for name in plain if after[name] > before[name])
    others = sorted(name for name in after if name not in carried and after[name] > before[name])
    who = f" ({', '.join(worse)} have)" if worse else ""
    return (
        f"{corpus.package} {corpus.version}: {len(carried)} typed files written, "
        f"{len(carried) - len(plain)} of them with `mixin-untyped`; of the other {len(plain)}, "
        f"{len(plain) - len(worse)} have no error more{who}; "
        f"files not written that have more: {', '.join(others) or 'none'}"
    )


def main() -> None:
    """Store the figures of every corpus with typed files."""
    lines = []
    for corpus in CORPORA:
        with TemporaryDirectory() as place:
            found = measure(corpus, Path(place))
        if found is not None:
            print(found)
            lines.append(f"- {found}\n")
    put_section("Typed single files", f"{INTRODUCTION}\n{''.join(lines)}")


if __name__ == "__main__":
    main()
