"""One small component for each notion, in each syntax that is read: what docs/crossings.md is made of.

A probe holds its notion and as little else as it can. A class is its body; an object is its markup and its
options; `None` where a syntax has no such notion.
"""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True)
class Probe:
    """One notion: a body of a class, markup and options of an object. `style` is behind the object's script,
    `head` before either; a class that is `wrapped` is handed to a function, an object's script may be `typed`.
    """

    name: str
    body: str | None
    markup: str | None = None
    options: str = ""
    head: str = ""
    style: str = ""
    typed: bool = False
    wrapped: bool = False


DRAWN = "render() { return <p>{this.props.pier}</p>; }"
PROBES: tuple[tuple[str, tuple[Probe, ...]], ...] = (
    ("What goes in and out", (
        Probe("input", DRAWN, "{{ pier }}", "props: ['pier'],"),
        Probe("input with a default", f"static defaultProps = {{ pier: 'A' }}; {DRAWN}", "{{ pier }}",
              "props: { pier: { type: String, default: 'A' } },"),
        Probe("default that is a list", f"static defaultProps = {{ rows: [] }}; {DRAWN}", "{{ rows.length }}",
              "props: { rows: { type: Array, default: () => [] } },"),
        Probe("unnamed props, passed on",
              "render() { const { pier, ...rest } = this.props; return <p {...rest}>{pier}</p>; }",
              '<b v-bind="$attrs">x</b>', "inheritAttrs: false,"),
        Probe("event out", "render() { return <b onClick={() => this.props.onPick(1)}>x</b>; }",
              "<b @click=\"$emit('pick', 1)\">x</b>", "emits: ['pick'],"),
        Probe("content", "render() { return <p>{this.props.children}</p>; }", "<slot />"),
        Probe("content of a named slot",
              "static propTypes = { title: PropTypes.node }; render() { return <p>{this.props.title}</p>; }",
              '<slot name="title">none</slot>', "", "import PropTypes from 'prop-types';"),
        Probe("content that is given values", "render() { return <p>{this.props.row(1)}</p>; }",
              '<slot name="row" :at="1" />'),
        Probe("value bound both ways by a parent", None, "<b @click=\"$emit('update:open', !open)\">x</b>",
              "props: { open: Boolean }, emits: ['update:open'],"),
        Probe("method for who holds a reference", f"focus() {{ this.box.focus(); }} {DRAWN}", "x",
              "expose: ['open'], methods: { open() {} },"),
        Probe("reference of the parent's", "render() { return <p ref={this.props.innerRef}>x</p>; }"),
        Probe("value from an ancestor", f"static contextType = Piers; {DRAWN}", "{{ piers }}",
              "inject: ['piers'],", "import { Piers } from './piers';"),
        Probe("value for descendants", "render() { return <Piers.Provider value={1}>x</Piers.Provider>; }", "x",
              "provide() { return { piers: 1 }; },", "import { Piers } from './piers';"),
    )),
    ("State", (
        Probe("state", "state = { n: 0 }; render() { return <b onClick={() => this.setState({ n: 1 })}>"
              "{this.state.n}</b>; }", '<b @click="n = 1">{{ n }}</b>', "data() { return { n: 0 }; },"),
        Probe("state from an input", "state = { n: this.props.first }; render() { return <p>{this.state.n}</p>; }",
              "{{ n }}", "props: { first: Number }, data() { return { n: this.first }; },"),
        Probe("state that statements make",
              "constructor(props) { super(props); const n = props.first * 2; this.state = { n }; } "
              "render() { return <p>{this.state.n}</p>; }",
              "{{ n }}", "props: { first: Number }, data() { const n = this.first * 2; return { n }; },"),
        Probe("write from the state before",
              "state = { n: 0 }; render() { return <b onClick={() => this.setState((s) => ({ n: s.n + 1 }))}>"
              "{this.state.n}</b>; }", '<b @click="n += 1">{{ n }}</b>', "data() { return { n: 0 }; },"),
        Probe("read behind a write",
              "state = { n: 0 }; go = () => { this.setState({ n: 1 }); this.props.onSet(this.state.n); }; "
              "render() { return <b onClick={this.go}>x</b>; }",
              '<b @click="go">x</b>',
              "data() { return { n: 0 }; }, methods: { go() { this.n = 1; this.$emit('set', this.n); } },"),
        Probe("list changed in place", None, '<b @click="rows.push(1)">{{ rows.length }}</b>',
              "data() { return { rows: [] }; },"),
        Probe("row changed in place", None,
              '<b v-for="row in rows" :key="row.id" @click="row.n += 1">{{ row.n }}</b>',
              "data() { return { rows: [{ id: 1, n: 1 }] }; },"),
        Probe("field that renders nothing",
              f"count = 0; go = () => {{ this.count += 1; }}; {DRAWN}", '<b @click="go">x</b>',
              "created() { this.count = 0; }, methods: { go() { this.count += 1; } },"),
        Probe("derived value", "get twice() { return this.props.n * 2; } render() { return <p>{this.twice}</p>; }",
              "{{ twice }}", "props: ['n'], computed: { twice() { return this.n * 2; } },"),
        Probe("derived value that can be written", None, '<b @click="twice = 4">{{ twice }}</b>',
              "data() { return { n: 1 }; }, computed: { twice: { get() { return this.n * 2; }, "
              "set(v) { this.n = v / 2; } } },"),
        Probe("forced update", "render() { return <b onClick={() => this.forceUpdate()}>x</b>; }",
              '<b @click="$forceUpdate()">x</b>'),
    )),
    ("Markup", (
        Probe("condition", "render() { return <p>{this.props.on === 1 && <b>x</b>}</p>; }",
              '<b v-if="on">x</b>', "props: ['on'],"),
        Probe("several conditions", "render() { const { n } = this.props; "
              "return n === 1 ? <b>1</b> : n === 2 ? <b>2</b> : <i>x</i>; }",
              '<b v-if="n === 1">1</b><b v-else-if="n === 2">2</b><i v-else>x</i>', "props: ['n'],"),
        Probe("early return", "render() { if (!this.props.on) return null; return <p>x</p>; }"),
        Probe("list", "render() { return <p>{this.props.rows.map((r) => <b key={r}>{r}</b>)}</p>; }",
              '<b v-for="r in rows" :key="r">{{ r }}</b>', "props: { rows: { type: Array, default: () => [] } },"),
        Probe("list of an object's values", None, '<b v-for="(v, k) in rows" :key="k">{{ v }}</b>',
              "props: { rows: { type: Object, required: true } },"),
        Probe("markup by a method", "row() { return <b>x</b>; } render() { return <p>{this.row()}</p>; }"),
        Probe("markup kept as a value", "items = [<b key='1'>x</b>]; render() { return <p>{this.items}</p>; }"),
        Probe("statements that build markup",
              "render() { let n = 0; for (const r of this.props.rows) n += r; return <p>{n}</p>; }"),
        Probe("classes by condition", "render() { return <p className={`a ${this.props.on ? 'b' : ''}`}>x</p>; }",
              "<b :class=\"['a', { b: on }]\">x</b>", "props: ['on'],"),
        Probe("style by an object", "render() { return <p style={{ top: '1px' }}>x</p>; }",
              "<b :style=\"{ top: '1px' }\">x</b>"),
        Probe("raw HTML", "render() { return <p dangerouslySetInnerHTML={{ __html: this.props.a }} />; }",
              '<b v-html="a"></b>', "props: ['a'],"),
        Probe("tag by a value", "render() { const { tag: Tag } = this.props; return <Tag>x</Tag>; }",
              "<component :is=\"on ? 'b' : 'i'\">x</component>", "props: ['on'],"),
        Probe("several roots", "render() { return <><b>1</b><b>2</b></>; }", "</div><div>x"),
        Probe("reference to an element",
              "box = React.createRef(); go = () => this.box.current.focus(); "
              "render() { return <b ref={this.box} onClick={this.go}>x</b>; }",
              '<b ref="box" @click="$refs.box.focus()">x</b>'),
        Probe("references in a list", None,
              '<b v-for="n in 3" :key="n" ref="rows" @click="$refs.rows.length">x</b>'),
        Probe("child component", "render() { return <Row />; }", "<berth-row />", "components: { BerthRow },",
              "import Row from './Row';\nimport BerthRow from './BerthRow.vue';"),
        Probe("transition", None, '<transition name="fade"><b v-if="on">x</b></transition>', "props: ['on'],"),
        Probe("markup elsewhere in the page", "render() { return createPortal(<b>x</b>, document.body); }",
              '<teleport to="body"><b>x</b></teleport>', "", "import { createPortal } from 'react-dom';"),
        Probe("directive of one's own", None, '<b v-focus>x</b>', "directives: { focus: { mounted(el) { el.focus(); } } },"),
        Probe("scoped styles", None, '<b class="a">x</b>', "", "", "<style scoped>\n.a { top: 0 }\n</style>\n"),
    )),
    ("Fields and listeners", (
        Probe("field of text, both ways",
              "state = { a: '' }; render() { return <input value={this.state.a} "
              "onChange={(e) => this.setState({ a: e.target.value })} />; }",
              '<input v-model="a">', "data() { return { a: '' }; },"),
        Probe("box to tick, both ways",
              "state = { a: true }; render() { return <input type='checkbox' checked={this.state.a} "
              "onChange={(e) => this.setState({ a: e.target.checked })} />; }",
              '<input type="checkbox" v-model="a">', "data() { return { a: true }; },"),
        Probe("choice, both ways",
              "state = { a: '1' }; render() { return <select value={this.state.a} "
              "onChange={(e) => this.setState({ a: e.target.value })}><option>1</option></select>; }",
              '<select v-model="a"><option>1</option></select>', "data() { return { a: '1' }; },"),
        Probe("number in a field", None, '<input v-model.number="a">', "data() { return { a: 1 }; },"),
        Probe("field taken when typing ends", None, '<input v-model.lazy="a">', "data() { return { a: '' }; },"),
        Probe("field that keeps what is typed", "render() { return <input defaultValue='a' />; }", '<input value="a">'),
        Probe("listener that stops an event",
              "go = (e) => { e.preventDefault(); }; render() { return <a onClick={this.go}>x</a>; }",
              '<a @click.prevent="$emit(\'go\')">x</a>', "emits: ['go'],"),
        Probe("listener of a key", "go = (e) => { if (e.key === 'Enter') this.props.onGo(); }; "
              "render() { return <input onKeyDown={this.go} />; }",
              "<input @keydown.enter=\"$emit('go')\">", "emits: ['go'],"),
        Probe("listener on the way down", "render() { return <b onClickCapture={this.props.onGo}>x</b>; }",
              "<b @click.capture=\"$emit('go')\">x</b>", "emits: ['go'],"),
    )),
    ("Time", (
        Probe("when it is displayed", f"componentDidMount() {{ this.props.onShow(); }} {DRAWN}", "x",
              "emits: ['show'], mounted() { this.$emit('show'); },"),
        Probe("before it is removed", f"componentWillUnmount() {{ this.props.onGone(); }} {DRAWN}", "x",
              "emits: ['gone'], beforeUnmount() { this.$emit('gone'); },"),
        Probe("when one value has changed",
              "componentDidUpdate(b) { if (b.pier !== this.props.pier) this.props.onMove(); } " + DRAWN,
              "{{ pier }}", "props: ['pier'], emits: ['move'], watch: { pier() { this.$emit('move'); } },"),
        Probe("the same, and at once", None, "{{ pier }}",
              "props: ['pier'], emits: ['move'], watch: { pier: { immediate: true, handler() { this.$emit('move'); } } },"),
        Probe("when something inside has changed", None, '<b @click="a.n += 1">x</b>',
              "data() { return { a: { n: 1 } }; }, emits: ['move'], "
              "watch: { a: { deep: true, handler() { this.$emit('move'); } } },"),
        Probe("after every render", f"componentDidUpdate() {{ this.props.onDrawn(); }} {DRAWN}", "{{ pier }}",
              "props: ['pier'], emits: ['drawn'], updated() { this.$emit('drawn'); },"),
        Probe("once a write is rendered",
              "state = { n: 0 }; go = () => this.setState({ n: 1 }, () => this.props.onSet()); "
              "render() { return <b onClick={this.go}>{this.state.n}</b>; }",
              '<b @click="go">{{ n }}</b>',
              "emits: ['set'], data() { return { n: 0 }; }, "
              "methods: { async go() { this.n = 1; await this.$nextTick(); this.$emit('set'); } },"),
        Probe("inputs before they come", f"UNSAFE_componentWillReceiveProps(next) {{ this.go(next); }} {DRAWN}"),
        Probe("state from props at each render",
              "state = { n: 0 }; static getDerivedStateFromProps(p) { return { n: p.n }; } "
              "render() { return <p>{this.state.n}</p>; }"),
        Probe("renders only if it says so", f"shouldComponentUpdate(n) {{ return n.pier !== this.props.pier; }} {DRAWN}"),
        Probe("errors from below", f"componentDidCatch() {{ this.props.onFail(); }} {DRAWN}", "<slot />",
              "emits: ['fail'], errorCaptured() { this.$emit('fail'); },"),
        Probe("shown again", None, "x", "emits: ['back'], activated() { this.$emit('back'); },"),
    )),
    ("Around it", (
        Probe("what is mixed in, or inherited", None, "{{ n }}", "mixins: [counting],",
              "const counting = { data() { return { n: 1 }; } };"),
        Probe("wrapped by a function", DRAWN, wrapped=True),
        Probe("types", None, "{{ pier }}", "props: { pier: { type: String, required: true } },", typed=True),
        Probe("filter of a template (version 2)", None, "{{ pier | short }}",
              "props: ['pier'], filters: { short: (a) => a.slice(1) },"),
        Probe("bus of events (version 2)", None, "x", "created() { this.$on('a', () => {}); },"),
    )),
)  # fmt: skip
