// Mounts a class with a component decorator. The world is the one with zones: the view is checked after every turn.
import '@angular/compiler';
import {
  Component, ErrorHandler, EventEmitter, Injector, OutputEmitterRef, VERSION, createComponent, createEnvironmentInjector,
  enableProdMode, importProvidersFrom, isSignal, RendererFactory2, reflectComponentType, ApplicationRef, provideZonelessChangeDetection, ɵZONELESS_ENABLED,
} from '@angular/core';
import { provideHttpClient } from '@angular/common/http';
import { BrowserModule, platformBrowser } from '@angular/platform-browser';

enableProdMode();

export const version = VERSION.full;

const running = new Set();
let record = () => () => {};
let own = [];

/** Take what records the calls of stand-ins, and what the project provides itself. */
export function provides(recorder, installs) {
  record = recorder;
  own = typeof installs === 'function' ? [installs()].flat() : [];
}

const failed = (error) => globalThis.dispatchEvent(new ErrorEvent('error', { error, message: error?.message }));

/** What stands in for a service nobody provides: whatever is asked of it is a function that records its calls. */
function standIn(name) {
  const made = new Map();
  return new Proxy({}, {
    get(_, key) {
      if (typeof key === 'symbol' || key === 'then' || key === 'ngOnDestroy') return undefined;
      if (!made.has(key)) made.set(key, record(`${name}.${key}`));
      return made.get(key);
    },
  });
}

/** The injector around the application's: a service that nobody provides gets a stand-in, one for all who ask. */
class Around extends Injector {
  #parent = platformBrowser().injector;
  #made = new Map();
  get(token, otherwise, flags) {
    const found = this.#parent.get(token, this, flags);
    if (found !== this) return found;
    // Who can do without says what to give instead; the runtime marks that nobody can by an empty object.
    const needed = otherwise === undefined || (otherwise && typeof otherwise === 'object' && !Object.keys(otherwise).length);
    if (!needed) return otherwise;
    if (!this.#made.has(token)) this.#made.set(token, standIn((token.name ?? String(token)).replace(/\d+$/, '')));
    return this.#made.get(token);
  }
}

function injector() {
  return createEnvironmentInjector([
    importProvidersFrom(BrowserModule),
    provideHttpClient(),
    provideZonelessChangeDetection(),
    { provide: ɵZONELESS_ENABLED, useValue: false },
    { provide: ErrorHandler, useValue: { handleError: failed } },
    ...own,
  ], new Around());
}

/** Neutral content (text, or {tag, attributes, content}) as nodes of the page. */
function nodes(list) {
  return (list ?? []).flatMap((part) => {
    if (typeof part === 'string') return document.createTextNode(part);
    if (!part.tag) return [];
    const made = document.createElement(part.tag);
    for (const [name, value] of Object.entries(part.attributes ?? {})) made.setAttribute(name, value);
    made.append(...nodes(part.content));
    return made;
  });
}

/** The name of a slot, of the selector that content goes there by: `[header]`, `.header`, `[slot=header]`. */
const slotOf = (selector) => (selector === '*' ? '' : /([\w-]+)['"]?\]?$/.exec(selector)?.[1] ?? selector);

/** The slots for which the template shows something where there is no content. */
function shownInstead(component) {
  const text = component.__annotations__?.find((one) => one.template)?.template ?? '';
  const found = new Set();
  for (const [, attributes, inner] of text.matchAll(/<ng-content\b([^>]*?)(?:\/>|>([^]*?)<\/ng-content>)/g)) {
    const [, selector] = /\bselect="([^"]*)"/.exec(attributes) ?? [];
    if (inner?.trim()) found.add(selector ? slotOf(selector) : '');
  }
  return found;
}

/** The content of each slot. One that is empty holds its place, where the template has nothing to show instead. */
function projected(component, mirror, slots = {}) {
  const instead = shownInstead(component);
  return mirror.ngContentSelectors.map((selector) => {
    const found = nodes(slots[slotOf(selector)] ?? (selector === '*' ? slots.default : undefined));
    return found.length || instead.has(slotOf(selector)) ? found : [document.createComment('')];
  });
}

// How many values the last event was told with: a listener gets one in any case.
let told = 0;
for (const emitter of [EventEmitter, OutputEmitterRef]) {
  const { emit } = emitter.prototype;
  emitter.prototype.emit = function emitted(...given) {
    told = given.length;
    return Reflect.apply(emit, this, given);
  };
}

const words = (text) => (typeof text === 'string' ? text.split(/\s+/).filter(Boolean) : []);

/** The values that inputs have by themselves, by their public names. */
function firstValues(instance, inputs) {
  const found = new Map();
  for (const { propName, templateName } of inputs) {
    try {
      const value = instance[propName];
      found.set(templateName, isSignal(value) ? value() : value);
    } catch { /* it is required */ }
  }
  return found;
}

// Elements that do something of their own when they are pressed.
const DOES = 'a[href], input, select, textarea, label, summary, form, button:not([type=button])';
const seen = new WeakSet();

/** A statement of a listener that gives false prevents what the page would do. Where the page does nothing, nothing is prevented. */
function unpreventing(factory) {
  const create = factory.createRenderer.bind(factory);
  factory.createRenderer = (element, type) => {
    const renderer = create(element, type);
    if (seen.has(renderer)) return renderer;
    seen.add(renderer);
    const listen = renderer.listen.bind(renderer);
    renderer.listen = (target, event, heardBy, options) => {
      const plain = typeof target !== 'string' && target.closest && !target.closest(DOES);
      return listen(target, event, plain ? (given) => { const result = heardBy(given); return result === false ? undefined : result; } : heardBy, options);
    };
    return renderer;
  };
}

export function mount(place, component, input, values, hold) {
  const mirror = reflectComponentType(component);
  const tag = /^[a-z][\w-]*/.exec(mirror.selector)?.[0] ?? 'div';
  const host = place.appendChild(document.createElement(tag));
  for (const [, name, , value] of mirror.selector.matchAll(/\[([\w-]+)(=["']?([^\]"']*))?/g)) host.setAttribute(name, value ?? '');
  // An element with bindings or styles of its own stands for something where there are no such elements.
  if (component.ɵcmp.hostBindings || component.ɵcmp.hostAttrs || component.ɵcmp.styles?.some((one) => one.includes('_nghost'))) host.setAttribute('trial-host', '');
  const taken = new Set(mirror.inputs.map((one) => one.templateName));
  let given = values(input);
  const environment = injector();
  unpreventing(environment.get(RendererFactory2));
  const content = projected(component, mirror, input.slots);
  const reference = createComponent(component, { environmentInjector: environment, hostElement: host, projectableNodes: content });
  const application = environment.get(ApplicationRef);
  // A template binds an input always or never: one that is given no value gets the one it has by itself.
  const first = firstValues(reference.instance, mirror.inputs);
  const valueOf = (name, next) => (next[name] === undefined ? first.get(name) : next[name]);
  const set = (next) => {
    for (const name of taken) if (valueOf(name, next) !== valueOf(name, given)) reference.setInput(name, valueOf(name, next));
    given = next;
  };
  // A parent gives its values when its view is checked: what is taken back before was never given.
  let pending = null;
  const take = () => {
    if (!pending) return;
    const [before, next] = [given, pending];
    pending = null;
    set(next);
    attributes(given, before);
    listen();
  };
  for (const output of mirror.outputs) {
    const name = output.templateName;
    const both = name.endsWith('Change') ? `update:${name.slice(0, -'Change'.length)}` : name;
    reference.instance[output.propName]?.subscribe?.((value) => (given[name] ?? given[both])?.(...(value === undefined && !told ? [] : [value])));
  }
  for (const name of taken) if (valueOf(name, given) !== undefined) reference.setInput(name, valueOf(name, given));
  const events = new Set(mirror.outputs.map((one) => one.templateName));
  // What is no input is an attribute of the element.
  const attributes = (next, before) => {
    const isOne = (name) => !taken.has(name) && !events.has(name) && /^[a-z][\w-]*$/i.test(name);
    for (const name of new Set([...Object.keys(next), ...Object.keys(before)])) {
      if (!isOne(name) || next[name] === before[name]) continue;
      const [value, old] = [next[name], before[name]];
      if (name === 'class') {
        host.classList.remove(...words(old));
        host.classList.add(...words(value));
      } else if (['string', 'number', 'boolean'].includes(typeof value)) host.setAttribute(name, String(value));
      else host.removeAttribute(name);
    }
  };
  attributes(given, {});
  // A parent listens at the element for what the class does not tell itself.
  const listening = new Set();
  const listen = () => {
    for (const name of Object.keys(given)) {
      if (!/^on[A-Z]/.test(name) || taken.has(name) || listening.has(name) || typeof given[name] !== 'function') continue;
      listening.add(name);
      host.addEventListener(name.slice(2).toLowerCase(), (event) => given[name]?.(event));
    }
  };
  listen();
  application.attachView(reference.hostView);
  const refresh = () => { try { take(); application.tick(); } catch (error) { failed(error); } };
  running.add(refresh);
  refresh();
  hold?.(reference.instance);
  let shown = content;
  return {
    update(next) {
      pending = values(next);
      const wanted = projected(component, mirror, next.slots);
      shown = shown.map((old, at) => {
        if (JSON.stringify(old.map((n) => n.outerHTML ?? n.data)) === JSON.stringify(wanted[at].map((n) => n.outerHTML ?? n.data)) || !old.length) return old;
        old[0].replaceWith(...wanted[at]);
        for (const rest of old.slice(1)) rest.remove();
        return wanted[at];
      });
    },
    remove() {
      running.delete(refresh);
      reference.destroy();
      environment.destroy();
      place.textContent = '';
    },
  };
}

/** Check the views, as the zone does after every turn. */
export function refresh() { for (const one of running) one(); }

/** What the declarations say of inputs that are given: that a required one is missing. */
export function objections(component, input, values) {
  const given = values(input);
  const kept = component.__prop__metadata__ ?? {};
  return reflectComponentType(component).inputs
    .filter(({ propName, templateName }) => given[templateName] === undefined && kept[propName]?.some((one) => one.required))
    .map(({ templateName }) => `${templateName}: is missing`);
}

export const fragment = nodes;

/** Listeners of this runtime are the page's own, which the harness sees by itself. */
export const events = () => [];

/** Outputs of components and directives are listened for at their elements, too; no page sends such events. */
export const heard = (type, node) => type !== 'reset' && !/^ng[A-Z]|[a-z]Change$/.test(type) && !(node.localName.includes('-') && !(`on${type}` in node));

export function within(setup, component) { return component; }

export const empty = Component({ selector: 'trial-empty', template: '' })(class Empty {}) ?? class {};
