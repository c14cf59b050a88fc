"""Styles of a bundle: stylesheets of the page, preprocessors of the project's own, styles of single files."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

import pytest

from clean_carry.verify.client import WorkerFailed
from clean_carry.verify.pair import pair_of
from clean_carry.verify.worker_pool import Bench, Bundle
from tests_support import install

HERE = Path(__file__).parent


@pytest.fixture(scope="module")
def project(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """A project that has compilers of its own."""
    folder = tmp_path_factory.mktemp("ferries")
    install(HERE / "preprocessors", folder)
    (folder / "src" / "tones").mkdir(parents=True)
    (folder / "src" / "tones" / "_sea.scss").write_text("$sea: #0b4f6c;\n")
    (folder / "src" / "tones" / "sea.less").write_text("@sea: #0b4f6c;\n")
    (folder / "node_modules" / "shore").mkdir()
    (folder / "node_modules" / "shore" / "package.json").write_text('{"name": "shore"}')
    (folder / "node_modules" / "shore" / "_sand.scss").write_text("$sand: #c2b280;\n")
    (folder / "clean-carry.toml").write_text("[imports]\n'@/' = 'src/'\n")
    return folder


def built(bench: Bench, folder: Path, name: str, text: str) -> Bundle:
    (folder / "src" / name).write_text(text)
    old, _, _ = pair_of(folder / "src" / name, folder / "src" / name)
    return bench.build(old)


def compact(css: str) -> str:
    return "".join(css.split())


SHEETS = [
    ("berth.scss", "@use 'tones/sea'; .berth { &:hover { color: sea.$sea } }"),
    ("berth.scss", "@import '@/tones/sea'; .berth { &:hover { color: $sea } }"),
    ("berth.sass", "@use 'tones/sea'\n.berth\n  &:hover\n    color: sea.$sea\n"),
    ("berth.less", "@import 'tones/sea'; .berth { &:hover { color: @sea } }"),
    ("berth.styl", "sea = #0b4f6c\n.berth\n  &:hover\n    color sea\n"),
]


@pytest.mark.parametrize(("name", "sheet"), SHEETS, ids=[f"{n} {s[:14]}" for n, s in SHEETS])
def test_the_projects_compiler_makes_the_styles(
    bench: Bench, project: Path, name: str, sheet: str
) -> None:
    (project / "src" / name).write_text(sheet)
    code = f"import './{name}';\nexport default function Berth() {{ return <p className=\"berth\" />; }}\n"
    bundle = built(bench, project, "Berth.jsx", code)
    assert ".berth:hover{color:#0b4f6c;}" in compact(bundle.css)
    assert bundle.uncompiled == ()
    if "tones" in sheet:
        assert any("sea." in file for file in bundle.files), "a change of a part is a change"


def test_a_part_of_a_package(bench: Bench, project: Path) -> None:
    (project / "src" / "sand.scss").write_text("@use '~shore/sand'; p { color: sand.$sand }")
    code = "import './sand.scss';\nexport default function Sand() { return <p />; }\n"
    assert "#c2b280" in built(bench, project, "Sand.jsx", code).css


def test_local_names_of_a_preprocessor(bench: Bench, project: Path) -> None:
    (project / "src" / "b.module.scss").write_text(".berth { .free { color: red } }")
    code = "import s from './b.module.scss';\nexport default function Berth() { return <p className={s.free} />; }\n"
    bundle = built(bench, project, "Local.jsx", code)
    assert ".b_module_berth.b_module_free" in compact(bundle.css)
    assert "b_module_free" in bundle.code


SINGLE = [
    '<style lang="scss" scoped>@use "tones/sea"; .berth { b { color: sea.$sea } }</style>',
    '<style lang="less" scoped>@import "tones/sea"; .berth { b { color: @sea } }</style>',
    '<style lang="stylus" scoped>\n.berth\n  b\n    color #0b4f6c\n</style>',
    '<style src="./linked.scss" scoped></style>',
]


@pytest.mark.parametrize("style", SINGLE)
def test_styles_of_single_files(bench: Bench, project: Path, style: str) -> None:
    (project / "src" / "linked.scss").write_text(
        "@use 'tones/sea'; .berth { b { color: sea.$sea } }"
    )
    text = f'<template><p class="berth"><b>1</b></p></template>\n{style}\n'
    css = compact(built(bench, project, "Berth.vue", text).css)
    assert ".berthb[data-v-" in css and "color:#0b4f6c" in css


def test_a_style_that_is_wrong_is_told(bench: Bench, project: Path) -> None:
    (project / "src" / "wrong.scss").write_text(".berth { color: $nothing }")
    code = "import './wrong.scss';\nexport default function Berth() { return <p />; }\n"
    with pytest.raises(WorkerFailed, match=r"wrong\.scss: Undefined variable"):
        built(bench, project, "Wrong.jsx", code)


@pytest.mark.parametrize("version", ["2.7.16", "3.5.0"])
def test_local_names_of_a_single_file(run: Any, tmp_path: Path, version: str) -> None:
    (tmp_path / "package.json").write_text(json.dumps({"dependencies": {"vue": version}}))
    text = (
        '<template><p :class="$style.berth"><b :class="tone.free">free</b></p></template>\n'
        "<script>export default { name: 'Berth' }</script>\n"
        "<style module>.berth { color: #0b4f6c }</style>\n"
        '<style module="tone">.free { color: teal }</style>\n'
    )
    (tmp_path / "Berth.vue").write_text(text)
    (tmp_path / "Other.vue").write_text(text.replace("#0b4f6c", "#0b4f6d"))
    (tmp_path / "Berth.trials.yaml").write_text("trials:\n  - name: drawn\n")
    done = run("verify", "Berth.vue", "Berth.vue", "--in", "browser")
    assert done.returncode == 0, done.stdout + done.stderr
    done = run("verify", "Berth.vue", "Other.vue", "--in", "browser", "--width", "400", "--json")
    found = json.loads(done.stdout)["browser"]["trials"][0]["differences"]
    assert ("style", "/p[1] color") in [(d["what"], d["place"]) for d in found]


def test_what_no_compiler_is_there_for_is_said(run: Any, tmp_path: Path) -> None:
    (tmp_path / "berth.scss").write_text(".berth { b { color: red } }")
    (tmp_path / "Berth.jsx").write_text(
        "import React from 'react';\nimport './berth.scss';\n"
        'export default class Berth extends React.Component { render() { return <p className="berth" />; } }\n'
    )
    (tmp_path / "Berth.trials.yaml").write_text("trials:\n  - name: drawn\n")
    done = run("verify", "Berth.jsx", "Berth.jsx", "--in", "browser", "--width", "400")
    assert "styles left out, because the project has no sass: berth.scss" in done.stdout


def test_a_compiler_has_no_more_than_the_project(bench: Bench, tmp_path: Path) -> None:
    owned = tmp_path / "project"
    (owned / "src").mkdir(parents=True)
    (owned / "node_modules" / "sass").mkdir(parents=True)
    (owned / "package.json").write_text("{}")
    (tmp_path / "secret").write_text("root:")
    (owned / "node_modules" / "sass" / "index.js").write_text(
        "const fs = require('fs'); const tries = {\n"
        f"  read: () => fs.readFileSync({json.dumps(str(tmp_path / 'secret'))}),\n"
        f"  write: () => fs.writeFileSync({json.dumps(str(owned / 'written'))}, ''),\n"
        "  start: () => require('child_process').spawnSync('true').error || 1,\n"
        "  reach: () => require('net').connect(9, '127.0.0.1'),\n"
        "  look: () => { if (!process.env.PATH) throw new Error('none'); },\n};\n"
        "exports.compileString = () => ({ css: Object.entries(tries).map(([name, act]) => {\n"
        "  try { act(); return `.${name} { color: red }`; } catch { return `.no-${name} { color: red }`; } }).join('\\n'), loadedUrls: [] });\n"
    )
    (owned / "src" / "a.scss").write_text("a {}")
    bundle = built(
        bench, owned, "A.jsx", "import './a.scss';\nexport default function A() { return <p />; }\n"
    )
    for name in ("read", "write", "start", "reach", "look"):
        assert f".no-{name}" in bundle.css
    assert not (owned / "written").exists()


def test_stylesheets_of_the_page(run: Any, tmp_path: Path) -> None:
    (tmp_path / "page.css").write_text(".berth p { color: teal }")
    (tmp_path / "clean-carry.toml").write_text('styles = ["page.css"]\n')
    code = "import React from 'react';\nexport default class Berth extends React.Component {{ render() {{ return <div className=\"{}\"><p>free</p></div>; }} }}\n"
    (tmp_path / "Berth.jsx").write_text(code.format("berth"))
    (tmp_path / "Other.jsx").write_text(code.format("berths"))
    (tmp_path / "Berth.trials.yaml").write_text("trials:\n  - name: drawn\n")
    done = run("verify", "Berth.jsx", "Other.jsx", "--in", "browser", "--width", "400")
    assert done.returncode == 1
    assert "style at /div[1]/p[1] color" in done.stdout
    assert "only old has .berth p" in done.stdout
    (tmp_path / "clean-carry.toml").write_text('styles = ["gone.css"]\n')
    done = run("verify", "Berth.jsx", "Other.jsx")
    assert done.returncode == 3
    assert "styles: there is no file gone.css" in done.stderr
