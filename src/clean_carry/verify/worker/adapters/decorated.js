// Mounts a class with a component decorator. The world is the one with zones: the view is checked after every turn.
import '@angular/compiler';
import {
  Component, EnvironmentInjector, ErrorHandler, NgZone, VERSION, createComponent, createEnvironmentInjector,
  enableProdMode, importProvidersFrom, reflectComponentType, ApplicationRef, ɵNoopNgZone, ɵZONELESS_ENABLED,
} from '@angular/core';
import { provideHttpClient } from '@angular/common/http';
import { BrowserModule, platformBrowser } from '@angular/platform-browser';

enableProdMode();

export const version = VERSION.full;

// So many services that nobody provides get a stand-in.
const MOST_STAND_INS = 20;
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

function injectorWith(standIns) {
  return createEnvironmentInjector([
    importProvidersFrom(BrowserModule),
    provideHttpClient(),
    { provide: NgZone, useClass: ɵNoopNgZone },
    { provide: ɵZONELESS_ENABLED, useValue: false },
    { provide: ErrorHandler, useValue: { handleError: failed } },
    ...standIns.map((token) => ({ provide: token, useValue: standIn(token.name || String(token)) })),
    ...own,
  ], platformBrowser().injector);
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

function projected(mirror, slots = {}) {
  return mirror.ngContentSelectors.map((selector) => nodes(slots[slotOf(selector)] ?? (selector === '*' ? slots.default : undefined)));
}

/** Make the component; services that are missing get a stand-in, one after the other. */
function made(component, mirror, input, host) {
  const standIns = [];
  for (;;) {
    const injector = injectorWith(standIns);
    try {
      const content = projected(mirror, input.slots);
      const reference = createComponent(component, { environmentInjector: injector, hostElement: host, projectableNodes: content });
      return { injector, reference, content };
    } catch (error) {
      injector.destroy();
      host.textContent = '';
      const token = missing(error);
      if (!token || standIns.includes(token) || standIns.length >= MOST_STAND_INS) throw error;
      standIns.push(token);
    }
  }
}

/** The token of a service that no injector knows: the last one of the path that an error names. */
function missing(error) {
  const path = error?.ngTokenPath;
  const token = error?.token ?? path?.[path.length - 1];
  return typeof token === 'string' || token === undefined ? asked.get(token ?? /No provider (?:found )?for `?([\w$]+)/.exec(error?.message)?.[1]) : token;
}

// Classes and tokens by name, as errors name them; the compiled classes note what they ask for.
const asked = new Map();
globalThis.__tokens__ = (token, name) => { if (token) asked.set(token.name || name, token); return token; };

export function mount(place, component, input, values, hold) {
  const mirror = reflectComponentType(component);
  const tag = /^[a-z][\w-]*/.exec(mirror.selector)?.[0] ?? 'div';
  const host = place.appendChild(document.createElement(tag));
  for (const [, name, , value] of mirror.selector.matchAll(/\[([\w-]+)(=["']?([^\]"']*))?/g)) host.setAttribute(name, value ?? '');
  const taken = new Set(mirror.inputs.map((one) => one.templateName));
  let given = values(input);
  const { injector, reference, content } = made(component, mirror, input, host);
  const application = injector.get(ApplicationRef);
  const set = (next) => {
    for (const name of taken) if (name in next || name in given) if (next[name] !== given[name] || next === given) reference.setInput(name, next[name]);
    given = next;
  };
  for (const output of mirror.outputs) {
    reference.instance[output.propName]?.subscribe?.((...told) => given[output.templateName]?.(...told));
  }
  for (const name of taken) if (name in given) reference.setInput(name, given[name]);
  application.attachView(reference.hostView);
  const refresh = () => { try { application.tick(); } catch (error) { failed(error); } };
  running.add(refresh);
  refresh();
  hold?.(reference.instance);
  let shown = content;
  return {
    update(next) {
      set(values(next));
      const wanted = projected(mirror, next.slots);
      shown = shown.map((old, at) => {
        if (JSON.stringify(old.map((n) => n.outerHTML ?? n.data)) === JSON.stringify(wanted[at].map((n) => n.outerHTML ?? n.data)) || !old.length) return old;
        old[0].replaceWith(...wanted[at]);
        for (const rest of old.slice(1)) rest.remove();
        return wanted[at];
      });
      refresh();
    },
    remove() {
      running.delete(refresh);
      reference.destroy();
      injector.destroy();
      place.textContent = '';
    },
  };
}

/** Check the views, as the zone does after every turn. */
export function refresh() { for (const one of running) one(); }

export const fragment = nodes;

/** Listeners of this runtime are the page's own, which the harness sees by itself. */
export const events = () => [];

export function within(setup, component) { return component; }

export const empty = Component({ selector: 'trial-empty', template: '' })(class Empty {}) ?? class {};
