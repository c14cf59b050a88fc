"""How each operation of the neutral component reads in the flat form."""

from __future__ import annotations

from dataclasses import dataclass, field

from clean_carry.component.code import (
    Assign,
    AssignEach,
    Builtin,
    Code,
    Emit,
    FieldByName,
    FieldUse,
    Gone,
    Member,
    MethodCall,
    MethodValue,
    Operation,
    Read,
    Rebound,
    Respelled,
    StoreRead,
    Taken,
)
from clean_carry.component.errors import UnsettledEntry
from clean_carry.component.fragment import Fragment, between, dropped, new, settled
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.single_file_flat.names import FlatNames

# Members of an instance, and the function a script gets each by on version 3: (helper, function).
# On 2.7 that function gives a copy, which does not react to an attribute that is added later.
TAKEN = {"$attrs": ("attrs", "useAttrs"), "$slots": ("slots", "useSlots")}
# Members that are functions of the runtime by themselves.
CALLED = {"$nextTick": "nextTick", "$set": "set", "$delete": "del"}
# A watcher that is made while the instance is.
WATCH = "$watch()"


@dataclass
class Speller:
    """Writes operations. `imports` are functions of the framework, `takes` the helpers, `by_name`
    the state fields chosen at run time. `stores` are the stores by function (`by_function`: the
    application's too), `others` functions of other packages.

    `far` are inputs only the instance knows of: no type of the script has them.
    """

    names: FlatNames
    version: int
    source: SourceText
    end: str = ";"
    undeclared: bool = False
    far: frozenset[str] = frozenset()
    imports: dict[str, str] = field(default_factory=dict)
    takes: set[str] = field(default_factory=set)
    by_name: dict[str, None] = field(default_factory=dict)
    by_function: bool = False
    stores: dict[str, str] = field(default_factory=dict)
    others: dict[str, dict[str, str]] = field(default_factory=dict)

    def code(self, code: Code) -> Fragment:
        """Code with its operations spelled."""
        return between(code.span, code.operations, self.spell)

    def take(self, helper: str) -> str:
        """The local name of a helper, which is declared then."""
        self.takes.add(helper)
        return self.names.helper(helper)

    def run(self, function: str, package: str = "") -> str:
        """The local name of a function of the runtime, or of a package, which is imported then."""
        imports = self.others.setdefault(package, {}) if package else self.imports
        imports[function] = self.names.helper(function)
        return imports[function]

    def value(self, member: Member) -> str:
        """A member as an expression."""
        match member.kind:
            case "prop" if member.name in self.far:
                return f"{self.take('proxy')}.{member.name}"
            case "prop":
                return f"{self.take('props')}.{member.name}"
            case "state" | "derived":
                return f"{self.names.of(member)}.value"
            case "element":
                if member in self.names.members:
                    return f"{self.names.of(member)}.value"
                return f"{self.take('proxy')}.$refs.{member.name}"
            case "injected":
                name = self.names.of(member)
                return f"{self.run('unref')}({name})" if self.version >= 3 else name
        return self.names.of(member)

    def store(self, function: str) -> str:
        """A store as an expression: the application's, or what a function gives."""
        if function:
            name = function.removeprefix("use")
            self.stores[function] = self.names.helper(name[:1].lower() + name[1:])
            return self.stores[function]
        if self.version < 3:
            return f"{self.take('proxy')}.$store"
        self.stores["useStore"] = self.names.helper("store")
        return self.stores["useStore"]

    def built_in(self, name: str) -> str:
        """Something the runtime gives every instance, as an expression."""
        if name == "$emit":
            return self.take("emit")
        if name == "$props":
            return self.take("props")
        if name == "$store" and self.by_function:
            return self.store("")
        if name == WATCH:
            return self.run("watch")
        if name == "$useId" and self.version >= 3:
            return self.run("useId")
        if name in CALLED and (self.version < 3 or name == "$nextTick"):
            return self.run(CALLED[name])
        if name in TAKEN and self.version >= 3:
            helper, _ = TAKEN[name]
            return self.take(helper)
        whole = self.take("proxy")
        return whole if name == "$this" else f"{whole}.{name}"

    def spelled(self, operation: Operation) -> str:
        """The text an operation begins with; empty where it is not text."""
        match operation:
            case Read(member=member) | Assign(member=member) | FieldUse(member=member):
                return self.value(member)
            case MethodCall(member=member) | MethodValue(member=member):
                return self.names.of(member)
            case Emit():
                return self.built_in("$emit")
            case FieldByName(names=names):
                self.by_name.update(dict.fromkeys(names))
                return self.names.helper("fields")
            case Builtin(name=name):
                return self.built_in(name)
            case StoreRead(store=store, path=path, shorthand=shorthand):
                return f"{shorthand}{self.store(store)}{path}"
            case Rebound(member=member):
                return f"(...args) => {self.names.of(member)}(...args)"
        return ""

    def spell(self, operation: Operation) -> Fragment:
        """The fragment that stands in the place of an operation."""
        text = self.spelled(operation)
        match operation:
            case Read():
                return new(operation.shorthand + text, operation.entry, "read-by-name")
            case Assign():
                result = new(text, operation.entry, "write-by-name")
                inner = operation.value.operations if operation.value is not None else ()
                rest = operation.span._replace(start=operation.target.end)
                if operation.target.start > operation.span.start:
                    head = operation.span._replace(end=operation.target.start)
                    result = between(head, (), self.spell) + result
                return result + between(rest, inner, self.spell)
            case Emit():
                result = new(text, operation.entry, "event-by-name")
                inner = tuple(o for code in operation.arguments for o in code.operations)
                rest = operation.span._replace(start=operation.callee.end)
                return result + between(rest, inner, self.spell)
            case Taken():
                return self._taken(operation)
            case AssignEach():
                return self._each(operation)
            case FieldByName():
                opening = new(f"{text}[", operation.entry, "member-by-name")
                key = between(operation.key.span, operation.key.operations, self.spell)
                return opening + key + new("].value")
            case MethodCall() | MethodValue() | FieldUse() | Builtin() | Rebound() | StoreRead():
                return new(text, operation.entry, "member-by-name")
            case Respelled(text=written, rule=rule):
                return new(written, operation.entry, rule)
            case Gone(rule=rule):
                return dropped(operation.entry, rule)
        raise UnsettledEntry(f"{type(operation).__name__} has no spelling", operation.span.start)

    def _each(self, operation: AssignEach) -> Fragment:
        """A statement for each field, on lines of their own."""
        result = settled(operation.entry, "write-by-name")
        start = operation.span.start
        line = self.source.data[:start].rpartition(b"\n")[2].decode()
        line = line[: len(line) - len(line.lstrip())]
        for number, (member, value) in enumerate(operation.fields):
            between_them = f"{self.end}\n{line}" if number else ""
            result += new(f"{between_them}{self.value(member)} = ")
            if operation.again:
                result += new(self._again(value))
            else:
                result += between(value.span, value.operations, self.spell)
        return result

    def _again(self, code: Code) -> str:
        """Text that stands elsewhere too, as it is written there."""
        texts = {o.span: self._piece(o) for o in code.operations}
        for span, (text, _, _) in self.names.edits.texts.items():
            if code.span.start <= span.start and span.end <= code.span.end:
                texts[span] = text
        result, here = "", code.span.start
        for span in sorted(texts, key=lambda span: span.start):
            result += self.source.slice(here, span.start) + texts[span]
            here = span.end
        return result + self.source.slice(here, code.span.end)

    def _piece(self, operation: Operation) -> str:
        short = operation.shorthand if isinstance(operation, Read) else ""
        return short + self.spelled(operation)

    def _taken(self, operation: Taken) -> Fragment:
        """A pattern over the instance as a declaration for each of its names."""
        result = settled(operation.entry, "members-by-name")
        for number, (inner, local, span) in enumerate(operation.members):
            name, entry, _ = self.names.edits.texts.get(span, (local, -1, ""))
            name = name.rpartition(": ")[2]
            text = f"{', ' if number else ''}{name} = {self.spelled(inner)}"
            result += new(text, inner.entry, "read-by-name")
            if entry >= 0:
                result += settled(entry, "renamed-apart")
        return result


def root_of(text: str) -> str:
    """The name an expression begins with."""
    return text.partition("(")[0].partition(".")[0]
