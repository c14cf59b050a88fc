"""What is known of a name by its uses and by its declared type."""

from __future__ import annotations

from pathlib import Path
from typing import Any

import pytest

from clean_carry.source.javascript.tree import Tree
from clean_carry.source.text import SourceText
from clean_carry.verify.search.inputs.read_inputs import read_inputs
from clean_carry.verify.search.inputs.script_inputs import exports_of
from clean_carry.verify.search.values.shape import Shape, kind_of, literal_of
from clean_carry.verify.search.values.shapes import Shapes
from clean_carry.verify.search.values.types import declared_type, runtime_type
from clean_carry.verify.search.values.values import function_plans, is_function, typical, variants


def tree_of(text: str, name: str = "X.tsx") -> Tree:
    return Tree(SourceText(name, text.encode()))


def shape_of(text: str, name: str = "a") -> Shape:
    return Shapes([tree_of(text)]).of(name)


KINDS: list[tuple[str, str]] = [
    ("a.map((b) => b)", "array"),
    ("for (const b of a) {}", "array"),
    ("const c = [...a];", "array"),
    ("Array.isArray(a)", "array"),
    ("a.trim()", "string"),
    ("a.split(',')", "string"),
    ("a.toFixed(2)", "number"),
    ("a - 1", "number"),
    ("a < b", "number"),
    ("-a", "number"),
    ("a++", "number"),
    ("Math.max(a, 1)", "number"),
    ("setTimeout(f, a)", "number"),
    ("a.getTime()", "date"),
    ("a instanceof Date", "date"),
    ("new Date(a)", "moment"),
    ("a()", "function"),
    ("a.call(b)", "function"),
    ("a.b", "object"),
    ("a['b']", "object"),
    ("Object.keys(a)", "object"),
    ("const c = {...a};", "object"),
    ("for (const b in a) {}", "object"),
    ("a.then(b)", "promise"),
    ("a.test('x')", "expression"),
    ("a === 'x'", "string"),
    ("a === 3", "number"),
    ("typeof a === 'function'", "function"),
    ("switch (a) { case 'x': }", "string"),
    ("React.Children.map(a, f)", "content"),
    ("const c = <A style={a}/>;", "style"),
    ("const c = <A disabled={a}/>;", "boolean"),
    ("const c = <A onClick={a}/>;", "function"),
    ("const c = <A ref={a}/>;", "reference"),
    ("const c = <A>{a}</A>;", "text"),
    ("`${a}`", "text"),
]


@pytest.mark.parametrize(("use", "kind"), KINDS)
def test_a_use_tells_the_kind(use: str, kind: str) -> None:
    assert kind in shape_of(use).kinds


TESTED = ["if (a) {}", "a ? 1 : 2", "a && b", "!a", "a || b"]


@pytest.mark.parametrize("use", TESTED)
def test_a_question_is_noted(use: str) -> None:
    assert shape_of(use).tested


LITERALS: list[tuple[str, list[Any]]] = [
    ("a === 'x' || a === 'y'", ["x", "y"]),
    ("switch (a) { case 1: case 2: }", [1, 2]),
    ("a > 3", [2, 3, 4]),
    ("const M = { x: 1, 'y-z': 2 }; M[a]", ["x", "y-z"]),
    ("a * 2", []),
    ("a === null", []),
    ("['x', 'y'].includes(a)", ["x", "y"]),
    ("const M = 'x'; a === M", ["x"]),
    ("const M = { N: 'x', O: 'y' }; a === M.N", ["x"]),
    ("const M = Object.freeze({ N: { O: 'x' } }); switch (a) { case M.N.O: }", ["x"]),
    ("const M = {}; M.N = 2; a === M.N", [2]),
    ("enum M { N = 'x' } a === M.N", ["x"]),
    ("const M = ['x', 'y']; M.indexOf(a)", ["x", "y"]),
    ("const M = M; a === M", []),
    ("function f() { const M = 'x'; } a === M", []),
]


@pytest.mark.parametrize(("use", "values"), LITERALS)
def test_what_it_is_compared_with_is_noted(use: str, values: list[Any]) -> None:
    assert shape_of(use).literals == values


FIELDS: list[tuple[str, list[str]]] = [
    ("a.map((b) => b.c + b.d)", ["c", "d"]),
    ("a.map(({ c, d: e }) => c + e)", ["c", "d"]),
    ("a.filter((b) => b.c).map((b) => b.d)", ["c", "d"]),
    ("a.slice(1).forEach((b) => b.c)", ["c"]),
    ("a.reduce((sum, b) => sum + b.c, 0)", ["c"]),
    ("for (const b of a) { b.c; }", ["c"]),
    ("function row(b) { return b.c; } a.map((x) => row(x))", ["c"]),
    ("find(a, (b) => b.c)", ["c"]),
]


@pytest.mark.parametrize(("use", "fields"), FIELDS)
def test_the_fields_of_items_are_known(use: str, fields: list[str]) -> None:
    items = shape_of(use).items
    assert items is not None and sorted(items.fields) == fields


def test_other_names_of_one_thing_are_joined() -> None:
    text = "const { a } = props; const b = a; b.trim(); const s = { held: a }; s.held > 3;"
    text += "this.kept = a; this.kept.map((one) => one);"
    assert {"string", "number", "array"} <= shape_of(text).kinds


LOOKED_UP: list[tuple[str, str, list[str]]] = [
    ("textField ? part(berth, textField) : berth", "textField", ["field"]),
    ("part(this.berth, this.berthLabel)", "berthLabel", ["label"]),
    ("part(berth, berthChildren)", "berthChildren", ["children"]),
    ("part(berth, other)", "other", []),
    ("part(berthLabel)", "berthLabel", []),
    ("berthLabel - 1; part(berth, berthLabel)", "berthLabel", []),
]


@pytest.mark.parametrize(("use", "name", "words"), LOOKED_UP)
def test_what_something_is_looked_up_by_is_one_of_its_fields(
    use: str, name: str, words: list[str]
) -> None:
    shapes = Shapes([tree_of(f"berths.slice(1); {use}")])
    assert [value for value in shapes.of(name).literals if isinstance(value, str)] == words
    assert list(shapes.of("berth").fields) == words
    items = shapes.of("berths").items
    assert list(items.fields if items is not None else []) == words


IMPORTED: list[tuple[str, str]] = [
    ("import { RIGHT } from './sides'; a === RIGHT", "right"),
    ("import { OTHER as SIDE } from './sides'; a === SIDE", "left"),
    ("import SIDES from './sides'; a === SIDES.RIGHT", "right"),
    ("import * as sides from './sides'; a === sides.RIGHT", "right"),
    ("import { RIGHT } from './all'; a === RIGHT", "right"),
    ("import { UP } from './sides'; a === UP", ""),
    ("import { RIGHT } from 'package'; a === RIGHT", ""),
]


@pytest.mark.parametrize(("use", "value"), IMPORTED)
def test_constants_of_other_files_are_followed(use: str, value: str, tmp_path: Path) -> None:
    (tmp_path / "sides.js").write_text(
        "export const RIGHT = 'right'; const LEFT = 'left'; export { LEFT as OTHER };\n"
        "const SIDES = { RIGHT, LEFT }; export default { RIGHT: 'right' };"
    )
    (tmp_path / "all.js").write_text("export { RIGHT } from './sides';")
    tree = tree_of(use, str(tmp_path / "X.tsx"))
    assert Shapes([tree]).of("a").literals == ([value] if value else [])


ALIKE = ["a.b === c", "c !== a.b", "a.find((x) => x.b === c)"]


@pytest.mark.parametrize("use", ALIKE)
def test_what_is_compared_has_equal_values_now_and_then(use: str) -> None:
    shapes = Shapes([tree_of(use)])
    one, other = typical("b", shapes.of("b"), 0, 2), typical("c", shapes.of("c"))
    assert one == other != typical("b", shapes.of("b"), 1)


RESULTS: list[tuple[str, dict[str, Any]]] = [
    ("a()(1)", {"returns": {"$": "function", "called": "result"}}),
    ("a().b.trim()", {"returns": {"b": "b Holm"}}),
    ("const { b } = a(); b.trim();", {"returns": {"b": "b Holm"}}),
    ("const b = a(); b.map((x) => x - 1);", {"returns": [3, 4]}),
    ("a().then((b) => b)", {"resolves": "result Holm", "after": 20}),
    ("if (a()) {}", {}),
    ("a();", {}),
]


@pytest.mark.parametrize(("use", "plan"), RESULTS)
def test_a_function_gives_back_what_is_made_use_of(use: str, plan: dict[str, Any]) -> None:
    assert function_plans(shape_of(use))[0] == plan


DEFAULTS: list[tuple[str, Any]] = [
    ("'x'", "x"),
    ("3", 3),
    ("-1", -1),
    ("true", True),
    ("null", None),
]


@pytest.mark.parametrize(("text", "value"), DEFAULTS)
def test_defaults_are_read(text: str, value: Any) -> None:
    assert shape_of(f"const f = ({{ a = {text} }}) => a;").default == (value,)


def test_literals() -> None:
    nodes = (
        tree_of("['a\\n', 1.5, 0x10, 1e3, -2, false, undefined, f(), `t`]")
        .of("array")[0]
        .named_children
    )
    found = [literal_of(node) for node in nodes]
    assert found[:7] == [
        (True, "a\n"),
        (True, 1.5),
        (True, 16),
        (True, 1000.0),
        (True, -2),
        (True, False),
        (True, None),
    ]
    assert [known for known, _ in found[7:]] == [False, False]
    assert [kind_of(v) for v in ("a", 1, True)] == ["string", "number", "boolean"]


CHECKS: list[tuple[str, set[str], list[Any]]] = [
    ("T.string", {"string"}, []),
    ("T.bool.isRequired", {"boolean"}, []),
    ("T.func", {"function"}, []),
    ("T.node", {"content"}, []),
    ("T.element", {"element content"}, []),
    ("T.oneOf(['a', 1])", {"string", "number"}, ["a", 1]),
    ("T.oneOf(KINDS)", {"string"}, ["p", "q"]),
    ("T.oneOfType([T.string, T.arrayOf(T.number)])", {"string", "array"}, []),
    ("T.instanceOf(Date)", {"date"}, []),
    ("T.objectOf(T.string)", {"object"}, []),
    ("shared", {"object"}, []),
    ("custom()", set(), []),
]


@pytest.mark.parametrize(("text", "kinds", "literals"), CHECKS)
def test_runtime_checks(text: str, kinds: set[str], literals: list[Any]) -> None:
    tree = tree_of(
        f"const KINDS = ['p', 'q']; const shared = T.shape({{ b: T.number }}); const x = {text};"
    )
    value = tree.of("variable_declarator")[2].child("value")
    assert value is not None
    shape = runtime_type(value, tree)
    assert (shape.kinds, shape.literals) == (kinds, literals)
    assert shape.required == text.endswith("isRequired")
    assert shape.declared == bool(kinds)


TYPES: list[tuple[str, set[str], list[Any]]] = [
    ("string", {"string"}, []),
    ("'a' | 'b' | undefined", {"string"}, ["a", "b"]),
    ("number | null", {"number"}, []),
    ("Row[]", {"array"}, []),
    ("readonly string[]", {"array"}, []),
    ("Array<Row>", {"array"}, []),
    ("Record<string, number>", {"object"}, []),
    ("Partial<Row>", {"object"}, []),
    ("(a: string) => void", {"function"}, []),
    ("MouseEventHandler<HTMLElement>", {"function"}, []),
    ("React.ReactNode", {"content"}, []),
    ("Date", {"date"}, []),
    ("Promise<string>", {"promise"}, []),
    ("Mode", {"string"}, ["on", "off"]),
    ("[string, number]", {"array"}, []),
    ("(string)", {"string"}, []),
    ("Row & { more: number }", {"object"}, []),
    ("Unknown", set(), []),
]


@pytest.mark.parametrize(("text", "kinds", "literals"), TYPES)
def test_declared_types(text: str, kinds: set[str], literals: list[Any]) -> None:
    tree = tree_of(
        f"interface Base {{ id: string }} interface Row extends Base {{ at?: number; go(): void }}"
        f" enum Mode {{ On = 'on', Off = 'off' }} type X = {text};"
    )
    value = tree.of("type_alias_declaration")[0].child("value")
    assert value is not None
    shape = declared_type(value, tree)
    assert (shape.kinds, shape.literals) == (kinds, literals)
    if text == "Row[]":
        assert shape.items is not None and sorted(shape.items.fields) == ["at", "go", "id"]
        assert shape.items.fields["id"].required and not shape.items.fields["at"].required


EXPORTS: list[tuple[str, list[str]]] = [
    ("export default class A {}", ["default"]),
    ("export const A = 1, b = 2; export function C() {}", ["A", "b", "C"]),
    ("class A {} export { A as B }; export default A;", ["default", "B"]),
    ("const a = 1;", []),
]


@pytest.mark.parametrize(("text", "names"), EXPORTS)
def test_exports(text: str, names: list[str]) -> None:
    assert exports_of(tree_of(text)) == names


REPLIES: list[tuple[str, list[str]]] = [
    ("const { rows, n } = await r.json();", ["n", "rows"]),
    ("const body = await r.json(); body.rows.map((x) => x.id);", ["rows"]),
    ("r.json().then(({ rows }) => rows.map((x) => x.id));", ["rows"]),
    ("fetch('/a').then((r) => r.json()).then((body) => body.rows);", ["rows"]),
    ("const body = JSON.parse(request.responseText); body.rows;", ["rows"]),
]


@pytest.mark.parametrize(("text", "fields"), REPLIES)
def test_what_is_taken_from_a_reply(text: str, fields: list[str]) -> None:
    found = read_inputs(
        f"export default function X() {{ async function load() {{ {text} }} }}", "X.jsx"
    )
    assert found.reply is not None and sorted(found.reply.fields) == fields


NAMES: list[tuple[str, list[str]]] = [
    ("class X extends C { render() { const { a, b: c, ...d } = this.props; return this.props.e; } }", ["a", "b", "e"]),
    ("function X({ a, b = 1, ...rest }) { return a; }", ["a", "b"]),
    ("const X = (props) => props.a + props.b;", ["a", "b"]),
    ("class X extends C { componentDidUpdate(prevProps) { prevProps.a; } render() {} } X.defaultProps = { z: 1 };", ["z", "a"]),
    ("class X extends C { static propTypes = { a: T.string }; render() { return this.props.children; } }", ["a", "children"]),
]  # fmt: skip


@pytest.mark.parametrize(("text", "names"), NAMES)
def test_which_inputs_there_are(text: str, names: list[str]) -> None:
    assert list(read_inputs(text, "X.jsx").shapes) == names


def test_a_type_parameter_is_what_it_extends() -> None:
    text = """
    interface Person { id: number; name: string }
    export default class Crew<T extends Person> extends Component<{ crew: T[] }> {
      render() { return this.props.crew.map((one) => one.rank.trim()); }
    }"""
    items = read_inputs(text, "Crew.tsx", "default").shapes["crew"].items
    assert items is not None and items.fields["id"].kinds == {"number"}


def test_inputs_spread_from_other_files_are_passed_on(tmp_path: Path) -> None:
    (tmp_path / "Base.js").write_text(
        "import PropTypes from 'prop-types';\n"
        "export const propTypes = { open: PropTypes.bool, onOpen: PropTypes.func };\n"
        "export default function Base() {}\nBase.propTypes = propTypes;\n"
    )
    own = tmp_path / "Own.js"
    text = (
        "import PropTypes from 'prop-types';\nimport Base, { propTypes } from './Base';\n"
        "export default class Own extends Component { render() { return null; } }\n"
        "Own.propTypes = { name: PropTypes.string, ...@ };\n"
    )
    for spread in ("Base.propTypes", "propTypes"):
        own.write_text(text.replace("@", spread))
        shapes = read_inputs(own.read_text(), str(own), "default").shapes
        assert {n: (s.kinds, s.passed) for n, s in shapes.items()} == {
            "name": ({"string"}, False),
            "open": ({"boolean"}, True),
            "onOpen": ({"function"}, True),
        }


HELD: list[tuple[str, str, list[Any]]] = [
    ("PropTypes.array", "this.props.a.indexOf('swing') >= 0", ["swing"]),
    ("PropTypes.array", "this.props.a.includes('swing') || this.props.a.includes(2)", ["swing", 2]),
    ("PropTypes.array", "this.props.a.includes(this.props.b)", []),
    ("PropTypes.string", "this.props.a.includes('swing')", ["swing"]),
]


@pytest.mark.parametrize(("declared", "use", "held"), HELD)
def test_what_a_list_or_a_text_is_asked_for_is_in_it_sometimes(
    declared: str, use: str, held: list[Any]
) -> None:
    text = (
        "import PropTypes from 'prop-types';\n"
        f"export default class X extends Component {{ render() {{ return {use}; }} }}\n"
        f"X.propTypes = {{ a: {declared} }};\n"
    )
    shape = read_inputs(text, "X.jsx", "X").shapes["a"]
    assert shape.holds == held
    found = variants("a", shape)
    for value in held:
        assert ([value] in found) if "array" in declared else (f"a {value} b" in found)


SOMETIMES: list[tuple[str, Any]] = [
    ("typeof home === 'function' ? home() : home", "home Holm"),
    ("typeof disabled === 'function' ? disabled() : disabled", False),
    ("typeof home === 'function' ? home() : home !== false", True),
    ("home()", {"$": "function", "called": "home"}),
]


@pytest.mark.parametrize(("use", "value"), SOMETIMES)
def test_a_function_now_and_then_is_typically_none(use: str, value: Any) -> None:
    name = "disabled" if "disabled" in use else "home"
    shape = Shapes([Tree(SourceText("a.js", f"x = {use};".encode()))]).of(name)
    assert typical(name, shape) == value
    if "typeof" in use:
        assert not is_function(name, shape)
        assert {"$": "function", "called": name} in variants(name, shape)


def test_members_of_elements_are_no_fields() -> None:
    text = "item.nextElementSibling.focus(); item.label.trim(); item.classList.add('a'); item.contains(b);"
    assert set(Shapes([Tree(SourceText("a.js", text.encode()))]).of("item").fields) == {"label"}


LOOKED_UP: list[tuple[str, Any]] = [
    ("open[sailing.key]", {"id-1": True}),
    ("open[node.id]", {"id-1": True}),
    ("open[at]", None),
]


@pytest.mark.parametrize(("use", "value"), LOOKED_UP)
def test_what_is_looked_up_by_a_key_has_one(use: str, value: Any) -> None:
    shape = Shapes([Tree(SourceText("a.js", f"x = {use};".encode()))]).of("open")
    assert value is None or typical("open", shape) == value
    assert value is not None or not isinstance(typical("open", shape), dict)


def test_the_parts_of_a_list_are_seen_and_differ() -> None:
    text = "all.map((one) => one.visible && !one.separator && one.marked && one.late && one.url);"
    shape = Shapes([Tree(SourceText("a.js", text.encode()))]).of("all")
    first, second = typical("all", shape)
    assert [part["visible"] for part in (first, second)] == [True, True]
    assert [part["separator"] for part in (first, second)] == [False, False]
    assert first["marked"] != second["marked"] and first["late"] != second["late"]
    assert first["url"] == "#holm"
