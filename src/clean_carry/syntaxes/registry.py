"""All syntaxes, and which one a file is written in."""

from __future__ import annotations

import re

from clean_carry.source.text import SourceText
from clean_carry.syntaxes.controller_component.syntax import SYNTAX as CONTROLLER_COMPONENT
from clean_carry.syntaxes.directive.syntax import SYNTAX as DIRECTIVE
from clean_carry.syntaxes.jsx_class.syntax import SYNTAX as JSX_CLASS
from clean_carry.syntaxes.jsx_function.syntax import SYNTAX as JSX_FUNCTION
from clean_carry.syntaxes.single_file_flat.syntax import SYNTAX as SINGLE_FILE_FLAT
from clean_carry.syntaxes.single_file_object.syntax import SYNTAX as SINGLE_FILE_OBJECT
from clean_carry.syntaxes.syntax import Syntax

SYNTAXES: dict[str, Syntax] = {
    syntax.id: syntax
    for syntax in (
        JSX_CLASS,
        JSX_FUNCTION,
        SINGLE_FILE_OBJECT,
        SINGLE_FILE_FLAT,
        DIRECTIVE,
        CONTROLLER_COMPONENT,
    )
}


# A class that extends something; its type parameters may stand between, with defaults of their own.
_EXTENDS = re.compile(rb"\bclass\b[^;]{0,300}?\bextends\b")
# What a script registers with the modules of an application.
_REGISTERED = re.compile(rb"\.(?:directive|component)\(\s*['\"{]")


def registers(data: bytes) -> bool:
    """Whether a script registers directives or components by name."""
    return _REGISTERED.search(data) is not None


def recognise(source: SourceText) -> str | None:
    """The syntax a file is written in, told by its ending and a few words; None if none fits."""
    path, data = source.path.lower(), source.data
    if path.endswith(JSX_CLASS.endings) and _EXTENDS.search(data) is not None:
        return JSX_CLASS.id
    if path.endswith(SINGLE_FILE_OBJECT.endings) and b"export default" in data:
        return SINGLE_FILE_OBJECT.id
    named = _REGISTERED.search(data) is not None or b"angular" in data
    if path.endswith(DIRECTIVE.endings) and named and b".directive(" in data:
        return DIRECTIVE.id
    return None
