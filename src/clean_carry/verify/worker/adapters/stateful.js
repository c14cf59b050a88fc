// Shows a page of a stateful view. What the page asks for is recorded; the answer comes as a change of inputs.
export const version = 'HTML of stateful views';

const PAGES = '$pages';
let record = () => {};
let mounted = 0;

export function provides(recorder) { record = recorder('$asked'); }

const named = (node, start) => [...(node.attributes ?? [])].find((one) => one.name === start || one.name.startsWith(`${start}.`));

/** The action that an attribute says: `more`, `show(2)`, `$set('text', '')`. */
function action(text) {
  const [, call, given] = /^([$\w]+)(?:\((.*)\))?$/s.exec(text.trim()) ?? [];
  const values = given ? new Function(`return [${given}];`)() : [];
  return { call, given: values };
}

function listen(place, page, onClose) {
  const heard = (event) => {
    for (let node = event.target; node && node !== place; node = node.parentNode) {
      const found = named(node, `wire:${event.type}`);
      if (!found) continue;
      if (event.type === 'submit' || found.name.includes('.prevent')) event.preventDefault();
      record({ page, ...action(found.value) });
    }
  };
  const typed = (event) => {
    const found = named(event.target, 'wire:model');
    if (!found) return;
    const field = event.target;
    const waits = found.name.includes('.blur') || field.localName === 'select' || field.type === 'checkbox' || field.type === 'radio';
    if (waits !== (event.type === 'change')) return;
    record({ page, set: found.value, value: field.type === 'checkbox' ? field.checked : field.value });
  };
  const types = ['click', 'submit', 'change'];
  for (const type of types) place.addEventListener(type, heard);
  for (const type of ['input', 'change']) place.addEventListener(type, typed);
  onClose(() => {
    for (const type of types) place.removeEventListener(type, heard);
    for (const type of ['input', 'change']) place.removeEventListener(type, typed);
  });
}

const key = (node) => node.getAttribute?.('wire:key');
const alike = (one, other) => one.nodeType === other.nodeType && one.nodeName === other.nodeName && (one.nodeType !== 1 || key(one) === key(other));

/** Make the children of one node those of another; elements that are wanted further on stay. */
function morph(old, made) {
  const wanted = [...made.childNodes];
  let here = old.firstChild;
  const drop = () => { const next = here.nextSibling; here.remove(); here = next; };
  wanted.forEach((node, at) => {
    while (here && !alike(here, node)) {
      if (here.nodeType === 1 && wanted.slice(at + 1).some((one) => alike(here, one))) break;
      drop();
    }
    if (!here || !alike(here, node)) {
      old.insertBefore(document.importNode(node, true), here);
      return;
    }
    const found = here;
    here = here.nextSibling;
    if (found.nodeType !== 1) {
      if (found.data !== node.data) found.data = node.data;
      return;
    }
    for (const { name } of [...found.attributes]) if (!node.hasAttribute(name)) found.removeAttribute(name);
    for (const { name, value } of [...node.attributes]) if (found.getAttribute(name) !== value) found.setAttribute(name, value);
    morph(found, node);
  });
  while (here) drop();
}

function fill(place, state) {
  for (const field of place.querySelectorAll('input, select, textarea')) {
    const found = named(field, 'wire:model');
    if (!found) continue;
    const value = state?.[found.value];
    if (field.type === 'checkbox') field.checked = Boolean(value);
    else if (field.type === 'radio') field.checked = field.value === String(value);
    else if (field.localName === 'select') {
      field.value = String(value ?? '');
      if (field.value !== String(value ?? '')) field.selectedIndex = -1;
    } else if (field.value !== String(value ?? '')) field.value = String(value ?? '');
  }
}

const asked = new Set();

/** Ask for data that a page waits for, once; the reply goes to the server. */
function ask(page, url) {
  const key = `${page} ${url}`;
  if (asked.has(key)) return;
  asked.add(key);
  const answered = (reply) => record({ page, answered: url, reply });
  fetch(url).then(async (reply) => answered({ fail: false, status: reply.status, text: await reply.text() }), () => answered({ fail: true, status: 0, text: '' }));
}

function show(place, page, input) {
  const pages = input.inputs[PAGES] ?? {};
  const { html, state, failed, wants } = pages[page] ?? pages[0] ?? {};
  if (failed) throw new Error(failed);
  if (wants) ask(page, wants);
  const holder = document.createElement('template');
  holder.innerHTML = html ?? '';
  morph(place, holder.content);
  fill(place, state);
}

export function mount(place, component, input, values, hold) {
  hold?.(null);
  mounted += 1;
  const page = mounted;
  let close = () => {};
  record({ page, mounted: true });
  listen(place, page, (end) => { close = end; });
  show(place, page, input);
  return {
    update(next) { show(place, page, next); },
    remove() { close(); place.textContent = ''; },
  };
}

export const fragment = (list) => list;
export const events = (node) => [...(node.attributes ?? [])].flatMap(({ name }) => {
  if (name.startsWith('wire:model')) return ['input', 'change'];
  const [, type] = /^wire:(click|submit|change)\b/.exec(name) ?? [];
  return type ? [type] : [];
});

export function within(setup, component) { return component; }

export const empty = '';
