// What a user could do now: elements that handle an event or take input, each with its target.
import { below, nameOf, roleOf } from './tree.mjs';

const MOST = 60;
const KEYS = ['keydown', 'keyup', 'keypress'];
const PRESSES = ['click', 'mousedown', 'pointerdown', 'touchstart'];
const LONGEST_NAME = 40;
const NATIVE = new Set(['button', 'input', 'select', 'textarea', 'a', 'summary', 'label', 'option', 'form']);

/** Every actionable element below `scope`: {target, tag, kind, events, values, disabled}.
 *  `places` are the elements the component is mounted in: what listens there is the runtime; `heard` says which types are
 *  events of the page, `outsider` is an element outside of the component. */
export function actions(page, natives, scope, { places, eventsOf, heard, outsider }) {
  const found = [];
  const outside = {};
  for (const entry of page.listeners.values()) {
    const [place, type] = entry.split(' ');
    (outside[place] ??= []).push(type);
  }
  const seen = new Map();
  const tags = new Map();
  const keyed = new Set();
  for (const node of below(natives, scope)) {
    if (places.has(node)) continue;
    const tag = natives.localName(node);
    const role = roleOf(natives, node);
    const events = new Set([...(page.handled.get(node) ?? [])].filter((type) => heard(type, node)).concat(eventsOf(node)));
    // An element outside is often known by asking where a press came from that was heard further out.
    if (node === outsider) for (const type of PRESSES) if (Object.values(outside).some((types) => types.includes(type))) events.add(type);
    const own = NATIVE.has(tag) || natives.attribute(node, 'tabindex') !== null;
    // A key pressed where the focus is, is heard further out as well.
    if (KEYS.some((type) => events.has(type)) || keyed.has(natives.parentNode(node))) keyed.add(node);
    if (own && keyed.has(node)) events.add('keydown');
    const name = events.size || own ? nameOf(natives, node, scope) : '';
    const byRole = count(seen, role);
    const byName = name ? count(seen, `${role} ${name}`) : 0;
    const byTag = count(tags, tag);
    if ((!events.size && !own) || found.length >= MOST) continue;
    if (role === 'hidden') continue;
    found.push({
      target: target(tag, role, name, byRole, byName, byTag), tag,
      kind: tag === 'input' ? (natives.attribute(node, 'type') ?? 'text').toLowerCase() : tag,
      events: [...events].sort(),
      values: tag === 'select' ? options(natives, node) : [],
      disabled: Boolean(natives.closest(node, ':disabled')),
    });
  }
  const waits = [...page.timers.values()].filter((t) => t.kind !== 'frame').map((t) => t.at - page.now).sort((a, b) => a - b);
  return { elements: found, outside, waits: waits.slice(0, 4) };
}

function count(map, key) {
  const number = (map.get(key) ?? 0) + 1;
  map.set(key, number);
  return number;
}

function target(tag, role, name, byRole, byName, byTag) {
  if (role === 'generic') return { tag, position: byTag };
  if (name && name.length <= LONGEST_NAME) return byName > 1 ? { role, name, position: byName } : { role, name };
  return { role, position: byRole };
}

function options(natives, node) {
  const values = [];
  for (const option of natives.all(node, 'option')) values.push(natives.attribute(option, 'value') ?? option.textContent);
  return values.slice(0, 8);
}
