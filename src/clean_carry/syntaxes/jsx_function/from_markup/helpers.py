"""Functions that go into a file where its component needs them."""

from __future__ import annotations

# By name: the hooks it needs, what it is for, its text (two spaces a level).
HELPERS: dict[str, tuple[tuple[str, ...], str]] = {
    "useNewest": (
        ("useRef", "useState"),
        """// State whose latest value can be read before the next render.
function useNewest(initial) {
  const [drawn, draw] = useState(initial);
  const newest = useRef(drawn);
  const set = (value) => {
    newest.current = value;
    draw(() => value);
    return value;
  };
  return [drawn, set, newest];
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
    "useAfterDraw": (
        ("useLayoutEffect", "useReducer", "useRef"),
        """// Calls back, or resolves, once all state updates are rendered.
function useAfterDraw() {
  const waiting = useRef([]);
  const [, draw] = useReducer((count) => count + 1, 0);
  useLayoutEffect(() => {
    for (const call of waiting.current.splice(0)) call();
  });
  return (call) =>
    new Promise((keep) => {
      waiting.current.push(() => keep(call?.()));
      draw();
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
  const [typed, keep] = useState({ text: value, since: take });
  const stands = Object.is(take(typed.text), value) || Object.is(typed.since, value);
  return [String((stands ? typed.text : value) ?? ''), (text) => keep({ text, since: value })];
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
function each(items, draw) {
  if (typeof items === 'number') return Array.from({ length: items }, (_, at) => draw(at + 1, at));
  if (Array.isArray(items)) return items.map((item, at) => draw(item, at));
  if (typeof items === 'string') return Array.from(items, draw);
  return Object.keys(items ?? {}).map((key) => draw(items[key], key));
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
