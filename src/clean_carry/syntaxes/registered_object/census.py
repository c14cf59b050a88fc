"""Components that a script registers, as a survey sees them."""

from __future__ import annotations

import re

from clean_carry.source.index.facts import Sighting
from clean_carry.source.index.parsed import Parsed
from clean_carry.source.javascript.values import property_name
from clean_carry.syntaxes.registered_object.as_single_file import registered_in
from clean_carry.syntaxes.single_file.census import parts_of_object, size_of

_EMITS = re.compile(r"""\bemit\(\s*['"]([\w:-]+)['"]""")


def census(parsed: Parsed) -> list[Sighting]:
    """The objects with a template that a script registers under a name."""
    found = []
    for one in registered_in(parsed.tree) if parsed.is_script and parsed.tree is not None else ():
        node = one.call or one.statement
        given = one.call.child("arguments") if one.call is not None else None
        tag = property_name(given.named_children[0]) if given is not None else None
        options = parts_of_object(one.literal)
        text = one.literal.text
        counts = {
            "props": size_of(options.get("props")),
            "derived": size_of(options.get("computed")),
            "effects": size_of(options.get("watch")),
            "events": len(set(_EMITS.findall(text))),
            "slots": text.count("<slot"),
        }
        first, last = parsed.line(node.start), parsed.line(node.end - 1)
        found.append(
            Sighting(
                one.name or "Component", "registered-object", node.start, node.end, first,
                last - first + 1, exports=() if one.call is not None else ("default",),
                tags=(tag,) if tag else (),
                counts={key: value for key, value in counts.items() if value},
            )
        )  # fmt: skip
    return found
