"""Functions that go into a file where its component needs them."""

from __future__ import annotations

# By name: the hooks it needs, what it is for, its text (two spaces a level).
HELPERS: dict[str, tuple[tuple[str, ...], str]] = {
    "useNewest": (
        ("useRef", "useState"),
        """// State whose newest value code can read before it is drawn.
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
        """// Runs when a value has changed; at once as well where that is asked.
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
        """// Calls back, or keeps its promise, once all that was written is drawn.
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
        """// The newest listeners, for code that outlives a drawing; nobody listens to what is gone.
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
        """// A function that stays the same one, and does what the newest does.
function useStable(run) {
  const newest = useRef(run);
  newest.current = run;
  return useRef((...given) => newest.current(...given)).current;
}
""",
    ),
    "useTyped": (
        ("useState",),
        """// The text of a field as it is typed, while it stands for the value or that is the same since.
function useTyped(value, take) {
  const [typed, keep] = useState({ text: value, since: take });
  const stands = Object.is(take(typed.text), value) || Object.is(typed.since, value);
  return [String((stands ? typed.text : value) ?? ''), (text) => keep({ text, since: value })];
}
""",
    ),
    "useField": (
        ("useRef", "useLayoutEffect"),
        """// Gives a field its value when that, or the field, is another one; a person may change it.
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
        """// Refers to a field whose text is taken when typing ends; its value is shown unless one types.
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
        """// Hears when typing in a field ends.
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
        """// Draws each of a list, of the values of an object, or of the numbers up to one.
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
        """// Keeps the elements of a list in the order they are drawn in.
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
        """// The number a text begins with, or the text where it begins with none.
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
