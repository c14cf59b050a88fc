// The page as plain data: a snapshot of the tree, and elements by role, name and position.

const SVG = 'http://www.w3.org/2000/svg';
const HTML = 'http://www.w3.org/1999/xhtml';
const LOOK = 'trial-look';
const PREFIX = { [SVG]: 'svg:', [HTML]: '' };

/** Nodes below `root` but `skip`: text as strings, elements as [name, attributes, form state, children]. */
export function snapshot(natives, root, skip = null) {
  const out = [];
  for (let node = natives.firstChild(root); node; node = natives.nextSibling(node)) {
    if (node === skip) continue;
    const type = natives.nodeType(node);
    if (type === 3) out.push(natives.nodeValue(node));
    else if (type === 8) out.push(null);
    else if (type === 1) out.push(element(natives, node));
  }
  return out;
}

function element(natives, node) {
  const namespace = natives.namespace(node);
  const local = natives.localName(node);
  const attributes = Object.create(null);
  for (const name of natives.attributeNames(node)) attributes[name] = natives.attribute(node, name);
  if (natives.numbers) {
    // A tree that goes with a look names its elements.
    if (!natives.numbers.has(node)) natives.numbers.set(node, natives.numbers.size);
    attributes[LOOK] = String(natives.numbers.get(node));
  }
  return [(PREFIX[namespace] ?? `${namespace}:`) + local, attributes, scrolled(natives, node, formState(natives, node, namespace === HTML ? local : '')), snapshot(natives, node)];
}

/** The state with where the element is scrolled to, if it is; only the simulated page scrolls at once and by whole numbers. */
function scrolled(natives, node, state) {
  const place = natives.scrolls ? [natives.scrollTop(node), natives.scrollLeft(node)] : [0, 0];
  return place.some(Boolean) ? { ...state, scrolled: place } : state;
}

function formState(natives, node, local) {
  switch (local) {
    case 'input': {
      const type = (natives.attribute(node, 'type') ?? 'text').toLowerCase();
      if (type === 'checkbox' || type === 'radio') return { checked: natives.checked(node), indeterminate: natives.indeterminate(node) };
      if (type === 'range' && natives.scrolls) bounded(natives, node);
      return { value: natives.inputValue(node) };
    }
    case 'textarea': return { value: natives.areaValue(node) };
    case 'select': return { value: natives.selectValue(node) };
    case 'option': return { selected: natives.optionSelected(node) };
    default: return null;
  }
}

/** A browser puts a slider back between its bounds as soon as they change (HTML, "range state"); the simulated page only when its value is set. */
function bounded(natives, node) {
  const value = Number(natives.inputValue(node));
  const [least, most] = ['min', 'max'].map((name) => parseFloat(natives.attribute(node, name)));
  if (value < least || value > most) natives.setInput(node, natives.inputValue(node));
}

const ROLES = {
  a: (n, e) => (n.attribute(e, 'href') === null ? 'generic' : 'link'),
  button: () => 'button',
  form: () => 'form',
  textarea: () => 'textbox',
  select: () => 'combobox',
  option: () => 'option',
  summary: () => 'button',
  li: () => 'listitem', ul: () => 'list', ol: () => 'list',
  img: () => 'img', table: () => 'table', tr: () => 'row', td: () => 'cell', th: () => 'columnheader',
  h1: () => 'heading', h2: () => 'heading', h3: () => 'heading', h4: () => 'heading',
  input: (n, e) => INPUTS[(n.attribute(e, 'type') ?? 'text').toLowerCase()] ?? 'textbox',
};
const INPUTS = { checkbox: 'checkbox', radio: 'radio', button: 'button', submit: 'button', reset: 'button', image: 'button', number: 'spinbutton', range: 'slider', search: 'searchbox', hidden: 'hidden' };

// What such an input shows as its label is its value; of every other input the value is content.
const BUTTONS = new Set(['button', 'submit', 'reset']);

/** The role of an element (HTML-AAM, the part that steps need). */
export function roleOf(natives, node) {
  const given = natives.attribute(node, 'role');
  if (given) return given.split(' ')[0];
  return ROLES[natives.localName(node)]?.(natives, node) ?? 'generic';
}

function textOf(natives, node) {
  let text = '';
  for (let child = natives.firstChild(node); child; child = natives.nextSibling(child)) {
    if (natives.nodeType(child) === 3) text += natives.nodeValue(child);
    else if (natives.nodeType(child) === 1 && natives.localName(child) !== 'textarea') text += textOf(natives, child);
  }
  return text;
}

const tidy = (text) => text.replace(/\s+/g, ' ').trim();

// A function shown by mistake is shown by its source, another on each side (the rule `function-source`).
const SOURCE = /^(?:async\s+)?(?:function\b[^{]*\{|(?:\([^()]*\)|[\w$]+)\s*=>\s*[({\w])/;

/** The name of an element: label, alternative text, or its own text (the accessible name in short). */
export function nameOf(natives, node, root) {
  const label = natives.attribute(node, 'aria-label') ?? natives.attribute(node, 'alt');
  if (label) return SOURCE.test(label) ? 'a function' : tidy(label);
  const local = natives.localName(node);
  if (local === 'input' || local === 'select' || local === 'textarea') {
    const id = natives.attribute(node, 'id');
    if (id) {
      for (const found of natives.all(root, 'label')) if (natives.attribute(found, 'for') === id) return tidy(textOf(natives, found));
    }
    for (let up = natives.parentNode(node); up && up !== root; up = natives.parentNode(up)) {
      if (natives.nodeType(up) === 1 && natives.localName(up) === 'label') return tidy(textOf(natives, up));
    }
    const shown = local === 'input' && BUTTONS.has((natives.attribute(node, 'type') ?? '').toLowerCase()) ? natives.attribute(node, 'value') : null;
    const fallback = natives.attribute(node, 'placeholder') ?? natives.attribute(node, 'name') ?? shown;
    return fallback ? tidy(fallback) : '';
  }
  return tidy(textOf(natives, node)) || tidy(natives.attribute(node, 'title') ?? '');
}

/** Every element below `root`, in the order of the document. */
export function* below(natives, root) {
  for (let node = natives.firstChild(root); node; node = natives.nextSibling(node)) {
    if (natives.nodeType(node) !== 1) continue;
    yield node;
    yield* below(natives, node);
  }
}

/** A name without white space: runtimes differ in what of it they keep between elements. */
const tight = (name) => name.replace(/\s+/g, '');

/** The element a step is aimed at, null where there is none. `places` are elements of the trial itself. */
export function find(natives, root, target, places) {
  const wanted = target.position ?? 1;
  let seen = 0;
  for (const node of below(natives, root)) {
    if (places.has(node) || (target.tag && natives.localName(node) !== target.tag)) continue;
    if (target.role && roleOf(natives, node) !== target.role) continue;
    if (target.name !== undefined && tight(nameOf(natives, node, root)) !== tight(target.name)) continue;
    seen += 1;
    if (seen === wanted) return node;
  }
  return null;
}

/** The place of an element below `root`: tag names and numbers among its siblings. */
export function pathOf(natives, root, node) {
  const parts = [];
  for (let here = node; here && here !== root; here = natives.parentNode(here)) {
    if (natives.nodeType(here) !== 1) break;
    const parent = natives.parentNode(here);
    let number = 1;
    if (parent) {
      for (let other = natives.firstChild(parent); other !== here; other = natives.nextSibling(other)) {
        if (natives.nodeType(other) === 1 && natives.localName(other) === natives.localName(here)) number += 1;
      }
    }
    parts.unshift(`${natives.localName(here)}[${number}]`);
  }
  return parts.join('/');
}
