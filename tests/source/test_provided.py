"""What the files of a project ask of a value that is provided to them, by their text."""

from __future__ import annotations

from pathlib import Path

import pytest

from clean_carry.source.provided import asked_of_provided

FILE = "<template><p>{{ %s }}</p></template>\n<script>\nexport default { %s };\n</script>\n"

ASKED: dict[str, tuple[str, str, set[str] | None]] = {
    "a member in the template": ("dock.name", "inject: ['dock']", {"name"}),
    "several": ("dock.name + dock.size", "inject: ['dock']", {"name", "size"}),
    "in the script": ("1", "inject: ['dock'], mounted() { this.dock.open(); }", {"open"}),
    "under another name": ("quay.name", "inject: { quay: 'dock' }", {"name"}),
    "under another name, with a default": (
        "quay.name", "inject: { quay: { from: 'dock', default: null } }", {"name"},
    ),
    "with a default of its own": ("dock.name", "inject: { dock: { default: null } }", {"name"}),
    "only tested": ("dock ? 1 : 2", "inject: ['dock']", set()),
    "compared with nothing": ("dock === null", "inject: ['dock']", set()),
    "not": ("!dock", "inject: ['dock']", set()),
    "or an empty one": ("(dock || {}).name", "inject: ['dock']", {"name"}),
    "if it is there": ("dock?.name", "inject: ['dock']", {"name"}),
    "handed on": ("show(dock, 1)", "inject: ['dock']", None),
    "assigned": ("1", "inject: ['dock'], mounted() { this.kept = this.dock; }", None),
    "asked by a computed name": ("dock[name]", "inject: ['dock']", None),
    "another key": ("dock.name", "inject: ['pier']", set()),
    "a word that only looks like it": ("'dock.name' + my.dock.name", "inject: ['dock']", set()),
}  # fmt: skip


@pytest.mark.parametrize(("use", "options", "names"), ASKED.values(), ids=ASKED)
def test_the_members_asked_for(
    use: str, options: str, names: set[str] | None, tmp_path: Path
) -> None:
    (tmp_path / "package.json").write_text('{"name": "ferries"}')
    (tmp_path / "Whole.vue").write_text(FILE % ("1", "provide() { return { dock: this } }"))
    (tmp_path / "Part.vue").write_text(FILE % (use, options))
    found = asked_of_provided(tmp_path / "Whole.vue", "dock")
    assert found == (None if names is None else frozenset(names))


def test_code_that_injects_by_a_call_may_do_anything(tmp_path: Path) -> None:
    (tmp_path / "package.json").write_text('{"name": "ferries"}')
    (tmp_path / "Whole.vue").write_text(FILE % ("1", ""))
    (tmp_path / "part.js").write_text("export const useDock = () => inject('dock');\n")
    assert asked_of_provided(tmp_path / "Whole.vue", "dock") is None


def test_without_a_project_nothing_is_known(tmp_path: Path) -> None:
    (tmp_path / "Whole.vue").write_text(FILE % ("1", ""))
    assert asked_of_provided(tmp_path / "Whole.vue", "dock") is None
