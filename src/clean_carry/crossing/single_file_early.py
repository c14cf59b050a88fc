"""What runs while a component is made, and what it may not ask for yet."""

from __future__ import annotations

from collections.abc import Iterator

from clean_carry.component.code import Builtin, Code, MethodCall, Read
from clean_carry.component.model import (
    Component,
    Derived,
    Method,
    Provided,
    Reaction,
    Refusal,
    Timed,
)


def too_early(component: Component) -> Refusal | None:
    """A use of what is mixed in by code that runs while the component is made."""
    if not component.mixed:
        return None
    texts: dict[tuple[str, str], list[Code]] = {}
    for part in component.members:
        if isinstance(part, Method):
            texts[("method", part.name)] = [part.text]
        elif isinstance(part, Derived):
            texts[("derived", part.name)] = [part.text]
    queue = list(_at_once(component))
    seen: set[tuple[str, str]] = set()
    while queue:
        for operation in queue.pop().all():
            if operation.deferred:
                continue
            if isinstance(operation, Builtin) and operation.name in component.mixed:
                name, at = operation.name, operation.span.start
                return Refusal(component.name, "mixin-too-early", name, at)
            if isinstance(operation, MethodCall | Read):
                key = (operation.member.kind, operation.member.name)
                if key not in seen:
                    seen.add(key)
                    queue.extend(texts.get(key, ()))
    return None


def _at_once(component: Component) -> Iterator[Code]:
    """The code that runs while the component is made."""
    state = component.state
    if state is not None:
        yield from (field.code for field in state.fields or () if field.code is not None)
    if component.prelude is not None:
        yield component.prelude
    for part in component.members:
        match part:
            case Provided(code=code):
                yield code
            case Timed(when="made", callback=callback) if callback.text is not None:
                yield callback.text
            case Reaction(text=text, immediate=True):
                yield text
