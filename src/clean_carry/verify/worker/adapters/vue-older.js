// Mounts a component of the single-file runtime, version 2.7.
import Vue from 'vue';
import { application, link } from '../application.mjs';
import { parted, veiled } from '../around.mjs';
import { declared, hyphenated, objecting } from '../single-file-inputs.mjs';
import { given } from '../slot-given.mjs';

export const objections = objecting(true);
export const version = Vue.version;

Vue.config.productionTip = false;
Vue.config.warnHandler = () => {};
Vue.config.errorHandler = (error) => globalThis.dispatchEvent(new ErrorEvent('error', { error, message: error?.message }));

const PROVIDED = '$provided.';

/** What an ancestor provides, under its keys. */
function provided(values) {
  const names = Object.keys(values).filter((name) => name.startsWith(PROVIDED));
  return Object.fromEntries(names.map((name) => [name.slice(PROVIDED.length), observed(values[name])]));
}

const observed = (value) => (value && typeof value === 'object' ? Vue.observable(value) : value);

/** Inputs as declared ones, listeners and attributes: `change` and `onChange` are listeners where they are functions. */
function data(component, values) {
  const names = declared(component);
  const out = { props: {}, attrs: {}, on: {} };
  for (const name of Object.keys(values)) {
    const value = values[name];
    if (name.startsWith(PROVIDED)) continue;
    if (names.has(name)) out.props[name] = value;
    else if (typeof value !== 'function') {
      if (name === 'class' || name === 'style') out[name] = value;
      else out.attrs[name] = value;
    } else {
      const event = /^on[A-Z]/.test(name) ? name[2].toLowerCase() + name.slice(3) : name;
      out.on[event] = value;
      if (hyphenated(event) !== event) out.on[hyphenated(event)] = value;
    }
  }
  return out;
}

let uses = [];

/** Take the contents of the project's own uses: a list of functions. */
export function provide(list) { uses = list; }

/** What makes a part of such a content: an element of the page, or a component with its slots. */
const maker = (h) => (tag, inputs, slots) => {
  if (typeof tag === 'string') return h(tag, { attrs: inputs }, slots.default?.());
  const named = Object.keys(slots).filter((name) => name !== 'default');
  const scopedSlots = Object.fromEntries(named.map((name) => [name, plain(() => slots[name]())]));
  return h(tag, { ...data(tag, inputs), scopedSlots }, slots.default?.());
};

/** Neutral content (text, {tag, attributes, content}, or {use}: the content of a use). */
function content(h, list) {
  return (list ?? []).flatMap((part) => {
    if (part.use) return uses[part.use - 1]?.(maker(h)) ?? [];
    return typeof part === 'string' ? part : h(part.tag, { attrs: part.attributes }, content(h, part.content));
  });
}

/** Content that also shows what the component gives it. */
function telling(h, list, values) {
  const told = given(values);
  if (!told) return content(h, list);
  const buttons = told.functions.map(([name, call]) => h('button', { attrs: { type: 'button' }, on: { click: () => call() } }, name));
  return [...content(h, list), h('output', [told.text, ...buttons])];
}

/** Slot content that takes nothing is among `$slots` as well: that is how templates give it. */
const plain = (content) => Object.assign(content, { proxy: true });

function filled(h, slots = {}) {
  return Object.fromEntries(Object.keys(slots).map((name) => [name || 'default', plain((values) => telling(h, slots[name], values))]));
}

/** What the components below the mounted one are given to call: [event, function], in the order of the page. */
export function handlers(place, component) {
  const found = [];
  const visit = (instance, inside) => {
    if (inside) {
      for (const name of Object.keys(instance.$listeners ?? {})) {
        found.push([name.replace(/-(\w)/g, (_, letter) => letter.toUpperCase()), (...values) => instance.$emit(name, ...values)]);
      }
    }
    const here = inside || instance === reached || instance.$options.extends === component;
    for (const child of instance.$children) visit(child, here);
  };
  const reached = mounted?.$refs.subject && innermost(mounted.$refs.subject);
  if (mounted && place.contains(mounted.$el)) visit(mounted, false);
  return found;
}

let mounted = null;
let record = () => () => {};

/** Take what records the calls of what the application provides, and what the project itself installs. */
export function provides(recorder, installs) {
  record = recorder;
  Object.assign(Vue.prototype, application(record));
  installs?.(Vue);
}

Vue.component('router-link', {
  props: ['to', 'custom', 'tag'],
  render(h) {
    const given = link(this.to, record);
    const content = this.$scopedSlots.default?.(given);
    if (this.custom !== undefined && this.custom !== false) return content?.length > 1 ? h('span', content) : content?.[0];
    return h(this.tag ?? 'a', { attrs: { href: given.href }, on: { click: given.navigate } }, content);
  },
});
Vue.component('router-view', { render: (h) => h('trial-view') });

/** What a reference to the component gives, whichever instance it is by then. */
const reference = (root) => new Proxy({}, { get: (_, name) => innermost(root.$refs.subject)?.[name] });

function innermost(instance) {
  return instance?.$refs?.trialSubject ? innermost(instance.$refs.trialSubject) : instance;
}

export function mount(place, component, input, values, hold) {
  const state = Vue.observable({ now: null });
  state.now = Object.freeze({ values: values(input), slots: input.slots });
  const root = new Vue({
    provide: provided(state.now.values),
    render(h) {
      const { values: inputs, slots } = state.now;
      const { shown, rest } = veiled(inputs);
      const directives = shown === undefined ? [] : [{ name: 'show', value: shown }];
      return h(component, { ...data(component, rest), scopedSlots: filled(h, slots), directives, ref: 'subject' });
    },
  });
  const inner = document.createElement('div');
  place.appendChild(inner);
  root.$mount(inner);
  // What is mounted first is what handlers are asked of.
  if (!mounted?.$el.isConnected) mounted = root;
  hold?.(reference(root));
  return {
    update(next) {
      state.now = Object.freeze({ values: values(next), slots: next.slots });
    },
    remove() {
      root.$destroy();
      root.$el.remove?.();
    },
  };
}

/** Content given as an input is made when it is drawn; here it is text and nothing else. */
export const fragment = (list) => list;

/** The element that a use makes, or the instance it becomes, for an input that is one. */
export function drawnBy(use, instance) {
  if (!instance) return uses[use - 1]?.(maker(new Vue().$createElement))[0];
  return new Vue({ render: (h) => uses[use - 1]?.(maker(h))[0] }).$mount().$children[0];
}

/** Listeners of this runtime are the page's own, which the harness sees by itself. */
export const events = () => [];

/** The component inside what the project's set-up module provides around its default slot, or the parents of a use. */
export function within(setup, component) {
  const around = setup.around ?? [[setup, {}]];
  return {
    inheritAttrs: false,
    render(h) {
      const { own: attrs, outer } = setup.around ? parted(this.$attrs) : { own: this.$attrs, outer: {} };
      const own = { attrs, on: this.$listeners, scopedSlots: this.$scopedSlots, ref: 'trialSubject' };
      const given = around.map(([parent, inputs], at) => [parent, at === around.length - 1 ? { ...inputs, ...outer } : inputs]);
      return given.reduceRight((inside, [parent, inputs]) => h(parent, data(parent, inputs), [inside]), h(component, own));
    },
  };
}

export const empty = { render: (h) => h() };
