"""Code of a view component can open, start, write and reach nothing but what it renders with."""

from __future__ import annotations

import shutil
from collections.abc import Iterator
from pathlib import Path

import pytest

from clean_carry.verify.views import Views, ViewTexts

pytestmark = pytest.mark.skipif(shutil.which("php") is None, reason="php is not installed")

CLASS = """<?php

namespace App\\View\\Components;

class Card extends \\Illuminate\\View\\Component
{
    public function said(): string
    {
        CODE
    }

    public function render()
    {
        return view('components.card');
    }
}
"""
ATTACKS = [
    "return exec('id');",
    "return shell_exec('id') ?? '';",
    "proc_open(['id'], [], $pipes); return 'started';",
    "pcntl_exec('/bin/sh'); return 'started';",
    "return (string) file_put_contents('FOLDER/written', 'x');",
    "return fwrite(fopen('FOLDER/written', 'w'), 'x');",
    "return (string) mkdir('FOLDER/made');",
    "return file_get_contents('/etc/passwd');",
    "return file_get_contents('FOLDER/secret');",
    "include 'FOLDER/secret'; return 'read';",
    "return (string) fsockopen('127.0.0.1', 80);",
    "return stream_socket_client('tcp://127.0.0.1:80') ? 'open' : 'no';",
    "return file_get_contents('http://127.0.0.1/');",
    "return (string) mail('a@b', 'c', 'd');",
    "return (string) symlink('/etc/passwd', 'FOLDER/link');",
    "return (string) putenv('A=b');",
    "return (new \\SplFileObject('FOLDER/written', 'w'))->fwrite('x');",
    "(new \\DOMDocument())->save('FOLDER/written'); return 'written';",
    "return (string) posix_kill(posix_getppid(), 9);",
]


def views_of(code: str) -> Views:
    text = CLASS.replace("CODE", code)
    return Views(ViewTexts("card", (("components.card", "<p>{{ $said() }}</p>"),), (text,)))


@pytest.fixture
def folder(tmp_path: Path) -> Iterator[Path]:
    (tmp_path / "secret").write_text("SECRET", "utf-8")
    yield tmp_path
    assert sorted(one.name for one in tmp_path.iterdir()) == ["secret"]


@pytest.mark.parametrize("code", ATTACKS)
def test_hostile_code_reaches_nothing(folder: Path, code: str) -> None:
    views = views_of(code.replace("FOLDER", str(folder)))
    try:
        html = views.html({}, {})
        assert html.startswith("<trial-failed>"), html
        assert "SECRET" not in html
        assert "root:" not in html
        # It goes on serving.
        assert "trial-failed" in views.html({}, {})
    finally:
        views.close()


def test_hostile_output_is_no_answer() -> None:
    code = 'while (ob_get_level()) { ob_end_clean(); } echo \'{"html": "forged"}\', "\\n"; exit(0);'
    views = views_of(code)
    try:
        assert "forged" not in views.html({}, {})
    finally:
        views.close()


def test_what_a_rendering_keeps_is_gone_with_it() -> None:
    views = views_of("static $count = 0; return (string) ++$count;")
    try:
        assert [views.html({}, {}).strip() for _ in range(2)] == ["<p>1</p>", "<p>1</p>"]
    finally:
        views.close()


def test_an_endless_rendering_ends() -> None:
    views = views_of("while (true) { }")
    try:
        assert "trial-failed" in views.html({}, {})
    finally:
        views.close()
