"""The findings of crossings between families: what a template or its script cannot say."""

from __future__ import annotations

from clean_carry.component.rules import Row, table

_ROWS: tuple[Row, ...] = (
    # -- markup ---------------------------------------------------------------------------------
    (
        "markup-in-code",
        "error",
        "a template cannot say this markup: it comes out of code",
        "Write it as elements, conditions and map() where it is drawn, then carry again",
        "rows.push(<li>{berth}</li>)",
    ),
    (
        "drawn-by-statements",
        "error",
        "the code that draws does more than name values and return markup",
        "Move this statement into a method, then carry again",
        "for (const berth of berths) count += berth.seats;",
    ),
    (
        "pattern-not-plain",
        "error",
        "a pattern takes inputs or state apart with a default, a rest or nested names",
        "Take plain names, and give the default where the value is used",
        "const { limit = 3, ...others } = this.props;",
    ),
    (
        "nought-shown",
        "note",
        "where this value is 0, the old component shows “0” and the new one nothing",
        "Nothing, if it is never a number; else write it as a comparison",
        "{seats && <b>Seats left</b>}",
    ),
    (
        "style-numbers",
        "note",
        "a style may be a bare number: the old component means pixels, the new one needs the unit",
        "Check that it is text with a unit",
        "style={{ height: this.props.height }}",
    ),
    (
        "reference-passed",
        "error",
        "a reference to an element is handed on instead of being asked for its element",
        "Hand on the element",
        "measure(this.box)",
    ),
    (
        "module-draws",
        "error",
        "the file has another function that draws, which a single file cannot hold",
        "Move it to a file of its own, then carry again",
        "export const Empty = () => <Board rows={[]} />;",
    ),
    (
        "child-not-carried",
        "error",
        "it draws a component that has not been carried to the target",
        "Carry that component first, then this one with --assume-carried",
        "<BerthRow berth={berth} />",
    ),
    # -- the script -----------------------------------------------------------------------------
    (
        "old-value-read",
        "error",
        "state is read after it was written and before anything is drawn again; the old component sees the "
        "old value there, the new one would see the new value",
        "Name the value before it is written",
        "this.setState({ open: false }); this.tell(); // tell() reads this.state.open",
    ),
    (
        "write-returned",
        "error",
        "a write of state stands where a value is expected",
        "Write it as a statement of its own",
        "return this.setState({ open: true });",
    ),
    (
        "write-not-seen",
        "error",
        "it cannot be seen whether state is written by an object or by a function",
        "Write the object, or the function, in the call",
        "this.setState(next)",
    ),
    (
        "state-not-listed",
        "error",
        "the initial state is no plain object of fields",
        "List the fields",
        "state = { ...defaults, open: false }",
    ),
    (
        "module-uses-it",
        "error",
        "other code of the file uses the component",
        "Move that code to a file that imports the component",
        "export const columns = Board.columns;",
    ),
    (
        "old-runtime-used",
        "error",
        "something of the old runtime is used that has no counterpart here",
        "Replace it first, or carry the component by hand",
        "Children.map(this.props.children, lit)",
    ),
    (
        "static-not-in-target",
        "error",
        "the component has a static method, which a single file has no place for",
        "Move it into the module",
        "static of(kind) { return rates[kind]; }",
    ),
    (
        "static-exported",
        "note",
        "a value of the component itself is an export of its file now",
        "Import it by its name where it was asked of the component",
        "static kinds = ['adult', 'child'];",
    ),
    (
        "context-not-in-target",
        "error",
        "it reads a context, which the target does not have",
        "Carry the component by hand, with a value that is provided and injected",
        "static contextType = NoticeContext;",
    ),
    (
        "wrapped-in-target",
        "error",
        "the component is handed to a function that makes another one of it",
        "Carry the inner component alone, and use it in a component written by hand",
        "export default connect(mapState)(Board);",
    ),
    (
        "moment-not-in-target",
        "error",
        "it has a lifecycle method that the target has no moment for",
        "Move the code to another method first",
        "UNSAFE_componentWillReceiveProps(next) { … }",
    ),
    (
        "default-as-method",
        "error",
        "the default of an input is written as a method",
        "Write it as a function",
        "static defaultProps = { format(value) { return value; } };",
    ),
    (
        "runs-at-every-draw",
        "error",
        "code runs after every draw, also where nothing has changed; the target has no such moment",
        "Ask first what has changed: if (before.pier !== this.props.pier) { … }",
        "componentDidUpdate() { this.props.onDrawn(); }",
    ),
    (
        "compared-not-a-number",
        "note",
        "where this input is not a number (NaN), the old component takes it for changed at every draw, "
        "the new one does not",
        "Nothing, unless it may be NaN",
        "if (before.seats !== this.props.seats) { … } // seats is NaN",
    ),
    (
        "neighbour-refused",
        "error",
        "another component of its file cannot be carried; all of a file are carried together",
        "Carry the other one first, or move it to a file of its own",
        "class Row extends Component { … } // refused; class Table extends Component { … }",
    ),
    (
        "module-shared",
        "error",
        "several components of the file use the same code of its module",
        "Move that code to a file that both import",
        "const STEP = 15; // used by two classes of the file",
    ),
    (
        "alias-not-followed",
        "error",
        "a value is changed in place under a name that cannot be followed to the field that holds it; the "
        "new component would not be drawn again",
        "Change it through the field: this.lines[at].count += 1",
        "const line = find(this.lines); line.count += 1;",
    ),
    (
        "change-returned",
        "error",
        "what a change in place gives is returned; the change could not be told behind it",
        "Name what it gives first",
        "return this.lines.pop();",
    ),
    (
        "change-of-text",
        "error",
        "the end of typing is heard (change, v-model.lazy), for which the target has no listener",
        "Listen to blur, or take every letter",
        '<input v-model.lazy="name">',
    ),
    (
        "change-seen",
        "note",
        "a value that is watched is changed in place: the new watcher runs then, the old one may not have",
        "Check that running it once more does no harm",
        "watch: { lines() { this.count(); } } // and this.lines.push(line)",
    ),
    (
        "shown-as-it-is",
        "note",
        "it is not known what kinds of value are shown; the old component shows objects and truth values "
        "as text, the new one does not",
        "Nothing, where they are text and numbers",
        "{{ line.name }}",
    ),
    (
        "select-by-text",
        "note",
        "a choice is taken as text; the old component keeps the value an option was bound to",
        "Nothing, where the values of options are text",
        '<select v-model="pier"><option :value="pier.id">',
    ),
    (
        "style-object",
        "note",
        "a style is given by a value that is not seen; the target takes an object of names like marginTop",
        "Check that it is one",
        '<p :style="box">',
    ),
    (
        "runs-after-drawing",
        "note",
        "it runs after every drawing; the old hook runs only where something it draws has changed",
        "Check that running it once more does no harm",
        "updated() { this.measure(); }",
    ),
    (
        "mixins-not-in-target",
        "error",
        "it mixes something in, which a function cannot",
        "Move what is mixed in into the component first",
        "mixins: [keys]",
    ),
    (
        "not-in-target",
        "error",
        "the target has no way to say this",
        "Carry the component by hand",
        "set kind(kind) { this.setState({ kind }); }",
    ),
)

RULES = table(_ROWS)
