"""Classes that return JSX become single files: what is written, and that it is the same."""

from __future__ import annotations

import json
import shutil
from pathlib import Path

import pytest

import clean_carry
from conftest import Run

DEMO = Path(clean_carry.__file__).parent / "demo" / "gullmoor" / "components"
CLASSES = (
    "BerthPicker.tsx", "CargoChecklist.jsx", "CrewList.tsx", "DepartureBoard.jsx", "NoticePanel.jsx",
    "SailingCard.jsx", "TicketForm.tsx", "TideStrip.jsx",
)  # fmt: skip


@pytest.mark.slow
@pytest.mark.parametrize("name", CLASSES)
def test_the_demo_is_the_same_across_runtimes(name: str, run: Run, tmp_path: Path) -> None:
    shutil.copytree(DEMO, tmp_path / "components")
    done = run(
        "carry", f"components/{name}", "--to", "single-file-flat", "--assume-carried", "--verify", "--json",
    )  # fmt: skip
    result = json.loads(done.stdout)["results"][0]
    assert result["status"] == "clean"
    found = result["verification"]
    assert found["verdict"] == "same", found["trials"][0]["differences"][:3]


HEAD = "import React from 'react';\nexport default class Berth extends React.Component {\n"


def carried(run: Run, tmp_path: Path, body: str) -> dict[str, object]:
    """The first result of carrying a class with this body."""
    (tmp_path / "Berth.jsx").write_text(f"{HEAD}{body}\n}}\n", "utf-8")
    done = run("carry", "Berth.jsx", "--to", "single-file-flat", "--json")
    found: dict[str, object] = json.loads(done.stdout)["results"][0]
    return found


WRITTEN = {
    "an input that is only called is an event": (
        "render() { return <b onClick={() => this.props.onPick(1)}>x</b>; }",
        ["defineEmits(['pick'])", "<b @click=\"emit('pick', 1)\">x</b>"],
    ),
    "asking for it first says no more": (
        "go() { if (this.props.onPick) this.props.onPick(2); } render() { return <b onClick={this.go}>x</b>; }",
        ["{ emit('pick', 2); }"],
    ),
    "one that is compared stays an input": (
        "render() { return this.props.onPick ? <b onClick={this.props.onPick}>x</b> : null; }",
        ["defineProps(['onPick'])", '<b v-if="onPick" @click="onPick">x</b>'],
    ),
    "an input that is asked for and handed on": (
        "render() { const { a, ...rest } = this.props; delete rest.b;\n"
        "return <p {...rest} title={a}>{rest.id || 'none'}</p>; }",
        ["defineProps(['id', 'a', 'b'])", ':id="id" v-bind="$attrs" :title="a"'],
    ),
    "a reference of the parent's": (
        "render() { const { innerRef } = this.props; return <p ref={innerRef}>x</p>; }",
        [
            "const props = defineProps(",
            "function giveInnerRef(el) {",
            "handReference(props.innerRef, el);",
            "watch(() => props.innerRef, (now, before) => {",
            '<p :ref="giveInnerRef">',
        ],
    ),
    "an own listener in the place of one that is handed on": (
        "go = (e) => { this.props.onClick(e); }; render() { return <p {...this.props} onClick={this.go}>x</p>; }",
        ["defineEmits(['click'])", 'v-bind="{ ...$attrs, onClick: go }"'],
    ),
    "markup elsewhere in the page": (
        "render() { return <p>{this.props.on && createPortal(<b>x</b>, document.body)}</p>; }",
        ['<Teleport to="body">', "<b>x</b>", "</Teleport>"],
    ),
    "an update that is forced": (
        "n = 0; go = () => { this.n += 1; this.forceUpdate(); }; render() { return <b onClick={this.go}>{this.n}</b>; }",
        ["const instance = getCurrentInstance();", "instance.proxy.$forceUpdate();", "let n = 0;"],
    ),
    "content is a slot": (
        "render() { return <p>{this.props.children}</p>; }",
        ["<p>\n    <slot />"],
    ),
    "content or else markup": (
        "render() { return <p>{this.props.children || <i>none</i>}</p>; }",
        ["<slot>", "<i>none</i>"],
    ),
    "markup by its declared type is a named slot": (
        "static propTypes = { head: PropTypes.node }; render() { return <p>{this.props.head}</p>; }",
        ['<slot name="head" />'],
    ),
    "an early return": (
        "state = { open: false }; render() { if (!this.state.open) return null; return <p>open</p>; }",
        ['<p v-if="open">open</p>'],
    ),
    "two of them": (
        "state = { n: 0 }; render() { if (this.state.n === 1) return <i>1</i>; return <b>2</b>; }",
        ['<i v-if="n === 1">1</i>', "<b v-else>2</b>"],
    ),
    "a list with its place": (
        "render() { return <ul>{this.props.rows.map((row, at) => <li key={at}>{row}</li>)}</ul>; }",
        ['<li v-for="(row, at) in rows" :key="at">{{ row }}</li>'],
    ),
    "a method that draws": (
        "row(one) { return <li key={one.id}>{one.name}</li>; }\n"
        "render() { return <ul>{this.props.rows.map((r) => this.row(r))}</ul>; }",
        ['<li v-for="r in rows" :key="r.id">{{ r.name }}</li>'],
    ),
    "a number that is nought is shown": (
        "render() { return <p>{this.props.rows.length && <b>some</b>}</p>; }",
        ['<b v-if="rows.length">some</b>', "<template v-else>0</template>"],
    ),
    "a value the drawing names": (
        "render() { const total = this.props.rows.length * 2; return <p title={total}>{total}</p>; }",
        [
            "const total = computed(() => props.rows.length * 2)",
            '<p :title="total">{{ total }}</p>',
        ],
    ),
    "markup the drawing names": (
        "render() { let body; if (this.props.a) body = <i>a</i>; else body = <b>b</b>; return <p>{body}</p>; }",
        ['<i v-if="a">a</i>', "<b v-else>b</b>"],
    ),
    "pixels have their unit": (
        "state = { n: 1 }; render() { return <p style={{ height: this.state.n * 2, opacity: 1 }}>x</p>; }",
        [":style=\"{ height: (n * 2) + 'px', opacity: 1 }\""],
    ),
    "names of the page": (
        'render() { return <label className="a" htmlFor="b" tabIndex={0}>x</label>; }',
        ['<label class="a" for="b" :tabindex="0">'],
    ),
    "what the page calls a change of text": (
        "state = { t: '' }; render() { return <input value={this.state.t} "
        "onChange={(e) => this.setState({ t: e.target.value.trim() })} />; }",
        [':value="t"', '@input="(e) => { t = e.target.value.trim(); $forceUpdate() }"'],
    ),
    "fields that show and write one field of state": (
        "state = { t: '', on: true, k: '1' }; render() { return <p><input value={this.state.t} "
        "onChange={(e) => this.setState({ t: e.target.value })} /><input type='checkbox' checked={this.state.on} "
        "onChange={(e) => this.setState({ on: e.target.checked })} /><select value={this.state.k} "
        "onChange={(e) => this.setState({ k: e.target.value })}><option>1</option></select></p>; }",
        [
            '<input v-model="t" />',
            '<input v-model="on" type="checkbox" />',
            '<select v-model="k">',
        ],
    ),
    "a choice of what is bound": (
        "state = { k: '1' }; render() { return <select value={this.state.k} "
        "onChange={(e) => this.setState({ k: e.target.value })}><option value={this.props.j}>1</option></select>; }",
        [':value="k"', '@change="(e) => { k = e.target.value }"'],
    ),
    "all of the state, where a write does not say what": (
        "state = { a: 1 }; go = (k) => { this.setState({ [k]: 2 }); }; "
        "render() { return <b onClick={() => this.go('a')}>{this.state.a}</b>; }",
        ["shallowReactive({", "Object.assign(state, { [k]: 2 })", "{{ state.a }}"],
    ),
    "a swap sees both old values": (
        "state = { a: 1, b: 2 }; go = () => { this.setState({ a: this.state.b, b: this.state.a }); }; "
        "render() { return <b onClick={this.go}>{this.state.a}{this.state.b}</b>; }",
        ["[a.value, b.value] = [b.value, a.value]"],
    ),
    "a value read after it was written is the old one": (
        "state = { n: 1 }; go = () => { this.setState({ n: this.state.n + 1 }); this.props.onGo(this.state.n); };"
        " render() { return <b onClick={this.go}>{this.state.n}</b>; }",
        ["const nBefore = n.value", "emit('go', nBefore)"],
    ),
    "once all is drawn": (
        "state = { n: 1 }; go = () => { this.setState({ n: 2 }, () => this.props.onGo()); };"
        " render() { return <b onClick={this.go}>{this.state.n}</b>; }",
        ["n.value = 2", "nextTick(() => emit('go'))"],
    ),
    "an element and its reference": (
        "box = React.createRef(); componentDidMount() { this.box.current.focus(); }"
        " render() { return <input ref={this.box} />; }",
        ["const box = ref(null)", "box.value.focus()", '<input ref="box" />'],
    ),
    "what is not named goes on": (
        "render() { const { a, ...others } = this.props; return <p {...others}>{a}</p>; }",
        ["inheritAttrs: false", '<p v-bind="$attrs">{{ a }}</p>'],
    ),
    "what is asked for goes on too, and so does what stands between the tags": (
        "go() { use(this.props.b); } render() { const { a, ...others } = this.props;"
        " return <p title={a} onClick={this.go} {...others} />; }",
        [':title="a" v-bind="{ onClick: go, ...$attrs, b }">', "<slot />"],
    ),
    "all inputs go on": (
        "render() { return <p {...this.props} />; }",
        ['<p v-bind="$attrs">\n    <slot />\n  </p>'],
    ),
    "a function that is given on in a list runs once": (
        "state = { n: 0 }; add() { if (this.state.n < 5) this.setState({ n: this.state.n + 1 }); }\n"
        "render() { return <p>{this.props.rows.map((row) => <b key={row}"
        " {...{ title: row, onClick: () => this.add() }}>{row}</b>)}</p>; }",
        ["onClick: () => add()"],
    ),
    "an element that is named": (
        "componentDidMount() { this.refs.box.focus(); } render() { return <p ref='box'>x</p>; }",
        ["const box = ref(null);", "box.value.focus();", '<p ref="box">x</p>'],
    ),
    "what hangs on a change": (
        "componentDidUpdate(before) { if (before.pier !== this.props.pier) { this.go(); } } go() {}"
        " render() { return <p>{this.props.pier}</p>; }",
        ["watch(() => props.pier, () => { go(); }, { flush: 'post' })"],
    ),
}


@pytest.mark.parametrize("case", WRITTEN)
def test_what_is_written(case: str, run: Run, tmp_path: Path) -> None:
    body, lines = WRITTEN[case]
    result = carried(run, tmp_path, body)
    assert result["status"] == "clean", result["findings"]
    text = result["files"][0]["text"]  # type: ignore[index]
    for line in lines:
        assert line in text, text


CONSTANTS = """import React from 'react';
import { findDOMNode } from 'react-dom';
import PropTypes from 'prop-types';

const propTypes = {
  pier: PropTypes.string,
  busy: PropTypes.bool,
  onPick: PropTypes.func,
};

class Berth extends React.Component {
  componentDidMount() {
    findDOMNode(this).setAttribute('data-there', 'yes');
  }

  render() {
    const { pier, ...others } = this.props;
    return <section className="berth" {...others}>{pier}</section>;
  }
}

Berth.propTypes = propTypes;

export default Berth;
"""


@pytest.mark.slow
def test_types_that_are_named_and_an_element_code_finds(run: Run, tmp_path: Path) -> None:
    shutil.copytree(DEMO, tmp_path / "components")
    (tmp_path / "components" / "Berth.jsx").write_text(CONSTANTS, "utf-8")
    done = run("carry", "components/Berth.jsx", "--to", "single-file-flat", "--verify", "--json")
    result = json.loads(done.stdout)["results"][0]
    text = result["files"][0]["text"]
    assert "PropTypes" not in text
    assert "pier: String" in text
    assert "root.value.setAttribute('data-there', 'yes');" in text
    assert "v-bind=\"{ class: 'berth', ...$attrs }\"" in text
    assert result["verification"]["verdict"] == "same", result["verification"]["trials"][0]


REFUSED = {
    "reference-passed": (
        "render() { return <p>{this.props.rows.map((row) => <b key={row} ref={this.props.innerRef}>x</b>)}</p>; }"
    ),
    "event-handed-on": (
        "go() { this.props.onPick(1); } render() { const { a, ...others } = this.props;"
        " return <b onClick={() => this.go()} {...others}>{a}</b>; }"
    ),
    "not-in-target": (
        "render() { const { a, ...others } = this.props; return <b title={a}>{show(others)}</b>; }"
    ),
    "markup-in-code": "state = { said: <i>1</i> }; render() { return <p>{this.state.said}</p>; }",
    "drawn-by-statements": "render() { for (const a of this.props.rows) go(a); return <p>x</p>; }",
    "runs-at-every-draw": "componentDidUpdate() { go(); } render() { return <p>x</p>; }",
    "child-not-found": "render() { return <Row />; }",
    "moment-not-in-target": "componentWillMount() { go(); } render() { return <p>x</p>; }",
    "forced-update": "n = 0; render() { const twice = this.n * 2; return <b onClick={() => this.forceUpdate()}>{twice}</b>; }",
    "old-value-read": (
        "state = { n: 0 }; add() { this.setState({ n: this.state.n + 1 }); }\n"
        "all = () => { [1, 2].forEach(() => this.add()); };\n"
        "render() { return <b onClick={this.all}>{this.state.n}</b>; }"
    ),
}


@pytest.mark.parametrize("rule", REFUSED)
def test_what_is_refused(rule: str, run: Run, tmp_path: Path) -> None:
    result = carried(run, tmp_path, REFUSED[rule])
    assert result["status"] == "refused"
    assert [finding["rule"] for finding in result["findings"]] == [rule]  # type: ignore[union-attr, attr-defined]


def test_components_of_one_file_get_files_of_their_own(run: Run, tmp_path: Path) -> None:
    (tmp_path / "Pier.jsx").write_text(
        "import React from 'react';\n"
        "const LABELS = { a: 'A' };\n"
        "class Row extends React.Component { render() { return <li>{LABELS[this.props.kind]}</li>; } }\n"
        "export default class Pier extends React.Component {\n"
        "  render() { return <ul><Row kind=\"a\" /></ul>; }\n}\n",
        "utf-8",
    )  # fmt: skip
    done = run("carry", "Pier.jsx", "--to", "single-file-flat", "--json")
    files = {f["path"]: f["text"] for f in json.loads(done.stdout)["results"][0]["files"]}
    assert list(files) == ["Pier.flat.vue", "Row.flat.vue"]
    assert "import Row from './Row.flat.vue';" in files["Pier.flat.vue"]
    assert "LABELS" not in files["Pier.flat.vue"]
    assert "const LABELS = { a: 'A' };" in files["Row.flat.vue"]


LIST = """import React from 'react';
import BerthRow from './BerthRow';

export default class BerthList extends React.Component {
  render() {
    const { berths = [] } = this.props;
    return <ul>{berths.map((berth) => <BerthRow key={berth.name} name={berth.name} />)}</ul>;
  }
}
"""
ROW = """import React from 'react';

export default class BerthRow extends React.Component {
  render() {
    return <li onClick={() => this.props.onPick?.(this.props.name)}>{this.props.name}</li>;
  }
}
"""
HARBOUR = """import React from 'react';
import Pier from './Pier';

export default class Harbour extends React.Component {
  render() {
    return <div><Pier /></div>;
  }
}
"""
PIER = """import React from 'react';

export default class Pier extends React.Component {
  render() {
    for (const one of this.props.all) one.at = 1;
    return <i>pier</i>;
  }
}
"""


@pytest.mark.slow
def test_what_is_carried_in_the_same_run_is_drawn(run: Run, tmp_path: Path) -> None:
    shutil.copytree(DEMO, tmp_path / "components")
    tree = tmp_path / "components" / "tree"
    tree.mkdir()
    for name, text in {
        "BerthList": LIST,
        "BerthRow": ROW,
        "Harbour": HARBOUR,
        "Pier": PIER,
    }.items():
        (tree / f"{name}.jsx").write_text(text, "utf-8")
    done = run("carry", "components/tree", "--to", "single-file-flat", "--verify", "--json")
    results = {one["component"]: one for one in json.loads(done.stdout)["results"]}
    assert {name: one["status"] for name, one in results.items()} == {
        "BerthList": "clean", "BerthRow": "clean", "Harbour": "refused", "Pier": "refused",
    }  # fmt: skip
    for name in ("BerthList", "BerthRow"):
        assert results[name]["verification"]["verdict"] == "same", results[name]
    # What cannot be carried is not drawn either.
    assert [one["rule"] for one in results["Harbour"]["findings"]] == ["child-not-carried"]


def test_a_pure_component_that_calls_an_input_is_noted(run: Run, tmp_path: Path) -> None:
    body = "render() { return <b>{this.props.format(this.props.tons)}</b>; }"
    head = HEAD.replace("React.Component", "React.PureComponent")
    (tmp_path / "Berth.jsx").write_text(f"{head}{body}\n}}\n", "utf-8")
    done = run("carry", "Berth.jsx", "--to", "single-file-flat", "--json")
    result = json.loads(done.stdout)["results"][0]
    assert [finding["rule"] for finding in result["findings"]] == ["pure-called", "result-as-text"]


@pytest.mark.parametrize(
    ("rule", "body"),
    [
        ("called-if-given", "render() { return <b onClick={() => this.props.onPick(1)}>x</b>; }"),
        (
            "listed-if-given",
            "render() { return <b>{this.props.rows.map((a) => <i key={a}>{a}</i>)}</b>; }",
        ),
    ],
)
def test_what_the_old_one_fails_without_is_noted(
    rule: str, body: str, run: Run, tmp_path: Path
) -> None:
    result = carried(run, tmp_path, body)
    assert result["status"] == "clean"
    assert rule in [finding["rule"] for finding in result["findings"]]  # type: ignore[index, attr-defined]
