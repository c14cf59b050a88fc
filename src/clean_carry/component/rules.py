"""Every finding the tool can make: what it means, an example, what to do."""

from __future__ import annotations

from dataclasses import dataclass

from clean_carry.component.directive_rules import DIRECTIVES
from clean_carry.component.single_file_rules import SINGLE_FILES, Row, RuleLevel


@dataclass(frozen=True)
class Rule:
    """One kind of finding. `example` is source that causes it."""

    name: str
    level: RuleLevel
    summary: str
    advice: str
    example: str


_TABLE: tuple[Row, ...] = (
    # -- what others do with it ---------------------------------------------------------------
    (
        "receiver-not-followed",
        "note",
        "functions are handed to components whose code was not found; each is a closure of its render, "
        "so a "
        "component that keeps the first one would see old props and state",
        "Check that these components call the function they were given last",
        "<Chart onPick={() => this.pick(this.state.day)} />",
    ),
    (
        "imported-from-old",
        "note",
        "the old file makes values that must exist only once (a context, a store, a symbol); the new file "
        "imports them from it, so that both files share them",
        "Move them to a file of their own before the old file is removed",
        "export const NoticeContext = React.createContext([]);",
    ),
    (
        "made-once-unexported",
        "error",
        "the file makes a value that must exist only once and does not export it; the new file would "
        "make a "
        "second one, and components of the old and the new file could not work together",
        "Export it, or move it to a file of its own, and carry again; with --replace there is no second "
        "one",
        "const BerthContext = React.createContext(null); // used by two exported components",
    ),
    (
        "handed-to-package",
        "warning",
        "the class is handed to a function of a package that could not be read; a function that extends a "
        "class, or makes an instance of it, fails with a function component",
        "Install the package, so that it can be read, or check its documentation",
        "export default lit(Berth); // import lit from 'lit-up', which is not installed",
    ),
    # -- the class as a whole is refused ------------------------------------------------------
    (
        "pure-with-type-parameters",
        "error",
        "it has type parameters, which a memoised function loses",
        "Carry it by hand, with a cast of the memoised function to the type it has",
        "class Chooser<T> extends PureComponent<Props<T>> { … }",
    ),
    (
        "pure-default-redraw",
        "error",
        "an input with a default, given and not given in turn, draws the memoised function again, "
        "where that can be told",
        "Give its update hooks a comparison, or give the input always",
        "componentDidUpdate() { this.props.onDrawn(); } static defaultProps = { name: 'Holm' };",
    ),
    (
        "state-never-given",
        "error",
        "state is read that nothing ever gives, which fails in the class",
        "Give it a first value, or take the reading away",
        "return <p>{this.state.late}</p>; // and no state",
    ),
    (
        "pure-receives",
        "error",
        "what it does when inputs come, it does where none changed as well; "
        "a memoised function skips that",
        "Ask for a change first, or make its base the plain one",
        "componentWillReceiveProps(next) { this.setState({ at: next.at }); }",
    ),
    (
        "own-base",
        "error",
        "the base class is the project's own and was not read in",
        "Fold what the base does into this class, or carry the base by hand first",
        "class CrewList extends FerryView { … }",
    ),
    (
        "base-read-in",
        "note",
        "what it inherits from a base of the project is written into the function",
        "Changes of the base do not reach it any more; share what several need in a hook of your own",
        "class CrewList extends FerryView { … } // and FerryView in a file of the project",
    ),
    (
        "wrapper-looks-in",
        "warning",
        "what it is handed to looks into the class, and takes another way with a function",
        "Read what it does with a function; what it is given there, the class kept (declared types, say)",
        "export default lit(Berth); // and lit asks for Berth.prototype",
    ),
    (
        "class-in-expression",
        "error",
        "the class is an expression",
        "Declare it as a statement of its own",
        "tickets.push(class extends Component { static fare = 2; … });",
    ),
    (
        "decorated",
        "error",
        "a member has a decorator",
        "Do what the decorator does in the member's own code",
        "@bound save() { … }",
    ),
    (
        "abstract-class",
        "error",
        "the class is abstract",
        "Carry what extends it by hand",
        "abstract class Berth extends Component { … }",
    ),
    (
        "decorator-called",
        "note",
        "a decorator at the class is called with the function",
        "It must take a component and give one: one that changes the class itself does nothing here",
        "@tracked class Berth extends Component { … }",
    ),
    (
        "extended-by",
        "error",
        "other classes extend this one",
        "Carry those that extend it first",
        "class Cargo extends Component { … } class Reefer extends Cargo { … }",
    ),
    (
        "no-render",
        "error",
        "the class has no render method",
        "A class that draws nothing is not carried",
        "class Clock extends Component { tick() {} }",
    ),
    (
        "error-capture",
        "error",
        "the class catches errors of what it draws",
        "Functions cannot; keep this class as the boundary and put the rest into a function inside it",
        "componentDidCatch(error) { this.setState({ error }); }",
    ),
    (
        "snapshot-before-update",
        "error",
        "the class measures the page before an update",
        "Functions have no such moment; keep the class",
        "getSnapshotBeforeUpdate() { return this.list.scrollHeight; }",
    ),
    (
        "derived-state",
        "error",
        "state is derived from inputs by a static hook",
        "Compute the value while drawing, or keep the class",
        "static getDerivedStateFromProps(props, state) { … }",
    ),
    (
        "decides-updates",
        "error",
        "the class decides by itself when to draw",
        "Memoise a function by hand with the same comparison",
        "shouldComponentUpdate(next) { … }",
    ),
    (
        "legacy-hook",
        "error",
        "the class uses a hook of before 16.3",
        "Move its code to the constructor or an update hook first",
        "componentWillReceiveProps(next) { … }",
    ),
    (
        "legacy-context",
        "error",
        "the class gives the old context, or reads it where a function could not",
        "Move to the present context first",
        "getChildContext() { return { store: this.store }; }",
    ),
    (
        "static-receiver",
        "error",
        "a static member uses `this`",
        "Name the class instead of `this`",
        "static of() { return new this(); }",
    ),
    (
        "string-reference",
        "error",
        "an element is referenced by a string",
        "Make it a callback or an element reference first",
        '<input ref="name" />',
    ),
    ("member-twice", "error", "two members share a name", "Rename one", "load = 1; load() {}"),
    (
        "state-set-twice",
        "error",
        "the initial state is given twice",
        "Keep one",
        "state = {}; constructor(p) { super(p); this.state = {}; }",
    ),
    (
        "constructor-code",
        "error",
        "the constructor does more than set state, fields and bound methods",
        "Move this statement to a method or a field",
        "constructor(p) { super(p); autoBind(this); }",
    ),
    (
        "method-replaced",
        "error",
        "a method is replaced while the component lives",
        "Keep the replacement in a field of its own name",
        "this.load = debounce(this.load, 100);",
    ),
    (
        "reference-replaced",
        "error",
        "an element reference is assigned to",
        "Make it a plain field",
        "this.input = createRef(); … this.input = other;",
    ),
    (
        "hook-called",
        "error",
        "a lifecycle hook is called or passed on by hand",
        "Move its code to a method and call that",
        "this.componentDidMount();",
    ),
    (
        "instance-tag",
        "error",
        "an element's tag is taken from the instance",
        "Give the tag a local name first",
        "<this.props.tag />",
    ),
    (
        "initial-needs-method",
        "error",
        "an initial value calls a method that is not there yet in a function",
        "Write the method as a method of the class rather than an arrow function",
        "state = { list: this.make() }; make = () => [];",
    ),
    (
        "initial-writes-state",
        "error",
        "state is written while the component is made",
        "Put the value into the initial state",
        "constructor(p) { super(p); this.setState({ a: 1 }); }",
    ),
    (
        "defaults-not-literal",
        "error",
        "the defaults of the inputs are not a plain object",
        "Write them as one object literal",
        "Berth.defaultProps = { ...Pier.defaultProps };",
    ),
    (
        "defaults-read-elsewhere",
        "error",
        "other code reads the defaults of the inputs",
        "Move the values to a constant that both use",
        "Berth.defaultProps.size",
    ),
    (
        "ledger-unsettled",
        "error",
        "the tool could not account for every construct",
        "Nothing was written; please report the component",
        "(a fault of the tool)",
    ),
    # -- a place is left ----------------------------------------------------------------------
    (
        "unknown-member",
        "warning",
        "this member has no row in the table of notions",
        "Carry it by hand where the marker stands",
        "get full() { return this.state.left === 0; }",
    ),
    (
        "reached-from-outside",
        "warning",
        "nothing inside uses this member, so only somebody outside can",
        "Expose it by reference if it is used, or delete it",
        "focus() { this.input.focus(); }",
    ),
    (
        "unknown-use",
        "warning",
        "this use of the instance is not known",
        "Carry it by hand",
        "this.updater.enqueue()",
    ),
    (
        "instance-escapes",
        "warning",
        "the instance itself is handed away",
        "Hand over the values that are needed instead",
        "findNode(this)",
    ),
    (
        "method-as-object",
        "warning",
        "a method is used as an object",
        "Call it instead",
        "this.load.call(this)",
    ),
    (
        "state-writer-as-value",
        "warning",
        "the state writer is passed on as a value",
        "Pass on a function that writes the fields meant",
        "load().then(this.setState)",
    ),
    (
        "local-hides",
        "error",
        "a name that drawing declares means something else to a method: both come into one scope",
        "Rename the local",
        "render() { const format = 1; } label() { return format(2); }",
    ),
    (
        "write-callback",
        "warning",
        "a state write has a callback that cannot be called from elsewhere, or may not draw",
        "Move the callback's code to an effect on the fields written",
        "this.setState({ a: 1 }, function () { this.done(); })",
    ),
    (
        "patch-not-literal",
        "warning",
        "a state write gives no patch",
        "Write the fields out",
        "this.setState(...patches)",
    ),
    (
        "updater-reads-inputs",
        "warning",
        "a state updater reads the inputs of its own time",
        "Read the input from the component instead",
        "this.setState((s, props) => …)",
    ),
    (
        "input-written",
        "warning",
        "an input is assigned to",
        "Inputs are read only",
        "this.props.limit = 3",
    ),
    (
        "state-written-directly",
        "warning",
        "state is assigned to directly",
        "Use a state write",
        "this.state.open = true",
    ),
    (
        "snapshot-alias",
        "warning",
        "an alias of the inputs or the state is read later",
        "Decide whether the old or the latest value is meant",
        "const { props } = this; await x; props.id",
    ),
    (
        "context-read",
        "warning",
        "a context is read that the class does not declare",
        "Declare it by a static type",
        "this.context.store",
    ),
    (
        "forced-update",
        "warning",
        "an update is forced",
        "Keep what changed in state",
        "this.forceUpdate()",
    ),
    (
        "async-hook",
        "warning",
        "a lifecycle hook is asynchronous",
        "Move its code to an asynchronous method and call that from the hook",
        "async componentDidMount() { … }",
    ),
    # -- worth knowing ------------------------------------------------------------------------
    (
        "unbound-method",
        "note",
        "a method passed on unbound would lose its instance in the class",
        "The function does not lose it; check that the old code was not broken here",
        "<button onClick={this.save}>",
    ),
    (
        "draws-each-time",
        "note",
        "the function is drawn whenever its parent is: what it does on new inputs, it did each time",
        "Ask for a change of inputs first; then it can be memoised",
        "componentWillReceiveProps(next) { this.setState({ at: next.at }); }",
    ),
    (
        "runs-while-drawing",
        "note",
        "what ran before each update runs while the function draws",
        "Move it to an effect where it may as well run when the page has changed",
        "componentWillUpdate(next) { if (next.open !== this.props.open) this.tell(); }",
    ),
    (
        "used-as-type",
        "error",
        "the file uses the class as the type of its instances",
        "Name what is needed of an instance in an interface of its own",
        "const rows = ref as Manifest<Crate>;",
    ),
    (
        "test-reaches-in",
        "note",
        "a test asks an instance, which a function does not have",
        "Ask for what is drawn and called instead",
        "expect(wrapper.state('open')).toBe(true);",
    ),
    (
        "derived-not-a-number",
        "note",
        "a value that is not a number counts as unchanged; for the class it changed at every draw",
        "Nothing, unless it may be NaN and other state is derived with it",
        "if (props.at !== state.at) return { at: props.at, seen: 0 };",
    ),
    (
        "defaults-kept",
        "note",
        "the defaults of the inputs stay a property of the component",
        "Functions take them so up to version 18; write them into the parameters before 19",
        "Berth.defaultProps = { ...Pier.defaultProps };",
    ),
    (
        "undefined-drawn",
        "note",
        "where this is undefined the class fails; a function with memo or a reference draws nothing",
        "Return null where nothing is to be drawn",
        "return this.props.berth && <Berth />;",
    ),
    (
        "reference-from-input",
        "note",
        "an input is given to an element as its reference",
        "A function or an object works as before; a string only ever worked inside a class",
        "<button ref={this.props.innerRef}>",
    ),
    (
        "default-draws-again",
        "note",
        "drawing calls an input, also where another is given as its default and then not at all",
        "It matters only to an input that counts how often it is called",
        "class Row extends PureComponent { render() { return this.props.draw(this.props.size); } }",
    ),
    (
        "equal-write-spared",
        "note",
        "drawing calls an input, and no longer does so where a write leaves the state as it was",
        "It matters only to an input that counts how often it is called",
        "render() { return <p>{this.props.format(this.state.tide)}</p>; }",
    ),
    (
        "element-prefix",
        "note",
        "a slot and an attribute share a name",
        "The slot got the suffix “Slot”; use that name where content is given",
        '<slot name="title">',
    ),
    (
        "members-closed",
        "note",
        "members of the component can no longer be reached from outside",
        "Expose what users reach by reference",
        "this.$refs.seats.change(1)",
    ),
)

RULES: dict[str, Rule] = {row[0]: Rule(*row) for row in (*_TABLE, *SINGLE_FILES, *DIRECTIVES)}


def rule(name: str) -> Rule:
    """The rule of this name; raises `KeyError` for a name that is not in the table."""
    return RULES[name]
