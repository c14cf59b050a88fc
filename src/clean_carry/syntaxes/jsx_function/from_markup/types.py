"""The types of a function with markup: what it is given, and those of the helpers in its file."""

from __future__ import annotations

from clean_carry.component.members import Injected
from clean_carry.component.model import Component
from clean_carry.source.javascript.values import is_identifier
from clean_carry.syntaxes.prop_types import type_of


def props_type(
    component: Component,
    name: str,
    events: dict[str, str],
    slots: dict[str, tuple[str, bool]],
    others: bool,
    unit: str,
    end: str,
) -> str:
    """The interface of all a function is given: its inputs, events and slots, those by name with whether
    they are called with values; `others` says that it takes what any element does."""
    lines = []
    for prop in component.inputs.props:
        key = prop.name if is_identifier(prop.name) else f"'{prop.name}'"
        lines.append(f"{key}{'' if prop.required else '?'}: {type_of(prop)}")
    lines += [f"{one.name}?: any" for one in component.members if isinstance(one, Injected)]
    lines += [f"{local}?: (...given: any[]) => void" for local in events.values()]
    for local, called in slots.values():
        lines.append(f"{local}?: {'(given: any) => ReactNode' if called else 'ReactNode'}")
    if others:
        lines += ["className?: string", "[other: string]: any"]
    body = "".join(f"{unit}{line}{end or ''}\n" for line in lines)
    return f"interface {name} {{\n{body}}}\n\n"


# By helper: its untyped text, and how that reads with types.
TYPED: dict[str, tuple[tuple[str, str], ...]] = {
    "useNewest": (
        (
            "useNewest(initial)",
            "useNewest<T>(initial: T | (() => T)): [T, (value: T) => T, { current: T }]",
        ),
        ("(next) =>", "(next: T) =>"),
    ),
    "useModel": (
        (
            "useModel(given, first, tell)",
            "useModel<T>(\n  given: T | undefined,\n  first: any,\n  tell?: (value: any) => void,\n"
            "): [T, (next: any) => any, { current: T }]",
        ),
        ("const told = useRef(newest)", "const told = useRef<any>(newest)"),
        ("(next) =>", "(next: any) =>"),
    ),
    "useChange": (
        (
            "(value, run, atOnce = false)",
            "(value: any, run: (now: any, before: any) => void, atOnce = false)",
        ),
        ("useRef(atOnce", "useRef<any>(atOnce"),
    ),
    "useEndedChange": (
        ("(value, run, atOnce = false)", "(value: any, run: Ended, atOnce = false)"),
        ("useRef(atOnce", "useRef<any>(atOnce"),
        ("useRef([])", "useRef<(() => void)[]>([])"),
        (
            "// As `useChange`",
            "type Ended = (now: any, before: any, onEnd: (end: () => void) => void) => void;\n\n"
            "// As `useChange`",
        ),
    ),
    "useAfterRender": (
        ("useRef([])", "useRef<(() => void)[]>([])"),
        ("(call) =>", "(call?: () => unknown) =>"),
        ("new Promise(", "new Promise<unknown>("),
        ("(count) =>", "(count: number) =>"),
    ),
    "useListeners": (
        ("useListeners(given)", "useListeners<T extends object>(given: T)"),
        ("heard.current = {};", "heard.current = {} as T;"),
    ),
    "useStable": (
        ("useStable(run)", "useStable<T extends (...given: any[]) => any>(run: T): T"),
        ("(...given) =>", "(...given: any[]) =>"),
        ("(...given)).current", "(...given)).current as T"),
    ),
    "showChoice": (("(field, value)", "(field: HTMLSelectElement | null, value: unknown)"),),
    "useTyped": (
        (
            "useTyped(value, take)",
            "useTyped(value: any, take: (text: string) => any): [string, (text: string) => void]",
        ),
        ("useState({", "useState<{ text: any; since: any }>({"),
        ("const type = (text) =>", "const type = (text: any) =>"),
    ),
    "useField": (
        ("(field, name, value)", "(field: { current: any }, name: string, value: unknown)"),
        ("useRef([])", "useRef<any[]>([])"),
    ),
    "endOfTyping": (
        ("(take, value)", "(take: (event: any) => void, value?: unknown)"),
        ("let field = null", "let field: any = null"),
        ("(element) =>", "(element: any) =>"),
    ),
    "useEndOfTyping": (
        ("(field, take)", "(field: { current: any }, take: (event: any) => void)"),
    ),
    "each": (
        ("each(items, render)", "each(items: any, render: (item: any, at: any) => any): any"),
        ("(item, at) =>", "(item: any, at: number) =>"),
    ),
    "keepIn": (
        ("keepIn(elements)", "keepIn(elements: { current: any[] })"),
        ("let own = null", "let own: any = null"),
        ("(element) =>", "(element: any) =>"),
    ),
    "numberIn": (("numberIn(text)", "numberIn(text: string): any"),),
    "shown": (("shown(value)", "shown(value: any): string"),),
    "classes": (("classes(given)", "classes(given: any): string"),),
}  # fmt: skip


def typed(name: str, text: str) -> str:
    """A helper with types."""
    for plain, with_type in TYPED.get(name, ()):
        text = text.replace(plain, with_type)
    return text
