"""A hostile compiler of styles: it reads the project, and gets at nothing else."""

from __future__ import annotations

import socket
from pathlib import Path

import pytest

from clean_carry.verify.client import WorkerFailed
from clean_carry.verify.runtimes import RUNTIMES
from clean_carry.verify.worker_pool import Bench, Side

CODE = "import './berth.scss';\nexport default function Berth() { return <p />; }\n"
# Each says in `got` what it could do; a style of the name `reached` must not come of it.
ATTEMPTS = {
    "looks a name up": "require('dns').lookup('localhost', (e, a) => {}); got('looked up');",
    "asks for a record": "require('dns').resolveSoa('localhost', () => {}); got('asked');",
    "asks by promise": "require('dns').promises.resolveNaptr('localhost').catch(() => {}); got('asked');",
    "asks by a resolver": "new (require('dns').Resolver)().resolve4('localhost', () => {}); got('asked');",
    "asks by a resolver's promise": "new (require('dns').promises.Resolver)().resolve4('localhost').catch(() => {}); got('asked');",
    "asks below all that": "process.binding('cares_wrap'); got('bound');",
    "listens": "require('net').createServer().listen(0); got('listens');",
    "listens as a server": "require('http').createServer().listen(0); got('listens');",
    "connects": "require('net').connect(PORT, '127.0.0.1'); got('connects');",
    "reads elsewhere": "got(require('fs').readFileSync('/etc/passwd', 'utf8').slice(0, 4));",
    "reads through a link": "got(require('fs').readFileSync(require('path').join(__dirname, '../../away/secret.txt'), 'utf8'));",
    "reads through a linked folder": "got(require('fs').readdirSync(require('path').join(__dirname, '../../away')).join());",
    "opens through a link": "const fs = require('fs'); const f = fs.openSync(require('path').join(__dirname, '../../away/secret.txt')); got('opened');",
    "reads beside the project": "got(require('fs').readFileSync(require('path').join(__dirname, '../../../other/secret.txt'), 'utf8'));",
    "writes": "require('fs').writeFileSync(require('path').join(__dirname, 'made.txt'), 'x'); got('written');",
    "starts a process": "require('child_process').execSync('id'); got('started');",
    "starts a thread": "new (require('worker_threads').Worker)('1', { eval: true }); got('started');",
    "ends its parent": "process.kill(process.ppid, 0); got('signalled');",
    "reads the environment": "if (process.env.HOME || process.env.PATH) got('environment');",
}


def project(folder: Path, body: str) -> Path:
    """A project whose compiler does that while it compiles."""
    root = folder / "ferries"
    package = root / "node_modules" / "sass"
    package.mkdir(parents=True)
    (root / "package.json").write_text('{"name": "ferries"}')
    (package / "package.json").write_text('{"name": "sass", "main": "index.js"}')
    (package / "index.js").write_text(
        "exports.compileString = () => { let css = 'p { color: teal }'; const got = (x) => { css += ` reached { content: '${x}' }`; };\n"
        f"try {{ {body} }} catch {{}}\nreturn {{ css, loadedUrls: [] }}; }};\n"
    )
    for name in ("other", "away"):
        (folder / name).mkdir()
        (folder / name / "secret.txt").write_text("secret")
    (root / "away").symlink_to(folder / "away", target_is_directory=True)
    (root / "berth.scss").write_text("p { color: teal }")
    return root


def compiled(bench: Bench, root: Path) -> str:
    return bench.build(Side(root / "Berth.jsx", CODE, RUNTIMES["react-18"])).css


@pytest.mark.parametrize("name", ATTEMPTS)
def test_a_compiler_of_styles_reaches_nothing(bench: Bench, tmp_path: Path, name: str) -> None:
    with socket.socket() as listening:
        listening.bind(("127.0.0.1", 0))
        listening.listen()
        listening.settimeout(0.05)
        root = project(tmp_path, ATTEMPTS[name].replace("PORT", str(listening.getsockname()[1])))
        css = compiled(bench, root)
        assert "teal" in css and "reached" not in css
        with pytest.raises(TimeoutError):
            listening.accept()
    assert not (root / "node_modules" / "sass" / "made.txt").exists()


SAYS = {
    "a line": "console.log('compiling');",
    "what looks like an answer": 'process.stdout.write(\'{"id": 0, "css": "reached {}", "inputs": []}\\n\');',
    "to nobody": "process.stderr.write('x'); console.error('y');",
}


@pytest.mark.parametrize("name", SAYS)
def test_what_a_compiler_says_by_itself_is_no_answer(
    bench: Bench, tmp_path: Path, name: str
) -> None:
    css = compiled(bench, project(tmp_path, SAYS[name]))
    assert "teal" in css and "reached" not in css


def test_a_compiler_that_ends_itself_costs_one_build(bench: Bench, tmp_path: Path) -> None:
    root = project(tmp_path, "process.exit(3);")
    with pytest.raises(WorkerFailed, match="compiler of styles ended"):
        compiled(bench, root)
    (tmp_path / "again").mkdir()
    assert "teal" in compiled(bench, project(tmp_path / "again", ""))


def test_a_style_of_a_single_file_by_an_alias(bench: Bench, run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    (tmp_path / "clean-carry.toml").write_text("[imports]\n'@/' = 'src/'\n")
    (tmp_path / "src").mkdir()
    (tmp_path / "src" / "berth.css").write_text(".berth { color: teal }")
    (tmp_path / "Berth.vue").write_text(
        '<template><p class="berth">1</p></template>\n<style src="@/berth.css"></style>\n'
    )
    done = run("verify", "Berth.vue", "Berth.vue", "--budget", "1")
    assert done.returncode == 0, done.stdout


def test_files_from_outside_are_named_with_the_verdict(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    (tmp_path / "away").mkdir()
    (tmp_path / "away" / "word.js").write_text("export const word = 'Holm';\n")
    root = tmp_path / "ferries"
    root.mkdir()
    (root / "package.json").write_text("{}")
    (root / "Berth.jsx").write_text(
        "import React from 'react';\nimport { word } from '../away/word';\n"
        "export default class Berth extends React.Component { render() { return <p>{word}</p>; } }\n"
    )
    done = run("verify", "ferries/Berth.jsx", "ferries/Berth.jsx", "--budget", "1")
    assert "imported from outside of the project: " in done.stdout
    assert str(Path("away", "word.js")) in done.stdout
