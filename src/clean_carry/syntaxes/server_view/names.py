"""Names of classes, views and variables."""

from __future__ import annotations

import re

from clean_carry.component.code import Member
from clean_carry.source.expressions.types import Type

# Words that no class may be called (the language's reference, "List of Keywords" and reserved classes).
_TAKEN = frozenset(
    "abstract array as break callable case catch class clone const continue declare default do echo else "
    "empty enum eval exit extends final finally fn for foreach function global goto if implements include "
    "instanceof interface isset list match namespace new null object or parent print private protected "
    "public readonly require return self static string switch throw trait try unset use var while yield "
    "int float bool true false void iterable mixed never component".split()
)
# Methods that the class of a view has already.
_OF_COMPONENT = frozenset(
    "all authorize boot data dispatch except exception fill getid getname hydrate js mount only "
    "placeholder pull redirect redirectroute render rendered rendering reset resetexcept resetvalidation "
    "resolveview skiprender stream validate validateonly view withattributes withname".split()
)
# Names that a view has already.
_OF_VIEW = frozenset({"slot", "attributes", "loop", "errors", "this", "component"})


def class_of(stem: str) -> str:
    """The name of a class for a file: `sailing-card` as `SailingCard`."""
    words = "".join(word[:1].upper() + word[1:] for word in re.findall(r"[A-Za-z0-9]+", stem))
    return f"{words}View" if words.lower() in _TAKEN or not words[:1].isalpha() else words


def view_of(class_name: str) -> str:
    """The name of the view of a class: `SailingCard` as `sailing-card`."""
    return re.sub(r"(?<=[a-z0-9])(?=[A-Z])|(?<=[A-Z])(?=[A-Z][a-z])", "-", class_name).lower()


def file_of(stem: str) -> str:
    """The file of the view of a component: `SailingCard` as `sailing-card.blade.php`."""
    return f"{view_of(class_of(stem))}.blade.php"


def variable(name: str) -> str:
    """The name of a variable; one that a view has already gets another word."""
    plain = re.sub(r"[^0-9A-Za-z_]+(\w?)", lambda found: found[1].upper(), name)
    return f"own{plain[:1].upper()}{plain[1:]}" if plain in _OF_VIEW else plain


def action(name: str) -> str:
    """The name of a method; one that the library has gets another word."""
    plain = variable(name)
    return f"own{plain[:1].upper()}{plain[1:]}" if plain.lower() in _OF_COMPONENT else plain


def property_of(member: Member) -> str:
    """The name of a public member of the class."""
    return variable(member.name)


def php_type(type_: Type) -> str:
    """The type of a property or a parameter."""
    plain = {
        "number": "int" if type_.whole else "int|float", "text": "string", "flag": "bool",
        "list": "array", "record": "array",
    }.get(type_.kind, "mixed")  # fmt: skip
    if not type_.missing or plain == "mixed":
        return plain
    return f"{plain}|null" if "|" in plain else f"?{plain}"
