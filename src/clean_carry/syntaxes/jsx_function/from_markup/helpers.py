"""Functions that go into a file where its component needs them."""

from __future__ import annotations

# By name: the hooks it needs, what it is for, its text (two spaces a level).
HELPERS: dict[str, tuple[tuple[str, ...], str]] = {
    "useNewest": (
        ("useRef", "useState"),
        """// State whose latest value can be read before the next render.
function useNewest(initial) {
  const [value, setValue] = useState(initial);
  const newest = useRef(value);
  const set = (next) => {
    newest.current = next;
    setValue(() => next);
    return next;
  };
  return [value, set, newest];
}
""",
    ),
    "useModel": (
        ("useRef", "useState"),
        """// The parent's value where it passes both `given` and `tell`, and the component's own otherwise.
function useModel(given, first, tell) {
  const input = given === undefined ? first : given;
  const [own, keep] = useState({ value: input, since: input });
  if (!Object.is(own.since, input)) keep({ value: input, since: input });
  const value = Object.is(own.since, input) ? own.value : input;
  const newest = useRef(value);
  newest.current = value;
  const told = useRef(newest);
  const parent = useListeners({ given, input, tell });
  const set = (next) => {
    const { given, input, tell } = parent.current;
    const other = told.current !== newest && !Object.is(next, told.current);
    if (Object.is(next, newest.current) && !other) return next;
    told.current = next;
    if (given === undefined || !tell) {
      newest.current = next;
      keep({ value: next, since: input });
    }
    tell?.(next);
    return next;
  };
  return [value, set, newest];
}
""",
    ),
    "useChange": (
        ("useLayoutEffect", "useRef"),
        """// Runs when a value has changed, and on mount too if `atOnce`.
function useChange(value, run, atOnce = false) {
  const before = useRef(atOnce ? useChange : value);
  useLayoutEffect(() => {
    const last = before.current;
    if (Object.is(last, value)) return;
    before.current = value;
    run(value, last === useChange ? undefined : last);
  });
}
""",
    ),
    "useEndedChange": (
        ("useLayoutEffect", "useRef"),
        """// As `useChange`; `run` may say what is to be called before its next run, and on unmount.
function useEndedChange(value, run, atOnce = false) {
  const before = useRef(atOnce ? useEndedChange : value);
  const ends = useRef([]);
  useLayoutEffect(() => {
    const last = before.current;
    if (Object.is(last, value)) return;
    before.current = value;
    for (const end of ends.current.splice(0)) end();
    run(value, last === useEndedChange ? undefined : last, (end) => ends.current.push(end));
  });
  useLayoutEffect(
    () => () => {
      for (const end of ends.current.splice(0)) end();
    },
    [],
  );
}
""",
    ),
    "useAfterRender": (
        ("useLayoutEffect", "useReducer", "useRef"),
        """// Calls back, or resolves, once all state updates are rendered.
function useAfterRender() {
  const waiting = useRef([]);
  const [, render] = useReducer((count) => count + 1, 0);
  useLayoutEffect(() => {
    for (const call of waiting.current.splice(0)) call();
  });
  return (call) =>
    new Promise((keep) => {
      waiting.current.push(() => keep(call?.()));
      render();
    });
}
""",
    ),
    "useListeners": (
        ("useLayoutEffect", "useRef"),
        """// The latest listeners, for code that outlives a render; none after unmount.
function useListeners(given) {
  const heard = useRef(given);
  heard.current = given;
  useLayoutEffect(() => {
    heard.current = given;
    return () => {
      heard.current = {};
    };
  }, []);
  return heard;
}
""",
    ),
    "useStable": (
        ("useRef",),
        """// A function with a stable identity that calls the latest one.
function useStable(run) {
  const newest = useRef(run);
  newest.current = run;
  return useRef((...given) => newest.current(...given)).current;
}
""",
    ),
    "useTyped": (
        ("useState",),
        """// The typed text of a field, kept as typed while it converts to the value.
function useTyped(value, take) {
  const [typed, keep] = useState({ text: value, since: value });
  const taken = Object.is(take(typed.text), value);
  const stands = taken || Object.is(typed.since, value);
  // Once the text was taken, only that value keeps it.
  if (taken) typed.since = typed;
  const type = (text) => {
    if (!Object.is(text, typed.text) || !Object.is(typed.since, value)) keep({ text, since: value });
  };
  return [String((stands ? typed.text : value) ?? ''), type];
}
""",
    ),
    "useField": (
        ("useRef", "useLayoutEffect"),
        """// Sets a field's value when the value or the element changes, and leaves what the user types.
function useField(field, name, value) {
  const last = useRef([]);
  useLayoutEffect(() => {
    const here = field.current;
    const given = name === 'value' ? String(value ?? '') : Boolean(value);
    const anew = last.current[0] !== here || last.current[1] !== given;
    if (here && (name === 'value' || anew) && here[name] !== given) here[name] = given;
    last.current = [here, given];
  });
}
""",
    ),
    "endOfTyping": (
        (),
        """// A ref callback: calls `take` when typing ends; shows `value` unless the user types.
function endOfTyping(take, value) {
  let field = null;
  return (element) => {
    field?.removeEventListener('change', take);
    field = element;
    if (!field) return;
    field.addEventListener('change', take);
    const text = String(value ?? '');
    const typing = document.activeElement === field || value === undefined;
    if (!typing && field.value !== text) field.value = text;
  };
}
""",
    ),
    "useEndOfTyping": (
        ("useLayoutEffect",),
        """// Calls back when typing in a field ends (the DOM event `change`).
function useEndOfTyping(field, take) {
  useLayoutEffect(() => {
    const here = field.current;
    here?.addEventListener('change', take);
    return () => here?.removeEventListener('change', take);
  });
}
""",
    ),
    "each": (
        (),
        """// Renders each item of a list, value of an object, or number from 1 to a count.
function each(items, render) {
  if (typeof items === 'number') return Array.from({ length: items }, (_, at) => render(at + 1, at));
  if (Array.isArray(items)) return items.map((item, at) => render(item, at));
  if (typeof items === 'string') return Array.from(items, render);
  return Object.keys(items ?? {}).map((key) => render(items[key], key));
}
""",
    ),
    "keepIn": (
        (),
        """// Collects the elements of a list in their order.
function keepIn(elements) {
  let own = null;
  return (element) => {
    elements.current = elements.current.filter((one) => one !== own);
    own = element;
    if (element) elements.current.push(element);
  };
}
""",
    ),
    "numberIn": (
        (),
        """// The number that a text begins with, or the text itself.
function numberIn(text) {
  const number = parseFloat(text);
  return Number.isNaN(number) ? text : number;
}
""",
    ),
    "showChoice": (
        (),
        """// Shows nothing as chosen where the value is none of the options.
function showChoice(field, value) {
  if (field && field.value !== String(value ?? '')) field.selectedIndex = -1;
}
""",
    ),
    "shown": (
        (),
        """// A value as text: lists and plain objects as JSON, nothing as nothing.
function shown(value) {
  if (value === null || value === undefined) return '';
  const plain = typeof value === 'object' && value.toString === Object.prototype.toString;
  return Array.isArray(value) || plain ? JSON.stringify(value, null, 2) : String(value);
}
""",
    ),
    "classes": (
        (),
        """// Classes as text: from text, lists, and objects of conditions.
function classes(given) {
  if (!given || typeof given === 'string') return given || '';
  if (Array.isArray(given)) return given.map(classes).filter(Boolean).join(' ');
  return Object.keys(given).filter((name) => given[name]).join(' ');
}
""",
    ),
}
ORDER = tuple(HELPERS)
