"""Attributes of an element that also gets all other props, in the right order.

Of attributes of one name the last one counts where markup is code; a template joins classes, styles and
listeners (version 3's guide, "Fallthrough attributes"). Those stand in one object with what is passed on.
"""

from __future__ import annotations

from clean_carry.component.markup import (
    Attribute,
    BoundAttribute,
    Handler,
    Spread,
    StaticAttribute,
    StyleMap,
    inputs_handed_on,
)

# Names of inputs that an event of the page may stand for, where they are not the event's own.
_OTHER = {
    "dblclick": ("ondoubleclick",),
    "input": ("onchange", "oninput"),
    "change": ("onchange", "oninput"),
    "focusin": ("onfocus",),
    "focusout": ("onblur",),
}


def handed_together(attributes: tuple[Attribute, ...]) -> list[Attribute | list[Attribute]]:
    """The attributes of an element; those that must stand in one object together, where the first stood."""
    rests = [rest for one in attributes if (rest := inputs_handed_on(one)) is not None]
    spreads = [at for at, one in enumerate(attributes) if isinstance(one, Spread)]
    if len(spreads) > 1:
        # An element takes one object: all between the first and the last stands in it, in its order.
        first, last = spreads[0], spreads[-1]
        return [*attributes[:first], list(attributes[first : last + 1]), *attributes[last + 1 :]]
    if not rests:
        return list(attributes)
    named = frozenset.intersection(*(frozenset(rest.named) for rest in rests))
    met = [one for one in attributes if inputs_handed_on(one) is not None or _meets(one, named)]
    if len(met) == len(rests):
        return list(attributes)
    found: list[Attribute | list[Attribute]] = []
    for one in attributes:
        if one is met[0]:
            found.append(met)
        elif not any(one is other for other in met):
            found.append(one)
    return found


def together_at(together: list[Attribute]) -> int:
    """Return the place of the spread."""
    return next(one.code.span.start for one in together if isinstance(one, Spread))


def _meets(attribute: Attribute, named: frozenset[str]) -> bool:
    """Whether the spread may hold an attribute that would be merged with this one."""
    match attribute:
        case Handler(event=event):
            names = _OTHER.get(event, (f"on{event.lower()}",))
            return not all(name in {one.lower() for one in named} for name in names)
        case StyleMap():
            return "style" not in named
        case BoundAttribute(name="class") | StaticAttribute(name="class"):
            return "className" not in named
        case BoundAttribute(name="style") | StaticAttribute(name="style"):
            return "style" not in named
    return False
