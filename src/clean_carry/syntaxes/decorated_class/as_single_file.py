"""A decorated class as the single file that says the same: a template, an object of options, its styles."""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import dataclass, field

from clean_carry.component.errors import InputError
from clean_carry.component.spans import Place
from clean_carry.source.javascript.scope import Names
from clean_carry.source.javascript.script_style import ScriptStyle, script_style
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.merged import Edit, MergedText
from clean_carry.source.text import SourceText
from clean_carry.source.workspace import Workspace
from clean_carry.syntaxes.decorated_class.as_imports import RUNTIME, import_edits
from clean_carry.syntaxes.decorated_class.as_object import ObjectWriter
from clean_carry.syntaxes.decorated_class.as_template import TemplateWriter
from clean_carry.syntaxes.decorated_class.attributes import joined, quoted
from clean_carry.syntaxes.decorated_class.children import Child, children_of
from clean_carry.syntaxes.decorated_class.code import Respelled
from clean_carry.syntaxes.decorated_class.markup_of import (
    TemplateText,
    element_names,
    read_references,
    template_of,
    written_names,
)
from clean_carry.syntaxes.decorated_class.members import Members, read_members
from clean_carry.syntaxes.decorated_class.naming import KNOWN_SERVICES, naming_of
from clean_carry.syntaxes.decorated_class.pipes import HELPERS, Helper
from clean_carry.syntaxes.decorated_class.recognise import (
    Decorated,
    decorated_in,
    property_of,
    text_of,
)
from clean_carry.syntaxes.piped_expressions import Spelling, Unread, respelled
from clean_carry.syntaxes.single_file.pieces import trimmed
from clean_carry.syntaxes.single_file.stands_for import NotAFile

_SCRIPT = '<script lang="ts">\n'
_DIGITS = re.compile(r"'(?:\d+\.\d+-\d+)'$")


def as_single_file(source: SourceText, workspace: Workspace) -> MergedText:
    """The single file that says the same as the one component of a script. Raises `NotAFile`."""
    tree = Tree(source)
    found = decorated_in(tree)
    if len(found) != 1:
        raise NotAFile("several-registered", str(len(found)), found[1].node.start if found else 0)
    return _File(source, tree, found[0], workspace).merged()


@dataclass
class _File:
    source: SourceText
    tree: Tree
    one: Decorated
    workspace: Workspace
    left: list[tuple[str, str, int]] = field(default_factory=list)
    children: dict[str, Child] = field(default_factory=dict)
    # Methods that the template names to tell items apart.
    tracked: set[str] = field(default_factory=set)

    def merged(self) -> MergedText:
        """The new text, with the places that its parts come from."""
        self._plain_class()
        members = read_members(self.one)
        for token, node in members.services.values():
            if token not in KNOWN_SERVICES:
                raise NotAFile("service-injected", token, node.start)
        self.left += [("hook-left", name, node.start) for name, node in members.left]
        markup = template_of(self.one, self.source, self.workspace.file)
        try:
            written = set(written_names(markup))
            references = set(read_references(markup))
        except InputError as error:
            raise NotAFile("template-unread", str(error), self.one.options.start) from None
        self.children = children_of(self.one, self.tree, self.workspace, markup)
        self.naming = naming_of(self.one, members, self.tree, written)
        code = Respelled(self.tree, members, self.naming, self.one.node)
        self.helpers: list[Helper] = []
        template = self._template(markup, members, references)
        outside = self._outside(members)
        self._without_tracks(members, template)
        name = self.one.name.removesuffix("Component") or self.one.name
        style = script_style(self.tree, self.workspace.file)
        writer = ObjectWriter(
            self.tree, members, self.naming, code, style, name, self.helpers, outside
        )
        pieces = writer.pieces()
        made = MergedText(
            self.source,
            [
                *self._head(template, style),
                *import_edits(
                    self.one,
                    self.tree,
                    style,
                    self.children.values(),
                    self.workspace,
                    prop_type=writer.needs_prop_type,
                ),
                *self._object(pieces, style, name),
                *self._tail(),
            ],
        )
        self._without_runtime(made)
        made.noted += [(rule, detail, made.moved(at)) for rule, detail, at in self.left]
        return made

    def _without_runtime(self, made: MergedText) -> None:
        """Raises `NotAFile` where code still uses what the runtime gave."""
        text = made.slice(0, len(made.data))
        start = text.index(_SCRIPT) + len(_SCRIPT)
        script = SourceText(self.source.path, text[start : text.rindex("</script>")].encode())
        tree = Tree(script)
        used = {*Names(tree).free, *(node.text for node in tree.of("type_identifier"))}
        tree.release()
        for statement in self.tree.of("import_statement"):
            request = statement.child("source")
            if request is None or not RUNTIME.match(request.text[1:-1]):
                continue
            for name in statement.walk():
                if name.type == "identifier" and name.text in used:
                    seen = (one for one in self.tree.of("identifier", "type_identifier"))
                    at = [
                        one for one in seen if one.text == name.text and one.start > statement.end
                    ]
                    raise NotAFile("old-runtime-used", name.text, (at or [name])[-1].start)

    def _plain_class(self) -> None:
        heritage = next((c for c in self.one.node.children if c.type == "class_heritage"), None)
        if heritage is not None and heritage.has("extends_clause"):
            raise NotAFile("class-inherits", heritage.text[:60], heritage.start)
        for child in self.one.node.children + self.one.statement.children:
            if child.type == "decorator" and "Component(" not in child.text[:12]:
                raise NotAFile("class-member-unread", child.text[:40], child.start)
        for option in self.one.options.named_children:
            key = option.child("key")
            name = key.text if key is not None else option.text
            if name not in _OPTIONS:
                raise NotAFile("option-unread", name, option.start)
        mode = property_of(self.one.options, "encapsulation")
        if mode is not None and mode.text.endswith("ShadowDom"):
            raise NotAFile("option-unread", mode.text, mode.start)

    # -- the template --------------------------------------------------------------------

    def _template(
        self, markup: TemplateText, members: Members, references: set[str]
    ) -> list[tuple[str, Place]]:
        naming = self.naming
        called = {name: naming.name(name) for name in naming.called}
        names = {old: new for old, new in naming.members.items() if " " not in old}
        emits = {name: f"$emit('{event}'" for name, event in naming.outputs.items()}
        spelling = Spelling(names, called, emits, self._pipe, elements=element_names(markup))
        self.spelling = spelling
        text = markup.source.slice(markup.start, markup.end)
        self.tracked = set(re.findall(r"trackBy:\s*(?:this\.)?([\w$]+)", text))
        needed = references | set(naming.queries.values())
        writer = TemplateWriter(
            markup.source, spelling, self._forms, needed, tracks_of(members), self.children
        )
        try:
            writer.write(markup.start, markup.end)
        except Unread as reason:
            at = reason.at
            place = markup.place(at)
            where = "" if markup.inside else f" ({place.file}:{place.line})"
            raise NotAFile(
                "template-unread",
                reason.what + where,
                at if markup.inside else self.one.options.start,
            ) from None
        except InputError as error:
            raise NotAFile("template-unread", str(error), self.one.options.start) from None
        for rule, detail, at in writer.notes:
            self.left.append((rule, detail, at if markup.inside else self.one.options.start))
        pieces = [(text, markup.place(at)) for text, at in writer.pieces]
        return self._wrapped(_moved(pieces), members)

    def _without_tracks(self, members: Members, template: list[tuple[str, Place]]) -> None:
        """Leave out methods that only gave keys, where nothing calls them."""
        text = "".join(one for one, _ in template)
        code = self.one.node.text
        for name in tracks_of(members):
            if name not in self.tracked:
                continue
            called = len(re.findall(rf"\b{re.escape(name)}\b", code)) - code.count(
                f"trackBy: {name}"
            )
            if not re.search(rf"\b{re.escape(name)}\b", text) and called <= 1:
                members.methods = [one for one in members.methods if _name_of(one) != name]

    @property
    def _forms(self) -> bool:
        imports = property_of(self.one.options, "imports")
        return imports is not None and re.search(r"\bFormsModule\b", imports.text) is not None

    def _pipe(self, name: str, value: str, given: list[str]) -> str:
        if name == "slice":
            inner = value if re.fullmatch(r"[\w$.]+(?:\(\))?", value) else f"({value})"
            return f"{inner}?.slice({', '.join(given)})"
        helper = HELPERS.get(name)
        if helper is None or len(given) > helper.most:
            raise Unread(f"the pipe {name}")
        if name in ("number", "percent") and given and not _DIGITS.match(given[0]):
            raise Unread(f"the pipe {name} with these digits")
        if helper not in self.helpers:
            if helper.name in self.naming.taken:
                raise Unread(f"the pipe {name}, whose function would be called {helper.name}")
            self.helpers.append(helper)
        return f"{helper.name}({', '.join([value, *given])})"

    # -- the element itself --------------------------------------------------------------

    def _wrapped(
        self, pieces: list[tuple[str, Place]], members: Members
    ) -> list[tuple[str, Place]]:
        """The template within an element for the component's own, where that has bindings or styles."""
        styled = any(":host" in text for text, _, _ in self._styles())
        if not members.bound and not members.listening and not styled:
            return pieces
        tag = self.one.selector
        if not re.fullmatch(r"[a-z][\w-]*", tag):
            raise NotAFile("option-unread", f"the selector {tag}", self.one.options.start)
        classes, styles, others = [tag], list[str](), list[str]()
        bound: list[str] = []
        for one in members.bound:
            try:
                code = (
                    respelled(one.code, self.spelling)
                    if not one.target.startswith("=")
                    else one.code
                )
                kind, _, part = one.target.partition(".")
                if one.target == "=class":
                    classes.append(code)
                elif one.target.startswith("="):
                    others.append(f'{one.target[1:]}="{code}"')
                elif one.target in ("class", "className"):
                    bound.append(code)
                elif kind == "class":
                    bound.append(
                        f"{{ '{part}': {code} }}"
                        if not part.isidentifier()
                        else f"{{ {part}: {code} }}"
                    )
                elif kind == "attr":
                    others.append(f':{part}="{quoted(code)}"')
                elif kind == "style" and part and "." not in part:
                    styles.append(f"{{ '{part}': {code} }}")
                elif kind in ("id", "title", "hidden", "tabindex", "role"):
                    others.append(f':{kind}="{quoted(code)}"')
                else:
                    raise Unread(one.target)
            except Unread as reason:
                raise NotAFile(
                    "class-member-unread", f"the host's {reason.what}", one.node.start
                ) from None
        for listener in members.listening:
            _, colon, event = listener.event.rpartition(":")
            if colon:
                continue
            name, _, keys = event.partition(".")
            code = respelled(listener.code, self.spelling)
            if keys:
                raise NotAFile("class-member-unread", f"({listener.event})", listener.node.start)
            others.append(f'@{name}="{quoted(code)}"')
        text = f'<div class="{" ".join(classes)}"'
        text += f' :class="{quoted(joined(bound))}"' if bound else ""
        text += f' :style="{quoted(joined(styles))}"' if styles else ""
        text += "".join(f" {one}" for one in others) + ">"
        place = self.source.place(self.one.options.start)
        inner = _indented(pieces)
        return [(text, place), ("\n  ", place), *inner, ("\n", place), ("</div>", place)]

    def _outside(self, members: Members) -> list[tuple[str, str, str]]:
        found = []
        for one in members.listening:
            target, colon, event = one.event.rpartition(":")
            if not colon:
                continue
            if target not in ("window", "document"):
                raise NotAFile("class-member-unread", f"({one.event})", one.node.start)
            keys = event.split(".")[1:]
            if len(keys) > 1:
                raise NotAFile("class-member-unread", f"({one.event})", one.node.start)
            name, _, given = one.code.partition("(")
            inner = given.rstrip(")").replace("$event", "event")
            found.append((target, event, f"this.{name}({inner})"))
        return found

    # -- the file ------------------------------------------------------------------------

    def _head(self, template: list[tuple[str, Place]], style: ScriptStyle) -> Iterator[Edit]:
        yield Edit(0, 0, "<template>\n  ", self.source.place(0))
        for text, place in _indented(template):
            yield Edit(0, 0, text, place)
        yield Edit(0, 0, f"\n</template>\n\n{_SCRIPT}", self.source.place(0))

    def _object(
        self, pieces: list[tuple[str, int]], style: ScriptStyle, name: str
    ) -> Iterator[Edit]:
        start = min(self.one.statement.start, *(c.start for c in self.one.statement.children))
        end = max(self.one.statement.end, self.one.node.end)
        yield Edit(
            start,
            start,
            f"export default {{\n{style.unit}name: '{name}',\n{self._registered(style)}",
            self.source.place(start),
        )
        for text, at in pieces:
            yield Edit(start, start, text, self.source.place(at or start))
        yield Edit(start, end, f"}}{style.semicolon}", self.source.place(start))

    def _registered(self, style: ScriptStyle) -> str:
        names = sorted(one.name for one in self.children.values())
        return f"{style.unit}components: {{ {', '.join(names)} }},\n" if names else ""

    def _tail(self) -> Iterator[Edit]:
        end = len(self.source.data)
        last = "" if self.source.data.endswith(b"\n") else "\n"
        yield Edit(end, end, f"{last}</script>\n", self.source.place(end - 1))
        for text, lang, at in self._styles():
            mode = property_of(self.one.options, "encapsulation")
            scoped = "" if mode is not None and mode.text.endswith("None") else " scoped"
            kind = f' lang="{lang}"' if lang != "css" else ""
            own = _host_rules(text, self.one.selector)
            if not own.strip():
                continue
            yield Edit(
                end,
                end,
                f"\n<style{scoped}{kind}>\n{_dedented(own)}\n</style>\n",
                self.source.place(at),
            )

    def _styles(self) -> Iterator[tuple[str, str, int]]:
        """The texts of the styles with their language, and where each is named."""
        options = self.one.options
        inline = property_of(options, "styles")
        nodes = (
            inline.named_children
            if inline is not None and inline.type == "array"
            else [inline]
            if inline
            else []
        )
        texts = []
        for node in nodes:
            text = text_of(node)
            if text is None:
                raise NotAFile("option-unread", "styles", node.start)
            texts.append(_dedented(text))
        if texts:
            yield "\n".join(texts), "css", nodes[0].start
        one, several = property_of(options, "styleUrl"), property_of(options, "styleUrls")
        files: list[Node] = [one] if one is not None else []
        files += several.named_children if several is not None else []
        for node in files:
            request = text_of(node)
            if request is None:
                raise NotAFile("option-unread", "styleUrls", node.start)
            path = self.workspace.file.parent / request
            try:
                found = SourceText.read(path)
            except InputError as error:
                raise NotAFile("option-unread", str(error), node.start) from None
            yield found.slice(0, len(found.data)), path.suffix[1:], node.start


_OPTIONS = frozenset(
    "selector template templateUrl styles styleUrl styleUrls standalone imports changeDetection "
    "encapsulation host preserveWhitespaces".split()
)


def tracks_of(members: Members) -> dict[str, tuple[list[str], str]]:
    """Methods that only give an expression of their parameters: the parameters, and the expression."""
    found = {}
    for node in members.methods:
        parameters, body = node.child("parameters"), node.child("body")
        given = parameters.named_children if parameters is not None else []
        names = [one.child("pattern") or one for one in given]
        statements = body.named_children if body is not None else []
        if len(statements) != 1 or statements[0].type != "return_statement" or not names:
            continue
        value = statements[0].named_children[0] if statements[0].named_children else None
        plain = value is not None and not any(
            one.type in ("this", "call_expression") or one.is_function for one in value.walk()
        )
        if value is not None and plain and "\n" not in value.text and '"' not in value.text:
            found[_name_of(node)] = ([one.text for one in names], value.text)
    return found


def _name_of(node: Node) -> str:
    name = node.child("name")
    return name.text if name is not None else ""


def _moved(pieces: list[tuple[str, Place]]) -> list[tuple[str, Place]]:
    """A template without white space at either end, its lines as far to the left as the first one."""
    text = "".join(one for one, _ in pieces)
    first = next((line for line in text.split("\n") if line.strip()), "")
    own = len(first) - len(first.lstrip())
    kept: list[tuple[str, Place]] = []
    for one, place in pieces:
        kept.append((re.sub(rf"\n {{0,{own}}}", "\n", one) if own else one, place))
    return trimmed(kept)


def _indented(pieces: list[tuple[str, Place]]) -> list[tuple[str, Place]]:
    """A template one level to the right, but for its first line."""
    found: list[tuple[str, Place]] = []
    begins = False
    for text, place in pieces:
        lines = text.split("\n")
        moved = [f"  {lines[0]}" if begins and lines[0] else lines[0]]
        moved += [f"  {line}" if line else "" for line in lines[1:]]
        begins = (begins and not text) or (len(lines) > 1 and not lines[-1])
        found.append(("\n".join(moved), place))
    return found


def _host_rules(text: str, selector: str) -> str:
    """Styles whose rules for the element itself are for the one in its place."""
    text = re.sub(r":host\(([^()]*)\)", rf".{selector}\1", text)
    text = re.sub(r":host(?![\w(-])", f".{selector}", text)
    return re.sub(r"(?:::ng-deep|/deep/)\s*([^,{]+?)(?=\s*[,{])", r":deep(\1)", text)


def _dedented(text: str) -> str:
    lines = text.strip("\n").rstrip().split("\n")
    own = min((len(line) - len(line.lstrip()) for line in lines if line.strip()), default=0)
    return "\n".join(line[own:].rstrip() for line in lines)
