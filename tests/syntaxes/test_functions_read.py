"""Functions with hooks, read: what each form becomes in a single file, and what is refused by its name."""

from __future__ import annotations

from pathlib import Path

import pytest

from clean_carry.component.result import Result
from clean_carry.crossing.carry import Request, carry_file

HOOKS = (
    "useCallback, useContext, useEffect, useId, useImperativeHandle, useLayoutEffect, useMemo, useReducer, "
    "useRef, useState, useTransition, useDeferredValue, useSyncExternalStore, forwardRef, memo"
)
HEAD = f"import React, {{ {HOOKS} }} from 'react';\n"
SHOWN = "return <p>{pier}</p>;"


def carried(folder: Path, text: str, ending: str = "jsx") -> Result:
    old = folder / f"Pier.{ending}"
    old.write_text(HEAD + text, "utf-8")
    return carry_file(
        Request(old, old.name, "single-file-flat", "jsx-function", assume_carried=True)
    )[0]


def function(body: str, given: str = "{ pier, onGo }") -> str:
    return f"export default function Pier({given}) {{\n{body}\n}}\n"


# What a body becomes: the pieces of the new file, in any order.
WRITTEN = {
    "state": (
        "const [n, setN] = useState(0); return <b onClick={() => setN(n + 1)}>{n}</b>;",
        ["const n = ref(0);", '@click="n = n + 1"'],
    ),
    "state made once": (
        "const [n] = useState(() => pier.length); return <b>{n}</b>;",
        ["const n = shallowRef(props.pier.length);"],
    ),
    "an updater": (
        "const [n, setN] = useState(0); const add = () => setN((now) => now + 1); "
        "return <b onClick={add}>{n}</b>;",
        ["n.value = n.value + 1"],
    ),
    "an updater with statements": (
        "const [rows, setRows] = useState([]); "
        "const add = () => setRows((now) => { const next = [...now]; next.push(1); return next; }); "
        "return <b onClick={add}>{rows.length}</b>;",
        ["rows.value = ((now) => {", "})(rows.value)"],
    ),
    "an input by a name with a dash": (
        "const go = () => log(label); return <b aria-label={label} onClick={go}>{pier}</b>;",
        [
            "ariaLabel: { type: String, default: 'low' },",
            "log(props.ariaLabel)",
            ':aria-label="ariaLabel"',
        ],
    ),
    "an effect that only says what ends it": (
        "const t = useRef(0); useEffect(() => () => clearTimeout(t.current), []); return <b>{pier}</b>;",
        ["onMounted(() => { onBeforeUnmount(() => clearTimeout(t)); });"],
    ),
    "a box that keeps the latest function": (
        "const latest = useRef(onGo); useEffect(() => { latest.current = onGo; }); "
        "useEffect(() => { const t = setInterval(() => latest.current(), 9); "
        "return () => clearInterval(t); }, []); return <b>{pier}</b>;",
        [
            "watch(() => props.onGo, () => { latest = props.onGo; }, ",
            "setInterval(() => latest(), 9)",
        ],
    ),
    "a value of the render that is read behind a write and later": (
        "const [n, setN] = useState(0); const go = () => { setN(n + 1); setN(n + 1); "
        "setTimeout(() => log(n)); }; return <b onClick={go}>{n}</b>;",
        ["const nBefore = n.value; n.value = n.value + 1; n.value = nBefore + 1; "],
    ),
    "several spreads are one object, in their order": (
        "return <b {...pier.first} title={pier.name} {...pier.second}>x</b>;",
        ['<b v-bind="{ ...pier.first, title: pier.name, ...pier.second }">'],
    ),
    "a setter that is handed on": (
        "const [n, setN] = useState(0); return <Row n={n} onPick={setN} />;",
        ['@pick="(value) => { n = value; }"'],
    ),
    "a reducer": (
        "const [n, send] = useReducer((state, by) => state + by, 1); "
        "return <b onClick={() => send(2)}>{n}</b>;",
        ["function send(action) {", "(n.value, action)", '@click="send(2)"'],
    ),
    "a box": (
        "const asked = useRef(0); const ask = () => { asked.current += 1; onGo?.(asked.current); }; "
        "return <b onClick={ask}>{pier}</b>;",
        ["let asked = 0;", "asked += 1;", "emit('go', asked);"],
    ),
    "an element": (
        "const box = useRef(null); const focus = () => box.current.focus(); "
        "return <input ref={box} onBlur={focus} />;",
        ["const box = ref(null);", "box.value.focus()", 'ref="box"'],
    ),
    "an effect that runs once": (
        "useEffect(() => { const id = setInterval(() => onGo?.(), 10); "
        "return () => clearInterval(id); }, []); " + SHOWN,
        ["onMounted(() => {", "onBeforeUnmount(() => clearInterval(id));"],
    ),
    "an effect with dependencies": (
        "useEffect(() => { document.title = pier; }, [pier]); " + SHOWN,
        ["watch(() => props.pier, () => {", "immediate: true, flush: 'post'"],
    ),
    "an effect that ends": (
        "useEffect(() => { if (!pier) return; const id = setTimeout(tick, 5); "
        "return () => clearTimeout(id); }, [pier]); " + SHOWN,
        [
            "(_now, _before, onCleanup) => {",
            "onCleanup(() => clearTimeout(id));",
            "if (!props.pier) return;",
        ],
    ),
    "an effect on a listener keeps it an input": (
        "useEffect(() => { onGo?.(pier); }, [pier, onGo]); " + SHOWN,
        ["() => props.onGo", "props.onGo?.(props.pier)"],
    ),
    "a layout effect comes first": (
        "useEffect(() => { first(); }, []); useLayoutEffect(() => { second(); }, []); " + SHOWN,
        ["onMounted(() => { second(); });\n\nonMounted(() => { first(); });"],
    ),
    "a memo": (
        "const long = useMemo(() => pier.length > 5, [pier]); return <p>{long ? 1 : 2}</p>;",
        ["const long = computed(() => props.pier.length > 5);"],
    ),
    "a memo with statements": (
        "const rows = useMemo(() => { const found = []; found.push(pier); return found; }, [pier]); "
        "return <p>{rows.join()}</p>;",
        ["const rows = computed(() => {", "found.push(props.pier);"],
    ),
    "a callback": (
        "const go = useCallback(() => { onGo?.(pier); }, [pier, onGo]); return <b onClick={go}>{pier}</b>;",
        ["const go = () => { emit('go', props.pier); };"],
    ),
    "an identifier": (
        "const id = useId(); return <label htmlFor={id}>{pier}</label>;",
        ["const id = useId();", "import { useId } from 'vue';", ':for="id"'],
    ),
    "a local": (
        "const name = pier.trim(); return <p>{name}</p>;",
        ["const name = computed(() => props.pier.trim());"],
    ),
    "a local that statements fill": (
        "const all = []; if (pier) all.push(pier); return <p>{all.join()}</p>;",
        ["const all = computed(() => {", "if (props.pier) all.push(props.pier);", "return all;"],
    ),
    "a local that is given anew": (
        "let kind = 'low'; if (pier > 3) kind = 'high'; return <p>{kind}</p>;",
        ["const kind = computed(() => {", "return kind;"],
    ),
    "parts with defaults": (
        "const { deep = 4, wide = 2 } = pier || {}; return <p>{deep + wide}</p>;",
        [
            "const pierParts = computed(() => {",
            "return { deep, wide };",
            "{{ pierParts.deep + pierParts.wide }}",
        ],
    ),
    "an early return": (
        "if (!pier) return null; " + SHOWN,
        ['<p v-if="pier">{{ pier }}</p>'],
    ),
    "a function that renders": (
        "const row = (name) => <li key={name}>{name}</li>; return <ul>{pier.map(row)}</ul>;",
        ['<li v-for="name in pier" :key="name">{{ name }}</li>'],
    ),
    "a value read later is that of the render": (
        "const [n, setN] = useState(0); const later = () => { setTimeout(() => onGo?.(n), 5); setN(1); }; "
        "return <b onClick={later}>{n}</b>;",
        ["const nBefore = n.value;", "emit('go', nBefore)"],
    ),
    "a value read behind a write is the one before": (
        "const [n, setN] = useState(0); const go = () => { setN(n + 1); onGo?.(n); }; "
        "return <b onClick={go}>{n}</b>;",
        ["const nBefore = n.value;", "emit('go', nBefore);"],
    ),
    "a field that does not take all that is typed": (
        "const [n, setN] = useState(0); "
        "return <input value={n} onChange={(event) => setN(Number(event.target.value))} />;",
        ['@input="(event) => { n = Number(event.target.value); $forceUpdate() }"'],
    ),
    "a field that does": (
        "const [n, setN] = useState(''); "
        "return <input value={n} onChange={(event) => setN(event.target.value)} />;",
        ['<input v-model="n" />'],
    ),
    "nought before a condition": (
        "return <p>{pier.length && <b>{pier}</b>}</p>;",
        ['<b v-if="pier.length">{{ pier }}</b>', "0"],
    ),
    "what falls through to the root": (
        "return <p {...others} className={['pier', className].filter(Boolean).join(' ')}>{pier}</p>;",
        ['<p class="pier">{{ pier }}</p>'],
    ),
}
SIGNATURES = {
    "what falls through to the root": "{ pier, className, ...others }",
    "an input by a name with a dash": "{ pier, 'aria-label': label = 'low' }",
}


@pytest.mark.parametrize("case", WRITTEN)
def test_what_is_written(case: str, tmp_path: Path) -> None:
    body, pieces = WRITTEN[case]
    head = "import Row from './Row';\n" if "<Row" in body else ""
    result = carried(tmp_path, head + function(body, SIGNATURES.get(case, "{ pier, onGo }")))
    assert result.status == "clean", result.findings
    for piece in pieces:
        assert piece in result.files[0].text, result.files[0].text


def test_a_component_in_a_wrapper_beside_another(tmp_path: Path) -> None:
    text = (
        "const Row = memo(function Row({ row }) { return <li>{row}</li>; });\n"
        "export default function Pier({ rows }) { const [n] = useState(0);\n"
        "  return <ul>{rows.map((row) => <Row key={row} row={row} />)}{n}</ul>; }\n"
    )
    assert carried(tmp_path, text).status == "clean"


# How a function is declared.
FORMS = {
    "a constant": "const Pier = ({ pier }) => <p>{pier}</p>;\nexport default Pier;\n",
    "a memo around it": "function Pier({ pier }) { return <p>{pier}</p>; }\nexport default memo(Pier);\n",
    "a memo in place": "export default memo(function Pier({ pier }) { return <p>{pier}</p>; });\n",
    "all of the runtime": "export const Pier = React.memo(({ pier }) => <p>{pier}</p>);\n",
    "inputs by a name": "export default function Pier(props) { return <p>{props.pier}</p>; }\n",
    "inputs taken apart inside": "export function Pier(props) { "
    "const { pier } = props; return <p>{pier}</p>; }\n",
    "nothing but markup": "export default () => <p>low water</p>;\n",
}


@pytest.mark.parametrize("form", FORMS)
def test_the_forms_a_component_is_declared_in(form: str, tmp_path: Path) -> None:
    result = carried(tmp_path, FORMS[form])
    assert result.status == "clean", result.findings
    assert "<p>{{ pier }}</p>" in result.files[0].text or "low water" in result.files[0].text


def test_a_forwarded_reference_offers_what_it_says(tmp_path: Path) -> None:
    text = (
        "export default forwardRef(function Pier({ onGo }, ref) {\n"
        "  const go = () => onGo?.();\n"
        "  useImperativeHandle(ref, () => ({ go }));\n"
        "  return <b>pier</b>;\n});\n"
    )
    result = carried(tmp_path, text)
    assert "defineExpose({ go });" in result.files[0].text
    assert [row.new for row in result.interface.rows if row.kind == "exposed"] == ["go"]


def test_a_result_that_is_shown_as_text_is_told(tmp_path: Path) -> None:
    result = carried(tmp_path, function("return <b>{format(pier)}</b>;", "{ pier, format }"))
    assert [one.rule for one in result.findings] == ["result-as-text"]
    assert "<b>{{ format(pier) }}</b>" in result.files[0].text


def test_an_event_that_is_sent_later_is_told(tmp_path: Path) -> None:
    body = (
        "const go = () => { onGo?.(1); setTimeout(() => onGo?.(2), 9); }; "
        "return <b onClick={go}>{pier}</b>;"
    )
    result = carried(tmp_path, function(body))
    assert [(one.rule, one.line) for one in result.findings] == [("sent-after-removal", 3)]


def test_a_forwarded_reference_on_an_element_is_told(tmp_path: Path) -> None:
    text = (
        "export default forwardRef(function Pier({ pier }, ref) {\n"
        "  return <b ref={ref}>{pier}</b>;\n});\n"
    )
    result = carried(tmp_path, text)
    assert [finding.rule for finding in result.findings] == ["reference-forwarded"]
    assert "<b>{{ pier }}</b>" in result.files[0].text


def test_all_attributes_of_an_element_fall_through(tmp_path: Path) -> None:
    text = (
        "import { HTMLAttributes } from 'react';\n"
        "export interface PierProps extends HTMLAttributes<HTMLDivElement> { pier: string }\n"
        "export const Pier = ({ pier, ...others }: PierProps) => <b {...others}>{pier}</b>;\n"
    )
    written = carried(tmp_path, text, "tsx").files[0].text
    assert "interface PierProps { pier: string }" in written
    assert '<b v-bind="$attrs">{{ pier }}</b>' in written


def test_types_are_carried(tmp_path: Path) -> None:
    text = (
        "type Props = { pier: string; deep?: number };\n"
        "export function Pier({ pier, deep = 4 }: Props) {\n"
        "  const [rows, setRows] = useState<string[]>([]);\n"
        "  return <b onClick={() => setRows([pier])}>{rows.length + deep}</b>;\n}\n"
    )
    written = carried(tmp_path, text, "tsx").files[0].text
    assert "withDefaults(defineProps<Props>(), { deep: 4 })" in written
    assert "shallowRef<string[]>([])" in written


# What is refused, and the rule that says why.
REFUSED = {
    "context": ("const tide = useContext(Tides); " + SHOWN, "context-not-in-target"),
    "a transition": ("const [late, start] = useTransition(); " + SHOWN, "hook-not-in-target"),
    "a deferred value": (
        "const slow = useDeferredValue(pier); return <p>{slow}</p>;",
        "hook-not-in-target",
    ),
    "a store": ("const s = useSyncExternalStore(a, b); return <p>{s}</p>;", "hook-not-in-target"),
    "an own hook": ("const rows = useRows(pier); return <p>{rows}</p>;", "hook-not-followed"),
    "a hook in a condition": ("if (pier) { useEffect(() => {}, []); } " + SHOWN, "hook-unread"),
    "a hook inside of a value": ("const a = [useRef(0)]; " + SHOWN, "hook-unread"),
    "state that is not taken apart": ("const state = useState(0); " + SHOWN, "hook-unread"),
    "an effect after every render": (
        "useEffect(() => { onGo(); }); " + SHOWN,
        "runs-at-every-draw",
    ),
    "an effect on what is made anew": (
        "const all = [pier]; useEffect(() => { onGo?.(all); }, [all]); " + SHOWN,
        "runs-at-every-draw",
    ),
    "an effect that may be ended by what it calls": (
        "useEffect(() => listen(pier), [pier]); " + SHOWN,
        "hook-unread",
    ),
    "a callback that sees old values on purpose": (
        "const [n, setN] = useState(0); const go = useCallback(() => onGo?.(n), [onGo]); "
        "return <b onClick={go}>{n}</b>;",
        "old-value-read",
    ),
    "a function that runs later and reads state": (
        "const [n, setN] = useState(0); const tick = () => setN(n + 1); "
        "useEffect(() => { const id = setInterval(tick, 5); return () => clearInterval(id); }, []); "
        "return <b>{n}</b>;",
        "old-value-read",
    ),
    "a component inside": ("const Row = () => <li />; return <Row />;", "component-in-component"),
    "markup that is kept": (
        "const go = () => onGo(<b />); return <b onClick={go}>{pier}</b>;",
        "drawn-by-statements",
    ),
    "a box that is handed on": (
        "const box = useRef(0); const go = () => onGo(box); return <b onClick={go}>{pier}</b>;",
        "reference-passed",
    ),
    "an input written by a pattern": (
        "const go = () => { ({ pier } = load()); }; return <b onClick={go}>{pier}</b>;",
        "drawn-by-statements",
    ),
    "a loop while it renders": (
        "for (const a of pier) { log(a); } " + SHOWN,
        "drawn-by-statements",
    ),
    "a state written while it renders": (
        "const [n, setN] = useState(0); if (pier > n) setN(pier); return <p>{n}</p>;",
        "drawn-by-statements",
    ),
    "what is tried while it renders": (
        "try { log(pier); } catch { } " + SHOWN,
        "drawn-by-statements",
    ),
}


@pytest.mark.parametrize("case", REFUSED)
def test_what_is_refused(case: str, tmp_path: Path) -> None:
    body, rule = REFUSED[case]
    result = carried(tmp_path, function(body))
    assert result.status == "refused", result.files[0].text
    assert rule in [finding.rule for finding in result.findings], result.findings


WHOLE = {
    "none is declared": ("", "inputs-unlisted"),
    "one has a name with a dash": (
        "Pier.propTypes = { 'aria-label': PropTypes.string };\n",
        "not-in-target",
    ),
}


@pytest.mark.parametrize("case", WHOLE)
def test_all_inputs_as_one_object(case: str, tmp_path: Path) -> None:
    declared, rule = WHOLE[case]
    body = "const go = () => log(props); return <b onClick={go}>{props['aria-label']}</b>;"
    result = carried(tmp_path, function(body, "props") + declared)
    assert [finding.rule for finding in result.findings] == [rule], result.files[0].text


UNKNOWN = (
    "useFancy(pier);",
    "const a = useFancy();",
    "React.useFancy(() => {}, []);",
    "label: pier;",
    "throw pier;",
)


@pytest.mark.parametrize("unknown", UNKNOWN)
@pytest.mark.parametrize("place", ["first", "last"])
def test_an_unknown_statement_is_never_lost(unknown: str, place: str, tmp_path: Path) -> None:
    known = "const [n, setN] = useState(0); useEffect(() => { setN(1); }, []);"
    body = f"{unknown} {known}" if place == "first" else f"{known} {unknown}"
    result = carried(tmp_path, function(f"{body} return <p>{{n}}</p>;"))
    assert result.status == "refused", result.files[0].text


def test_through_the_program(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    (tmp_path / "Pier.jsx").write_text(HEAD + function(WRITTEN["a reducer"][0]), "utf-8")
    done = run("carry", "Pier.jsx", "--to", "single-file-flat", "--verify", "--budget", "1")
    assert done.returncode == 0 and "Pier.jsx: same" in done.stdout, done.stdout + done.stderr
