// Mounts a component of the single-file runtime, version 3.
import { createApp, createTextVNode, h, reactive, shallowRef, vShow, withDirectives } from 'vue';

import { application, link } from '../application.mjs';
import { parted, veiled } from '../around.mjs';
import { declared, objecting } from '../single-file-inputs.mjs';
import { given } from '../slot-given.mjs';

export { version } from 'vue';
export const objections = objecting(false);

const PROVIDED = '$provided.';

let uses = [];

/** Take the contents of the project's own uses: a list of functions. */
export function provide(list) { uses = list; }

/** A part of such a content: an element of the page, or a component with its slots. */
function make(tag, inputs, slots) {
  const filled = Object.fromEntries(Object.keys(slots).map((name) => [name, () => textual(slots[name]())]));
  return typeof tag === 'string' ? h(tag, inputs, filled.default?.()) : h(tag, inputs, filled);
}

const textual = (list) => list.map((part) => (typeof part === 'string' ? createTextVNode(part) : part));

/** Neutral content (text, {tag, attributes, content}, or {use}: the content of a use). */
function content(list) {
  return (list ?? []).flatMap((part) => {
    if (part.use) return textual(uses[part.use - 1]?.(make) ?? []);
    return typeof part === 'string' ? createTextVNode(part) : h(part.tag, part.attributes, content(part.content));
  });
}

/** A listener of the page's own events is named by the event, which has no capitals inside: onKeydown. */
function native(name) {
  const plain = name.toLowerCase();
  return /^on[A-Z]/.test(name) && plain in document.documentElement ? `on${name[2]}${plain.slice(3)}` : name;
}

/** Functions that are no declared input are listeners of events: `change` is given as `onChange`. */
function named(component, values) {
  const names = declared(component);
  const out = {};
  for (const name of Object.keys(values)) {
    if (name.startsWith(PROVIDED)) continue;
    const event = typeof values[name] === 'function' && !names.has(name) && !/^on[A-Z]/.test(name);
    const spelled = event ? `on${name[0].toUpperCase()}${name.slice(1)}` : name;
    out[names.has(name) ? name : native(spelled)] = values[name];
  }
  return out;
}

/** What an ancestor provides, under its keys. */
function provided(values) {
  const names = Object.keys(values).filter((name) => name.startsWith(PROVIDED));
  return names.map((name) => [name.slice(PROVIDED.length), values[name] && typeof values[name] === 'object' ? reactive(values[name]) : values[name]]);
}

/** Content that also shows what the component gives it. */
function telling(list, values) {
  const told = given(values);
  if (!told) return content(list);
  const buttons = told.functions.map(([name, call]) => h('button', { type: 'button', onClick: () => call() }, name));
  return [...content(list), h('output', [told.text, ...buttons])];
}

function filled(slots = {}) {
  return Object.fromEntries(Object.keys(slots).map((name) => [name || 'default', (values) => telling(slots[name], values)]));
}

let record = () => () => {};
let own = null;
let mounted = 0;

/** Take what records the calls of what the application provides, and what the project itself installs. */
export function provides(recorder, installs) {
  record = recorder;
  own = installs;
}

const RouterLink = {
  props: ['to', 'custom'],
  render() {
    const given = link(this.to, record);
    const content = this.$slots.default?.(given);
    return this.custom !== undefined && this.custom !== false ? content : h('a', { href: given.href, onClick: given.navigate }, content);
  },
};

function install(app) {
  Object.assign(app.config.globalProperties, application(record));
  // The key under which the store's own function asks for it.
  app.provide('store', app.config.globalProperties.$store);
  app.component('RouterLink', RouterLink);
  app.component('RouterView', { render: () => h('trial-view') });
  own?.(app);
}

/** What a reference to the component gives, whichever instance it is by then. */
const reference = (root) => new Proxy({}, { get: (_, name) => innermost(root.$refs.subject)?.[name] });

function innermost(instance) {
  return instance?.$refs?.trialSubject ? innermost(instance.$refs.trialSubject) : instance;
}

export function mount(place, component, input, values, hold) {
  const taken = (next) => {
    const { shown, rest } = veiled(values(next));
    return { shown, inputs: named(component, rest), slots: filled(next.slots) };
  };
  const now = shallowRef(taken(input));
  const app = createApp({
    render() {
      const { shown, inputs, slots } = now.value;
      const drawn = h(component, { ...inputs, ...(hold && { ref: 'subject' }) }, slots);
      return shown === undefined ? drawn : withDirectives(drawn, [[vShow, shown]]);
    },
  });
  app.config.errorHandler = (error) => globalThis.dispatchEvent(new ErrorEvent('error', { error, message: error?.message }));
  app.config.warnHandler = () => {};
  // Ids that several applications on one page make up are told apart by a prefix.
  mounted += 1;
  app.config.idPrefix = `v${mounted}`;
  install(app);
  for (const [key, value] of provided(values(input))) app.provide(key, value);
  const root = app.mount(place);
  hold?.(reference(root));
  return {
    update(next) {
      now.value = taken(next);
    },
    remove: () => app.unmount(),
  };
}

export const fragment = content;

/** The element that a use makes, or the instance it becomes, for an input that is one. */
export function drawnBy(use, instance) {
  const element = uses[use - 1]?.(make)[0];
  if (!element || !instance) return element;
  const root = createApp({ render: () => h(element, { ref: 'made' }) }).mount(document.createElement('div'));
  return root.$refs.made;
}

/** What the components below the mounted one are given to call: [event, function], in the order of the page. */
export function handlers(place, component) {
  const found = [];
  const visit = (node, inside) => {
    if (Array.isArray(node)) { for (const part of node) visit(part, inside); return; }
    if (!node || typeof node !== 'object') return;
    if (!node.component) { visit(node.children, inside); return; }
    if (inside) {
      for (const [name, value] of Object.entries(node.props ?? {})) {
        if (/^on[A-Z]/.test(name) && typeof value === 'function') found.push([name[2].toLowerCase() + name.slice(3), value]);
      }
    }
    visit(node.component.subTree, inside || node.type === component);
  };
  visit(place._vnode, false);
  return found;
}

/** Listeners of this runtime are the page's own, which the harness sees by itself. */
export const events = () => [];

/** The component inside what the project's set-up module provides around its default slot, or the parents of a use. */
export function within(setup, component) {
  const around = setup.around ?? [[setup, null]];
  return {
    inheritAttrs: false,
    render() {
      const { own, outer } = setup.around ? parted(this.$attrs) : { own: this.$attrs, outer: {} };
      const inner = () => h(component, { ...own, ref: 'trialSubject' }, this.$slots);
      const given = around.map(([parent, inputs], at) => [parent, at === around.length - 1 ? { ...inputs, ...outer } : inputs]);
      return given.reduceRight((inside, [parent, inputs]) => () => h(parent, inputs, { default: () => [inside()] }), inner)();
    },
  };
}

export const empty = { render: () => null };
