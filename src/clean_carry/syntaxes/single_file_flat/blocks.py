"""The blocks of the new single file: which scripts it has, and what stands in each.

Code of the module runs once; the statements of the component run for every instance. So a module that
holds more than imports keeps a script of its own, and the older runtime also needs one for the options
that have no function.
"""

from __future__ import annotations

from dataclasses import dataclass

from clean_carry.component.fragment import Fragment, copy, new
from clean_carry.component.members import KeptOption
from clean_carry.component.model import Component
from clean_carry.source.javascript import comments
from clean_carry.source.javascript.scope import Names, is_write
from clean_carry.source.javascript.tree import Node
from clean_carry.source.javascript.values import last_name, runs_code
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.naming import Edits
from clean_carry.syntaxes.single_file.file import SingleFile
from clean_carry.syntaxes.single_file.runtime_import import RUNTIME, RuntimeImport
from clean_carry.syntaxes.single_file_flat.write import FlatWriter


@dataclass
class Blocks:
    """Puts the written statements into their file."""

    file: SingleFile
    source: SourceText
    quote: str
    semicolon: str
    version: int
    edits: Edits

    def __post_init__(self) -> None:
        self.runtime = RuntimeImport(self.file, self.source)

    @property
    def _imports(self) -> list[Node]:
        return [n for n in self.file.tree.root.named_children if n.type == "import_statement"]

    def _own_module(self, component: Component) -> bool:
        """Whether the module does more than import, export the component, and name functions and words.

        Names used by declared props and remaining options must exist before there is an instance.
        """
        own = (self.file.exported.statement, self.file.exported.export)
        statements = [
            node
            for node in self.file.tree.root.named_children
            if node.type != "import_statement" and node not in own
        ]
        if not all(map(is_harmless, statements)):
            return True
        declared = list(component.foreign.option_values.values())
        declared += [part.span for part in component.members if isinstance(part, KeptOption)]
        named = [b for b in self.file.names.module.names.values() if b.kind != "import"]
        places = [ref.start for binding in named for ref in binding.references]
        return any(span.start <= at < span.end for span in declared for at in places)

    def _asks_module(self, component: Component) -> bool:
        """Whether an option that stays names something of the module."""
        spans = [part.span for part in component.members if isinstance(part, KeptOption)]
        bindings = self.file.names.module.names.values()
        places = [ref.start for binding in bindings for ref in binding.references]
        return any(span.start <= at < span.end for span in spans for at in places)

    def assembled(self, component: Component, written: Fragment, writer: FlatWriter) -> Fragment:
        """The whole file."""
        kept = writer.kept_options() if self.version < 3 else []
        beside = self._own_module(component) or bool(writer.module_lines)
        if beside or (kept and self._asks_module(component)):
            return self._beside(component, written, writer, kept)
        result = self._before()
        if kept:
            result += self._options_script(kept, writer)
        return result + self._setup(component, written, writer)

    def _before(self) -> Fragment:
        return copy(self.source.span(0, self.file.block.start))

    def _tag(self, attribute: str) -> Fragment:
        """The opening tag of a script with the attributes of the old one."""
        script = self.file.block
        text = self.source.slice(script.start + len("<script"), script.inner[0])
        return new(f"<script{attribute}{text}")

    def _options_script(self, kept: list[Fragment], writer: FlatWriter) -> Fragment:
        result = self._tag("") + new(f"{writer.line}export default ") + writer.braced(kept)
        return result + new(f"{self.semicolon}\n</script>\n\n")

    def _added(self, writer: FlatWriter) -> list[str]:
        """Return the names to import from the framework in addition."""
        known = self.runtime.names()
        return sorted(
            name if name == local else f"{name} as {local}"
            for name, local in writer.speller.imports.items()
            if known.get(name) != local
        )

    def _import_line(self, names: list[str], writer: FlatWriter, package: str = RUNTIME) -> str:
        q = self.quote
        return writer.listed(names, "import {", f"}} from {q}{package}{q}{self.semicolon}", " ")

    def _other_imports(self, writer: FlatWriter) -> list[str]:
        """Return the names to import from other packages in addition."""
        return [
            self._import_line(
                sorted(n if n == local else f"{n} as {local}" for n, local in names.items()),
                writer,
                package,
            )
            for package, names in writer.speller.others.items()
        ]

    def _setup(self, component: Component, written: Fragment, writer: FlatWriter) -> Fragment:
        """One script: the imports of the old one, then the statements."""
        source, script = self.source, self.file.block
        tag_end, inner = script.start + len("<script"), script.inner[0]
        result = copy(source.span(script.start, tag_end)) + new(" setup")
        result += copy(source.span(tag_end, inner))
        at = inner
        added = self._added(writer)
        edit = self.runtime.edit(added)
        if edit is not None:
            self.edits.add(*edit, "runtime-import")
        lines = [self._import_line(added, writer)] if added and edit is None else []
        lines += self._other_imports(writer)
        if lines:
            line = f"\n{writer.base}".join(lines)
            if source.data[inner : inner + 1] == b"\n":
                at = inner + 1
                result += copy(source.span(inner, at))
            # Without imports of its own a blank line sets it off.
            blank = not self._imports and source.data[at : at + 1] != b"\n"
            result += new(f"{writer.base}{line}\n" + "\n" * blank)
        end = component.span.end
        if source.data[end : end + 1] == b";":
            end += 1
        before = source.data[at : component.span.start]
        nothing = not any(piece.text or piece.span for piece in written.pieces)
        # Without a statement there is no indentation to put one at.
        stop = at if nothing and not before.strip() else component.span.start
        if stop > at or source.data[inner : inner + 1] != b"\n":
            result += copy(source.span(at, component.span.start))
        result += written
        return result + self._without_export(end, len(source.data))

    def _without_export(self, start: int, end: int) -> Fragment:
        """Text copied, but for the statement that exports the component by its name."""
        export = self.file.exported.export
        if export is None:
            return copy(self.source.span(start, end))
        line = self.source.statement_line(export.start, export.end)
        before = self.source.data[start : line.start].rstrip()
        return copy(self.source.span(start, start + len(before))) + copy(
            self.source.span(line.end - 1, end)
        )

    def _type_import(self, writer: FlatWriter) -> Fragment:
        """The component's own type, for the types of its module that ask for it."""
        exported = self.file.exported
        name = self.source.path.replace("\\", "/").rsplit("/", 1)[-1]
        q = self.quote
        line = f"import type {exported.name} from {q}./{name}{q}{self.semicolon}"
        return new(f"{writer.line}{line}")

    def _beside(
        self, component: Component, written: Fragment, writer: FlatWriter, kept: list[Fragment]
    ) -> Fragment:
        """The module in its script, the component in one of its own after it."""
        source, script = self.source, self.file.block
        start, end = component.span.start, component.span.end
        if source.data[end : end + 1] == b";":
            end += 1
        notes = Fragment()
        said = comments.leading(self.file.tree, self.file.exported.statement) if not kept else []
        if said:
            # Comments about the component move with the component.
            start = said[0].start
            notes = copy(source.span(start, said[-1].end)) + new(writer.line)
        head = copy(source.span(script.start, start))
        if self.file.exported.typed and self._imports:
            last = self._imports[-1].end
            while source.data[last : last + 1] == b";":
                last += 1
            head = copy(source.span(script.start, last)) + self._type_import(writer)
            head += copy(source.span(last, start))
        if kept:
            for line in writer.module_lines:
                head += new(f"{line}\n\n")
            head += new("export default ") + writer.braced(kept) + new(self.semicolon)
        after = self._without_export(end, script.inner[1])
        if not kept:
            head = _stripped(head, source)
            for line in writer.module_lines:
                head += new(f"\n\n{line}")
        rest = "".join(source.slice(p.span.start, p.span.end) for p in after.pieces if p.span)
        head += after if rest.strip() else new("\n")
        added = self._added(writer)
        edit = self.runtime.edit([])
        if edit is not None:
            self.edits.add(*edit, "runtime-import")
        setup = self._tag(" setup") + new("\n")
        lines = [self._import_line(added, writer)] if added else []
        lines += self._other_imports(writer)
        if lines:
            setup += new("".join(f"{writer.base}{line}\n" for line in lines) + "\n")
        setup += new(writer.base) + notes + written + new("\n</script>")
        closing = source.span(script.inner[1], script.end)
        return (
            self._before()
            + head
            + copy(closing)
            + new("\n\n")
            + setup
            + copy(source.span(script.end, len(source.data)))
        )


_WORDS = ("string", "number", "true", "false", "null")
_TYPES = ("type_alias_declaration", "interface_declaration", "empty_statement")


def is_harmless(statement: Node) -> bool:
    """Whether a statement may run for every instance: it makes functions or words, and nothing else."""
    if statement.type in ("function_declaration", *_TYPES):
        return True
    if statement.type != "lexical_declaration" or not statement.has("const"):
        return False
    values = [declarator.child("value") for declarator in statement.named_children]
    return all(v is not None and (v.is_function or v.type in _WORDS) for v in values)


def is_constant_table(statement: Node, names: Names) -> bool:
    """Whether a statement names values that nothing is put into: a table, or a sum of numbers."""
    if statement.type != "lexical_declaration" or not statement.has("const"):
        return False
    for declarator in statement.named_children:
        name, value = declarator.child("name"), declarator.child("value")
        if name is None or value is None or name.type != "identifier" or runs_code(value):
            return False
        binding = names.module.names.get(name.text)
        for ref in binding.references if binding is not None else ():
            above = ref.parent
            asked = above is not None and above.type in (
                "member_expression",
                "subscript_expression",
            )
            plain = value.type in ("binary_expression", "unary_expression", "template_string")
            if not plain and (not asked or ref.field != "object" or is_write(above)):  # type: ignore[arg-type]
                return False
            called = asked and above is not None and above.field == "function"
            if not plain and called and last_name(above) in _CHANGING:
                return False
    return True


# Methods that change the list they are called on (ECMA-262 §23.1.3).
_CHANGING = frozenset("push pop shift unshift splice sort reverse fill copyWithin".split())


def _stripped(fragment: Fragment, source: SourceText) -> Fragment:
    """A fragment without the white space it ends with."""
    *rest, last = fragment.pieces
    if last.span is None:
        return fragment
    text = source.data[last.span.start : last.span.end].rstrip()
    return Fragment(rest) + copy(last.span._replace(end=last.span.start + len(text)))
