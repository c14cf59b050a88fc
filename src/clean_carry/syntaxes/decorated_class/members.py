"""The members of a decorated class: what each is to the runtime."""

from __future__ import annotations

from dataclasses import dataclass, field

from clean_carry.source.javascript.tree import Node
from clean_carry.syntaxes.decorated_class.recognise import (
    Decorated,
    arguments_of,
    property_of,
    text_of,
)
from clean_carry.syntaxes.single_file.stands_for import NotAFile

# Functions of the runtime that make a member.
_MAKERS = frozenset({"signal", "computed", "input", "output", "model", "inject", "viewChild"})
_UNREAD_MAKERS = frozenset(
    {"effect", "contentChild", "viewChildren", "contentChildren", "linkedSignal", "resource"}
)
HOOKS = {
    "ngOnInit": "created",
    "ngAfterViewInit": "mounted",
    "ngAfterContentInit": "mounted",
    "ngOnDestroy": "beforeUnmount",
}
# Hooks that run with every check; no other runtime has a time for them.
LEFT_HOOKS = frozenset({"ngDoCheck", "ngAfterViewChecked", "ngAfterContentChecked"})
_WORDS = {"accessibility_modifier", "override_modifier", "readonly", "declare"}


@dataclass
class Input:
    """An input: its name in the class, the public one, whether it is required, the value it has where none
    is given, and its type. `setter` is the method that takes it, `transform` what its value goes through;
    `two_way` says that the class changes it and tells."""

    name: str
    public: str
    node: Node
    required: bool = False
    default: Node | None = None
    type: Node | None = None
    setter: Node | None = None
    transform: Node | None = None
    called: bool = False
    two_way: bool = False


@dataclass
class Output:
    """An output: its name in the class, and the public one."""

    name: str
    public: str
    node: Node


@dataclass
class Field:
    """A field, or a signal where it is `called`: its value and its type, None where it has none."""

    name: str
    node: Node
    value: Node | None = None
    type: Node | None = None
    called: bool = False


@dataclass
class Derived:
    """A getter, or a computed signal where it is `called`; `body` is its function, `setter` a method."""

    name: str
    node: Node
    body: Node
    called: bool = False
    setter: Node | None = None


@dataclass
class Query:
    """A query for an element of the template, by the name of its reference."""

    name: str
    reference: str
    node: Node
    called: bool = False


@dataclass
class HostBinding:
    """A binding of the element itself: what is bound, and the member or expression that gives it."""

    target: str
    code: str
    node: Node


@dataclass
class HostListener:
    """A listener of the element itself, or of the window or document: the event and the statement."""

    event: str
    code: str
    node: Node


@dataclass
class Members:
    """All members of a class. `services` are names with the token that is injected, `left` hooks that no
    other runtime has."""

    inputs: list[Input] = field(default_factory=list)
    outputs: list[Output] = field(default_factory=list)
    fields: list[Field] = field(default_factory=list)
    derived: list[Derived] = field(default_factory=list)
    methods: list[Node] = field(default_factory=list)
    functions: list[Node] = field(default_factory=list)
    hooks: dict[str, Node] = field(default_factory=dict)
    queries: list[Query] = field(default_factory=list)
    bound: list[HostBinding] = field(default_factory=list)
    listening: list[HostListener] = field(default_factory=list)
    services: dict[str, tuple[str, Node]] = field(default_factory=dict)
    starts: list[Node] = field(default_factory=list)
    left: list[tuple[str, Node]] = field(default_factory=list)


def read_members(one: Decorated, *, keeps: bool = False) -> Members:
    """Read the members of a class. Raises `NotAFile` for what is not read, unless the class `keeps` it."""
    return _Reader(one, keeps=keeps).members


class _Reader:
    def __init__(self, one: Decorated, *, keeps: bool) -> None:
        self.members, self.keeps = Members(), keeps
        body = one.node.child("body")
        assert body is not None
        held: list[Node] = []
        setters: dict[str, Node] = {}
        for node in body.named_children:
            if node.type == "decorator":
                held.append(node)
                continue
            decorators = [*held, *(child for child in node.children if child.type == "decorator")]
            held = []
            try:
                self._node(node, decorators, setters)
            except NotAFile:
                if not keeps:
                    raise
        for word, setter in setters.items():
            known = next((each for each in self.members.derived if each.name == word), None)
            if known is None and keeps:
                continue
            if known is None:
                raise NotAFile("class-member-unread", f"set {word}", setter.start)
            known.setter = setter
        self._host(one)

    def _node(self, node: Node, decorators: list[Node], setters: dict[str, Node]) -> None:
        """Read a member with its decorators. Raises `NotAFile`."""
        name = node.child("name")
        plain = node.type in ("public_field_definition", "method_definition")
        if node.has("static") or not plain or name is None or name.type != "property_identifier":
            raise NotAFile("class-member-unread", _shown(node), node.start)
        if node.type == "method_definition" and node.has("set") and not decorators:
            setters[name.text] = node
            return
        for decorator in decorators:
            self._member(node, name.text, decorator)
        if not decorators:
            self._member(node, name.text, None)

    # -- by kind -------------------------------------------------------------------------

    def _member(self, node: Node, name: str, decorator: Node | None) -> None:
        word = _called(decorator) if decorator is not None else ""
        match word:
            case "":
                self._plain(node, name)
            case "Input":
                self._input(node, name, decorator)
            case "Output":
                value = node.child("value")
                if value is None or not value.text.startswith("new EventEmitter"):
                    raise NotAFile("class-member-unread", _shown(node), node.start)
                if value.child("arguments") is not None and arguments_of(value):
                    raise NotAFile("class-member-unread", f"{name}, which emits later", node.start)
                self.members.outputs.append(Output(name, _alias(decorator) or name, node))
            case "ViewChild":
                given = arguments_of(decorator)
                if not given or given[0].type != "string":
                    raise NotAFile("class-member-unread", _shown(node), node.start)
                self.members.queries.append(Query(name, text_of(given[0]) or "", node))
            case "HostBinding":
                self.members.bound.append(HostBinding(_alias(decorator) or name, name, node))
                self._plain(node, name)
            case "HostListener":
                given = arguments_of(decorator)
                event = text_of(given[0]) if given else None
                values = (
                    [text_of(one) or "" for one in given[1].named_children] if given[1:] else []
                )
                if event is None:
                    raise NotAFile("class-member-unread", _shown(node), node.start)
                code = f"{name}({', '.join(values)})"
                self.members.listening.append(HostListener(event, code, node))
                self._plain(node, name)
            case _:
                raise NotAFile("class-member-unread", f"@{word}", node.start)

    def _input(self, node: Node, name: str, decorator: Node | None) -> None:
        made = Input(name, _alias(decorator) or name, node)
        given = arguments_of(decorator)
        if given and given[0].type == "object":
            required = property_of(given[0], "required")
            made.required = required is not None and required.text == "true"
            made.transform = property_of(given[0], "transform")
        if node.type == "method_definition":
            if not node.has("set"):
                raise NotAFile("class-member-unread", f"@Input() get {name}", node.start)
            made.setter = node
            parameter = node.child("parameters")
            first = parameter.named_children[0] if parameter is not None else None
            made.type = first.child("type") if first is not None else None
        else:
            made.default, made.type = node.child("value"), node.child("type")
        self.members.inputs.append(made)

    def _plain(self, node: Node, name: str) -> None:
        members = self.members
        if node.type == "method_definition":
            if name == "constructor":
                self._constructor(node)
            elif name in LEFT_HOOKS:
                members.left.append((name, node))
            elif name in HOOKS or name == "ngOnChanges":
                members.hooks[name] = node
            elif node.has("get"):
                body = node.child("body")
                assert body is not None
                members.derived.append(Derived(name, node, body))
            elif name.startswith("ng") and name[2:3].isupper():
                raise NotAFile("hook-unread", name, node.start)
            elif node.has("*"):
                raise NotAFile("class-member-unread", _shown(node), node.start)
            else:
                members.methods.append(node)
            return
        value = node.child("value")
        if value is not None and value.type == "call_expression":
            if self._made(node, name, value):
                return
        if value is not None and value.is_function:
            members.functions.append(node)
            return
        if value is not None and value.text.startswith("new EventEmitter"):
            raise NotAFile(
                "class-member-unread", f"{name}, an emitter that is no output", node.start
            )
        members.fields.append(Field(name, node, value, node.child("type")))

    def _made(self, node: Node, name: str, value: Node) -> bool:
        """A member that a function of the runtime makes."""
        callee = value.child("function")
        maker, _, more = (callee.text if callee is not None else "").partition(".")
        if maker not in _MAKERS or more not in ("", "required"):
            if maker in _UNREAD_MAKERS:
                raise NotAFile("class-member-unread", f"{name} = {maker}(…)", node.start)
            return False
        given = arguments_of(value)
        types = value.child("type_arguments")
        type_ = types.named_children[0] if types is not None and types.named_children else None
        members = self.members
        match maker:
            case "signal":
                first = given[0] if given else None
                members.fields.append(Field(name, node, first, type_, called=True))
            case "computed":
                if not given or not given[0].is_function:
                    raise NotAFile("class-member-unread", f"{name} = computed(…)", node.start)
                members.derived.append(Derived(name, node, given[0], called=True))
            case "input" | "model":
                members.inputs.append(_made_input(node, name, value, type_))
            case "output":
                public = _option_text(given[0], "alias") if given else None
                members.outputs.append(Output(name, public or name, node))
            case "inject":
                members.services[name] = (given[0].text if given else "", node)
            case "viewChild":
                reference = text_of(given[0]) if given else None
                if reference is None:
                    raise NotAFile("class-member-unread", f"{name} = viewChild(…)", node.start)
                members.queries.append(Query(name, reference, node, called=True))
        return True

    def _constructor(self, node: Node) -> None:
        parameters = node.child("parameters")
        for one in parameters.named_children if parameters is not None else ():
            pattern, type_ = one.child("pattern"), one.child("type")
            if pattern is None or type_ is None or one.has("decorator"):
                raise NotAFile("service-injected", one.text, one.start)
            token = type_.text.lstrip(": ").partition("<")[0]
            self.members.services[pattern.text] = (token, one)
        body = node.child("body")
        for statement in body.named_children if body is not None else ():
            if statement.text.rstrip(";") != "super()":
                self.members.starts.append(statement)

    def _host(self, one: Decorated) -> None:
        """Bindings and listeners that the decorator declares."""
        host = property_of(one.options, "host")
        for pair in host.named_children if host is not None and host.type == "object" else ():
            key, value = pair.child("key"), pair.child("value")
            code = text_of(value) if value is not None else None
            if key is None or code is None:
                raise NotAFile("class-member-unread", pair.text, pair.start)
            name = text_of(key) or key.text
            if name.startswith("("):
                self.members.listening.append(HostListener(name[1:-1], code, pair))
            elif name.startswith("["):
                self.members.bound.append(HostBinding(name[1:-1], code, pair))
            else:
                self.members.bound.append(HostBinding(f"={name}", code, pair))


def _made_input(node: Node, name: str, value: Node, type_: Node | None) -> Input:
    """An input that `input(…)`, `input.required(…)` or `model(…)` makes."""
    callee, given = value.child("function"), arguments_of(value)
    maker, _, more = (callee.text if callee is not None else "").partition(".")
    last = given[-1] if given and (more or given[1:]) else None
    options = last if last is not None and last.type == "object" else None
    made = Input(name, name, node, required=more == "required", type=type_, called=True)
    made.default = given[0] if given and not more else None
    made.two_way = maker == "model"
    if options is not None:
        made.public = _option_text(options, "alias") or name
        made.transform = property_of(options, "transform")
    return made


def _option_text(options: Node, name: str) -> str | None:
    """The text of an option; None where it has none."""
    value = property_of(options, name)
    return text_of(value) if value is not None else None


def _called(decorator: Node) -> str:
    call = decorator.named_children[0]
    callee = call.child("function") if call.type == "call_expression" else call
    return callee.text if callee is not None else ""


def _alias(decorator: Node | None) -> str | None:
    given = arguments_of(decorator)
    if not given:
        return None
    if given[0].type == "object":
        alias = property_of(given[0], "alias")
        return text_of(alias) if alias is not None else None
    return text_of(given[0])


def _shown(node: Node) -> str:
    return node.text.partition("\n")[0][:60]


def modifiers_end(node: Node) -> int:
    """Where a member begins behind its decorators and modifiers (`private`, `readonly`)."""
    for child in node.children:
        if child.type != "decorator" and child.type not in _WORDS:
            return child.start
    return node.start
