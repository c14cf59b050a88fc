"""The project around a file: what imports mean, what is parsed, which versions it uses."""

from __future__ import annotations

import json
import os
from pathlib import Path

import pytest

from clean_carry.component.errors import InputError
from clean_carry.source.places import real, upward
from clean_carry.source.text import LONGEST_LINE, SourceText
from clean_carry.source.workspace import Workspace, major, package_version


def placed(folder: Path, *names: str) -> None:
    for name in names:
        path = folder / name
        path.parent.mkdir(parents=True, exist_ok=True)
        path.write_text("export default 1;\n")


@pytest.fixture
def project(tmp_path: Path) -> Path:
    placed(
        tmp_path, "src/Berth.jsx", "src/tide.js", "src/crew/index.ts", "src/Quay.vue", "shared/sea.tsx",
        "pier/lib/main.js", "pier/es/main.mjs", "buoy/lib/main.js",
    )  # fmt: skip
    (tmp_path / "pier/package.json").write_text('{"main": "lib/main.js", "module": "es/main.mjs"}')
    (tmp_path / "buoy/package.json").write_text('{"main": "lib/main.js", "module": "es/none.js"}')
    return tmp_path


IMPORTS = [
    ("./tide", "src/tide.js"),
    ("./tide.js", "src/tide.js"),
    ("./crew", "src/crew/index.ts"),
    ("./Quay", "src/Quay.vue"),
    ("../shared/sea", "shared/sea.tsx"),
    ("~/crew", "src/crew/index.ts"),
    ("~shared/sea", "shared/sea.tsx"),
    ("../pier", "pier/es/main.mjs"),
    ("../buoy", "buoy/lib/main.js"),
    ("./none", None),
    ("react", None),
]


@pytest.mark.parametrize(("request_", "expected"), IMPORTS)
def test_what_an_import_means(request_: str, expected: str | None, project: Path) -> None:
    aliases = {"~/": f"{project}/src", "~shared/": f"{project}/shared"}
    found = Workspace(project / "src/Berth.jsx", aliases).resolve(request_)
    assert (found and Path(os.path.normpath(found))) == (project / expected if expected else None)


def test_imports_of_another_file_are_seen_from_there(project: Path) -> None:
    space = Workspace(project / "src/Berth.jsx")
    assert space.resolve("../tide", project / "src/crew/index.ts") is not None
    assert space.resolve("../tide") is None


def test_a_file_is_parsed_again_only_when_it_has_changed(project: Path) -> None:
    path = project / "src/tide.js"
    first = Workspace(path).tree(path)
    assert first is not None and Workspace(path).tree(path) is first
    path.write_text("export const changed = 2;\n")
    os.utime(path, ns=(1, 1))
    again = Workspace(path).tree(path)
    assert again is not None and again is not first and "changed" in again.root.text


@pytest.mark.parametrize("text", ["", "\0", "<<<<"])
def test_what_is_no_source_text_has_no_tree(text: str, project: Path) -> None:
    path = project / "src/odd.js"
    path.write_text(text)
    assert Workspace(path).tree(path) is None
    assert Workspace(path).tree(project / "src/none.js") is None
    assert Workspace(path).text(project / "src/none.js") == ""


def test_of_a_single_file_the_script_is_parsed(project: Path) -> None:
    path = project / "src/Quay.vue"
    path.write_text(
        "<template><p>{{ a < 1 }}</p></template>\n<script>\nexport default { a: 1 };\n</script>\n"
    )
    tree = Workspace(path).tree(path)
    assert tree is not None
    (found,) = tree.of("object")
    assert tree.source.line_of(found.start) == 3


VERSIONS: list[tuple[dict[str, object], str | None, str | None]] = [
    ({"dependencies": {"react": "^17.0.2"}}, None, "^17.0.2"),
    ({"peerDependencies": {"react": "16 || 17"}}, None, "16 || 17"),
    ({"devDependencies": {"react": "18.3.1"}}, None, "18.3.1"),
    ({"dependencies": {"react": "^17"}}, "17.0.9", "17.0.9"),
    ({"dependencies": {"vue": "3"}}, None, None),
    ({"dependencies": {"react": 17}}, None, None),
]


@pytest.mark.parametrize(("package", "installed", "version"), VERSIONS)
def test_the_version_a_project_uses(
    package: dict[str, object], installed: str | None, version: str | None, tmp_path: Path
) -> None:
    (tmp_path / "package.json").write_text(json.dumps(package))
    if installed:
        inside = tmp_path / "node_modules/react"
        inside.mkdir(parents=True)
        (inside / "package.json").write_text(json.dumps({"version": installed}))
    (tmp_path / "src").mkdir()
    assert package_version(tmp_path / "src", "react") == version


@pytest.mark.parametrize(
    ("version", "number"),
    [
        ("18.3.1", 18),
        ("^17.0.2", 17),
        ("16 || 17 || 18", 18),
        (">=16.8 <19", 19),
        ("v20.1.0", 20),
        ("latest", None),
        (None, None),
    ],
)
def test_the_highest_major_number_named(version: str | None, number: int | None) -> None:
    assert major(version) == number


def test_files_are_found_upward_and_without_links(tmp_path: Path) -> None:
    placed(tmp_path, "a/b/c/x.js", "a/clean.toml")
    assert upward(tmp_path / "a/b/c", "clean.toml") == tmp_path / "a/clean.toml"
    assert upward(tmp_path / "a/b", "none.toml") is None
    (tmp_path / "link.js").symlink_to(tmp_path / "a/b/c/x.js")
    assert real(tmp_path / "link.js") == (tmp_path / "a/b/c/x.js").resolve()


def test_lines_and_columns_are_counted_in_characters() -> None:
    source = SourceText("tide.js", "const é = 1;\nlet b;\n".encode())
    at = source.data.index(b"=")
    assert (source.place(at).line, source.place(at).column) == (1, 9)
    assert source.line_of(source.data.index(b"let")) == 2
    assert source.line_of(0) == 1 and source.line_of(len(source.data)) == 3


@pytest.mark.parametrize(
    ("data", "encoded"),
    [
        (b"\xef\xbb\xbfa\r\nb\r\n", b"\xef\xbb\xbfx\r\ny\r\n"),
        (b"a\nb\n", b"x\ny\n"),
        (b"a\r\nb\n", b"x\ny\n"),
    ],
)
def test_a_file_keeps_its_mark_and_its_line_endings(data: bytes, encoded: bytes) -> None:
    assert SourceText("a.js", data).encode("x\ny\n") == encoded


@pytest.mark.parametrize(
    ("data", "word"),
    [
        (b" \n ", "empty"),
        (b"a\0b", "NUL"),
        (b"caf\xe9", "UTF-8"),
        (b"x" * (LONGEST_LINE + 1), "a line of"),
    ],
)
def test_what_is_no_source_text_is_told_in_one_line(data: bytes, word: str) -> None:
    with pytest.raises(InputError) as caught:
        SourceText.checked("a.js", data)
    assert word in str(caught.value) and "\n" not in str(caught.value)


def test_what_cannot_be_read_is_told(tmp_path: Path) -> None:
    with pytest.raises(InputError, match="no such file"):
        SourceText.read(tmp_path / "none.js")
    with pytest.raises(InputError, match="folder"):
        SourceText.read(tmp_path)
