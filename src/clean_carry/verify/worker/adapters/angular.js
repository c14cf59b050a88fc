// Mounts a directive or a component of the scope-and-digest runtime, version 1: one application for a page.
import angular from 'angular';
import 'angular-animate';
import 'angular-sanitize';
import { parted } from '../around.mjs';

export const version = angular.version.full;

const BUILT_IN = angular.module;
const seen = new Set();
// Every module a script defines or asks for is part of the application.
angular.module = (name, ...rest) => {
  seen.add(name);
  if (!rest.length) {
    try { return BUILT_IN(name); } catch { return BUILT_IN(name, []); }
  }
  let kept = [];
  // A script may ask for a module before the one that defines it: what it registered stays.
  try { kept = BUILT_IN(name)._invokeQueue.slice(); } catch { /* it is the first */ }
  const made = BUILT_IN(name, ...rest);
  made._invokeQueue.unshift(...kept);
  return made;
};
globalThis.angular = angular;

const dashed = (name) => name.replace(/[A-Z]/g, (letter) => `-${letter.toLowerCase()}`);
const TRUE_BY_ITSELF = /^(multiple|selected|checked|disabled|readonly|required|open)$/i;
const ROW_NAMES = ['Holm', 'Skail', 'Ayre'];
// The elements of content that are there, by their numbers, where a trial no longer says which.
const ALL_PARTS = '1 2 3 4 5 6';
const LOCALS = new Set(['$scope', '$element', '$attrs', '$transclude']);

let record = () => () => {};
let files = {};
let asked = [];
let painted = false;
let pages = { around: [], beside: [], standsOn: '' };
let injector = null;

/** Take the project's templates by their paths, and the names of services its code is given. */
export function application({ templates, services, pages: known }, styled) {
  files = templates;
  asked = services;
  pages = known ?? pages;
  painted = styled;
}

/** Where a browser paints, an element named like a directive is shown as the one it is an attribute of. */
function shownAs(tag, node) {
  if (!painted) return;
  const sample = document.createElement(tag);
  document.body.appendChild(sample);
  const style = document.createElement('style');
  style.textContent = `${node.localName} { display: ${getComputedStyle(sample).display} }`;
  sample.remove();
  document.head.appendChild(style);
}

/** The element around a component as a page of the project has it, or null; and what stands beside it there. */
function onPage(way, inner) {
  const number = Number(way) - 1;
  if (!(number >= 0)) return inner;
  const made = (markup) => Object.assign(document.createElement('template'), { innerHTML: markup }).content.firstElementChild;
  if (number < pages.around.length) {
    return pages.around[number].reduceRight((inside, tag) => {
      const parent = made(tag);
      parent.appendChild(inside);
      return parent;
    }, inner);
  }
  const both = document.createElement('div');
  both.append(inner, made(pages.beside[number - pages.around.length]) ?? '');
  return both;
}

/** Take what records the calls of what stands in for a service nobody provides. */
export function provides(recorder) { record = recorder; }

/** The template a name means: its file, found by the end of its path. */
function template(url) {
  const parts = String(url).split('/').filter(Boolean);
  for (let skipped = 0; skipped < Math.max(parts.length - 1, 1); skipped++) {
    const end = parts.slice(skipped).join('/');
    const found = Object.keys(files).find((name) => name === end || name.endsWith(`/${end}`));
    if (found) return files[found];
  }
  // A bare name is enough where only one file has it.
  const named = Object.keys(files).filter((name) => name.split('/').pop() === parts[parts.length - 1]);
  return named.length === 1 ? files[named[0]] : undefined;
}

/** What stands in for a service: whatever is asked of it is a function that records its calls. */
function standIn(name) {
  const made = new Map();
  const call = record(name);
  return new Proxy(function service(...given) { return call(...given); }, {
    get(_, key) {
      if (typeof key === 'symbol' || key === 'then' || key === 'prototype') return undefined;
      if (!made.has(key)) made.set(key, record(`${name}.${key}`));
      return made.get(key);
    },
  });
}

/** The application: everything the scripts registered, and stand-ins for what they are given besides. */
function started() {
  if (injector) return injector;
  const known = [...seen].filter((name) => name !== 'ng');
  const queue = [...known];
  while (queue.length) {
    for (const needed of BUILT_IN(queue.pop()).requires) {
      try { BUILT_IN(needed); } catch { BUILT_IN(needed, []); }
      if (!known.includes(needed)) { known.push(needed); queue.push(needed); }
    }
  }
  const root = angular.element(document.body);
  const own = ($provide) => {
    $provide.value('$rootElement', root);
    $provide.value('$exceptionHandler', (error) => globalThis.dispatchEvent(new ErrorEvent('error', { error, message: error?.message })));
    $provide.decorator('$templateCache', ['$delegate', ($delegate) => {
      const get = $delegate.get.bind($delegate);
      $delegate.get = (url) => get(url) ?? template(url);
      return $delegate;
    }]);
  };
  own.$inject = ['$provide'];
  let wanted = asked.filter((name) => !LOCALS.has(name));
  for (const name of known) {
    for (const [, , given] of BUILT_IN(name)._invokeQueue) {
      const [, made] = given;
      if (typeof made === 'function' || Array.isArray(made)) {
        try { wanted.push(...angular.injector.$$annotate(made)); } catch { /* it is no function */ }
      }
    }
  }
  wanted = [...new Set(wanted)].filter((name) => !LOCALS.has(name) && name !== '$injector' && name !== '$provide' && !name.endsWith('Provider'));
  const without = angular.injector(['ng', own, ...known]);
  const missing = wanted.filter((name) => !without.has(name));
  const more = ($provide) => { for (const name of missing) $provide.value(name, standIn(name)); };
  more.$inject = ['$provide'];
  injector = missing.length ? angular.injector(['ng', own, more, ...known]) : without;
  numbered(injector.get('$rootScope'));
  return injector;
}

/** Number scopes when they are first asked for their number: how many others there are is not told by it. */
function numbered(scope) {
  const numbers = new WeakMap();
  let last = 0;
  Object.defineProperty(Object.getPrototypeOf(scope), '$id', {
    configurable: true,
    get() {
      if (!numbers.has(this)) numbers.set(this, ++last);
      return numbers.get(this);
    },
    set() {},
  });
  delete scope.$id;
}

/** The component a name is registered by. */
export const named = (name) => name || [...registered()][0];

function* registered() {
  for (const module of seen) {
    for (const [, kind, given] of BUILT_IN(module)._invokeQueue) {
      if (kind === 'directive' || kind === 'component') yield given[0];
    }
  }
}

function definition(name) {
  const inject = started();
  return inject.has(`${name}Directive`) ? inject.get(`${name}Directive`)[0] : null;
}

const BINDING = /^\s*([@&<=])\*?(\??)\s*(\w*)\s*$/;

/** The bindings of a definition by their attributes: {attribute: kind}; `must` are those that hold a value and may not be missing. */
function bindings(found, must = []) {
  const out = {};
  for (const list of [found?.scope, found?.bindToController]) {
    if (!list || typeof list !== 'object') continue;
    for (const [name, text] of Object.entries(list)) {
      const [, mode, optional, attribute] = BINDING.exec(text) ?? [];
      if (!mode) continue;
      out[attribute || name] = mode;
      if (!optional && (mode === '=' || mode === '<')) must.push(attribute || name);
    }
  }
  return out;
}

/** What a definition needs: controllers of its own element and of elements around it, by name. */
function needs(found) {
  const require = found?.require ?? [];
  const list = typeof require === 'string' ? [require] : Object.entries(require).map(([key, value]) => (value.replace(/[?^]/g, '') ? value : value + key));
  return list.filter((text) => text.replace(/[?^]/g, '') !== found.name).map((text) => ({
    // One mark looks at the element itself first: that is where a value is edited.
    name: text.replace(/[?^]/g, ''), around: text.includes('^^') || (text.includes('^') && !text.endsWith('ngModel')), optional: text.includes('?'),
  }));
}

/** An element a directive works on: named like it, with an attribute or a class where it takes no element. */
function element(name, found) {
  const node = document.createElement(dashed(name));
  const restrict = found?.restrict ?? 'EA';
  if (!restrict.includes('E')) {
    if (restrict.includes('A')) node.setAttribute(dashed(name), '');
    else node.className = dashed(name);
    shownAs(pages.standsOn || 'div', node);
  }
  return node;
}

/** Put content into an element; where only some of its elements are shown, each asks for its own number. */
function content(parent, list, some = false) {
  let count = 0;
  for (const part of list ?? []) {
    if (typeof part === 'string') parent.appendChild(document.createTextNode(part));
    else if (part.tag) {
      const node = document.createElement(part.tag);
      for (const [name, value] of Object.entries(part.attributes ?? {})) node.setAttribute(name, value);
      if (some) node.setAttribute('ng-if', `kin.$parts.indexOf('${++count}') >= 0`);
      content(node, part.content);
      parent.appendChild(node);
    }
  }
}

/** The element of the component with what it is given as attributes. */
function host(name, values, slots, scope, some = false) {
  const found = definition(name);
  const node = element(name, found);
  const must = [];
  const modes = bindings(found, must);
  // A value that must be bound is, if to nothing: a two-way one can be set then.
  const given = [...new Set([...Object.keys(values), ...must])];
  // A value that goes one way in is set by whoever hears its event, as a two-way one was.
  for (const [attribute, mode] of Object.entries(modes)) {
    const own = /^on([A-Z]\w*)Change$/.exec(attribute)?.[1];
    const value = own && own[0].toLowerCase() + own.slice(1);
    if (mode === '&' && modes[value] === '<' && !given.includes(attribute) && given.includes(value)) {
      node.setAttribute(dashed(attribute), `given['${value}'] = $value`);
    }
  }
  for (const need of needs(found)) {
    if (!need.around && need.name === 'ngModel' && !given.includes('ngModel') && !need.optional) given.push('ngModel');
  }
  for (const input of given) {
    const plain = input.replace(/^@/, '');
    const mode = modes[plain];
    const place = `given[${JSON.stringify(input)}]`.replace(/"/g, "'");
    let value = place;
    if (mode === '&') value = `${place}($locals)`;
    else if (mode === '@') value = `{{${place}}}`;
    else if (!mode && input.startsWith('@')) value = String(values[input] ?? '');
    // An attribute that is true by being there would lose what it says where an element is replaced.
    node.setAttribute(TRUE_BY_ITSELF.test(plain) ? `data-${plain}` : dashed(plain), value);
    // What the component writes back is seen as a call, once the runtime has handed all values around.
    if (mode !== '&' && !input.startsWith('@')) {
      scope.$watch(place, (now, before) => { if (!Object.is(now, before) && !Object.is(scope.$$held[input], now)) { scope.$$held[input] = now; scope.$$postDigest(() => record(`${plain} is set`)(now)); } });
    }
  }
  content(node, slots.default ?? slots[''], some);
  return node;
}

function rows(count) {
  return Array.from({ length: count }, (_, at) => ({ id: at + 1, name: ROW_NAMES[at % ROW_NAMES.length] + (at + 1) }));
}

/** The elements around a component that it asks for controllers, the outermost first. */
function around(name, depth = 0) {
  const out = [];
  for (const need of needs(definition(name))) {
    if (!need.around || need.optional || depth > 4) continue;
    if (need.name === 'form') out.push(document.createElement('form'));
    else if (definition(need.name)) {
      const parent = element(need.name, definition(need.name));
      // What a parent keeps that shows nothing itself is named by its own attribute.
      const shows = definition(need.name).template ?? definition(need.name).templateUrl;
      if (shows === undefined && parent.hasAttribute(dashed(need.name))) parent.setAttribute(dashed(need.name), `kin.${need.name}`);
      out.push(...around(need.name, depth + 1), parent);
    }
  }
  return out;
}

export function mount(place, component, input, values, hold) {
  if (!component) return { update() {}, remove() {} };
  const inject = started();
  if (!definition(component)) throw new Error(`${component} is not registered`);
  const scope = inject.get('$rootScope').$new();
  const slots = input.slots ?? {};
  scope.$$held = {};
  // What content of the component's kin is bound to; what a parent keeps is a list to begin with.
  const { outer: kept } = parted(input.inputs ?? {});
  scope.kin = {};
  if (kept.rows > 0) for (const need of needs(definition(component))) if (need.around) scope.kin[need.name] = rows(Math.min(kept.rows, 100));
  const some = kept.parts !== undefined;
  const take = (next) => {
    const { own: now, outer: told } = parted(values(next));
    if (some) scope.kin.$parts = String(told.parts ?? ALL_PARTS);
    for (const name of Object.keys(now)) scope.$$held[name] = now[name];
    scope.given = { ...now };
    // What shares the scope around finds it there by its name.
    for (const name of Object.keys(now)) if (!name.startsWith('@') && !name.startsWith('$')) scope[name] = now[name];
  };
  take(input);
  const node = host(component, scope.given, slots, scope, some);
  const outer = around(component).reduceRight((inner, parent) => { parent.appendChild(inner); return parent; }, node);
  if (kept.beside && node.parentNode) {
    // Another one in the same parent, which keeps to itself what it is not told in words.
    const told = Object.entries(scope.given).filter(([, value]) => typeof value === 'string');
    node.after(host(component, Object.fromEntries(told), { default: ['beside'] }, scope));
  }
  // What replaces its element needs one around it while it is linked.
  const stand = document.createElement('div');
  stand.appendChild(onPage(kept.page, outer));
  place.appendChild(stand);
  const linked = angular.element(stand);
  inject.get('$compile')(linked.contents())(scope);
  scope.$root.$digest();
  while (stand.firstChild) place.insertBefore(stand.firstChild, stand);
  place.removeChild(stand);
  const mounted = angular.element(place).contents();
  hold?.(angular.element(place.querySelector(dashed(component)) ?? place.firstElementChild).controller(component));
  return {
    update(next) {
      take(next);
      scope.$root.$digest();
    },
    remove() {
      const { $root: root } = scope;
      scope.$destroy();
      mounted.remove();
      angular.element(place).contents().remove();
      root.$digest();
    },
  };
}

/** Content given as an input is text and nothing else. */
export const fragment = (list) => list;

/** Listeners of this runtime are the page's own, which the harness sees by itself. */
export const events = () => [];

export function within(setup, component) { return component; }

export const empty = '';
