// What the simulated page answers about its medium (Media Queries 4, CSSOM View): a screen as large as the
// window, with a mouse, light, one dot to the pixel. A list of queries is asked again whenever the window
// changes, and tells those who listen when its answer is another.

const PX = { px: 1, em: 16, rem: 16, in: 96, cm: 96 / 2.54, mm: 96 / 25.4, pt: 96 / 72, pc: 16 };
const LENGTH = /^([+-]?[\d.]+)([a-z]*)$/;
const KEPT = {
  orientation: null, hover: 'hover', 'any-hover': 'hover', pointer: 'fine', 'any-pointer': 'fine', update: 'fast',
  'prefers-color-scheme': 'light', 'prefers-reduced-motion': 'no-preference', 'prefers-contrast': 'no-preference',
  'display-mode': 'browser', scripting: 'enabled',
};
const NUMBERS = { color: 8, monochrome: 0, grid: 0, 'color-index': 0, resolution: 1, '-webkit-device-pixel-ratio': 1 };
const ORDERS = {
  '<': (a, b) => a < b, '<=': (a, b) => a <= b, '>': (a, b) => a > b, '>=': (a, b) => a >= b, '=': (a, b) => a === b,
};

function sizes(w) {
  const width = w.innerWidth;
  const height = w.innerHeight;
  return {
    ...NUMBERS, width, height, 'device-width': width, 'device-height': height,
    'aspect-ratio': width / height, 'device-aspect-ratio': width / height,
  };
}

function number(text) {
  const [, value, unit] = LENGTH.exec(text) ?? [];
  if (value === undefined) {
    const [above, below] = text.split('/').map(Number);
    return below ? above / below : NaN;
  }
  return Number(value) * (unit === 'dppx' || unit === 'x' || unit === '' ? 1 : unit === 'dpi' ? 1 / 96 : PX[unit] ?? NaN);
}

/** Whether one feature, as `min-width: 600px` or `400px <= width`, is so; null where it is not known. */
function feature(text, w) {
  const has = sizes(w);
  const [name, value] = text.split(':').map((part) => part.trim());
  if (value !== undefined) {
    const [, end, plain] = /^(min-|max-|)(.+)$/.exec(name.replace(/^-webkit-(min|max)-/, '$1--webkit-'));
    if (plain in has) return ORDERS[{ 'min-': '>=', 'max-': '<=', '': '=' }[end]](has[plain], number(value));
    if (plain === 'orientation') return (has.height >= has.width ? 'portrait' : 'landscape') === value;
    return plain in KEPT ? KEPT[plain] === value : null;
  }
  const parts = text.split(/(<=|>=|<|>|=)/).map((part) => part.trim());
  if (parts.length === 1) {
    if (text in has) return has[text] !== 0;
    return text in KEPT ? KEPT[text] !== 'no-preference' : null;
  }
  const values = parts.map((part, at) => (at % 2 ? part : has[part] ?? number(part)));
  let holds = true;
  for (let at = 1; at < values.length; at += 2) holds &&= ORDERS[values[at]](values[at - 1], values[at + 1]);
  return holds;
}

function split(text, word) {
  const parts = [''];
  let depth = 0;
  for (const piece of text.split(/(\(|\)|,|\s+)/)) {
    if (piece === '(') depth++;
    if (piece === ')') depth--;
    if (!depth && piece === word) parts.push('');
    else parts[parts.length - 1] += piece;
  }
  return parts.map((part) => part.trim());
}

function condition(text, w) {
  const either = split(text, 'or');
  if (either.length > 1) return either.some((part) => condition(part, w));
  const both = split(text, 'and');
  if (both.length > 1) return both.every((part) => condition(part, w));
  if (text.startsWith('not ')) return !condition(text.slice(4).trim(), w);
  if (text.startsWith('(') && text.endsWith(')')) {
    const inner = text.slice(1, -1).trim();
    return /^\(|^not /.test(inner) ? condition(inner, w) : feature(inner, w) === true;
  }
  return text === 'all' || text === 'screen';
}

/** Whether a list of media queries holds for a window as it is now. */
export function holds(list, w) {
  const text = String(list).toLowerCase().trim();
  return text === '' || split(text, ',').some((query) => {
    const plain = query.replace(/^(only|not)\s+(?=[a-z])/, '');
    return condition(plain, w) !== /^not\s+[a-z]/.test(query);
  });
}

/**
 * Give a window `matchMedia`. `page.remeasure()` asks every list again and tells those who listen; `matches(list)`
 * answers for the page, where it is not this file that does.
 */
export function media(page, matches = null) {
  const w = page.window;
  const answer = matches ?? ((text) => holds(text, w));
  const heard = new Set();
  let number = 0;

  class MediaQueryList extends w.EventTarget {
    #before;
    #listeners = new Set();
    #key = `media ${++number}`;
    onchange = null;

    constructor(text) {
      super();
      this.media = text;
      this.#before = this.matches;
      heard.add(this);
    }

    get matches() { return answer(this.media); }

    addListener(listener) { this.addEventListener('change', listener); }

    removeListener(listener) { this.removeEventListener('change', listener); }

    addEventListener(type, listener, options) {
      super.addEventListener(type, listener, options);
      if (type !== 'change' || !listener) return;
      this.#listeners.add(listener);
      page.listeners.set(this.#key, 'window resize');
    }

    removeEventListener(type, listener, options) {
      super.removeEventListener(type, listener, options);
      if (type === 'change') this.#listeners.delete(listener);
      if (!this.#listeners.size) page.listeners.delete(this.#key);
    }

    remeasure() {
      const { matches } = this;
      if (matches === this.#before) return;
      this.#before = matches;
      const event = new page.natives.Event('change');
      Object.assign(event, { matches, media: this.media });
      this.onchange?.(event);
      this.dispatchEvent(event);
    }
  }

  w.matchMedia = (text) => new MediaQueryList(String(text));
  page.remeasure = () => { for (const list of heard) list.remeasure(); };
  page.unmeasure = () => { heard.clear(); number = 0; };
}
