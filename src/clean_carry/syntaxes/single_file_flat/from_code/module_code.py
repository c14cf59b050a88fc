"""The code of a module around the class that becomes a single file."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from clean_carry.component.fragment import Fragment, copy, new, settled
from clean_carry.component.ledger import Ledger
from clean_carry.component.model import Component
from clean_carry.source.javascript.tree import Node
from clean_carry.syntaxes.contract import ScriptFile
from clean_carry.syntaxes.single_file_flat.blocks import is_constant_table, is_harmless
from clean_carry.syntaxes.unsaid import Unsaid


@dataclass(frozen=True)
class Cut:
    """A stretch of the script that is not copied: its notion, and the rule by which it goes."""

    start: int
    end: int
    notion: str
    rule: str


@dataclass
class ModuleCode:
    """The module code of one component's file; its methods raise `Unsaid`.

    `children` gives by tag the statement that imports a child and its new import, `parts` by the start of a
    statement the only component that needs it. The `main` file takes the code that no component needs
    alone. `found_elements` are the offsets of calls that ask the runtime for an element.
    """

    file: ScriptFile
    ledger: Ledger
    component: Component
    children: Mapping[str, tuple[Node, str]]
    found_elements: frozenset[int]
    main: bool
    parts: Mapping[int, Component]

    def __post_init__(self) -> None:
        self.source = self.file.source

    def cuts(self) -> list[Cut]:
        """Return the stretches of the script that are not copied, in their order."""
        component, tree = self.component, self.file.tree
        found: list[Cut] = []
        for node in tree.root.children:
            line = self.source.statement_line(node.start, node.end)
            inside = node.start <= component.span.start < node.end
            if inside:
                found.append(Cut(node.start, node.end, "class-statement", "class-to-file"))
            elif self.elsewhere(node) or (node.type == "comment" and self._heads_other(node)):
                found.append(Cut(line.start, line.end, "", ""))
            elif node.type == "import_statement" and package_of(node) in self.file.serving:
                self._check_names(node, component)
                found.append(Cut(line.start, line.end, "runtime-import", "runtime-import"))
            elif any(node is statement for statement, _ in self.children.values()):
                found.append(Cut(node.start, node.end, "child-import", "child-import"))
            elif self._exports_it(node):
                found.append(Cut(line.start, line.end, "default-export", "class-to-file"))
            elif any(node.start <= span.start < node.end for span, _, _ in component.place.moved):
                found.append(Cut(line.start, line.end, "", ""))
            elif self._is_declared_types(node) or self._only_checked(node):
                found.append(Cut(line.start, line.end, "checked-types", "declared-inputs"))
            elif node.type != "comment":
                self._check_module(node)
        return found

    def elsewhere(self, node: Node) -> bool:
        """Return whether a statement goes to the file of another component of the script."""
        owner = self.parts.get(node.start)
        if owner is not None:
            return owner is not self.component
        for other in self.file.components:
            if other is not self.component and node.start <= other.span.start < node.end:
                return True
        return not self.main and node.type != "comment"

    def _heads_other(self, comment: Node) -> bool:
        """Whether a comment stands above what goes into another file."""
        after = [n for n in self.file.tree.root.named_children if n.start > comment.start]
        return bool(after) and self.elsewhere(after[0])

    def _check_names(self, statement: Node, component: Component) -> None:
        """A name of the old runtime that code still uses has no meaning here."""
        binds = self.file.names.module.names
        for part in statement.walk():
            binding = binds.get(part.text) if part.type == "identifier" else None
            for ref in binding.references if binding is not None else ():
                if self._goes(ref):
                    continue
                raise Unsaid(
                    "old-runtime-used", ref.parent.text[:40] if ref.parent else ref.text, ref.start
                )

    def _goes(self, ref: Node) -> bool:
        """Whether a reference to the old runtime stands in what is written anew or goes."""
        if any(ref.start in one.facts.carried_names for one in self.file.components):
            return True
        for above in ref.up():
            if above.type in ("extends_clause", "class_heritage", "nested_type_identifier"):
                return True
            if above.type in ("jsx_opening_element", "jsx_closing_element", "import_statement"):
                return True
            if above.type == "call_expression" and above.text.rpartition("(")[0].endswith(
                "createRef"
            ):
                return True
            if above.type == "call_expression" and is_portal_call(above):
                return True
            if above.type == "public_field_definition":
                name = above.child("name")
                value = above.child("value")
                if name is not None and name.text in ("propTypes",):
                    return True
                if value is not None and ("createRef" in value.text[:40]):
                    return True
            if above.type == "assignment_expression":
                left = above.child("left")
                if left is not None and left.text.endswith(".propTypes"):
                    return True
                right = above.child("right")
                if right is not None and "createRef" in right.text[:40]:
                    return True
            if above.type == "call_expression" and above.start in self.found_elements:
                return True
            if above.type == "lexical_declaration" and self._only_checked(above):
                return True
        return ref.type == "type_identifier"

    def _exports_it(self, node: Node) -> bool:
        """Whether a statement only exports the component, or exports it by default among others."""
        if node.type != "export_statement":
            return False
        value = node.child("value")
        if value is not None:
            return value.type == "identifier" and value.text == self.component.name
        names = [p.text for p in node.walk() if p.type == "export_specifier"]
        return names == [self.component.name]

    def _is_declared_types(self, node: Node) -> bool:
        if node.type != "expression_statement":
            return False
        left = node.named_children[0].child("left")
        own = self.component.name
        return left is not None and left.text in (f"{own}.propTypes", f"{own}.displayName")

    def _only_checked(self, node: Node) -> bool:
        """Whether a statement names the checked types of the inputs and nothing else uses that name."""
        parts = [part for part in node.named_children if part.type == "variable_declarator"]
        if node.type != "lexical_declaration" or len(parts) != 1:
            return False
        binding = self.file.names.module.names.get(parts[0].children[0].text)
        if binding is None or binding.written or not binding.references:
            return False
        for ref in binding.references:
            above = ref.parent
            target = above.child("left") or above.child("name") if above is not None else None
            if target is None or target.text.rpartition(".")[2] != "propTypes" or ref is target:
                return False
        return True

    def _check_module(self, node: Node) -> None:
        """Refuse module code that renders, or that uses the class."""
        for below in node.walk():
            if below.type.startswith("jsx_"):
                raise Unsaid("module-draws", below.text[:40], below.start)
        binding = self.file.names.module.names.get(self.component.name)
        for ref in binding.references if binding is not None else ():
            if node.start <= ref.start < node.end:
                raise Unsaid("module-uses-it", node.text[:40], ref.start)

    def around(self, cuts: list[Cut]) -> tuple[Fragment, Fragment]:
        """Return the copied code of the module before the class, and behind it."""
        before, after = Fragment(), Fragment()
        here, passed = 0, False
        for cut in sorted(cuts, key=lambda one: one.start):
            part = self._copied(here, cut.start)
            if cut.notion == "said":
                pass
            elif cut.notion and cut.notion != "class-statement":
                entry = self.ledger.claim(cut.notion, self.source.span(cut.start, cut.end))
                part += settled(entry, cut.rule)
                for statement, text in self.children.values():
                    if statement.start == cut.start:
                        part += new(f"{text}\n")
            elif cut.notion:
                self._claim_around(cut)
            if passed:
                after += part
            else:
                before += part
            passed = passed or cut.notion == "class-statement"
            here = cut.end
        rest = self._copied(here, len(self.source.data))
        return (before, after + rest) if passed else (before + rest, after)

    def _claim_around(self, cut: Cut) -> None:
        """Claim the code around the class in its statement: its export."""
        for start, end in (
            (cut.start, self.component.span.start),
            (self.component.span.end, cut.end),
        ):
            if self.source.data[start:end].strip():
                entry = self.ledger.claim("export", self.source.span(start, end))
                self.ledger.settle(entry, "carried", "class-to-file")

    def _copied(self, start: int, end: int) -> Fragment:
        data = self.source.data
        if not data[start:end].strip(b" \t\r\n;"):
            return Fragment()
        while data[start:end].endswith(b"\n\n"):
            end -= 1
        while data[start : start + 1] in (b"\n", b";", b"\r"):
            start += 1
        return copy(self.source.span(start, end))

    def own_module(self) -> bool:
        """Return whether the module code needs a plain `<script>` beside `<script setup>`.

        It does if it exports, has side effects, or if a prop's default uses one of its names.
        """
        component = self.component
        if component.statics:
            return True
        for node in self.file.tree.root.named_children:
            if node.type == "import_statement" or node.start <= component.span.start < node.end:
                continue
            if self.elsewhere(node):
                continue
            if self._exports_it(node) or self._is_declared_types(node) or self._only_checked(node):
                continue
            if any(node.start <= span.start < node.end for span, _, _ in component.place.moved):
                continue
            if node.type == "export_statement":
                return True
            if not is_harmless(node) and not is_constant_table(node, self.file.names):
                return True
        names = component.facts.module_names
        for prop in component.inputs.props:
            default = prop.default
            if default is None:
                continue
            low, high, _ = default.code.span
            for name in names:
                binding = self.file.names.module.names.get(name)
                if binding is not None and binding.kind != "import":
                    if default.text.startswith(name) or any(
                        low <= ref.start < high for ref in binding.references
                    ):
                        return True
        return False


def is_portal_call(call: Node) -> bool:
    """Return whether a call renders a portal; the template writes it as an element."""
    callee = call.child("function")
    return callee is not None and callee.text.rpartition(".")[2] == "createPortal"


def package_of(statement: Node) -> str:
    """Return the module specifier of an import statement."""
    source = statement.child("source")
    return source.text[1:-1] if source is not None else ""
