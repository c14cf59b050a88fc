"""The shapes that words of the language and of pages give to values used with them."""

from __future__ import annotations

import re

# Methods by the kind of what they are called on (ECMA-262 §21 to §24).
ARRAY = frozenset(
    "map forEach filter find findIndex some every reduce push pop shift unshift splice sort reverse "
    "flatMap join fill entries keys values findLast".split()
)
ITEM_FIRST = frozenset("map forEach filter find findIndex some every flatMap sort findLast".split())
SAME_ITEMS = frozenset("filter sort reverse".split())
STRING = frozenset(
    "trim toUpperCase toLowerCase split replace replaceAll startsWith endsWith charAt charCodeAt "
    "match padStart padEnd substr substring repeat localeCompare trimStart trimEnd normalize".split()
)
NUMBER = frozenset("toFixed toPrecision toExponential".split())
DATE = frozenset(
    "getTime getFullYear getMonth getDate getDay getHours getMinutes getSeconds toISOString "
    "toLocaleDateString toLocaleTimeString setDate setMonth setFullYear setHours".split()
)
# Parts of typical dates that code reads (`values.py` has the dates): two of the numbers they give.
OF_DATES = {
    "getDay": (2, 3),
    "getDate": (2, 3),
    "getMonth": (0, 1),
    "getFullYear": (2024, 2023),
    "getHours": (12, 13),
}
# Methods of every object (ECMA-262 §20.1.3): what is asked so has no field of that name.
OF_ANY = frozenset("hasOwnProperty isPrototypeOf propertyIsEnumerable valueOf".split())
# Members of elements of the page (DOM, CSSOM View): no field of an input.
OF_ELEMENTS = frozenset(
    "nextElementSibling previousElementSibling firstElementChild lastElementChild parentElement "
    "parentNode childNodes nextSibling previousSibling classList offsetWidth offsetHeight offsetTop "
    "offsetLeft offsetParent clientWidth clientHeight scrollTop scrollLeft scrollWidth scrollHeight "
    "querySelector querySelectorAll getBoundingClientRect addEventListener removeEventListener "
    "setAttribute getAttribute removeAttribute hasAttribute contains closest appendChild removeChild "
    "insertBefore scrollIntoView tagName nodeName nodeType innerHTML textContent ownerDocument "
    "preventDefault stopPropagation currentTarget".split()
)
ARITHMETIC = frozenset("- * / % < > <= >= **".split())
ORDERING = frozenset("< > <= >=".split())
EQUAL = frozenset("=== == !== !=".split())
TYPE_WORDS = {
    "string": "string",
    "number": "number",
    "boolean": "boolean",
    "function": "function",
    "object": "object",
}
# Names of what a value is looked up by.
# Names of inputs that say by which name a part of something is looked up: `optionLabel`, `dataKey`.
LOOKED_UP = re.compile(
    r"^(field|key)$|(?:Label|Value|Key|Field|Name|Property|Prop|Id|Disabled|Children|Items|Icon)$"
)
KEYS = re.compile(r"^(key|id|code|field|name)$|(Key|Id)$")
TRANSPARENT = frozenset(
    "parenthesized_expression non_null_expression as_expression await_expression".split()
)
# Names whose values tell things apart.
NAMED_APART = frozenset("id key index undefined".split())
# Attributes of HTML whose value is a truth value, and those whose value is content.
BOOLEAN_ATTRIBUTES = frozenset(
    "disabled checked hidden required readOnly multiple autoFocus open selected noValidate".split()
)
