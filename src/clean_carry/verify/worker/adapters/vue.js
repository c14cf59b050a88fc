// Mounts a component of the single-file runtime, version 3.
import { createApp, createTextVNode, h, shallowReactive } from 'vue';

export { version } from 'vue';

function content(list) {
  return (list ?? []).map((part) => (typeof part === 'string' ? createTextVNode(part) : h(part.tag, part.attributes, content(part.content))));
}

/** Functions that are no declared input are listeners of events: `change` is given as `onChange`. */
function named(component, values) {
  const props = component?.props ?? {};
  const declared = new Set(Array.isArray(props) ? props : Object.keys(props));
  const out = {};
  for (const name of Object.keys(values)) {
    const event = typeof values[name] === 'function' && !declared.has(name) && !/^on[A-Z]/.test(name);
    out[event ? `on${name[0].toUpperCase()}${name.slice(1)}` : name] = values[name];
  }
  return out;
}

export function mount(place, component, input, values) {
  const inputs = shallowReactive(named(component, values(input)));
  const slots = {};
  for (const name of Object.keys(input.slots ?? {})) slots[name || 'default'] = () => content(input.slots[name]);
  const app = createApp({ render: () => h(component, { ...inputs }, slots) });
  app.config.errorHandler = (error) => globalThis.dispatchEvent(new ErrorEvent('error', { error, message: error?.message }));
  app.config.warnHandler = () => {};
  app.mount(place);
  return {
    update(next) {
      const wanted = named(component, values(next));
      for (const name of Object.keys(inputs)) if (!(name in wanted)) delete inputs[name];
      Object.assign(inputs, wanted);
    },
    remove: () => app.unmount(),
  };
}

export const fragment = content;

/** Listeners of this runtime are the page's own, which the harness sees by itself. */
export const events = () => [];

/** The component inside what the project's set-up module provides around its default slot. */
export function within(setup, component) {
  return { inheritAttrs: false, render() { return h(setup, null, { default: () => h(component, this.$attrs, this.$slots) }); } };
}

export const empty = { render: () => null };
