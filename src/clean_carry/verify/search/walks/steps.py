"""From what the page offers to the steps of a trial."""

from __future__ import annotations

import json
from collections import Counter
from collections.abc import Collection, Sequence
from random import Random
from typing import Any

Step = dict[str, Any]

_PRESSED = frozenset("click mousedown mouseup pointerdown pointerup dblclick change input".split())
_HOVERED = frozenset("mouseenter mouseover mousemove pointerenter pointerover pointermove".split())
_LEFT = frozenset("mouseleave mouseout pointerleave pointerout".split())
_TYPED = frozenset("text search email url tel password number textarea date".split())
_KEYS = ("Enter", "Escape", "ArrowDown", "ArrowUp", " ", "Tab", "ArrowRight", "ArrowLeft")
_MORE_KEYS = (*_KEYS, "Home", "End", "Backspace", "Delete", "a", "PageDown", "PageUp")
# Keys that come with another one held.
_HELD_KEYS: tuple[Step, ...] = (
    {"key": "Tab", "shift": True},
    {"key": "n", "ctrl": True},
    {"key": "p", "ctrl": True},
)
# Keys that mean something else while one is held.
_WITH_HELD = ("ArrowDown", "ArrowUp", "Home", "End", "Enter", "a")
_TEXTS = ("Holm", "ab", "7", "-3", "", "مر", "<i>", "12", "a@b")
_NATIVE_PRESS = frozenset("button a summary label option".split())
# Events with a step of their own, or that no user makes by themselves.
_COVERED = (
    _PRESSED
    | _HOVERED
    | _LEFT
    | frozenset(
        "keydown keyup keypress focus blur focusin focusout submit touchstart touchend touchmove drag "
        "dragstart dragover drop dragend dragenter load error selectionchange invalid".split()
    )
)
WIDTHS = (320, 1280, 700)
# Events of an element that may be held and moved, and how far from its left it is let go.
_HELD = frozenset("mousedown mousemove pointerdown pointermove touchstart touchmove".split())
_BEHIND = 1.2
_SHARES = (0.1, 0.9, 0.51)
_FILES: tuple[list[str], ...] = (["tides.txt"], ["berths.csv", "cargo.csv"], [])
WAITS = (1, 60, 350, 1000, 5000, 60_000)


# Events of the page that reach an element from inside, or that any element may have (HTML, UI Events).
_OF_PAGES = frozenset(
    "click dblclick contextmenu auxclick input change beforeinput submit reset select copy cut paste "
    "keydown keyup keypress focus blur focusin focusout wheel scroll mousedown mouseup mouseover mouseout "
    "mousemove mouseenter mouseleave pointerdown pointerup pointerover pointerout pointermove pointerenter "
    "pointerleave pointercancel touchstart touchend touchmove touchcancel drag dragstart dragend dragenter "
    "dragover dragleave drop transitionend animationend animationstart compositionstart compositionend "
    "compositionupdate".split()
)
# Events that only some elements have, and that do not bubble.
_OF_TAGS = {
    "close": ("dialog",),
    "cancel": ("dialog",),
    "toggle": ("details",),
    "load": ("img", "iframe", "object"),
    "error": ("img", "iframe", "object", "audio", "video"),
}


def happens(kind: str, tag: str) -> bool:
    """Whether a page itself has an event of this name at such an element."""
    return kind in _OF_PAGES or tag in _OF_TAGS.get(kind, ())


def composing(step: Step) -> bool:
    """Return whether a step sends a composition event (text typed through an input method)."""
    return str(step.get("event", {}).get("type", "")).startswith("composition")


def possible(
    actions: dict[str, Any], held: Sequence[str] = (), emitted: Collection[str] = ()
) -> list[Step]:
    """Every step a user could take now, waiting for what is due included; `held` are keys that may be
    held meanwhile, `emitted` the names of what the component itself sends.

    A runtime may put a listener for what a component sends at its root, where it waits for an event of the
    page that never comes unless the page has one of that name.
    """
    found: list[Step] = [{"pass": max(1, int(w))} for w in sorted(set(actions["waits"]))[:2]]
    for element in actions["elements"]:
        if not element["disabled"]:
            events = [
                e for e in element["events"] if e not in emitted or happens(e, element["tag"])
            ]
            element = {**element, "events": events}
            found += _of_element(element)
            found += _with_held(element, held)
    for place, types in sorted(actions["outside"].items()):
        for kind in sorted(set(types) - {"selectionchange"}):
            found += _outside(place, kind)
    return found


def _with_held(element: dict[str, Any], held: Sequence[str]) -> list[Step]:
    target, events = element["target"], set(element["events"])
    found: list[Step] = []
    for key in held:
        if events & _PRESSED:
            found.append({"press": {**target, key: True}})
        if events & {"keydown", "keyup"}:
            found += [{"key": {**target, "key": name, key: True}} for name in _WITH_HELD]
    return found


# Inputs whose value nobody writes (HTML §4.10.5.1): they are pressed, or hold what was chosen elsewhere.
_NEVER_TYPED = frozenset(
    {"checkbox", "radio", "button", "submit", "reset", "image", "file", "hidden"}
)


def _of_element(element: dict[str, Any]) -> list[Step]:
    target, events, kind = element["target"], set(element["events"]), element["kind"]
    tag = element["tag"]
    found: list[Step] = []
    if kind in ("checkbox", "radio") or events & _PRESSED or tag in _NATIVE_PRESS:
        found.append({"press": target})
    if tag in ("button", "summary") or kind in ("checkbox", "radio"):
        found += [{"key": {**target, "key": key}} for key in ("Enter", " ")]
    if "dblclick" in events:
        found.append({"press": {**target, "double": True}})
    found += _typed(element)
    if kind == "select":
        found += [{"choose": {**target, "value": value}} for value in element["values"]]
    if events & {"keydown", "keyup", "keypress"}:
        found += [{"key": {**target, "key": key}} for key in _MORE_KEYS]
        found += [{"key": {**target, **held}} for held in _HELD_KEYS]
    elif kind in _TYPED:
        found.append({"key": {**target, "key": "Enter"}})
    if events & {"focus", "focusin", "blur", "focusout"} or kind in _TYPED:
        found += [{"focus": target}, {"blur": target}]
    found += _by_pointer(element)
    found += [{"event": {**target, "type": kind}} for kind in sorted(events - _COVERED)]
    return found


def _typed(element: dict[str, Any]) -> list[Step]:
    """Return the text to type into an element."""
    target, events, kind = element["target"], set(element["events"]), element["kind"]
    field = element["tag"] == "input"
    if kind in _TYPED or (kind == "text" and field):
        over = [{"type": {**target, "text": "", "over": True}}] if "change" in events else []
        texts = [{"type": {**target, "text": text}} for text in _TEXTS if text]
        return [*texts, *over, {"commit": target}]
    changes = bool(events & {"input", "change"}) and field and kind not in _NEVER_TYPED
    if kind == "range" or changes:
        return [{"type": {**target, "text": "7", "over": True}}, {"commit": target}]
    return []


def _by_pointer(element: dict[str, Any]) -> list[Step]:
    """Return the steps of a pointer or a finger, and those of a form or a dialog."""
    target, events, tag = element["target"], set(element["events"]), element["tag"]
    found: list[Step] = []
    if events & _HOVERED:
        found.append({"hover": target})
    if events & _LEFT:
        found += [{"hover": target}, {"leave": target}]
    if tag == "form" or "submit" in events:
        found.append({"submit": target})
    if "touchstart" in events or "touchend" in events:
        found.append({"touch": target})
    if element["kind"] == "file":
        found += [{"files": {**target, "names": names}} for names in _FILES]
    if tag == "dialog" and events & _PRESSED:
        # A press on what is behind an open dialog is one on the dialog, outside of its box.
        found.append({"press": {**target, "at": _BEHIND}})
    if events & _HELD:
        found += [{"press": {**target, "at": share}} for share in _SHARES]
        finger = {"finger": True} if events & {"touchstart", "touchmove"} else {}
        found += [{"pull": {**target, **finger, "at": share}} for share in _SHARES]
        found.append({"pull": {**target, **finger, "at": _SHARES[1], "kept": True}})
    if events & {"dragstart", "drop", "dragover"}:
        found.append({"drag": target})
    return found


def _outside(place: str, kind: str) -> list[Step]:
    if kind in ("keydown", "keyup", "keypress"):
        return [{"key": {"place": place, "key": key}} for key in _KEYS]
    if kind == "resize":
        return [{"resize": {"width": width}} for width in WIDTHS]
    if kind in ("click", "mousedown", "mouseup", "pointerdown", "touchstart"):
        return [{"press": {"place": "body"}}, {"event": {"place": place, "type": kind}}]
    return [{"event": {"place": place, "type": kind}}]


_TARGET = ("role", "name", "position", "tag")


def of_the_other(step: Step, elements: list[dict[str, Any]]) -> Step | None:
    """The same step on the same element of the other one of two instances; None where there is none."""
    (kind, given), *_ = step.items()
    if not isinstance(given, dict) or given.get("place"):
        return None
    target = {key: given[key] for key in _TARGET if key in given}
    at = next((n for n, element in enumerate(elements) if element["target"] == target), None)
    if at is None or len(elements) % 2:
        return None
    other = elements[(at + len(elements) // 2) % len(elements)]
    if other["kind"] != elements[at]["kind"]:
        return None
    rest = {key: value for key, value in given.items() if key not in _TARGET}
    return {kind: {**rest, **other["target"]}}


# Made once: a call that sorts keys would make it anew for each of the many steps a big page offers.
_written = json.JSONEncoder(sort_keys=True).encode


def key_of(step: Step) -> str:
    """Return the key by which two steps are the same."""
    return _written(step)


def following(last: Step, steps: list[Step]) -> list[Step]:
    """Return the steps that users do next most often: enter the text, or drop the element."""
    given = last.get("type") or last.get("key") or {}
    if not given or given.get("key") not in (None, "ArrowDown", "ArrowUp"):
        return []
    target = {k: v for k, v in given.items() if k not in ("text", "over", "key")}
    return [s for s in steps if s.get("key") == {**target, "key": "Enter"}]


def choose(steps: list[Step], here: dict[str, int], ever: dict[str, int], rng: Random) -> Step:
    """One of the steps: what was not tried in this walk first, then what was seldom tried ever.

    Elements have equal chances, then what can be done to one, then with what text or key.
    """
    aims = [_aim(step) for step in steps]
    kinds = Counter(aims)
    elements = Counter(aim.partition(" ")[2] for aim in kinds)
    chances = {aim: 1.0 / n / elements[aim.partition(" ")[2]] for aim, n in kinds.items()}
    weights = []
    for step, aim in zip(steps, aims, strict=True):
        key = key_of(step)
        weight = chances[aim]
        weight /= (1 + 3 * here.get(key, 0)) ** 2 * (1 + here.get(aim, 0)) ** 2
        weights.append(weight / (1 + 0.2 * ever.get(key, 0)))
    return rng.choices(steps, weights)[0]


def count(step: Step, tried: dict[str, int]) -> None:
    """Note that a step was tried."""
    for key in (key_of(step), _aim(step)):
        tried[key] = tried.get(key, 0) + 1


def _aim(step: Step) -> str:
    (kind, given), *_ = step.items()
    if not isinstance(given, dict):
        return kind
    aim = {k: given[k] for k in ("role", "name", "position", "place", "tag") if k in given}
    if not aim:
        return kind
    if any(given.get(key) for key in ("ctrl", "meta", "shift", "alt")):
        kind = f"held {kind}"
    return f"{kind} {_written(aim)}"
