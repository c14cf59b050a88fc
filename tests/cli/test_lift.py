"""`lift`: blocks that repeat in pages become components, through the built program."""

from __future__ import annotations

import json
import shutil
from pathlib import Path
from typing import Any

import pytest

from clean_carry.demo.story import COMPANY

TARGETS = ("jsx-function", "single-file-flat", "single-file-object")
CARD = (
    '    <article class="island">\n      <h3>{name}{badge}</h3>\n      <p>{text}</p>\n'
    '      <a href="{name}.html">Visit {name}</a>\n    </article>\n'
)


def card(name: str, text: str, badge: str = "") -> str:
    return CARD.format(
        name=name, text=text, badge=f' <b class="badge">{badge}</b>' if badge else ""
    )


CARDS = (
    card("Tern", "Sand &amp; seals.", "New") + card("Holm", 'A path "around".')
    + card("Skerry", "Don't {{ fall }}.") + card("Stack", "", "Far")
)  # fmt: skip
PAGE = f"""<!DOCTYPE html>
<html>
<head>
  <title>Islands</title>
  <style>
    body {{ margin: 0; }}
    .island {{ border: 1px solid #456; }}
    .island h3 {{ margin: 0; }}
    .badge {{ color: #a40; }}
    .late {{ color: red; }}
  </style>
</head>
<body>
  <header class="bar"><b>Gullmoor Ferries</b> <a href="#fares">Fares</a></header>
  <main>
{CARDS}  </main>
</body>
</html>
"""


@pytest.fixture
def page(tmp_path: Path) -> Path:
    (tmp_path / "islands.html").write_text(PAGE)
    return tmp_path / "islands.html"


def lifted(run: Any, *options: str, page: str = "islands.html", target: str = TARGETS[1]) -> Any:
    done = run("lift", page, "--to", target, "--json", *options)
    assert done.returncode in (0, 1), done.stderr
    return json.loads(done.stdout)


def texts(found: Any) -> dict[str, str]:
    return {Path(one["path"]).name: one["text"] for one in found["files"]}


@pytest.mark.parametrize("target", TARGETS)
def test_a_page_is_lifted_written_and_the_same(run: Any, page: Path, target: str) -> None:
    preview = run("lift", "islands.html", "--to", target)
    assert preview.returncode == 0 and "Island: 4 copies" in preview.stdout
    assert "not written without --write" in preview.stdout
    assert sorted(path.name for path in page.parent.iterdir()) == ["islands.html"]
    done = run("lift", "islands.html", "--to", target, "--write", "--verify")
    assert done.returncode == 0, done.stdout + done.stderr
    assert "same" in done.stdout and "differs" not in done.stdout
    ending = "jsx" if target == "jsx-function" else "vue"
    assert {f"Island.{ending}", f"Islands.{ending}"} <= {one.name for one in page.parent.iterdir()}
    assert page.read_text() == PAGE


def test_what_is_written(run: Any, page: Path) -> None:
    files = texts(lifted(run))
    assert (
        files["Island.vue"]
        == """<script setup>
defineProps({
  title: { type: String, required: true },
  badge: String,
  text: String,
  href: { type: String, required: true },
  label: { type: String, required: true },
});
</script>

<template>
  <article class="island">
    <h3>{{ title }} <b v-if="badge" class="badge">{{ badge }}</b></h3>
    <p>{{ text }}</p>
    <a :href="href">{{ label }}</a>
  </article>
</template>

<style scoped>
.island { border: 1px solid #456; }
.island h3 { margin: 0; }
.badge { color: #a40; }
</style>
"""
    )
    written = files["Islands.vue"]
    assert "import Island from './Island.vue';\n" in written
    assert (
        "  { title: 'Holm', text: 'A path \"around\".', href: 'Holm.html', label: 'Visit Holm' },\n"
        in written
    )
    assert '<Island v-for="island in islands" :key="island.title" v-bind="island" />' in written
    assert ".late { color: red; }" in written and ".badge" not in written
    function = texts(lifted(run, target="jsx-function"))
    assert function["Island.css"].startswith(".island { border")
    assert (
        "{islands.map((island) => <Island key={island.title} {...island} />)}"
        in function["Islands.jsx"]
    )
    assert "import Island from './Island.jsx';" in function["Islands.jsx"]


def test_the_groups_are_told(run: Any, page: Path) -> None:
    found = lifted(run)
    (group,) = [one for one in found["groups"] if one["lifted"]]
    assert group["component"] == "Island" and group["reason"] == ""
    assert group["copies"][0] == "body > main > article:nth-of-type(1)"
    assert [(one["name"], one["required"]) for one in group["props"]][:2] == [
        ("title", True), ("badge", False),
    ]  # fmt: skip
    assert found["entry"] == "Islands.vue"
    assert all(one["reason"] for one in found["groups"] if not one["lifted"])


def test_a_person_decides_otherwise(run: Any, page: Path) -> None:
    named = lifted(
        run, "--name", "Island=IslandCard", "--prop", "Island.text=summary", "--prop", "href=to"
    )
    assert "IslandCard.vue" in texts(named)
    few = lifted(run, "--min", "5")
    assert not any(one["lifted"] for one in few["groups"])
    elsewhere = lifted(run, "--select", "header")
    assert not any(one["lifted"] for one in elsewhere["groups"])
    once = texts(lifted(run, "--once", ".bar"))
    assert once["Bar.vue"].splitlines()[1].strip().startswith('<header class="bar">')
    assert "  <Bar />\n" in once["Islands.vue"]
    into = lifted(run, "--into", "parts")
    assert {Path(one["path"]).parent.name for one in into["files"]} == {"parts"}


def test_a_block_within_a_lifted_one_is_no_block_of_its_own(run: Any, page: Path) -> None:
    found = lifted(run, "--once", "article:first-of-type > h3")
    assert [one["component"] for one in found["groups"] if one["lifted"]] == ["Island"]


@pytest.mark.parametrize("target", TARGETS[:2])
def test_drawings_keep_the_case_of_their_attributes(run: Any, page: Path, target: str) -> None:
    drawn = '<figure><svg viewBox="0 0 {0} 9"><path d="M{0} 1h9"/></svg><b>{0}</b></figure>\n'
    page.write_text("<main>\n" + "".join(drawn.format(n) for n in (7, 8, 9)) + "</main>\n")
    done = run("lift", "islands.html", "--to", target, "--verify", "--budget", "1")
    assert "viewBox=" in done.stdout and "viewbox" not in done.stdout
    assert done.returncode == 0 and "differs" not in done.stdout, done.stdout


def test_why_blocks_are_left_alone(run: Any, page: Path) -> None:
    page.write_text(
        PAGE.replace("<main>", '<main><div class="x"><b>1</b></div><div class="x"><b>2</b></div>')
    )
    done = run("lift", "islands.html", "--to", TARGETS[1], "--explain")
    assert (
        "is left alone: it is a part of another block that is lifted" in done.stdout
        or done.returncode == 0
    )
    (page.parent / "plain.html").write_text("<main><p>High water at noon.</p></main>\n")
    plain = run("lift", "plain.html", "--to", TARGETS[1])
    assert plain.returncode == 1 and "no block repeats often enough" in plain.stdout


def test_several_pages_share_a_component(run: Any, page: Path) -> None:
    folder = page.parent / "pages"
    folder.mkdir()
    (folder / "a.html").write_text(f"<main>\n{card('Tern', 'x')}</main>\n")
    (folder / "b.html").write_text(
        f"<main>\n{card('Holm', 'y')}{card('Skerry', 'z', 'New')}</main>\n"
    )
    found = lifted(run, page="pages")
    assert sorted(texts(found)) == ["A.vue", "B.vue", "Island.vue"]
    assert len(found["entries"]) == 2
    (group,) = [one for one in found["groups"] if one["lifted"]]
    assert [Path(one).name for one in group["pages"]] == ["a.html", "b.html"]


def test_rules_that_others_need_stay_with_the_page(run: Any, page: Path) -> None:
    page.write_text(
        PAGE.replace("<main>", '<main>\n<p class="badge">Notice</p>').replace(
            ".late {", "main article { border-color: red; }\n    .late {"
        )
    )
    files = texts(lifted(run))
    # `.badge` reaches the notice as well, and `main article` names what stands around a copy and wins.
    assert ".badge" in files["Islands.vue"] and ".badge {" not in files["Island.vue"]
    assert "main article" in files["Islands.vue"]


def test_handlers_and_scripts_of_the_page_are_told(run: Any, page: Path) -> None:
    page.write_text(
        PAGE.replace(
            '<article class="island">', '<article class="island" onclick="go(1)">', 1
        ).replace(
            "</body>", "<script>document.querySelector('.island').hidden = true;</script>\n</body>"
        )
    )
    found = lifted(run)
    rules = [one["rule"] for one in found["findings"] if one["level"] == "warning"]
    assert sorted(rules) == ["inline-handler", "page-script-touches"]
    assert "onclick" not in "".join(texts(found).values())


def test_files_that_are_there_are_not_replaced(run: Any, page: Path) -> None:
    (page.parent / "Island.vue").write_text("mine\n")
    done = run("lift", "islands.html", "--to", TARGETS[1], "--write")
    assert done.returncode == 5 and "is there already" in done.stderr
    assert (page.parent / "Island.vue").read_text() == "mine\n"
    assert not (page.parent / "Islands.vue").exists()


MISTAKES = [
    (("islands.html", "--to", "nothing"), 2),
    (("islands.html", "--to", "jsx-function", "--name", "x"), 2),
    (("islands.html", "--to", "jsx-function", "--once", "p["), 3),
    (("islands.html", "--to", "jsx-function", "--select", ".nowhere"), 3),
    (("empty", "--to", "jsx-function"), 3),
    (("repaired.html", "--to", "jsx-function"), 1),
]


@pytest.mark.parametrize(("arguments", "code"), MISTAKES)
def test_mistakes_are_told_in_one_line(
    run: Any, page: Path, arguments: tuple[str, ...], code: int
) -> None:
    (page.parent / "empty").mkdir()
    (page.parent / "repaired.html").write_text("<b><p>Fares</b></p>\n")
    done = run("lift", *arguments)
    assert done.returncode == code, done.stdout + done.stderr
    assert "Traceback" not in done.stderr


def test_the_demo_page_looks_the_same_in_a_browser(run: Any, tmp_path: Path) -> None:
    shutil.copytree(COMPANY / "tourist", tmp_path / "tourist")
    done = run(
        "lift", "tourist/tourist.html", "--to", TARGETS[1], "--once", ".head-bar", "--verify",
        "--in", "browser", "--width", "1280",
    )  # fmt: skip
    assert done.returncode == 0, done.stdout + done.stderr
    for told in (
        "IslandCard: 5 copies",
        "Notice: 3 copies",
        "FareRow: 5 copies",
        "HeadBar: 1 copy",
    ):
        assert told in done.stdout
