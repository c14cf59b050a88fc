"""Odd input through the built program: one clear line, a documented exit code, nothing written."""

from __future__ import annotations

import os
import sys
from pathlib import Path

import pytest

from tests_support import CLASS

ODD: list[tuple[str, bytes, str]] = [
    ("empty.jsx", b"", "is empty"),
    ("blank.jsx", b" \n\n", "is empty"),
    ("binary.jsx", b"\x7fELF\0\0\0", "is not text"),
    ("broken.jsx", b"class A extends Component { render() { return <p>; } }", "cannot be read"),
    ("long.jsx", CLASS.encode() + b"// " + b"x" * 1_000_000, "has a line of"),
    ("latin.jsx", "// pi\xe8r\n".encode("latin-1") + CLASS.encode(), "is not UTF-8"),
    ("none.jsx", b"export const a = 1;\n", "holds no component"),
    ("text.txt", b"class extends", "holds no component"),
    (
        "flow.jsx",
        b"/* @flow */\nexport type A = (a) => b => (c | d);\ndeclare export *;\n" + CLASS.encode(),
        "Flow's annotations",
    ),
]


@pytest.mark.parametrize(("name", "data", "says"), ODD, ids=[row[0] for row in ODD])
def test_unreadable_input(name, data, says, run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    (tmp_path / name).write_bytes(data)
    done = run("carry", name, "--to", "jsx-function", "--write")
    assert done.returncode == 3
    assert done.stdout == ""
    lines = done.stderr.splitlines()
    assert len(lines) == 1
    assert name in lines[0] and says in lines[0]
    assert [p.name for p in tmp_path.iterdir()] == [name]


def test_missing_file_and_folder(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    (tmp_path / "folder.jsx").mkdir()
    done = run("carry", "none.jsx", "folder.jsx", "--to", "jsx-function")
    assert done.returncode == 3
    assert done.stderr.splitlines() == [
        "clean-carry: none.jsx: there is no such file",
        "clean-carry: folder.jsx: is a folder. Name the files in it",
    ]


def test_one_bad_file_does_not_stop_the_rest(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    (tmp_path / "bad.jsx").write_bytes(b"")
    (tmp_path / "good.jsx").write_text(CLASS)
    done = run("carry", "bad.jsx", "good.jsx", "--to", "jsx-function", "--write")
    assert done.returncode == 3
    assert (tmp_path / "good.function.jsx").exists()


def test_byte_order_mark_and_crlf_are_kept(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    data = b"\xef\xbb\xbf" + CLASS.replace("\n", "\r\n").encode()
    (tmp_path / "X.jsx").write_bytes(data)
    assert run("carry", "X.jsx", "--to", "jsx-function", "--write").returncode == 0
    written = (tmp_path / "X.function.jsx").read_bytes()
    assert written.startswith(b"\xef\xbb\xbf")
    assert written.count(b"\n") == written.count(b"\r\n") > 3


def test_unknown_syntax_option_and_crossing(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    (tmp_path / "X.jsx").write_text(CLASS)
    for arguments, says in (
        (("carry", "X.jsx", "--to", "nothing"), "not a syntax"),
        (("carry", "X.jsx", "--to", "jsx-class"), "not a syntax that can be written"),
        (("carry", "X.jsx", "--to", "jsx-function", "--write", "--replace"), "choose one"),
        (("explain", "nothing"), "no rule"),
        (("runtimes", "install", "nothing"), "no runtime"),
        (("nonsense",), "nonsense"),
    ):
        done = run(*arguments)
        assert done.returncode == 2, arguments
        assert len(done.stderr.splitlines()) == 1
        assert says in done.stderr


@pytest.mark.skipif(os.name != "posix", reason="permissions of POSIX")
def test_read_only_target(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    (tmp_path / "X.jsx").write_text(CLASS)
    target = tmp_path / "file"
    target.write_text("not a folder")
    done = run("carry", "X.jsx", "--to", "jsx-function", "--out", "file/inner")
    assert done.returncode == 5
    assert len(done.stderr.splitlines()) == 1
    assert target.read_text() == "not a folder"


def test_a_file_that_stands_there_is_not_overwritten(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    (tmp_path / "X.jsx").write_text(CLASS)
    (tmp_path / "X.function.jsx").write_text("mine")
    done = run("carry", "X.jsx", "--to", "jsx-function", "--write")
    assert done.returncode == 5
    assert "stands there already" in done.stderr
    assert (tmp_path / "X.function.jsx").read_text() == "mine"


def test_a_named_node_that_is_none(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    (tmp_path / "X.jsx").write_text(CLASS)
    run("carry", "X.jsx", "--to", "jsx-function", "--write")
    named = {"CLEAN_CARRY_NODE": str(tmp_path / "node")}
    done = run("verify", "X.jsx", "X.function.jsx", env=named)
    assert done.returncode == 4
    assert done.stderr.startswith("clean-carry: CLEAN_CARRY_NODE names ")
    assert done.stderr.endswith("Name the executable of Node, or unset the variable\n")
    assert len(done.stderr.splitlines()) == 1


def test_without_node_on_the_path_the_one_of_the_package_runs(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    (tmp_path / "X.jsx").write_text(CLASS)
    run("carry", "X.jsx", "--to", "jsx-function", "--write")
    empty = tmp_path / "bin"
    empty.mkdir()
    options = ("--most-trials", "2", "--budget", "30")
    done = run("verify", "X.jsx", "X.function.jsx", *options, env={"PATH": str(empty)})
    assert done.returncode == 0, done.stderr


def test_offline_without_a_runtime(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    (tmp_path / "X.jsx").write_text(CLASS)
    cache = {"CLEAN_CARRY_CACHE": str(tmp_path / "cache")}
    done = run("verify", "X.jsx", "X.jsx", "--offline", env=cache)
    assert done.returncode == 4
    assert "not installed" in done.stderr
    assert len(done.stderr.splitlines()) == 1
    assert not (tmp_path / "cache").exists()


def test_bad_trials(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    (tmp_path / "X.jsx").write_text(CLASS)
    for text, says in (("trials: [", "is not YAML"), ("trials: [{}]", "'name' is a required")):
        (tmp_path / "t.yaml").write_text(text)
        done = run("verify", "X.jsx", "X.jsx", "--trials", "t.yaml")
        assert done.returncode == 3
        assert says in done.stderr
        assert len(done.stderr.splitlines()) == 1


def test_a_pipe_that_closes_early(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    import subprocess

    (tmp_path / "X.jsx").write_text(CLASS)
    done = subprocess.run(
        f"{sys.executable} -m clean_carry carry X.jsx --to jsx-function | head -1",
        shell=True,
        cwd=tmp_path,
        capture_output=True,
        text=True,
        check=False,
    )
    assert "Traceback" not in done.stderr
