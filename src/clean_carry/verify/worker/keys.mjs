// Keys as a keyboard sends them, and what a browser does by itself when one is pressed in a field.
import { below } from './tree.mjs';

const BUBBLES = { bubbles: true, cancelable: true, composed: true };
// UI Events §B.2.1 (legacy key codes).
const NUMBERS = { Enter: 13, Escape: 27, ' ': 32, Tab: 9, Backspace: 8, Delete: 46, ArrowLeft: 37, ArrowUp: 38, ArrowRight: 39, ArrowDown: 40, Home: 36, End: 35, PageUp: 33, PageDown: 34 };
const FOCUSABLE = 'button, input, select, textarea, a[href], summary, [tabindex]';

/** Where a key is on the keyboard (UI Events KeyboardEvent code Values). */
function placeOf(key) {
  if (key === ' ') return 'Space';
  if (/^[a-z]$/i.test(key)) return `Key${key.toUpperCase()}`;
  if (/^\d$/.test(key)) return `Digit${key}`;
  return key in NUMBERS ? key : '';
}

/** The number older code knows a key by. */
function numberOf(key) {
  return NUMBERS[key] ?? (/^[a-z0-9]$/i.test(key) ? key.toUpperCase().charCodeAt(0) : 0);
}

/** What an event says of the keys that are held meanwhile. */
export function heldIn({ ctrl, meta, shift, alt }) {
  return { ctrlKey: Boolean(ctrl), metaKey: Boolean(meta), shiftKey: Boolean(shift), altKey: Boolean(alt) };
}

/** {down, press, up} of a key; `press` is null for keys that write nothing. */
export function eventsOf(natives, given) {
  const { key } = given;
  const number = numberOf(key);
  const held = { ...BUBBLES, key, code: placeOf(key), ...heldIn(given) };
  const init = { ...held, keyCode: number, which: number };
  const letter = key.length === 1 ? key.charCodeAt(0) : number;
  const writes = !given.ctrl && !given.meta && (key.length === 1 || key === 'Enter');
  return {
    down: new natives.KeyboardEvent('keydown', init),
    press: writes ? new natives.KeyboardEvent('keypress', { ...held, keyCode: letter, charCode: letter, which: letter }) : null,
    up: new natives.KeyboardEvent('keyup', init),
  };
}

/** Whether a key can change what a field holds. */
export function isField(natives, node) {
  const local = natives.localName(node);
  if (natives.attribute(node, 'readonly') !== null) return false;
  return local === 'textarea' || (local === 'input' && !natives.matches(node, '[type=checkbox], [type=radio], [type=button], [type=submit], [type=reset], [type=file], [type=range], [type=color], [type=image]'));
}

/** Write a letter where the caret is, or delete beside it; null where that changes nothing. */
export function edited(natives, node, key) {
  const area = natives.localName(node) === 'textarea';
  const text = (area ? natives.areaValue : natives.inputValue)(node);
  let [from, to] = [text.length, text.length];
  // Fields of numbers and addresses have no caret that can be asked for.
  try { [from, to] = [node.selectionStart ?? from, node.selectionEnd ?? to]; } catch { /* at the end */ }
  const letter = key.length === 1 ? key : '';
  if (!letter && from === to) {
    if (key === 'Backspace') from = Math.max(0, from - 1);
    else to = Math.min(text.length, to + 1);
  }
  const next = text.slice(0, from) + letter + text.slice(to);
  if (next === text) return null;
  Reflect.apply(area ? natives.setArea : natives.setInput, node, [next]);
  try { node.setSelectionRange(from + letter.length, from + letter.length); } catch { /* no caret */ }
  return new natives.InputEvent('input', { bubbles: true, data: letter || null, inputType: letter ? 'insertText' : `deleteContent${key === 'Delete' ? 'Forward' : 'Backward'}` });
}

/** The element the focus goes to with Tab from `node`, null where it leaves the page. */
export function nextFocus(natives, scope, node, back) {
  const order = [...below(natives, scope)].filter((one) => one === node
    || (natives.matches(one, FOCUSABLE) && !natives.matches(one, ':disabled') && !(Number(natives.attribute(one, 'tabindex') ?? 0) < 0)));
  return order[order.indexOf(node) + (back ? -1 : 1)] ?? null;
}
