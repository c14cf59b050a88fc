"""The rest of an application whose parts are registered by name: scripts, templates, services.

A script of such an application imports nothing. Its dependencies are found by the modules it names.
"""

from __future__ import annotations

import re
from dataclasses import dataclass, field, replace
from functools import lru_cache
from pathlib import Path
from typing import Any

from clean_carry.component.errors import InputError
from clean_carry.source.importers import files_of, is_aside, pages_of, project_of
from clean_carry.source.javascript.scope import Names
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.controller_component.syntax import SYNTAX as CONTROLLER_COMPONENT
from clean_carry.syntaxes.scoped_template.definition import define
from clean_carry.syntaxes.scoped_template.meaning import define_any
from clean_carry.syntaxes.scoped_template.registrations import Registrations, parameters_of, text_of
from clean_carry.verify.uses.pages import OnPages, on_pages

_DEFINES = re.compile(r"""\.module\(\s*['"]([^'"]+)['"]\s*,\s*\[([^\]]*)\]""")
_NAMES = re.compile(r"""\.module\(\s*['"]([^'"]+)['"]""")
_HELD = re.compile(r"""\.put\(\s*['"]([^'"]+)['"]""")
_TEXT = re.compile(r"""['"]([^'"]+)['"]""")
# Files that test or show others are no part of the application.
_ASIDE = re.compile(
    r"(^|/)(tests?|specs?|docs?|demo|examples?|misc)/|[.\-_](spec|test|e2e)\.js$|\.conf\.js$"
)
MOST_SCRIPTS = 80
_COMPONENT = re.compile(r"\.component\(")
# How a script is called that was made of another one.
_MADE = f".{CONTROLLER_COMPONENT.suffix}.js"
MOST_TEMPLATES = 400


@dataclass(frozen=True)
class Application:
    """`scripts` run before the component's own; `templates` are (path inside the project, text);
    `services` the names its code is given; `replaced` the directives whose template takes the place of
    their element, `aliases` the names their templates call a controller by; `globals` are names its
    scripts share: the module each stands for, "" for the runtime itself; `pages` is what pages put around
    the component and beside it."""

    scripts: tuple[Path, ...] = ()
    templates: tuple[tuple[str, str], ...] = ()
    services: tuple[str, ...] = ()
    replaced: tuple[str, ...] = ()
    aliases: tuple[str, ...] = ()
    globals: tuple[tuple[str, str], ...] = ()
    pages: OnPages = field(default_factory=OnPages)

    def for_page(self) -> dict[str, Any]:
        """Return the description for the page."""
        return {
            "templates": dict(self.templates),
            "services": list(self.services),
            "globals": dict(self.globals),
            "pages": self.pages.for_page(),
        }

    def with_templates(self, more: dict[str, str]) -> Application:
        """The same with further templates."""
        return replace(self, templates=(*more.items(), *self.templates))


def application_of(file: Path, text: str, new: str = "") -> Application:
    """The application around a script; `new` is the text that is to take its place."""
    file = file.resolve()
    root = project_of(file)
    if root is None:
        # Templates beside it are found where there is no project around.
        beside = tuple(
            (page.name, page.read_text("utf-8", "replace"))
            for page in sorted(file.parent.glob("*.html"))[:MOST_TEMPLATES]
        )
        replaced, aliases = _defined(text, str(file))
        own = ((file.with_name(name), page) for name, page in beside)
        pages = on_pages(text, (), own, new)
        return Application((), beside, _services(text, str(file)), replaced, aliases, (), pages)
    scripts = _scripts(root, file, text)
    services: dict[str, None] = dict.fromkeys(_services(text, str(file)))
    for path in scripts:
        services.update(dict.fromkeys(_of_file(path, path.stat().st_mtime_ns)))
    templates: list[tuple[str, str]] = []
    top = len(root.as_posix()) + 1
    known = sorted(pages_of(root), key=lambda found: _far(found[0], file, root))
    for page, content in known:
        if len(templates) < MOST_TEMPLATES and "<html" not in content[:500].lower():
            templates.append((page.as_posix()[top:], content))
    texts = [text, *(path.read_text("utf-8", "replace") for path in scripts)]
    shared = _globals(texts)
    around = on_pages(text, texts[1:], known, new)
    defined = _defined(text, str(file))
    return Application(scripts, tuple(templates), tuple(services), *defined, shared, around)


def _far(page: Path, file: Path, root: Path) -> tuple[bool, int]:
    """Return how late a page is searched for a name that several have: near files first, before
    tests and stories."""
    near = sum(a == b for a, b in zip(page.parts, file.parts, strict=False))
    return is_aside(page, root), -near


_RECEIVES = re.compile(
    r"(?<![\w$.])([A-Za-z_$][\w$]*)\s*\.(module|directive|component|controller|factory|service|run|config)\("
)
_HOLDS = re.compile(
    r"""\b(?:var|let|const)\s+([\w$]+)\s*=\s*[\w$.]+\.module\(\s*['"]([^'"]+)['"]"""
)


def _globals(texts: list[str]) -> tuple[tuple[str, str], ...]:
    """The names that scripts ask for modules or register by, and that they do not declare themselves."""
    held = {name: module for text in texts for name, module in _HOLDS.findall(text)}
    found: dict[str, str] = {}
    for text in texts:
        for name, asked in _RECEIVES.findall(text):
            if name == "angular" or re.search(
                rf"(?:var|let|const|function|import)\b[^;\n]*\b{re.escape(name)}\b", text
            ):
                continue
            if re.search(rf"function\s*\w*\s*\([^)]*\b{re.escape(name)}\b", text):
                continue
            if asked == "module":
                found[name] = ""
            elif name in held:
                found[name] = held[name]
    return tuple(sorted(found.items()))


def _scripts(root: Path, file: Path, text: str) -> tuple[Path, ...]:
    """The files that define or fill the modules a script names, those that define first."""
    inside = len(root.as_posix()) + 1
    known = [
        (path, content)
        for path, content in files_of(root, ".js")
        if ".module(" in content and path != file and not _ASIDE.search(path.as_posix()[inside:])
    ]
    texts = dict(known)
    # A copy beside its original is no part of the old application.
    known = [(path, content) for path, content in known if not _is_made(path, texts)]
    wanted = set(_NAMES.findall(text))
    for _, needed in _DEFINES.findall(text):
        wanted.update(_TEXT.findall(needed))
    found: dict[Path, bool] = {}
    own = set(_registered(text))
    changed = True
    while changed and len(found) < MOST_SCRIPTS:
        changed = False
        for path, content in known:
            if path in found or not wanted & set(_NAMES.findall(content)):
                continue
            if own & set(_registered(content)):
                # Another form of the same file: both would be there twice.
                continue
            found[path] = bool(wanted & {name for name, _ in _DEFINES.findall(content)})
            for _, needed in _DEFINES.findall(content):
                wanted.update(_TEXT.findall(needed))
            changed = True
    return tuple(sorted(found, key=lambda path: (not found[path], path.as_posix())))


def made_of(scripts: tuple[Path, ...], new: Path, new_text: str) -> tuple[tuple[Path, str], ...]:
    """(script, text) of scripts that hold templates and were written anew, beside `new` or where they
    stand: in the application of a component these take their places."""
    found: list[tuple[Path, str]] = []
    for script in scripts if _COMPONENT.search(new_text) else ():
        name = script.name.removesuffix(".js") + _MADE
        for made in (new.resolve().with_name(name), script.with_name(name)):
            if made.is_file():
                old, text = (path.read_text("utf-8", "replace") for path in (script, made))
                if _holds_the_same(old, text):
                    found.append((script, text))
                    break
    return tuple(found)


def _is_made(path: Path, texts: dict[Path, str]) -> bool:
    """Whether a script was made of the one beside it."""
    if not path.name.endswith(_MADE):
        return False
    source = path.with_name(path.name.removesuffix(_MADE) + ".js")
    return _holds_the_same(texts.get(source, ""), texts[path])


def _holds_the_same(one: str, other: str) -> bool:
    """Whether two scripts hold templates under the same names, whatever these say."""
    held = _HELD.findall(one)
    return bool(held) and held == _HELD.findall(other)


def own_lines(text: str, path: str, name: str) -> tuple[tuple[int, int], ...]:
    """The lines (first, last) of a directive or component: what registers it, the controller it names, and
    the functions of both that are declared elsewhere in the script."""
    source = SourceText(path, text.encode())
    try:
        tree = Tree(source)
    except InputError:
        return ()
    names = Names(tree)
    registrations = Registrations(tree, names)
    found = [*registrations.of("directive", name), *registrations.of("component", name)]
    functions: list[Node | None] = []
    for registration in list(found):
        definition = define_any(registration, names)
        controller = text_of(definition.value("controller"))
        if controller is not None:
            found += registrations.of("controller", controller.split(" as ")[0].strip())
        for option in ("controller", "link", "compile"):
            functions.append(registrations.followed(definition.value(option))[0])
    functions += [registration.function for registration in found]
    spans = [(registration.at, registration.call.end) for registration in found]
    for function in functions:
        if function is not None and not any(a <= function.start < b for a, b in spans):
            spans.append((function.start, function.end))
    return tuple((source.place(start).line, source.place(end).line) for start, end in spans)


_REGISTERS = re.compile(r"""\.(?:directive|component)\(\s*['"]([^'"]+)['"]""")


def _registered(text: str) -> list[str]:
    return _REGISTERS.findall(text)


def _defined(text: str, path: str) -> tuple[tuple[str, ...], tuple[str, ...]]:
    """The directives of a script that replace their element, and the names of their controllers."""
    try:
        tree = Tree(SourceText(path, text.encode()))
    except InputError:
        return (), ()
    names = Names(tree)
    defined = [define(r, names) for r in Registrations(tree, names).of("directive")]
    replaced = tuple(d.name for d in defined if d.true("replace"))
    return replaced, tuple(alias for d in defined if (alias := d.text("controllerAs")))


@lru_cache(maxsize=256)
def _of_file(path: Path, _changed: int) -> tuple[str, ...]:
    return _services(path.read_text("utf-8", "replace"), str(path))


def _services(text: str, path: str) -> tuple[str, ...]:
    """The names of what functions of a script are given."""
    try:
        tree = Tree(SourceText(path, text.encode()))
    except InputError:
        return ()
    names = Names(tree)
    found: dict[str, None] = {}
    for registration in Registrations(tree, names).found:
        found.update(dict.fromkeys(i.name for i in registration.injections))
    for array in tree.of("array"):
        *listed, last = array.named_children or [array]
        texts = [text_of(node) for node in listed]
        if listed and last.is_function and None not in texts:
            found.update(dict.fromkeys(name for name in texts if name))
    for pair in tree.of("pair"):
        key, value = pair.child("key"), pair.child("value")
        if key is not None and value is not None and key.text == "controller" and value.is_function:
            found.update(dict.fromkeys(p.text for p in parameters_of(value)))
    return tuple(name for name in found if re.fullmatch(r"[\w$.]+", name))
