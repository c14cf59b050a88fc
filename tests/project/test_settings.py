"""The project file: found upward, checked against its schema, with what the compiler's own file says."""

from __future__ import annotations

from pathlib import Path

import pytest

from clean_carry.component.errors import InputError
from clean_carry.project.settings import Accepted, Settings, settings_for

VALUES: list[tuple[str, str, object]] = [
    ('sources = ["src"]', "sources", ("src",)),
    ('ignore = ["old/*", "*.test.jsx"]', "ignore", ("old/*", "*.test.jsx")),
    ("[defines]\nHARBOUR = '\"Holm\"'", "defines", {"HARBOUR": '"Holm"'}),
    (
        "[naming]\njsx-function = '{stem}.fn.jsx'",
        "naming",
        {"jsx-function": "{stem}.fn.jsx"},
    ),
    ("[runtimes]\nreact = '17'", "runtimes", {"react": "17"}),
    ("[[accepted]]\nplace = '/p'\nreason = 'wanted'", "accepted", (Accepted("/p", "wanted"),)),
    ("", "setup", None),
]


@pytest.mark.parametrize(("text", "name", "value"), VALUES)
def test_what_it_says(text: str, name: str, value: object, tmp_path: Path) -> None:
    (tmp_path / "clean-carry.toml").write_text(text)
    deep = tmp_path / "src" / "piers"
    deep.mkdir(parents=True)
    assert getattr(settings_for(deep / "Pier.jsx"), name) == value


WRONG: list[tuple[str, str]] = [
    ("sources = 'src'", "sources"),
    ("sorces = ['src']", "sorces"),
    ("[[accepted]]\nplace = '/p'", "reason"),
    ("[defines]\nA = 1", "defines"),
    ("setup = 'missing.jsx'", "missing.jsx"),
    ("sources = [", "is not TOML"),
    ("\udcff", "cannot be read"),
]


@pytest.mark.parametrize(("text", "said"), WRONG)
def test_a_mistake_is_one_line_that_names_the_file(text: str, said: str, tmp_path: Path) -> None:
    (tmp_path / "clean-carry.toml").write_bytes(text.encode("utf-8", "surrogateescape"))
    with pytest.raises(InputError) as failed:
        settings_for(tmp_path / "Pier.jsx")
    line = failed.value.one_line()
    assert said in line and "clean-carry.toml" in line and "\n" not in line


def test_a_mistake_through_the_program(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    (tmp_path / "clean-carry.toml").write_text("sorces = ['src']\n")
    (tmp_path / "A.jsx").write_text("export default () => <p>a</p>;\n")
    done = run("verify", "A.jsx", "A.jsx")
    assert done.returncode == 3 and "sorces" in done.stderr and "Traceback" not in done.stderr


COMPILER: list[tuple[str, str, dict[str, str]]] = [
    ("tsconfig.json", '{"compilerOptions": {"paths": {"@/*": ["src/*"]}}}', {"@/": "src/"}),
    ("jsconfig.json", '{"compilerOptions": {"baseUrl": "app", "paths": {"~": ["x"]}}}', {"~": "app/x"}),
    ("tsconfig.json", '{\n// of piers\n"compilerOptions": {"paths": {"@/*": ["src/*"],}, /* no */},}',
     {"@/": "src/"}),
    ("tsconfig.json", '{"compilerOptions": {"paths": {"@": ["a", "b"]}}}', {}),
    ("tsconfig.json", '{"compilerOptions": {"paths": {"//": ["src//x"]}}}', {"//": "src/x"}),
    ("tsconfig.json", "{", {}),
    ("tsconfig.json", "[]", {}),
    ("tsconfig.json", '{"compilerOptions": 1}', {}),
]  # fmt: skip


@pytest.mark.parametrize(("name", "text", "aliases"), COMPILER)
def test_aliases_of_the_compiler(
    name: str, text: str, aliases: dict[str, str], tmp_path: Path
) -> None:
    (tmp_path / name).write_text(text)
    (tmp_path / "package.json").write_text("{}")
    found = settings_for(tmp_path / "Pier.jsx").aliases
    assert found == {key: f"{tmp_path.resolve()}/{target}" for key, target in aliases.items()}


def test_its_own_aliases_come_first_and_packages_end_the_search(tmp_path: Path) -> None:
    (tmp_path / "tsconfig.json").write_text('{"compilerOptions": {"paths": {"@/*": ["far/*"]}}}')
    inner = tmp_path / "app"
    inner.mkdir()
    (inner / "package.json").write_text("{}")
    assert settings_for(inner / "A.jsx").aliases == {}
    (tmp_path / "clean-carry.toml").write_text("[imports]\n'@/' = 'near/'\n")
    assert settings_for(tmp_path / "A.jsx").aliases == {"@/": f"{tmp_path.resolve()}/near/"}


FITS: list[tuple[Accepted, tuple[str, str, str], bool]] = [
    (Accepted("/div[1]@title", "a"), ("Pier", "tree", "/div[1]@title"), True),
    (Accepted("/div[1]@title", "a"), ("Pier", "tree", "/div1@title"), False),
    (Accepted("/div[1]*", "a"), ("Pier", "tree", "/div[1]/p[2]"), True),
    (Accepted("*", "a", "tree"), ("Pier", "calls", ""), False),
    (Accepted("*", "a", "calls", "Pier*"), ("PierRow", "calls", ""), True),
    (Accepted("*", "a", "*", "Berth"), ("Pier", "tree", "/p"), False),
]


@pytest.mark.parametrize(("accepted", "difference", "fits"), FITS)
def test_which_differences_are_accepted(
    accepted: Accepted, difference: tuple[str, str, str], fits: bool
) -> None:
    assert accepted.fits(*difference) is fits


def test_without_a_file_nothing_is_said(tmp_path: Path) -> None:
    (tmp_path / "package.json").write_text("{}")
    assert settings_for(tmp_path / "A.jsx") == Settings()
