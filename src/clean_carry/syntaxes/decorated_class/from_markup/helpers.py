"""Members and functions that only new code needs, each written where it is used."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True)
class Helper:
    """A member of the class: its text with `{name}` for what it is called, the functions of the runtime and
    the other helpers it needs."""

    text: str
    core: tuple[str, ...] = ()
    asks: tuple[str, ...] = ()


HELPERS = {
    "onChange": Helper(
        """/** Calls `run` with the new value and the one before, once `source` gives another. */
private {name}<T>(source: () => T, run: (now: T, before: any) => void, atOnce = false) {{
  let before = untracked(source);
  if (atOnce) {{
    run(before, undefined);
  }}
  const look = () => {{
    const now = source();
    const earlier = before;
    before = now;
    if (!Object.is(now, earlier)) {{
      untracked(() => run(now, earlier));
    }}
  }};
  effect(look, {{ injector: this.injector }});
}}""",
        ("effect", "untracked"),
        ("injector",),
    ),
    "afterNext": Helper(
        """/** Calls `run` once what has changed is rendered. */
private {name}(run?: () => unknown): Promise<void> {{
  return new Promise((resolve) => {{
    const rendered = () => {{
      run?.();
      resolve();
    }};
    afterNextRender(rendered, {{ injector: this.injector }});
  }});
}}""",
        ("afterNextRender",),
        ("injector",),
    ),
    "injector": Helper("private readonly {name} = inject(Injector);", ("Injector", "inject")),
    "classes": Helper(
        """/** Class names from text, objects of conditions, and lists of both. */
protected {name}(given: any): string {{
  if (Array.isArray(given)) {{
    return given.map((one) => this.{name}(one)).filter(Boolean).join(' ');
  }}
  if (given && typeof given === 'object') {{
    return Object.keys(given).filter((name) => given[name]).join(' ');
  }}
  return typeof given === 'string' ? given : '';
}}"""
    ),
    "ticked": Helper(
        """/** The list with a value, or without it. */
protected {name}(list: any[], value: any, isTicked: boolean): any[] {{
  return isTicked ? [...list, value] : list.filter((one) => one !== value);
}}"""
    ),
    "typed": Helper(
        """/** What a field shows: the text in it, as long as that stands for its value. */
protected {name}(text: string, taken: unknown, value: any): any {{
  return taken === value ? text : (value ?? '');
}}"""
    ),
    "numberIn": Helper(
        """/** The number that a text begins with, else the text. */
protected {name}(text: string): any {{
  const number = parseFloat(text);
  return Number.isNaN(number) ? text : number;
}}"""
    ),
    "listOf": Helper(
        """/** What a template lists: the items of a list, the parts of an object, or numbers up to one. */
protected {name}(given: any): any[] {{
  if (typeof given === 'number') {{
    return Array.from({{ length: given }}, (_, at) => at + 1);
  }}
  return Array.isArray(given) ? given : Object.values(given ?? {{}});
}}"""
    ),
    "entriesOf": Helper(
        """/** What a template lists, each with its place in a list or its key in an object. */
protected {name}(given: any): [any, any][] {{
  if (typeof given === 'number') {{
    return Array.from({{ length: given }}, (_, at) => [at + 1, at]);
  }}
  if (Array.isArray(given)) {{
    return given.map((one, at) => [one, at]);
  }}
  return Object.entries(given ?? {{}}).map(([key, one]) => [one, key]);
}}"""
    ),
    "chosenIn": Helper(
        """/** The values of the options that are chosen. */
protected {name}(field: HTMLSelectElement): string[] {{
  return Array.from(field.selectedOptions, (one) => one.value);
}}"""
    ),
}

# The helpers that stand first in a class.
FIRST = ("injector",)
# A helper for a field of state that is changed in place.
TELL = """/** Sets a copy of `{field}`, so that views see a change made inside it. */
protected {name}() {{
  {text};
}}"""
