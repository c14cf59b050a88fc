"""The rendering runtimes: which there are, where they are installed, and installing them.

A runtime is a folder of packages installed once from a lock file that ships with the tool. Nothing
else ever contacts a registry.
"""

from __future__ import annotations

import hashlib
import shutil
import subprocess
import tempfile
from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path

from clean_carry.component.errors import RuntimeMissing
from clean_carry.source.system import cache_folder, locked
from clean_carry.source.workspace import major, package_version
from clean_carry.verify.node import environment, node, npm

WORKER = Path(__file__).parent / "worker"
WORKBENCH = "workbench"
# Seconds an installation may take before it is given up.
PATIENCE = 600

Say = Callable[[str], None]


@dataclass(frozen=True)
class Runtime:
    """One runtime. `packages` are resolved to one copy; `adapter` is the file that mounts. `strict`
    says whether its development build can mount twice, and `listens_for_page` that it keeps
    listeners on the document. `hands_listeners_on` says that undeclared listeners reach the root
    element. Where it `keeps_content`, a template decides once which content a component is given. Where it
    `needs_required`, a required input has no value until one is given, and nothing given is a value.
    Packages of a `linked` one are compiled to the end when it is installed. Nothing listens in what is
    rendered by one that `sends_pages`. Inputs of a `typed` one have types, a `closed` one takes no
    others. A runtime that `stands_in` is ours: it takes
    the place of a library that cannot be installed."""

    name: str
    summary: str
    framework: str
    adapter: str
    packages: tuple[str, ...]
    strict: bool = False
    listens_for_page: bool = False
    hands_listeners_on: bool = True
    keeps_content: bool = False
    needs_required: bool = False
    linked: bool = False
    sends_pages: bool = False
    typed: bool = False
    closed: bool = False
    stands_in: bool = False

    @property
    def locked(self) -> Path:
        """The folder with package.json and lock file that ships with the tool."""
        return WORKER / "runtimes" / self.name

    @property
    def folder(self) -> Path:
        """Where it is (to be) installed: the name and a digest of the lock."""
        lock = (self.locked / "package-lock.json").read_bytes()
        place = f"{self.name}-{hashlib.sha256(lock).hexdigest()[:12]}"
        return (cache_folder() / "runtimes" / place).resolve()

    @property
    def installed(self) -> bool:
        """Whether a complete installation is there."""
        return (self.folder / "complete").is_file()


_REACT = ("react", "react-dom", "scheduler")
RUNTIMES: dict[str, Runtime] = {
    r.name: r
    for r in (
        Runtime(WORKBENCH, "bundler and simulated page", "", "", ()),
        Runtime("browser", "what drives a browser", "", "", ()),
        Runtime("chromium", "a browser, where the machine has none", "", "", ()),
        Runtime(
            "page", "plain HTML, by the browser itself", "page", "page.js", ("clean-carry-page",)
        ),
        Runtime(
            "views",
            "views of a server, by its engine in PHP",
            "illuminate/view",
            "views.js",
            ("clean-carry-views",),
            hands_listeners_on=False,
            needs_required=True,
            sends_pages=True,
            typed=True,
        ),
        Runtime(
            "stateful-views",
            "a stand-in for stateful views, over the engine in PHP",
            "livewire/livewire",
            "stateful.js",
            ("clean-carry-stateful-views",),
            hands_listeners_on=False,
            needs_required=True,
            typed=True,
            closed=True,
            stands_in=True,
        ),
        # Its listeners moved to the root in 17 (release notes, "Changes to event delegation").
        Runtime(
            "react-16", "react 16.14", "react", "react-legacy.js", _REACT, listens_for_page=True
        ),
        Runtime("react-17", "react 17.0", "react", "react-legacy.js", _REACT),
        Runtime("react-18", "react 18.3", "react", "react.js", _REACT, strict=True),
        Runtime("react-19", "react 19", "react", "react.js", _REACT, strict=True),
        # Its listeners are passed on since 3 (migration guide, "$listeners removed").
        Runtime(
            "vue-2",
            "vue 2.7 (single files)",
            "vue",
            "vue-older.js",
            ("vue",),
            hands_listeners_on=False,
        ),
        Runtime("vue-3", "vue 3.5 (single files)", "vue", "vue.js", ("vue",)),
        Runtime(
            "angular-1",
            "angular 1.8",
            "angular",
            "angular.js",
            ("angular", "angular-animate", "angular-sanitize"),
            keeps_content=True,
        ),
        Runtime(
            "angular-21",
            "angular 21 (decorated classes)",
            "@angular/core",
            "decorated.js",
            (
                "@angular/core",
                "@angular/common",
                "@angular/compiler",
                "@angular/forms",
                "@angular/platform-browser",
                "rxjs",
                "tslib",
            ),
            hands_listeners_on=False,
            keeps_content=True,
            needs_required=True,
            linked=True,
        ),
    )
}
_DEFAULT = {
    "page": "page",
    "illuminate/view": "views",
    "livewire/livewire": "stateful-views",
    "react": "react-18",
    "vue": "vue-3",
    "angular": "angular-1",
    "@angular/core": "angular-21",
}


def runtime_for(framework: str, folder: Path) -> Runtime:
    """The runtime that fits the version the project around `folder` uses."""
    version = major(package_version(folder, framework))
    name = f"{framework.partition('/')[0].strip('@')}-{version}"
    if name in RUNTIMES:
        return RUNTIMES[name]
    first = next(r for r in RUNTIMES.values() if r.framework == framework)
    # A version older than all of them is nearest to the first.
    older = version is not None and version < int(first.name.rpartition("-")[2])
    return first if older else RUNTIMES[_DEFAULT[framework]]


def ensure(runtime: Runtime, *, offline: bool, say: Say) -> Path:
    """The folder of a runtime, installed on first need.

    Raises `RuntimeMissing` where it is not there and `offline`, or cannot be installed.
    """
    if runtime.installed:
        return runtime.folder
    if offline:
        raise RuntimeMissing(
            f"the runtime {runtime.name} is not installed",
            advice=f"Run `clean-carry runtimes install {runtime.name}` while online",
        )
    install(runtime, say)
    return runtime.folder


def install(runtime: Runtime, say: Say) -> None:
    """Install a runtime from its lock file; it appears whole or not at all.

    Processes that need the same runtime at once wait for the first of them.
    """
    command = npm()
    say(f"Installing the runtime {runtime.name} ({runtime.summary}), once, into the cache …")
    try:
        runtime.folder.parent.mkdir(parents=True, exist_ok=True)
        with locked(runtime.folder.parent):
            if not runtime.installed:
                _install(runtime, command)
    except OSError as error:
        raise RuntimeMissing(f"the cache cannot be written ({error.strerror})") from None
    say(f"The runtime {runtime.name} is ready.")


def _install(runtime: Runtime, npm_command: list[str]) -> None:
    staging = Path(tempfile.mkdtemp(prefix=f".{runtime.name}-", dir=runtime.folder.parent))
    try:
        for name in ("package.json", "package-lock.json"):
            shutil.copy(runtime.locked / name, staging / name)
        options = ["ci", "--ignore-scripts", "--no-audit", "--no-fund", "--loglevel=error"]
        try:
            done = subprocess.run(
                [*npm_command, *options], cwd=staging, capture_output=True, text=True, timeout=PATIENCE,
                check=False, env=environment(),
            )  # fmt: skip
        except subprocess.TimeoutExpired:
            raise RuntimeMissing(f"installing {runtime.name} took too long") from None
        if done.returncode != 0:
            reason = (done.stderr.strip().splitlines() or ["npm failed"])[0]
            raise RuntimeMissing(
                f"the runtime {runtime.name} could not be installed: {reason[:160]}",
                advice="Check the connection to the package registry and try again",
            )
        if runtime.linked:
            _link(runtime, staging)
        (staging / "complete").write_text("")
        shutil.rmtree(runtime.folder, ignore_errors=True)
        staging.rename(runtime.folder)
    finally:
        shutil.rmtree(staging, ignore_errors=True)


def _link(runtime: Runtime, folder: Path) -> None:
    done = subprocess.run(
        [node(), str(WORKER / "link.mjs"), str(folder)], capture_output=True, text=True, timeout=PATIENCE,
        check=False,
    )  # fmt: skip
    if done.returncode != 0:
        reason = (done.stderr.strip().splitlines() or ["its compiler failed"])[-1]
        raise RuntimeMissing(f"the runtime {runtime.name} could not be installed: {reason[:160]}")


def remove(runtime: Runtime) -> bool:
    """Remove an installed runtime; False where there was none."""
    if not runtime.folder.exists():
        return False
    shutil.rmtree(runtime.folder)
    return True
