"""What of a base is of use to its heir: what it asks for, what is never filled, what does nothing."""

from __future__ import annotations

from pathlib import Path

import pytest

from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.needed_names import NotReadIn
from clean_carry.source.text import SourceText
from clean_carry.source.workspace import Workspace
from clean_carry.syntaxes.jsx_class.bases.base_class import Base, mentions, parts_of
from clean_carry.syntaxes.jsx_class.bases.inherited_members import Inherited


def class_of(members: str, head: str = "", ending: str = "tsx") -> tuple[Node, Tree]:
    text = f"{head}\nclass View extends Component {{\n{members}\n}}\n"
    tree = Tree(SourceText(f"view.{ending}", text.encode()))
    return tree.of("class_declaration")[0], tree


MENTIONED = [
    # (code, the names asked for, those of the base, whether it may be anything)
    ("this.a(); this.b.c;", {"a", "b"}, set(), False),
    ("const { a, b: c, d = 1 } = this;", {"a", "b", "d"}, set(), False),
    ("const { a, ...rest } = this;", set(), set(), True),
    ("this['a'] = 1;", {"a"}, set(), False),
    ("this[name] = 1;", set(), set(), True),
    ("const self = this;", set(), set(), True),
    ("tell(this);", set(), set(), True),
    ("this.a.bind(this); this.b.call(this, 1);", {"a", "b"}, set(), False),
    ("super.a(); super.b;", set(), {"a", "b"}, False),
    ("other.a();", set(), set(), False),
]


@pytest.mark.parametrize(("code", "names", "base", "anything"), MENTIONED)
def test_what_code_asks_its_instance_for(
    code: str, names: set[str], base: set[str], anything: bool
) -> None:
    node, _ = class_of(f"  go() {{ {code} }}")
    found = mentions(node)
    assert (found.names, found.base, found.anything) == (names, base, anything)


def test_the_constructor_of_the_base_is_asked_for() -> None:
    node, _ = class_of("  constructor(props) { super(props); }")
    assert mentions(node).base == {"constructor"}


def test_members() -> None:
    node, _ = class_of(
        "  a = 1;\n  static b = 2;\n  get c() { return 1; }\n  abstract d(): void;\n  'e-f'() {}\n"
        "  declare g: string;\n  h = () => { go(); };\n  i = () => 1;\n  // nothing\n  j?(): void;\n"
    )
    found = {part.name: (part.static, part.body is not None) for part in parts_of(node)}
    assert found == {
        "a": (False, False), "b": (True, False), "c": (False, True), "e-f": (False, True),
        "g": (False, False), "h": (False, True), "i": (False, False),
    }  # fmt: skip


@pytest.mark.parametrize("member", ["[a] = 1;", "[key: string]: any;", "@b a() {}", "a(b: c): d;"])
def test_members_that_are_not_read(member: str) -> None:
    node, _ = class_of(f"  {member}")
    with pytest.raises(NotReadIn):
        parts_of(node)


def inherited(
    members: str, asked: set[str] | None, own: set[str] | None = None, above: set[str] | None = None
) -> Inherited:
    head = (
        "function plain(a) { return typeof a === 'string' && process.env.MODE !== a; }\n"
        "function acts() { return count(); }\nconst arrow = (a) => plain(a) ? 1 : a.b;\n"
    )
    node, tree = class_of(members, head)
    path = Path("view.tsx")
    asks = frozenset(asked) if asked is not None else None
    return Inherited(
        Base(node, tree, path, "View"),
        Workspace(path),
        frozenset(own or ()),
        asks,
        frozenset(above or ()),
    )


TIMERS = """
  timers = [];
  last = null;
  made = register('view');
  later(call) { this.timers.push(setTimeout(call)); }
  keep() { this.last = 1; }
  clear = () => {
    if (this.timers.length > 0) { this.timers.forEach(clearTimeout); this.timers = []; }
    for (const timer of this.timers) { stop(timer); }
    this.timers.forEach((timer) => stop(timer));
    if (this.last !== null && plain(this.last)) { tell(this.last); }
  };
  check() {}
  label() { return this.text(); }
  text() { return 'a'; }
  componentDidMount() { if (plain('a')) { this.check(); } }
  componentWillUnmount() { this.clear(); }
"""
USES = [
    # (what the heir asks for, what it has itself, what comes)
    (set(), set(), ["made"]),
    ({"later"}, set(), ["timers", "made", "later", "clear", "componentWillUnmount"]),
    ({"label"}, set(), ["made", "label", "text"]),
    ({"label"}, {"text"}, ["made", "label"]),
    (set(), {"check"}, ["made", "componentDidMount"]),
    (set(), {"componentWillUnmount"}, ["made"]),
    ({"last"}, set(), ["last", "made", "clear", "componentWillUnmount"]),
]


@pytest.mark.parametrize(("asked", "own", "names"), USES)
def test_what_an_heir_is_given(asked: set[str], own: set[str], names: list[str]) -> None:
    found = [part.name for part in inherited(TIMERS, asked, own).inserted()]
    assert sorted(found) == sorted(names)


def test_all_of_it_where_anything_may_be_asked_for() -> None:
    found = {part.name for part in inherited(TIMERS, None).inserted()}
    assert {"timers", "later", "keep", "label", "text", "clear"} <= found


QUESTIONS = [
    # (how a field begins, what is asked, whether what is done on it is never done)
    ("[]", "if (this.a.length > 0) { go(); }", True),
    ("[]", "if (this.a.length !== 0) { go(); }", True),
    ("[]", "if (this.a.length) { go(); }", True),
    ("[]", "if (this.a.length !== null) { go(); }", False),
    ("[]", "if (this.a) { go(); }", False),
    ("[]", "for (const one of this.a) { go(); }", True),
    ("[]", "this.a.forEach(go);", True),
    ("null", "if (this.a) { go(); }", True),
    ("null", "if (this.a !== null) { go(); }", True),
    ("null", "if (this.a != undefined) { go(); }", True),
    ("null", "if (this.a !== undefined) { go(); }", False),
    ("null", "if (this.a && plain()) { go(); }", True),
    ("null", "for (const one of this.a) { go(); }", False),
    ("null", "this.a.forEach(go);", False),
    ("undefined", "if (this.a !== null) { go(); }", False),
    ("false", "if (this.a != null) { go(); }", False),
    ("0", "if (this.a > 0) { go(); }", True),
    ("0", "if (this.a !== 0) { go(); }", True),
    ("0", "if (0 !== this.a) { go(); }", False),
    ("1", "if (this.a) { go(); }", False),
]


@pytest.mark.parametrize(("begins", "question", "never"), QUESTIONS)
def test_what_is_never_done(begins: str, question: str, never: bool) -> None:
    found = inherited(f"  a = {begins};\n  componentDidMount() {{ {question} }}", set())
    assert ("componentDidMount" not in found.needed or found.inserted() == []) is never


def test_a_name_that_hides_a_function_is_not_known() -> None:
    members = "  componentDidMount() { ((plain) => { if (plain(1)) { this.none(); } })(go); }\n  none() {}"
    assert "componentDidMount" in [part.name for part in inherited(members, set()).inserted()]


PURE = [
    ("plain('a')", True),
    ("arrow(this.props.a)", True),
    ("this.a.b && !c || d + 1 > 2", True),
    ("`a ${b}`", True),
    ("acts()", False),
    ("unknown(1)", False),
    ("plain(acts())", False),
    ("delete a.b", False),
    ("a = 1", False),
    ("new A()", False),
]


@pytest.mark.parametrize(("expression", "pure"), PURE)
def test_whether_evaluating_changes_anything(expression: str, pure: bool) -> None:
    found = inherited(f"  go() {{ show({expression}); }}", set())
    shown = next(
        call for call in found.base.tree.of("call_expression") if call.text.startswith("show(")
    )
    arguments = shown.child("arguments")
    assert arguments is not None
    assert found.is_pure(arguments.named_children[0]) is pure
