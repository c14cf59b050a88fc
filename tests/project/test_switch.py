"""Users of an old component move to the new one, and the old one goes."""

from __future__ import annotations

from pathlib import Path

import pytest

from clean_carry.component.errors import CarryError, InputError
from clean_carry.project.walk.pairs import Pair, new_of
from clean_carry.project.walk.requests import pointed_at
from clean_carry.project.walk.retire import StillUsed, retire
from clean_carry.project.walk.switch import switch
from made_projects import Made

OLD = """import React from 'react';
import './Berth.css';
import './shared.css';
export const WIDTH = 3;
export default class Berth extends React.Component {
  render() { return <b className="berth">{this.props.n}</b>; }
}
"""
NEW = """import './Berth.css';
import './shared.css';
export const WIDTH = 3;
export default function Berth({ n }) { return <b className="berth">{n}</b>; }
"""
BOTH = {
    "src/Berth.jsx": OLD, "src/Berth.function.jsx": NEW,
    "src/Berth.css": ".berth {}\n", "src/shared.css": "b {}\n",
}  # fmt: skip
# The text of a user before and after.
USERS = {
    "default": ("import Berth from './Berth';\n", "import Berth from './Berth.function';\n"),
    "with its ending": ("import B from './Berth.jsx'\n", "import B from './Berth.function.jsx'\n"),
    "named": ("import { WIDTH } from \"./Berth\";\n", "import { WIDTH } from \"./Berth.function\";\n"),
    "namespace": (
        "import * as b from './Berth';\nb.WIDTH;\n", "import * as b from './Berth.function';\nb.WIDTH;\n"
    ),
    "passed on": ("export { default } from './Berth';\n", "export { default } from './Berth.function';\n"),
    "lazy": ("const B = () => import('./Berth');\n", "const B = () => import('./Berth.function');\n"),
    "required": ("const B = require('./Berth');\n", "const B = require('./Berth.function');\n"),
    "mocked": ("jest.mock('./Berth', () => 1);\n", "jest.mock('./Berth.function', () => 1);\n"),
    "by an alias": ("import B from '@/Berth';\n", "import B from '@/Berth.function';\n"),
    "line endings": ("import B from './Berth';\r\n\r\n", "import B from './Berth.function';\r\n\r\n"),
}  # fmt: skip


def pair_in(root: Path) -> Pair:
    return Pair.of(root / "src/Berth.jsx", new_of(root / "src/Berth.jsx"))


@pytest.mark.parametrize(("before", "after"), USERS.values(), ids=USERS)
def test_every_form_of_use_follows(before: str, after: str, project: Made) -> None:
    files = {**BOTH, "clean-carry.toml": '[imports]\n"@/" = "src/"\n', "src/use.js": ""}
    root = project(files).root
    (root / "src/use.js").write_bytes(before.encode())
    plan = switch(project({}), [pair_in(root)])
    assert plan.data() == {root / "src/use.js": after.encode()}
    assert plan.left == []


def test_an_index_file_of_a_folder(project: Made) -> None:
    index = project(
        {
            "Berth/index.jsx": OLD.replace("import './", "// './"),
            "Berth/index.function.jsx": NEW.replace("import './", "// './"),
            "use.js": "import Berth from './Berth';\n",
        }
    )
    pair = Pair.of(index.root / "Berth/index.jsx", new_of(index.root / "Berth/index.jsx"))
    plan = switch(index, [pair])
    assert plan.files == {index.root / "use.js": "import Berth from './Berth/index.function';\n"}
    (index.root / "use.js").write_text("import Berth from './Berth/index.function';\n")
    gone = retire(project({}), pair)
    assert gone.files[index.root / "use.js"] == "import Berth from './Berth';\n"


def test_a_name_the_new_file_lacks_is_left(project: Made) -> None:
    use = "import Berth, { WIDTH } from './Berth';\n"
    index = project(
        {**BOTH, "src/Berth.function.jsx": NEW.replace("export const", "const"), "src/use.js": use}
    )
    plan = switch(index, [pair_in(index.root)])
    assert plan.files == {}
    assert [(one.line, one.what) for one in plan.left] == [
        (1, "WIDTH of ./Berth is not exported by Berth.function.jsx")
    ]


WHOLE = (
    OLD.replace("export const", "const").replace("export default ", "")
    + "module.exports = Berth;\n"
)


def test_a_require_that_would_give_another_value_is_left(project: Made) -> None:
    uses = {
        "src/whole.js": "const Berth = require('./Berth');\nBerth.defaultProps;\n",
        "src/imported.js": "import Berth from './Berth';\n",
    }
    index = project({**BOTH, **uses, "src/Berth.jsx": WHOLE})
    plan = switch(index, [pair_in(index.root)])
    assert [path.name for path in plan.files] == ["imported.js"]
    assert [(Path(one.file).name, one.line, one.advice) for one in plan.left] == [
        ("whole.js", 1, "Require the new file and take its `.default`")
    ]
    new = NEW.replace("export const", "const").replace("export default ", "")
    index = project({"src/Berth.function.jsx": new + "module.exports = Berth;\n"})
    assert len(switch(index, [pair_in(index.root)]).files) == 2
    named = "const Berth = require('./Berth').default;\n"
    index = project({"src/Berth.jsx": OLD, "src/whole.js": named})
    left = switch(index, [pair_in(index.root)]).left
    assert [(Path(one.file).name, one.line) for one in left] == [("whole.js", 1)]


def test_members_of_a_required_module_are_asked_for(project: Made) -> None:
    use = "const berths = require('./Berth');\nberths.WIDTH;\n"
    new = NEW.replace("export const", "const")
    index = project({**BOTH, "src/Berth.function.jsx": new, "src/use.js": use})
    plan = switch(index, [pair_in(index.root)])
    assert plan.files == {} and "WIDTH" in plan.left[0].what


def test_a_pattern_that_loads_both_and_a_test_that_looks_inside_are_left(project: Made) -> None:
    index = project(
        {
            **BOTH,
            "all.js": "export const all = import.meta.glob('./src/*.jsx');\n",
            "src/Berth.test.js": "import Berth from './Berth';\nmount(Berth).instance();\n",
        }
    )
    plan = switch(index, [pair_in(index.root)])
    assert [path.name for path in plan.files] == ["Berth.test.js"]
    assert [(Path(one.file).name, one.line) for one in plan.left] == [
        ("all.js", 1),
        ("Berth.test.js", 2),
    ]


def test_the_old_one_goes_when_nobody_uses_it(project: Made) -> None:
    index = project(
        {**BOTH, "src/use.js": "import B from './Berth';\n", "a.js": "import './src/shared.css';\n"}
    )
    pair = pair_in(index.root)
    with pytest.raises(StillUsed) as still:
        retire(index, pair)
    assert [(Path(one.file).name, one.line) for one in still.value.users] == [("use.js", 1)]
    (index.root / "src/use.js").write_text("import B from './Berth.function';\n")
    plan = retire(project({}), pair)
    names = {path.name: text for path, text in plan.files.items()}
    # The new file imports the stylesheet as well, so it stays.
    assert names == {
        "use.js": "import B from './Berth';\n", "Berth.function.jsx": None, "Berth.jsx": NEW,
    }  # fmt: skip


def test_styles_only_the_old_one_imported_go(project: Made) -> None:
    new = NEW.replace("import './Berth.css';\n", "")
    index = project({**BOTH, "src/Berth.function.jsx": new})
    plan = retire(index, pair_in(index.root))
    assert plan.files[index.root / "src/Berth.css"] is None
    assert index.root / "src/shared.css" not in plan.files


def test_new_files_named_by_the_project_stay_where_they_are(project: Made) -> None:
    naming = '[naming]\njsx-function = "{stem}.next{ending}"\n'
    files = {**BOTH, "clean-carry.toml": naming, "src/Berth.next.jsx": NEW}
    index = project({name: text for name, text in files.items() if "function" not in name})
    pair = pair_in(index.root)
    assert pair.new.name == "Berth.next.jsx"
    assert retire(index, pair).files == {index.root / "src/Berth.jsx": None}


@pytest.mark.parametrize(
    ("request_", "old", "new", "written"),
    [
        ("./Berth", "/a/Berth.jsx", "/a/Berth.function.jsx", "./Berth.function"),
        ("./Berth.vue", "/a/Berth.vue", "/a/Berth.flat.vue", "./Berth.flat.vue"),
        ("../a/Berth", "/a/Berth.vue", "/a/Berth.flat.vue", "../a/Berth.flat.vue"),
        ("./Berth", "/a/Berth.jsx", "/a/Berth.flat.vue", "./Berth.flat.vue"),
        ("@ferries/a/Berth", "/a/Berth.tsx", "/a/next/Berth.tsx", "@ferries/a/next/Berth"),
        ("./Berth", "/a/Berth/index.js", "/a/Berth/index.next.js", "./Berth/index.next"),
    ],
)
def test_requests_keep_their_form(request_: str, old: str, new: str, written: str) -> None:
    assert pointed_at(request_, old, new) == written


def test_mistakes_in_choosing_the_new_file(project: Made) -> None:
    index = project({"Berth.jsx": OLD, "a.js": "export const a = 1;\n"})
    with pytest.raises(InputError, match="no new file"):
        new_of(index.root / "Berth.jsx")
    with pytest.raises(InputError, match="holds no component"):
        Pair.of(index.root / "Berth.jsx", index.root / "a.js")
    project(
        {
            "Berth.function.jsx": NEW,
            "Berth.flat.vue": "<template><b /></template>\n<script setup>\n</script>\n",
        }
    )
    with pytest.raises(InputError, match="several new files"):
        new_of(index.root / "Berth.jsx")


VUE = (
    "<template><i>{{ n }}</i></template>\n<script setup>\ndefineProps({ n: Number });\n</script>\n"
)


def test_across_frameworks_users_get_a_bridge(project: Made) -> None:
    dependencies = '{"name": "a", "dependencies": {"vue": "^3.5.0", "react": "^18.0.0"}}'
    index = project(
        {
            "package.json": dependencies, "Berth.jsx": OLD.replace("import './", "// './"),
            "Berth.flat.vue": VUE, "use.js": "import Berth from './Berth';\n",
        }
    )  # fmt: skip
    pair = Pair.of(index.root / "Berth.jsx", index.root / "Berth.flat.vue")
    plan = switch(index, [pair])
    assert plan.files[index.root / "use.js"] == "import Berth from './Berth.bridge';\n"
    bridge = plan.files[index.root / "Berth.bridge.jsx"] or ""
    assert "import BerthFlat" not in bridge and "import Berth from './Berth.flat.vue';" in bridge
    assert "export default function BerthBridge(props)" in bridge
    (index.root / "Berth.bridge.jsx").write_text(bridge)
    (index.root / "use.js").write_text("import Berth from './Berth.bridge';\n")
    kept = retire(project({}), pair)
    assert kept.files[index.root / "Berth.jsx"] is None
    assert kept.files[index.root / "Berth.vue"] == VUE
    assert "./Berth.vue" in (kept.files[index.root / "Berth.bridge.jsx"] or "")
    # Without users the bridge goes as well.
    (index.root / "use.js").unlink()
    assert retire(project({}), pair).files[index.root / "Berth.bridge.jsx"] is None


def test_uses_that_a_bridge_cannot_serve_are_left(project: Made) -> None:
    index = project(
        {
            "package.json": '{"name": "a", "dependencies": {"vue": "^3.5.0", "react": "^18.0.0"}}',
            "Berth.jsx": OLD, "Berth.flat.vue": VUE,
            "index.js": "export { default as Berth } from './Berth';\n",
            "Held.jsx": "import Berth from './Berth';\nexport const a = <Berth ref={held} />;\n",
            "Text.jsx": "import Berth from './Berth';\nexport const b = <Berth>Pier {n}</Berth>;\n",
            "Given.jsx": "import Berth from './Berth';\n"
            "export const G = ({ children }) => <Berth>{children}</Berth>;\n",
            "Bold.jsx": "import { Berth } from './index';\nexport const c = <Berth><b>1</b></Berth>;\n",
        }
    )  # fmt: skip
    plan = switch(index, [Pair.of(index.root / "Berth.jsx", index.root / "Berth.flat.vue")])
    assert sorted(path.name for path in plan.files) == ["Berth.bridge.jsx", "Text.jsx"]
    assert sorted((Path(one.file).name, one.line, one.what) for one in plan.left) == [
        ("Bold.jsx", 2, "content that holds elements does not cross a bridge"),
        ("Given.jsx", 2, "content that holds elements does not cross a bridge"),
        ("Held.jsx", 2, "a reference to the component does not cross a bridge"),
    ]
    single = "<script>\nexport default { props: ['n'] };\n</script>\n<template><i><slot /></i></template>\n"
    index = project(
        {
            "Berth.vue": single, "Berth.function.jsx": NEW,
            "Named.vue": "<template><Berth><template #head>1</template></Berth></template>\n"
            "<script setup>\nimport Berth from './Berth.vue';\n</script>\n",
            "Plain.vue": "<template><Berth>Pier {{ 1 }}</Berth></template>\n"
            "<script setup>\nimport Berth from './Berth.vue';\n</script>\n",
        }
    )  # fmt: skip
    plan = switch(index, [Pair.of(index.root / "Berth.vue", index.root / "Berth.function.jsx")])
    assert sorted(path.name for path in plan.files) == ["Berth.bridge.vue", "Plain.vue"]
    assert [(Path(one.file).name, one.line, one.what) for one in plan.left] == [
        ("Named.vue", 1, "the named slot head does not cross a bridge")
    ]


def test_a_bridge_needs_both_frameworks(project: Made) -> None:
    index = project(
        {"Berth.jsx": OLD, "Berth.flat.vue": VUE, "use.js": "import B from './Berth';\n"}
    )
    pair = Pair.of(index.root / "Berth.jsx", index.root / "Berth.flat.vue")
    with pytest.raises(CarryError, match="rendered by vue"):
        switch(index, [pair])
