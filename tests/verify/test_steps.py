"""Every step of a trial in the real renderer: what a component hears of it, and what is seen after it."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

import pytest

from clean_carry.verify.runtimes import RUNTIMES
from clean_carry.verify.worker_pool import Bench, Side

EVENTS = [
    "Click",
    "MouseDown",
    "MouseUp",
    "DoubleClick",
    "PointerDown",
    "PointerUp",
    "KeyDown",
    "KeyUp",
    "Input",
    "Change",
    "Focus",
    "Blur",
    "MouseEnter",
    "MouseLeave",
    "MouseOver",
    "MouseOut",
    "TouchStart",
    "TouchEnd",
    "DragStart",
    "DragOver",
    "Drop",
    "DragEnd",
    "Submit",
    "Scroll",
    "Wheel",
]


def probe(inner: str, body: str = "") -> str:
    return f"""import React, {{ useState, useLayoutEffect }} from 'react';
    export default function Probe({{ onHeard, onMore, word = 'none', children }}) {{
      const hear = {{ {", ".join(f"on{name}: (e) => onHeard(e)" for name in EVENTS)} }};
      {body}
      return <div>{inner}</div>;
    }}"""


def run(
    bench: Bench, folder: Path, text: str, steps: list[dict[str, Any]], **given: Any
) -> list[dict[str, Any]]:
    """The settled points of a trial over a component."""
    side = Side(folder / "Probe.jsx", text, RUNTIMES["react-18"])
    request = {"inputs": {}, "functions": {"onHeard": {}}, "slots": {}, "steps": steps, **given}
    with bench.lane() as lane:
        answer = lane.trial(bench.build(side), "default", request)
    points: list[dict[str, Any]] = answer["points"]
    assert [error for point in points for error in point["errors"]] == []
    return points


def heard(point: dict[str, Any]) -> list[str]:
    return [call[1]["type"] for call in point["calls"]]


BUTTON = {"role": "button"}
BOX = {"role": "textbox"}
HEARD: list[tuple[str, str, dict[str, Any], list[str]]] = [
    ("press", "<button {...hear}>Go</button>", {"press": BUTTON},
     ["pointerdown", "mousedown", "focus", "pointerup", "mouseup", "click"]),
    ("press twice", "<button onDoubleClick={onHeard} onClick={onHeard}>Go</button>",
     {"press": {**BUTTON, "double": True}}, ["click", "click", "dblclick"]),
    ("press disabled", "<button {...hear} disabled>Go</button>", {"press": BUTTON}, []),
    ("press inside disabled", "<button {...hear} disabled><b>Go</b></button>", {"press": {"tag": "b"}}, []),
    ("touch", "<button onTouchStart={onHeard} onTouchEnd={onHeard}>Go</button>", {"touch": BUTTON},
     ["touchstart", "touchend"]),
    ("type", "<input onKeyDown={onHeard} onKeyUp={onHeard} onInput={onHeard} />", {"type": {**BOX, "text": "a"}},
     ["keydown", "input", "keyup"]),
    ("type over", "<input defaultValue='xy' onInput={onHeard} />", {"type": {**BOX, "text": "ab", "over": True}},
     ["input"]),
    ("type read-only", "<input readOnly onInput={onHeard} />", {"type": {**BOX, "text": "a"}}, []),
    ("commit", "<input onBlur={onHeard} onFocus={onHeard} />", {"commit": BOX}, []),
    ("key", "<input onKeyDown={onHeard} onKeyUp={onHeard} />", {"key": {**BOX, "key": "Escape"}},
     ["keydown", "keyup"]),
    ("key that activates at once", "<button onClick={onHeard}>Go</button>", {"key": {**BUTTON, "key": "Enter"}},
     ["click"]),
    ("key that activates when let go", "<button onClick={onHeard} onKeyUp={onHeard}>Go</button>",
     {"key": {**BUTTON, "key": " "}}, ["keyup", "click"]),
    ("key whose default is prevented", "<button onClick={onHeard} onKeyDown={(e) => e.preventDefault()}>Go</button>",
     {"key": {**BUTTON, "key": "Enter"}}, []),
    ("key that submits", "<form onSubmit={(e) => { e.preventDefault(); onHeard(e); }}><input /><button>Go</button></form>",
     {"key": {**BOX, "key": "Enter"}}, ["submit"]),
    ("key that submits nothing", "<form onSubmit={onHeard}><input /><button disabled>Go</button></form>",
     {"key": {**BOX, "key": "Enter"}}, []),
    ("choose", "<select onChange={onHeard}><option>a</option><option>b</option></select>",
     {"choose": {"role": "combobox", "value": "b"}}, ["change"]),
    ("focus", "<input onFocus={onHeard} />", {"focus": BOX}, ["focus"]),
    ("blur", "<input autoFocus onBlur={onHeard} />", {"blur": BOX}, ["blur"]),
    ("hover", "<p onMouseOver={onHeard} onMouseEnter={onHeard}>a</p>", {"hover": {"tag": "p"}},
     ["mouseover", "mouseenter"]),
    ("leave", "<p onMouseOut={onHeard} onMouseLeave={onHeard}>a</p>", {"leave": {"tag": "p"}},
     ["mouseout", "mouseleave"]),
    ("drag", "<p draggable onDragStart={onHeard} onDragOver={onHeard} onDrop={onHeard} onDragEnd={onHeard}>a</p>",
     {"drag": {"tag": "p"}}, ["dragstart", "dragover", "drop", "dragend"]),
    ("submit", "<form onSubmit={onHeard} />", {"submit": {"role": "form"}}, ["submit"]),
    ("event", "<p onWheel={onHeard}>a</p>", {"event": {"tag": "p", "type": "wheel"}}, ["wheel"]),
]  # fmt: skip


@pytest.mark.parametrize(("name", "inner", "step", "types"), HEARD, ids=[row[0] for row in HEARD])
def test_what_is_heard_of_a_step(
    name: str, inner: str, step: dict[str, Any], types: list[str], bench: Bench, tmp_path: Path
) -> None:
    points = run(bench, tmp_path, probe(inner), [step])
    assert heard(points[1]) == types
    assert points[1]["missing"] is None


def test_a_target_that_is_not_there_is_said(bench: Bench, tmp_path: Path) -> None:
    points = run(bench, tmp_path, probe("<b>a</b>"), [{"press": BUTTON}])
    assert points[1]["missing"] == BUTTON


def test_calls_and_changes_are_placed_between_the_events_of_a_step(
    bench: Bench, tmp_path: Path
) -> None:
    body = "const [on, turn] = useState(false);"
    for name, at in (("onMouseDown", "early"), ("onClick", "late")):
        inner = f"<button {name}={{() => {{ turn(true); onHeard(1); }}}}>{{String(on)}}</button>"
        points = run(bench, tmp_path, probe(inner, body), [{"press": BUTTON}])
        kinds = [entry[0] for entry in points[1]["prevented"]]
        assert (kinds.index("call") < kinds.index("between")) == (at == "early")
        assert ["between", at == "early"] in points[1]["prevented"]


def test_time_passes_timer_by_timer(bench: Bench, tmp_path: Path) -> None:
    body = """const [n, put] = useState(0);
      useLayoutEffect(() => { const t = setInterval(() => put((k) => k + 1), 1000); return () => clearInterval(t); }, []);"""
    points = run(
        bench, tmp_path, probe("<b>{n}</b>", body), [{"pass": 999}, {"pass": 1}, {"pass": 3000}]
    )
    assert [point["tree"][0][3][0][3][0] for point in points] == ["0", "0", "1", "4"]


def test_inputs_change_together_and_twice_before_settling(bench: Bench, tmp_path: Path) -> None:
    steps = [
        {"change": {"inputs": {"word": "b"}}},
        {"change": {"inputs": {"word": "c"}, "then": {"inputs": {"word": "d"}}}},
        {"change": {"without": ["word"]}},
        {"change": {"slots": {"children": ["inside"]}}},
    ]
    inner = "<b>{word}</b>{children}"
    points = run(bench, tmp_path, probe(inner), steps, inputs={"word": "a"})
    words = [point["tree"][0][3][0][3][0] for point in points]
    assert words == ["a", "b", "d", "none", "none"]
    assert all(point["frames"] == [] for point in points[1:])
    assert points[-1]["tree"][0][3][1] == "inside"


def test_functions_are_renewed_and_taken_away(bench: Bench, tmp_path: Path) -> None:
    inner = "<button onClick={() => onHeard ? onHeard(1) : onMore(2)}>Go</button>"
    steps = [
        {"press": BUTTON},
        {"change": {"functions": {"onHeard": {}}}},
        {"press": BUTTON},
        {"change": {"without": ["onHeard"]}},
        {"press": BUTTON},
    ]
    functions: dict[str, Any] = {"onHeard": {}, "onMore": {}}
    points = run(bench, tmp_path, probe(inner), steps, functions=functions)
    assert [p["calls"] for p in points if p["name"] == "press"] == [
        [["onHeard", 1]],
        [["onHeard (new)", 1]],
        [["onMore", 2]],
    ]


FUNCTIONS: list[tuple[dict[str, Any], str]] = [
    ({"returns": 3}, "3"),
    ({}, "undefined"),
    ({"throws": "no"}, "Error: no"),
    ({"resolves": {"a": 1}, "after": 20}, '{"a":1}'),
    ({"rejects": "late", "after": 20}, "Error: late"),
    ({"returns": {"$": "NaN"}}, "NaN"),
    ({"calls": [5]}, "called 5"),
]


@pytest.mark.parametrize(("plan", "shown"), FUNCTIONS)
def test_what_functions_do(plan: dict[str, Any], shown: str, bench: Bench, tmp_path: Path) -> None:
    body = """const [text, put] = useState('');
      const say = (x) => (x && typeof x === 'object' ? JSON.stringify(x) : String(x));
      const go = async () => {
        try { const got = await onMore((x) => put('called ' + x)); put((t) => t || say(got)); } catch (e) { put(String(e)); }
      };"""
    points = run(
        bench, tmp_path, probe("<button onClick={go}>{text}</button>", body),
        [{"press": BUTTON}, {"pass": 30}], functions={"onMore": plan},
    )  # fmt: skip
    assert points[-1]["tree"][0][3][0][3] == [shown]


SPECIAL: list[tuple[Any, str]] = [
    ({"$": "NaN"}, "number NaN"),
    ({"$": "undefined"}, "string none"),
    ({"$": "date", "time": 0}, "object Thu Jan 01 1970"),
    ({"$": "expression", "text": "a"}, "object /a/"),
    ({"$": "function", "returns": 2}, "function 2"),
    ([1, {"$": "NaN"}], "object 1,NaN"),
    (None, "object null"),
]


@pytest.mark.parametrize(("value", "shown"), SPECIAL)
def test_values_that_json_cannot_say(value: Any, shown: str, bench: Bench, tmp_path: Path) -> None:
    body = """const text = typeof word === 'function' ? word() : word instanceof Date ? word.toDateString() : String(word);"""
    points = run(
        bench, tmp_path, probe("<b>{typeof word} {text}</b>", body), [], inputs={"word": value}
    )
    assert "".join(points[0]["tree"][0][3][0][3]) == shown


def test_unchanged_inputs_stay_the_very_same(bench: Bench, tmp_path: Path) -> None:
    body = """const seen = React.useRef([]); if (!seen.current.includes(word)) seen.current.push(word);"""
    steps = [{"change": {"inputs": {"other": 2}}}, {"change": {"inputs": {"word": [2]}}}]
    points = run(
        bench, tmp_path, probe("<b>{seen.current.length}</b>", body), steps, inputs={"word": [1]}
    )
    assert [p["tree"][0][3][0][3][0] for p in points] == ["1", "1", "2"]


def test_functions_inside_inputs_are_recorded(bench: Bench, tmp_path: Path) -> None:
    inner = "<button onClick={() => word.onPick(word.at)}>Go</button>"
    word = {"at": 3, "onPick": {"$": "function", "called": "word.onPick"}}
    points = run(bench, tmp_path, probe(inner), [{"press": BUTTON}], inputs={"word": word})
    assert points[1]["calls"] == [["word.onPick", 3]]


def test_content_as_an_input(bench: Bench, tmp_path: Path) -> None:
    markup = {"$": "markup", "content": [{"tag": "i", "content": ["a"]}, "b"]}
    points = run(bench, tmp_path, probe("{word}"), [], inputs={"word": markup})
    assert points[0]["tree"][0][3] == [["i", {}, None, ["a"]], "b"]


def test_twice_return_and_remove(bench: Bench, tmp_path: Path) -> None:
    body = "const [n, put] = useState(0);"
    steps = [{"press": BUTTON}, {"twice": True}, {"return": True}, {"remove": True}]
    inner = "<button onClick={() => put(n + 1)}>{n}</button>"
    points = run(bench, tmp_path, probe(inner, body), steps)
    shown = [[node[0] for node in point["tree"]] for point in points]
    assert shown == [
        ["div"],
        ["div"],
        ["div", "trial-place"],
        ["div", "trial-place"],
        ["trial-place"],
    ]
    assert points[1]["tree"][0][3][0][3] == ["1"]
    assert points[3]["tree"][0][3][0][3] == ["0"]


def test_the_window_is_resized(bench: Bench, tmp_path: Path) -> None:
    body = """const [wide, put] = useState(window.innerWidth);
      useLayoutEffect(() => { const see = () => put(window.innerWidth); window.addEventListener('resize', see);
        return () => window.removeEventListener('resize', see); }, []);"""
    points = run(bench, tmp_path, probe("<b>{wide}</b>", body), [{"resize": {"width": 320}}])
    assert points[1]["tree"][0][3][0][3] == ["320"]


SIZES = """useLayoutEffect(() => { const watch = new ResizeObserver(([seen]) => onMore(seen.contentRect.width,
        seen.borderBoxSize[0].blockSize)); watch.observe(document.querySelector('b'));
        return () => { if (word === 'none') watch.disconnect(); }; }, []);"""


def test_sizes_are_observed_as_they_change(bench: Bench, tmp_path: Path) -> None:
    steps: list[dict[str, Any]] = [
        {"resize": {"width": 320}},
        {"resize": {"width": 320}},
        {"remove": True},
        {"resize": {"width": 700}},
    ]
    points = run(bench, tmp_path, probe("<b>Tide</b>", SIZES), steps, functions={"onMore": {}})
    seen = [[call[1:] for call in point["calls"]] for point in points]
    assert seen == [[[944, 20]], [[240, 20]], [], [], []]


def test_an_observer_nobody_stops_is_left_over(bench: Bench, tmp_path: Path) -> None:
    side = Side(tmp_path / "Probe.jsx", probe("<b>Tide</b>", SIZES), RUNTIMES["react-18"])
    left = []
    for word in ("none", "other"):
        request = {"inputs": {"word": word}, "functions": {"onMore": {}}, "slots": {}, "steps": []}
        with bench.lane() as lane:
            answer = lane.trial(bench.build(side), "default", request)
        left.append("window resize" in answer["left"]["listeners"])
    assert left == [False, True]


MEDIA = """useLayoutEffect(() => { const list = matchMedia('screen and (max-width: 600px)');
        const tell = (event) => onMore(event.matches, list.matches); list.addEventListener('change', tell);
        return () => { if (word === 'none') list.removeEventListener('change', tell); }; }, []);"""


def test_a_media_query_tells_of_its_change_and_is_left_over_if_nobody_stops_it(
    bench: Bench, tmp_path: Path
) -> None:
    steps: list[dict[str, Any]] = [{"resize": {"width": width}} for width in (320, 500, 700)]
    inner = "<b>{String(matchMedia('(min-width: 40em) and (orientation: landscape)').matches)}</b>"
    side = Side(tmp_path / "Probe.jsx", probe(inner, MEDIA), RUNTIMES["react-18"])
    for word in ("none", "other"):
        request = {
            "inputs": {"word": word},
            "functions": {"onMore": {}},
            "slots": {},
            "steps": steps,
        }
        with bench.lane() as lane:
            answer = lane.trial(bench.build(side), "default", request)
        seen = [[call[1:] for call in point["calls"]] for point in answer["points"]]
        assert seen == [[], [[True, True]], [], [[False, False]]]
        assert answer["points"][0]["tree"][0][3][0][3] == ["true"]
        assert ("window resize" in answer["left"]["listeners"]) is (word == "other")


@pytest.mark.parametrize(
    ("query", "answer"),
    [
        ("", True),
        ("print", False),
        ("not print", True),
        ("only screen and (min-width: 1024px)", True),
        ("(width > 1024px), (max-height: 768px)", True),
        ("(400px <= width < 1024px)", False),
        ("not all and (max-width: 600px)", True),
        ("(prefers-color-scheme: dark) or (hover)", True),
        ("(prefers-reduced-motion)", False),
        ("(unheard-of: 3)", False),
        ("(min-aspect-ratio: 4/3) and (color)", True),
    ],
)
def test_media_queries_are_answered_for_the_window(
    bench: Bench, tmp_path: Path, query: str, answer: bool
) -> None:
    inner = f"<b>{{String(matchMedia({json.dumps(query)}).matches)}}</b>"
    points = run(bench, tmp_path, probe(inner, ""), [])
    assert points[0]["tree"][0][3][0][3] == [str(answer).lower()]


def test_what_is_in_view_changes_with_each_scroll(bench: Bench, tmp_path: Path) -> None:
    body = """useLayoutEffect(() => { const watch = new IntersectionObserver((all) => onMore(all[0].isIntersecting));
      watch.observe(document.querySelector('b')); return () => watch.disconnect(); }, []);"""
    scroll = {"event": {"place": "window", "type": "scroll"}}
    points = run(
        bench, tmp_path, probe("<b>Tide</b>", body), [scroll, scroll], functions={"onMore": {}}
    )
    assert [p["calls"][0][1] for p in points] == [True, False, True]


def test_what_is_drawn_on_a_canvas_is_seen(bench: Bench, tmp_path: Path) -> None:
    body = """useLayoutEffect(() => { const pen = document.querySelector('canvas').getContext('2d');
      pen.font = '12px serif'; pen.fillStyle = 'red'; pen.fillText(String(pen.measureText('tide').width), 1, 2); }, []);"""
    points = run(bench, tmp_path, probe("<canvas/>", body), [])
    assert points[0]["calls"] == [
        ["canvas fillText", "28", "1", "2", "red", "#000000", "12px serif"]
    ]


def test_requests_are_answered_and_seen(bench: Bench, tmp_path: Path) -> None:
    body = """const [text, put] = useState('asking');
      useLayoutEffect(() => { fetch('/tides?pier=' + word, { method: 'post', body: 'x' })
        .then((r) => r.json().then((v) => put(r.status + ' ' + v.high)), (e) => put(e.name)).catch((e) => put(e.name)); }, [word]);"""
    replies = [
        {"url": "*", "json": {"high": 3}, "after": 100, "once": True},
        {"url": "*", "fail": True},
    ]
    steps = [{"pass": 100}, {"change": {"inputs": {"word": "b"}}}]
    points = run(bench, tmp_path, probe("<b>{text}</b>", body), steps, replies=replies)
    assert [p["tree"][0][3][0][3][0] for p in points] == ["asking", "200 3", "TypeError"]
    assert points[0]["requests"] == [{"method": "POST", "url": "/tides?pier=none", "body": "x"}]


def test_what_is_drawn_elsewhere_is_seen_and_can_be_pressed(bench: Bench, tmp_path: Path) -> None:
    text = """import React from 'react'; import { createPortal } from 'react-dom';
    export default ({ onHeard }) => <p>here{createPortal(<button onClick={() => onHeard(1)}>Go</button>, document.body)}</p>;"""
    points = run(bench, tmp_path, text, [{"press": BUTTON}, {"remove": True}])
    assert points[0]["tree"][1][0] == "elsewhere"
    assert points[1]["calls"] == [["onHeard", 1]]
    assert points[2]["tree"] == []


def test_a_page_put_back_is_like_a_fresh_one(bench: Bench, tmp_path: Path) -> None:
    text = """import React from 'react';
    let count = 0;
    export default class Leaky extends React.Component {
      componentDidMount() {
        count += 1;
        window.mine = (window.mine || 0) + 1;
        localStorage.setItem('n', Number(localStorage.getItem('n')) + 1);
        document.title = document.title + 'x';
        document.body.className = 'changed';
        window.addEventListener('resize', () => {});
        setInterval(() => {}, 10);
        this.setState({ text: [count, window.mine, localStorage.getItem('n'), document.title, Date.now(), Math.random()].join(' ') });
      }
      render() { return <b>{this.state && this.state.text}{document.body.className}</b>; }
    }"""
    side = Side(tmp_path / "Leaky.jsx", text, RUNTIMES["react-18"])
    bundle = bench.build(side)
    with bench.lane() as lane:
        answers = [lane.trial(bundle, "", {}, reuse=True) for _ in range(3)]
        fresh = lane.trial(bundle, "", {})
    assert all(answer["points"] == fresh["points"] for answer in answers)
    assert all(answer["left"] == fresh["left"] for answer in answers)


def test_the_page_says_what_can_be_done(bench: Bench, tmp_path: Path) -> None:
    inner = """<button onClick={onHeard}>Go</button><button disabled>Off</button><input placeholder="Name" />
      <select><option>a</option><option value="2">b</option></select><p onMouseEnter={onHeard}>p</p><i>nothing</i>"""
    body = "useLayoutEffect(() => { document.addEventListener('keydown', onHeard); setTimeout(() => {}, 70); }, []);"
    side = Side(tmp_path / "Probe.jsx", probe(inner, body), RUNTIMES["react-18"])
    with bench.lane() as lane:
        number, answer = lane.open(bench.build(side), "default", {"functions": {"onHeard": {}}})
        lane.end(number)
    found = answer["actions"]
    assert [e["target"] for e in found["elements"]] == [
        {"role": "button", "name": "Go"},
        {"role": "button", "name": "Off"},
        {"role": "textbox", "name": "Name"},
        {"role": "combobox", "position": 1},
        {"role": "option", "name": "a"},
        {"role": "option", "name": "b"},
        {"tag": "p", "position": 1},
    ]
    assert [e["disabled"] for e in found["elements"]][:2] == [False, True]
    assert found["elements"][3]["values"] == ["a", "2"]
    assert (
        "click" in found["elements"][0]["events"] and "mouseenter" in found["elements"][6]["events"]
    )
    assert "keydown" in found["outside"]["document"]
    assert found["waits"] == [70]


def test_branches_are_counted_in_the_components_own_file(bench: Bench, tmp_path: Path) -> None:
    (tmp_path / "other.js").write_text("export const f = (a) => (a ? 1 : 2);\n")
    text = """import React from 'react';
import { f } from './other';
export default ({ a }) => {
  if (a) return <b>{f(a)}</b>;
  return <i>{f(a)}</i>;
};"""
    bundle = bench.build(Side(tmp_path / "X.jsx", text, RUNTIMES["react-18"]))
    assert bundle.counters is not None
    assert [(c["id"], c["line"]) for c in bundle.counters] == [("b0.0", 4), ("b0.1", 4), ("f0", 3)]
    with bench.lane() as lane:
        assert lane.trial(bundle, "", {})["reach"] == ["b0.1", "f0"]
        assert lane.trial(bundle, "", {"inputs": {"a": 1}})["reach"] == ["b0.0", "f0"]


MEASURED = """<section style={{ height: tall }} ref={(e) => e && onMore(e.getBoundingClientRect().width, e.offsetHeight,
    e.scrollHeight, e.children[1].offsetTop - e.offsetTop, e.children[2].offsetHeight, e.children[3].offsetHeight)}>
  <p><b>a</b><b>b</b></p><p>c</p><p hidden>d</p><p style={{ display: 'none' }}>e</p>
</section>"""


@pytest.mark.parametrize(("tall", "high"), [("'auto'", 60), ("7", 7)])
def test_boxes_are_made_up_from_the_tree(
    tall: str, high: int, tmp_path: Path, bench: Bench
) -> None:
    text = probe(MEASURED, f"const tall = {tall};")
    points = run(bench, tmp_path, text, [], functions={"onMore": {}})
    # Five levels deep; a line is 20 high; the hidden ones have no box.
    assert points[0]["calls"] == [["onMore", 1024 - 2 * 40, high, 60, 40, 0, 0]]


def test_what_is_measured_follows_the_window(tmp_path: Path, bench: Bench) -> None:
    text = probe(
        "<button onClick={(e) => onMore(e.clientX, e.currentTarget.offsetWidth)}>Go</button>"
    )
    steps = [{"press": BUTTON}, {"resize": {"width": 200}}, {"press": {**BUTTON, "at": 0}}]
    points = run(bench, tmp_path, text, steps, functions={"onMore": {}})
    assert points[1]["calls"] == [["onMore", 512, 944]]
    assert points[3]["calls"] == [["onMore", 40, 120]]


PULLED = [
    ({"at": 0.9}, "onMouseDown={hold} onMouseMove={hold} onMouseUp={hold}", [512, 701, 890, 890]),
    ({"at": 0.9, "kept": True}, "onMouseDown={hold} onMouseUp={hold}", [512]),
    ({"at": 0.1, "finger": True}, "onTouchStart={touch} onTouchMove={touch}", [512, 323, 134]),
    ({"at": 0.1, "finger": True, "kept": True}, "onTouchStart={touch} onTouchEnd={touch}", [512]),
]


@pytest.mark.parametrize(("given", "listeners", "places"), PULLED)
def test_pull(
    given: dict[str, Any], listeners: str, places: list[int], tmp_path: Path, bench: Bench
) -> None:
    body = (
        "const hold = (e) => onMore(e.clientX); const touch = (e) => onMore(e.touches[0].clientX);"
    )
    text = probe(f"<button {listeners}>Go</button>", body)
    points = run(bench, tmp_path, text, [{"pull": {**BUTTON, **given}}], functions={"onMore": {}})
    assert [call[1] for call in points[1]["calls"]] == places


def test_files_are_chosen(tmp_path: Path, bench: Bench) -> None:
    text = probe(
        "<input type='file' onChange={(e) => onMore(Array.from(e.target.files, (f) => f.name))} />"
    )
    steps = [{"files": {"tag": "input", "names": names}} for names in (["a", "b"], [])]
    points = run(bench, tmp_path, text, steps, functions={"onMore": {}})
    assert [point["calls"] for point in points[1:]] == [[["onMore", ["a", "b"]]], [["onMore", []]]]


def test_the_value_of_chosen_files_is_a_made_up_path(tmp_path: Path, bench: Bench) -> None:
    text = probe(
        "<input type='file' onChange={(e) => { const { value } = e.target; e.target.value = ''; "
        "onMore(value, e.target.files.length); }} />"
    )
    steps = [{"files": {"tag": "input", "names": names}} for names in (["a.txt", "b"], [])]
    points = run(bench, tmp_path, text, steps, functions={"onMore": {}})
    calls = [point["calls"] for point in points[1:]]
    assert calls == [[["onMore", "C:\\fakepath\\a.txt", 0]], [["onMore", "", 0]]]


def test_what_is_outside_can_be_pressed_where_presses_are_heard(
    tmp_path: Path, bench: Bench
) -> None:
    body = (
        "useLayoutEffect(() => { document.addEventListener('click', "
        "(e) => e.target.id === 'page-aside' && onMore('out')); }, []);"
    )
    side = Side(tmp_path / "Probe.jsx", probe("<p>in</p>", body), RUNTIMES["react-18"])
    with bench.lane() as lane:
        number, answer = lane.open(bench.build(side), "default", {"functions": {"onMore": {}}})
        (outside,) = answer["actions"]["elements"]
        assert outside["target"] == {"tag": "aside", "position": 1}
        point = lane.step(number, {"press": outside["target"]})["point"]
        lane.end(number)
    assert point["calls"] == [["onMore", "out"]]


PLACES = [
    ("Enter", "Enter", 13),
    (" ", "Space", 32),
    ("a", "KeyA", 65),
    ("7", "Digit7", 55),
    ("ArrowLeft", "ArrowLeft", 37),
    ("-", "", 0),
]


@pytest.mark.parametrize(("key", "place", "number"), PLACES)
def test_a_key_has_its_place(
    key: str, place: str, number: int, tmp_path: Path, bench: Bench
) -> None:
    text = probe("<button onKeyDown={(e) => onMore(e.code, e.keyCode)}>Go</button>")
    points = run(bench, tmp_path, text, [{"key": {**BUTTON, "key": key}}], functions={"onMore": {}})
    assert points[1]["calls"] == [["onMore", place, number]]


@pytest.mark.parametrize("held", ["ctrl", "meta", "shift", "alt"])
def test_a_key_is_held_while_something_is_pressed(held: str, tmp_path: Path, bench: Bench) -> None:
    asked = "onMore(e.type, e.ctrlKey, e.metaKey, e.shiftKey, e.altKey)"
    text = probe(f"<button onClick={{(e) => {asked}}} onKeyDown={{(e) => {asked}}}>Go</button>")
    steps = [{"press": {**BUTTON, held: True}}, {"key": {**BUTTON, "key": "a", held: True}}]
    points = run(bench, tmp_path, text, steps, functions={"onMore": {}})
    flags = [held == key for key in ("ctrl", "meta", "shift", "alt")]
    assert points[1]["calls"] == [["onMore", "click", *flags]]
    assert points[2]["calls"] == [["onMore", "keydown", *flags]]


WRITTEN: list[tuple[str, str, list[dict[str, Any]], str]] = [
    ("typed", "<input defaultValue='tide' />", [{"type": {**BOX, "text": "7"}}], "tide7"),
    ("taken back", "<input defaultValue='tide' />", [{"key": {**BOX, "key": "Backspace"}}], "tid"),
    ("nothing after it", "<input defaultValue='tide' />", [{"key": {**BOX, "key": "Delete"}}], "tide"),
    ("a letter", "<textarea defaultValue='tide' />", [{"key": {**BOX, "key": "s"}}], "stide"),
    ("a letter held with another key", "<input defaultValue='tide' />",
     [{"key": {**BOX, "key": "s", "ctrl": True}}], "tide"),
    ("no key that is held off", "<input defaultValue='tide' onKeyDown={(e) => e.preventDefault()} />",
     [{"type": {**BOX, "text": "7"}}, {"key": {**BOX, "key": "Backspace"}}], "tide"),
    ("no letter that is held off", "<input defaultValue='tide' onKeyPress={(e) => e.key === '7' && e.preventDefault()} />",
     [{"type": {**BOX, "text": "78"}}], "tide8"),
    ("where the caret is", "<input defaultValue='tide' onFocus={(e) => e.target.setSelectionRange(0, 2)} />",
     [{"type": {**BOX, "text": "a"}}], "ade"),
    ("nothing that is read only", "<input readOnly defaultValue='tide' />",
     [{"key": {**BOX, "key": "s"}}, {"type": {**BOX, "text": "7"}}], "tide"),
]  # fmt: skip


@pytest.mark.parametrize(
    ("field", "steps", "value"), [row[1:] for row in WRITTEN], ids=[row[0] for row in WRITTEN]
)
def test_what_keys_write(
    field: str, steps: list[dict[str, Any]], value: str, tmp_path: Path, bench: Bench
) -> None:
    points = run(bench, tmp_path, probe(field), steps)
    assert points[-1]["tree"][0][3][0][2] == {"value": value}


def test_tab_goes_from_one_element_to_the_next(tmp_path: Path, bench: Bench) -> None:
    text = probe(
        "<a href='#a'>One</a><b tabIndex={-1}>No</b><button disabled>No</button><input />"
        "<button onKeyDown={(e) => e.preventDefault()}>Last</button>"
    )
    steps: list[dict[str, Any]] = [
        {"key": {"role": "link", "key": "Tab"}},
        {"key": {"role": "textbox", "key": "Tab"}},
        {"key": {"role": "button", "name": "Last", "key": "Tab"}},
        {"key": {"role": "textbox", "key": "Tab", "shift": True}},
        {"key": {"role": "link", "key": "Tab", "shift": True}},
    ]
    points = run(bench, tmp_path, text, steps)
    assert [point["focus"].partition("/")[2] for point in points[1:]] == [
        "input[1]", "button[2]", "button[2]", "a[1]", "",
    ]  # fmt: skip


def test_a_key_has_its_number_and_what_is_held(tmp_path: Path, bench: Bench) -> None:
    text = probe("<input onKeyDown={(e) => onMore(e.key, e.which, e.shiftKey, e.ctrlKey)} />")
    steps = [
        {"key": {**BOX, **given}}
        for given in ({"key": "Tab", "shift": True}, {"key": "n", "ctrl": True})
    ]
    points = run(bench, tmp_path, text, steps, functions={"onMore": {}})
    assert [p["calls"] for p in points[1:]] == [
        [["onMore", "Tab", 9, True, False]],
        [["onMore", "n", 78, False, True]],
    ]


PICTURES = """useLayoutEffect(() => {
        const tell = (what) => (event) => onMore(what, event.type, event.target.naturalWidth, event.target.complete);
        for (const address of word.split(' ')) {
          const picture = new Image();
          picture.onload = tell(address); picture.onerror = tell(address); picture.src = address;
          onMore(picture.complete, picture.width);
        } }, []);"""


def test_pictures_come_or_fail_after_a_while(bench: Bench, tmp_path: Path) -> None:
    side = Side(tmp_path / "Probe.jsx", probe("<b/>", PICTURES), RUNTIMES["react-18"])
    request = {
        "inputs": {"word": "#pier ./pier.png berth.png /missing.png"},
        "functions": {"onMore": {}},
        "slots": {},
        "steps": [{"pass": 20}, {"pass": 20}],
    }
    with bench.lane() as lane:
        answer = lane.trial(bench.build(side), "default", request)
    first, before, after = ([call[1:] for call in point["calls"]] for point in answer["points"])
    assert (first, before) == ([[False, 0]] * 4, [])
    assert after == [
        ["#pier", "load", 320, True],
        ["./pier.png", "load", 320, True],
        ["berth.png", "error", 0, True],
        ["/missing.png", "error", 0, True],
    ]


def test_a_picture_on_its_way_is_no_timer_left_over(bench: Bench, tmp_path: Path) -> None:
    side = Side(tmp_path / "Probe.jsx", probe("<img src='#pier'/>", ""), RUNTIMES["react-18"])
    with bench.lane() as lane:
        answer = lane.trial(bench.build(side), "default", {"inputs": {}, "steps": []})
    assert answer["left"]["timers"] == []
