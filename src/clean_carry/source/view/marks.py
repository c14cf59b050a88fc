"""The marks of a view template: echoes, directives, comments and code, by their bytes.

The rules are those of the engine's compiler (`BladeCompiler`, version 8): raw blocks come first, then
comments, then directives, then echoes. A word behind `@` that is no directive is text.
"""

from __future__ import annotations

import re
from dataclasses import dataclass

# Every directive that the engine compiles. The newer ones are text for older engines.
DIRECTIVES = frozenset(
    (
        "append auth aware break can canany cannot case checked choice class component componentFirst "
        "continue csrf dd default disabled dump each else elseAuth elseGuest elsecan elsecanany elsecannot "
        "elseif empty endAuth endComponent endComponentFirst endEmpty endEnv endGuest endIsset endOnce "
        "endProduction endSlot endSwitch endauth endcan endcanany endcannot endcomponent "
        "endcomponentFirst endempty endenv enderror endfor endforeach endforelse endguest endif endisset "
        "endlang endonce endprepend endproduction endpush endsection endslot endswitch endunless "
        "endwhile env error extends extendsFirst for foreach forelse guest hasSection if include "
        "includeFirst includeIf includeUnless includeWhen inject isset js json lang method once overwrite "
        "parent php prepend production props push readonly required section sectionMissing selected show "
        "slot stack stop style switch unless unset vite while yield endphp"
    ).split()
)
_MARK = re.compile(
    rb"""(?P<comment>\{\{--.*?--\}\})
    | (?<!@)@verbatim(?P<verbatim>.*?)@endverbatim
    | (?<!@)@php(?P<php>(?!\s*\().*?)@endphp
    | <\?(?:php|=)?(?P<code>.*?)(?:\?>|\Z)
    | @(?P<kept>\{\{.*?\}\}|\{!!.*?!!\})
    | \{!!(?P<raw>.*?)!!\}
    | \{\{(?P<echo>.*?)\}\}
    | (?<!\w)@@(?P<doubled>\w+)
    | (?<!\w)@(?P<directive>\w+)
    """,
    re.DOTALL | re.VERBOSE,
)
_GIVEN = re.compile(rb"[ \t]*\(")
# The filler for marks while markup is read: a sign that no page holds.
FILLER = b"\x01"


@dataclass(frozen=True)
class Mark:
    """A mark. `kind` is echo, raw, comment, code, verbatim, kept (an echo behind `@`), doubled (`@@`)
    or directive; `name` is a directive's.
    `given` is the stretch of what stands inside, None for a directive without parentheses."""

    kind: str
    name: str
    start: int
    end: int
    given: tuple[int, int] | None


def marks_of(data: bytes) -> list[Mark]:
    """The marks of a template in their order."""
    found: list[Mark] = []
    at = 0
    while (one := _MARK.search(data, at)) is not None:
        mark = _mark(one, data)
        at = one.end() if mark is None else mark.end
        if mark is not None:
            found.append(mark)
    return found


def _mark(found: re.Match[bytes], data: bytes) -> Mark | None:
    kind = found.lastgroup or ""
    start, end = found.span()
    if kind == "doubled":
        return Mark("doubled", found[kind].decode(), start, end, None)
    if kind != "directive":
        kind = "code" if kind == "php" else kind
        return Mark(kind, "", start, end, found.span(found.lastgroup or 0))
    name = found[kind].decode("ascii", "replace")
    opening = _GIVEN.match(data, end)
    close = closing(data, opening.end() - 1) if opening is not None else -1
    if name not in DIRECTIVES:
        own = close >= 0 or f"@end{name}".encode() in data
        # Maybe one of the project: a bare word is text, as in an address.
        if not own:
            return None
    if opening is None or close < 0:
        return Mark("directive", name, start, end, None)
    return Mark("directive", name, start, close + 1, (opening.end(), close))


def closing(data: bytes, at: int) -> int:
    """Where the parenthesis at an offset closes, texts passed over; -1 where it never does."""
    depth = 0
    while at < len(data):
        sign = data[at : at + 1]
        if sign in (b"'", b'"'):
            at += 1
            while at < len(data) and data[at : at + 1] != sign:
                at += 2 if data[at : at + 1] == b"\\" else 1
        depth += (sign == b"(") - (sign == b")")
        if depth == 0:
            return at
        at += 1
    return -1


def filled(data: bytes, marks: list[Mark]) -> bytes:
    """The template with filler for its marks, in as many bytes."""
    made = bytearray(data)
    for one in marks:
        made[one.start : one.end] = FILLER * (one.end - one.start)
    return bytes(made)
