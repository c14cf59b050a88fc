"""The message for a version that cannot be built because an import is not found."""

from __future__ import annotations

import os
import re
from pathlib import Path

from clean_carry.source.workspace import package_version

# As the bundler tells it: where, and the request in quotation marks.
_TOLD = re.compile(r'(?:(?P<file>[^;\n]*?):\d+: )?Could not resolve "(?P<request>[^"]+)"')
# The package of a request: `@scope/name/part` and `name/part`.
_PACKAGE = re.compile(r"(?:@[\w.~-]+/)?[\w.~-]+")
# The command that installs what a project names, by the lock file it has.
_INSTALLERS = {"yarn.lock": "yarn install", "pnpm-lock.yaml": "pnpm install"}


def explained(reason: str, place: Path) -> str:
    """The bundler's words on a version at `place`, with what to do where an import is not found."""
    found = [
        _line(match["request"], Path(match["file"]) if match["file"] else place)
        for match in _TOLD.finditer(reason)
    ]
    return "; ".join(dict.fromkeys(found)) or reason


def _line(request: str, file: Path) -> str:
    shown = os.path.relpath(file)
    at = f"{shown if not shown.startswith('..') else file}{_number(request, file)}"
    package = _PACKAGE.match(request)
    if request.startswith((".", "/")):
        return f"{at}: there is no file {request}"
    if package is None or request.startswith("@/"):
        return f"{at}: {request} is not found; name its alias in clean-carry.toml"
    name, folder = package[0], file.resolve().parent
    if package_version(folder, name) is not None:
        return f"{at}: the package {name} is not installed. Run `{_installer(folder)}`"
    return (
        f"{at}: the package {name} is not installed, and package.json does not name it. Install it, "
        "or name its alias in clean-carry.toml"
    )


def _number(request: str, file: Path) -> str:
    """Return the line of the import; the bundler counts lines of the text it got."""
    try:
        lines = file.read_text("utf-8").splitlines()
    except (OSError, UnicodeDecodeError):
        return ""
    asked = (f"'{request}'", f'"{request}"')
    number = next((n for n, text in enumerate(lines, 1) if any(a in text for a in asked)), None)
    return f":{number}" if number is not None else ""


def _installer(folder: Path) -> str:
    for above in (folder, *folder.parents):
        for lock, command in _INSTALLERS.items():
            if (above / lock).exists():
                return command
        if (above / "package-lock.json").exists():
            break
    return "npm install"
