"""Views of a server, rendered by the engine in the system's PHP, in a process that can do nothing else."""

from __future__ import annotations

import hashlib
import json
import re
import select
import shutil
import subprocess
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from functools import cache
from pathlib import Path
from typing import Any

from clean_carry.component.errors import RuntimeMissing
from clean_carry.source.text import SourceText
from clean_carry.source.workspace import Workspace
from clean_carry.syntaxes.server_view.reading.as_single_file import whole_view
from clean_carry.syntaxes.server_view.reading.children import all_children
from clean_carry.syntaxes.server_view.reading.class_file import class_beside
from clean_carry.syntaxes.single_file.stands_for import NotAFile
from clean_carry.verify.client import WorkerFailed

FRAMEWORK, STATEFUL = "illuminate/view", "livewire/livewire"
_SERVER = Path(__file__).parent / "worker" / "php" / "views.php"
_STATEFUL = _SERVER.with_name("stateful.php")
_ENGINE = Path("/usr/share/php/Illuminate/View/autoload.php")
_LIBRARY = "/usr/share/php"
_PATIENCE = 20.0
# The class of a component that keeps its state.
_STATE = re.compile(
    r"namespace App\\Livewire;.*?^class (\w+) extends Component", re.DOTALL | re.MULTILINE
)
_ENDING = ".blade.php"
# Scripts that several components share.
_HELPER = re.compile(r"final class Js\b|interface DataSource\b|class DataSourceError\b")
# The input under which a page gets its HTML.
HTML = "$html"
# The same for the pages of a stateful view, by the numbers of their instances.
PAGES = "$pages"
# The call by which a page tells what it asks for.
ASKED = "$asked"
# Functions that start a process, open a connection or write: rendering needs none of them.
_DISABLED = (
    "exec passthru shell_exec system proc_open proc_close popen pcntl_exec pcntl_signal "
    "pcntl_alarm posix_kill posix_setuid posix_setgid fsockopen pfsockopen "
    "stream_socket_client stream_socket_server stream_socket_accept socket_create "
    "socket_connect socket_bind curl_init curl_exec curl_multi_exec mail dl putenv "
    "apache_setenv symlink link readlink file_put_contents fopen fwrite fputs fputcsv "
    "ftruncate unlink rename copy mkdir rmdir touch chmod chown chgrp lchown lchgrp tempnam "
    "tmpfile move_uploaded_file gzopen bzopen readgzfile error_log syslog openlog ini_set "
    "ini_alter set_include_path opendir scandir glob dir highlight_file show_source "
    "php_strip_whitespace parse_ini_file gethostbyname gethostbynamel dns_get_record "
    "checkdnsrr getmxrr"
)
_CLASSES = (
    "SplFileObject SplTempFileObject DirectoryIterator FilesystemIterator GlobIterator PharData Phar "
    "XMLWriter"
)


@dataclass(frozen=True)
class ViewTexts:
    """The texts of one component: its tag, its views by name, and the scripts of classes. `stateful` is the
    class of one that keeps its state, "" for any other. `objects` are paths of inputs that are objects, and
    no arrays; `[]` stands for each item."""

    tag: str
    views: tuple[tuple[str, str], ...]
    classes: tuple[str, ...]
    stateful: str = ""
    objects: tuple[tuple[str, ...], ...] = ()

    @property
    def digest(self) -> str:
        """A name for all of it."""
        return hashlib.sha256(repr(self).encode()).hexdigest()[:16]


def texts_of(view: Path, text: str, extra: tuple[tuple[Path, str], ...]) -> ViewTexts:
    """The texts of a view, with the scripts and views that belong to it: those given, else those beside."""
    name = view.name.removesuffix(_ENDING)
    given = {path.name: own for path, own in extra if path.suffix == ".php"}
    known = given or {
        path.name: path.read_text("utf-8", "replace") for path in sorted(view.parent.glob("*.php"))
    }
    scripts = [
        own for path, own in known.items() if path == _script_of(name, known) or _HELPER.search(own)
    ]
    # Helpers come before the class that uses them.
    scripts.sort(key=lambda one: "extends Component" in one)
    keeps = next((_STATE.search(one) for one in scripts if _STATE.search(one)), None)
    if keeps is not None:
        waiting = f"{name}-placeholder"
        views = [(f"livewire.{name}", text)]
        if f"{waiting}{_ENDING}" in known:
            views.append((f"livewire.{waiting}", known[f"{waiting}{_ENDING}"]))
        return ViewTexts(name, tuple(views), tuple(scripts), f"App\\Livewire\\{keeps[1]}")
    views = [(f"components.{name}", text)]
    for tag, child, own in all_children(view, text, known):
        views.append((f"components.{tag}", own))
        own_script = _script_of(tag, known)
        beside = class_beside(child) if not own_script else None
        scripts += [known[own_script]] if own_script else []
        scripts += [beside.read_text("utf-8", "replace")] if beside is not None else []
    return ViewTexts(name, tuple(views), tuple(dict.fromkeys(scripts)), "", objects_of(view, text))


def _script_of(view: str, known: Iterable[str]) -> str:
    """The name of the script of a view's class among names of files, "" where there is none."""
    wanted = re.sub(r"[^a-z0-9]", "", view.lower())
    scripts = (one for one in known if not one.endswith(_ENDING))
    return next((one for one in scripts if one.removesuffix(".php").lower() == wanted), "")


def asks_for_data(texts: ViewTexts) -> bool:
    """Whether the class asks for data when it is prepared."""
    asks = ("DataSource $source", "/** The data that `")
    return bool(texts.stateful) and any(one in text for text in texts.classes for one in asks)


def objects_of(view: Path, text: str) -> tuple[tuple[str, ...], ...]:
    """The paths of values whose members a view reads as those of objects."""
    if "->" not in text:
        return ()
    try:
        found = whole_view(SourceText(str(view), text.encode()), Workspace(view.resolve()))
    except NotAFile:
        return ()
    return tuple(sorted(found.objects))


@cache
def php() -> str:
    """The system's PHP with the engine. Raises `RuntimeMissing`."""
    found = shutil.which("php")
    if found is None or not _ENGINE.is_file():
        raise RuntimeMissing(
            "views of a server are rendered by PHP, which is not installed here",
            advice="Install the packages php-cli, php-illuminate-view, php-mbstring and php-xml",
        )
    return found


@cache
def _script() -> str:
    """The text of the server: its file is out of the reach of the process."""
    server, stateful = (
        path.read_text("utf-8").removeprefix("<?php") for path in (_SERVER, _STATEFUL)
    )
    return f"{stateful}\nnamespace {{\n{server}\n}}\n"


class Views:
    """A process that renders one component. Used by one thread at a time; closed by who made it."""

    def __init__(self, texts: ViewTexts) -> None:
        self.texts = texts
        settings = {
            "open_basedir": _LIBRARY, "disable_functions": ",".join(_DISABLED.split()),
            "disable_classes": ",".join(_CLASSES.split()), "allow_url_fopen": "0",
            "allow_url_include": "0", "memory_limit": "256M", "display_errors": "stderr",
            "max_execution_time": "10", "phar.readonly": "1", "enable_dl": "0",
        }  # fmt: skip
        options = [part for name, value in settings.items() for part in ("-d", f"{name}={value}")]
        self._process = subprocess.Popen(
            [php(), *options, "-r", _script(), "--", str(_ENGINE)],
            stdin=subprocess.PIPE, stdout=subprocess.PIPE, stderr=None, text=True,
            cwd=_LIBRARY, env={"PATH": ""},
        )  # fmt: skip
        self._ask({"op": "load", "classes": texts.classes, "views": dict(texts.views)})

    def html(self, inputs: dict[str, Any], slots: dict[str, Any]) -> str:
        """The HTML of the component with inputs and content, or the words of the error it fails with."""
        plain = {name: value for name, value in inputs.items() if name != HTML}
        asked = {"tag": self.texts.tag, "inputs": plain, "slots": slots}
        answer = self._ask({"op": "render", **asked, "objects": self.texts.objects})
        return str(answer.get("html", f"<trial-failed>{answer.get('error', '')}</trial-failed>"))

    def request(self, asked: dict[str, Any]) -> dict[str, Any]:
        """The answer to a request of a page: its HTML and the state, or the words of an error."""
        return self._ask({"op": "request", "class": self.texts.stateful, **asked})

    def close(self) -> None:
        """End the process."""
        self._process.kill()
        self._process.wait()

    def _ask(self, request: dict[str, Any]) -> dict[str, Any]:
        """Raises `WorkerFailed`."""
        process = self._process
        assert process.stdin is not None
        assert process.stdout is not None
        try:
            process.stdin.write(json.dumps(request) + "\n")
            process.stdin.flush()
        except OSError as error:
            raise WorkerFailed(f"the rendering of views ended: {error}", ended=True) from None
        ready, _, _ = select.select([process.stdout], [], [], _PATIENCE)
        line = process.stdout.readline() if ready else ""
        if not line:
            raise WorkerFailed("the rendering of views ended or took too long", ended=True)
        found: dict[str, Any] = json.loads(line)
        return found


class Prepared:
    """The HTML of a trial, prepared on the server for each state of its inputs."""

    def __init__(self, views: Views, request: dict[str, Any]) -> None:
        self.views = views
        self.inputs: dict[str, Any] = dict(request.get("inputs", {}))
        self.slots: dict[str, Any] = dict(request.get("slots", {}))

    def html(self) -> str:
        """The HTML of the state of now."""
        return self.views.html(self.inputs, self.slots)

    def request(self, request: dict[str, Any]) -> dict[str, Any]:
        """A trial with the HTML of its first display, and that of each change."""
        first = {**request.get("inputs", {}), HTML: self.html()}
        steps = [self.step(one) for one in request.get("steps", ())]
        return {**request, "inputs": first, "steps": steps}

    def step(self, step: dict[str, Any]) -> dict[str, Any]:
        """A step; a change with the HTML that it leads to."""
        if "change" not in step:
            return step
        return {**step, "change": self._changed(step["change"])}

    def _changed(self, change: dict[str, Any]) -> dict[str, Any]:
        self.inputs.update(change.get("inputs", {}))
        for name in change.get("without", ()):
            self.inputs.pop(name, None)
            self.slots.pop(name, None)
        if "slots" in change:
            self.slots = dict(change["slots"])
        made = {**change, "inputs": {**change.get("inputs", {}), HTML: self.html()}}
        if "then" in change:
            made["then"] = self._changed(change["then"])
        return made


class Kept:
    """The instances of a stateful view in a trial: what their pages send, and what the server answers.

    Each instance has a number, by which its page tells what it asks for; 0 is one that is mounted next.
    """

    def __init__(self, views: Views, inputs: dict[str, Any]) -> None:
        self.views = views
        self.inputs = {name: value for name, value in inputs.items() if name != PAGES}
        self.states: dict[str, dict[str, Any] | None] = {}
        # The replies that each instance was given, by address.
        self.replies: dict[str, dict[str, Any]] = {}
        # The inputs of each when it was mounted: its preparation asks for data by that.
        self.mounted: dict[str, dict[str, Any]] = {}
        self.pages: dict[str, dict[str, Any]] = {}
        self._new()

    def _new(self) -> None:
        """Prepare the page of an instance that may be mounted."""
        self._answer("0", None, ())

    def _answer(
        self,
        number: str,
        state: dict[str, Any] | None,
        acts: Sequence[dict[str, Any]],
        changed: dict[str, Any] | None = None,
        without: Sequence[str] = (),
    ) -> None:
        """Answer a request. A call that fails leaves the state as it was."""
        asked = {
            "inputs": self.mounted.get(number, self.inputs), "state": state, "changed": changed,
            "without": list(without), "acts": list(acts), "replies": self.replies.get(number, {}),
        }  # fmt: skip
        found = self.views.request(asked)
        if "error" in found:
            self.pages[number] = {**self.pages.get(number, {}), "failed": found["error"]}
            return
        self.states[number] = found["state"]
        self.pages[number] = found

    def given(self) -> dict[str, Any]:
        """The pages, as an input of the component."""
        return {PAGES: dict(self.pages)}

    def asked(self, act: dict[str, Any]) -> bool:
        """Take what a page tells; whether there is an answer to show."""
        number = str(act["page"])
        if "mounted" in act:
            self.mounted[number] = dict(self.inputs)
            self.states[number] = self.states.get("0", {})
            self.pages[number] = dict(self.pages["0"])
            return False
        if "answered" in act:
            self.replies.setdefault(number, {})[act["answered"]] = act["reply"]
            self._answer(number, None, (), self.inputs)
            return True
        self.pages.get(number, {}).pop("failed", None)
        self._answer(number, self.states.get(number), [act])
        return True

    def changed(self, inputs: dict[str, Any], without: Sequence[str] = ()) -> None:
        """Give all instances other inputs."""
        self.inputs.update(inputs)
        for name in without:
            self.inputs.pop(name, None)
        for number in [one for one in self.states if one != "0"]:
            waits = self.states[number] is None
            given = self.inputs if waits else inputs
            self._answer(number, self.states[number], (), given, without)
        self._new()
