"""What the builder makes of a component where it stands: its project's aliases, styles, files, older forms."""

from __future__ import annotations

from pathlib import Path
from typing import Any

import pytest

from clean_carry.project.settings import settings_for
from clean_carry.verify.client import WorkerFailed
from clean_carry.verify.runtimes import RUNTIMES
from clean_carry.verify.worker_pool import Bench, Side

FILES: list[tuple[str, dict[str, str], str, str]] = [
    ("a file beside", {"word.js": "export default 'Holm';"}, "import w from './word';", "Holm"),
    ("a folder", {"words/index.js": "export const w = 'Brae';"}, "import { w } from './words';", "Brae"),
    ("data", {"word.json": '{"w": "Voe"}'}, "import { w } from './word.json';", "Voe"),
    ("data beside a stylesheet of its name", {"word.css": "a {}", "word.json": '{"w": "Voe"}'},
     "import { w } from './word';", "Voe"),
    ("an older form", {"all.js": "export w from './w';", "w.js": "export default 'Skail';"},
     "import { w } from './all';", "Skail"),
    ("a picture", {"tide.png": "x"}, "import w from './tide.png';", "/tide.png"),
    ("a stylesheet", {"tide.css": ".a { color: red }"}, "import './tide.css'; const w = 'styled';", "styled"),
    ("a module of classes", {"t.module.css": ".a { color: red }"},
     "import s from './t.module.css'; const w = typeof s.a;", "string"),
    ("styles that are compiled elsewhere", {"t.scss": "$a: 1;"}, "import './t.scss'; const w = 'plain';", "plain"),
    ("types", {"kinds.ts": "export enum Kind { A = 'in' }"},
     "import { Kind } from './kinds'; const w = Kind.A;", "in"),
    ("an alias", {"src/word.js": "export default 'aliased';",
                  "clean-carry.toml": "[imports]\n'@/' = 'src/'\n"}, "import w from '@/word';", "aliased"),
    ("an alias of the compiler", {"src/word.js": "export default 'by the compiler';",
     "tsconfig.json": '{"compilerOptions": {"baseUrl": ".", "paths": {"~/*": ["src/*"]}}}'},
     "import w from '~/word';", "by the compiler"),
    ("a define", {"clean-carry.toml": "[defines]\nHARBOUR = '\"Gullmoor\"'\n"}, "const w = HARBOUR;", "Gullmoor"),
]  # fmt: skip


def drawn(
    bench: Bench, folder: Path, text: str, name: str = "Berth.jsx", **given: Any
) -> list[Any]:
    """The tree a component draws at first."""
    place = folder / name
    side = Side(
        place, text, RUNTIMES["react-18"], exported="default", settings=settings_for(place), **given
    )
    with bench.lane() as lane:
        answer = lane.trial(bench.build(side), "default", {"inputs": {}})
    assert answer["points"][0]["errors"] == []
    tree: list[Any] = answer["points"][0]["tree"]
    return tree


@pytest.mark.parametrize(
    ("files", "imports", "word"), [row[1:] for row in FILES], ids=[row[0] for row in FILES]
)
def test_what_a_component_imports(
    files: dict[str, str], imports: str, word: str, tmp_path: Path, bench: Bench
) -> None:
    for name, text in files.items():
        (tmp_path / name).parent.mkdir(exist_ok=True)
        (tmp_path / name).write_text(text)
    text = f"import React from 'react';\n{imports}\nexport default () => <p>{{w}}</p>;\n"
    assert drawn(bench, tmp_path, text) == [["p", {}, None, [word]]]


def test_files_that_are_not_on_the_disk(tmp_path: Path, bench: Bench) -> None:
    text = (
        "import './Berth.css';\nimport { w } from './more.jsx';\nexport default () => <p>{w}</p>;\n"
    )
    extra = (
        (tmp_path / "Berth.css", "p { color: red }"),
        (tmp_path / "more.jsx", "export const w = 1;"),
    )
    assert drawn(bench, tmp_path, text, extra=extra) == [["p", {}, None, ["1"]]]


BROKEN = [
    ("import w from './missing';\nexport default () => w;", "missing"),
    ("export default () => <p>;", "Berth.jsx:1"),
    ("import w from 'no-such-package';\nexport default () => w;", "no-such-package"),
]


@pytest.mark.parametrize(("text", "said"), BROKEN)
def test_what_cannot_be_built_says_where(
    text: str, said: str, tmp_path: Path, bench: Bench
) -> None:
    with pytest.raises(WorkerFailed) as failed:
        drawn(bench, tmp_path, text)
    assert said in failed.value.reason


def test_branches_are_counted_in_the_component_alone(tmp_path: Path, bench: Bench) -> None:
    (tmp_path / "other.js").write_text("export const w = (a) => (a ? 1 : 2);\n")
    text = "import { w } from './other';\nexport default ({ a }) => <p>{a ? w(1) : 'none'}</p>;\n"
    side = Side(tmp_path / "Berth.jsx", text, RUNTIMES["react-18"], exported="default")
    bundle = bench.build(side)
    assert bundle.counters is not None
    assert sorted(c["kind"] for c in bundle.counters) == ["cond-expr", "cond-expr", "function"]
    assert {c["line"] for c in bundle.counters} == {2}
    with bench.lane() as lane:
        seen = [lane.trial(bundle, "default", {"inputs": {"a": a}})["reach"] for a in (True, False)]
    assert set(seen[0]) ^ set(seen[1]) == {"b0.0", "b0.1"}


def test_an_unchanged_version_is_built_once(tmp_path: Path, bench: Bench) -> None:
    text = "export default () => <p>once</p>;\n"
    side = Side(tmp_path / "Berth.jsx", text, RUNTIMES["react-18"])
    assert bench.build(side) is bench.build(side)
