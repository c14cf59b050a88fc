// Hides from a simulated page what the page library keeps behind its objects: an element leads to what it is made
// of under a symbol, and from there to all pages of the process. Component code gets no such symbol.

// Runs in the page, before any other code. What looks at all the keys of an object, or is told them by a trap,
// passes over those that are hidden.
const VEIL = `(hidden) => {
  const { apply, get, getOwnPropertyDescriptor, has, ownKeys, defineProperty } = Reflect;
  const { getOwnPropertySymbols, getOwnPropertyDescriptors, create } = Object;
  const secret = new Set(hidden);
  const { has: holds } = Set.prototype;
  const isHidden = (key) => typeof key === 'symbol' && apply(holds, secret, [key]);
  const shown = (keys) => {
    const found = [];
    for (let at = 0; at < keys.length; at++) if (!isHidden(keys[at])) defineProperty(found, found.length, { value: keys[at], writable: true, enumerable: true, configurable: true });
    return found;
  };
  const put = (owner, name, value) => defineProperty(owner, name, { value, writable: true, enumerable: false, configurable: true });
  put(Object, 'getOwnPropertySymbols', function getOwnPropertySymbols_(object) { return shown(getOwnPropertySymbols(object)); });
  put(Reflect, 'ownKeys', function ownKeys_(object) { return shown(ownKeys(object)); });
  put(Object, 'getOwnPropertyDescriptors', function getOwnPropertyDescriptors_(object) {
    const found = getOwnPropertyDescriptors(object);
    for (const key of hidden) delete found[key];
    return found;
  });
  for (const owner of [Object.getOwnPropertySymbols, Reflect.ownKeys, Object.getOwnPropertyDescriptors]) defineProperty(owner, 'name', { value: owner.name.slice(0, -1) });
  const veiled = new WeakMap();
  const { get: known, set: remember } = WeakMap.prototype;
  /** A handler whose traps are not told hidden keys. */
  const handled = (handler) => {
    if (handler === null || typeof handler !== 'object') return handler;
    let made = apply(known, veiled, [handler]);
    if (made) return made;
    made = create(handler);
    const trap = (name, value) => defineProperty(made, name, { value, configurable: true, enumerable: true });
    trap('get', (target, key, receiver) => (handler.get === undefined || isHidden(key) ? get(target, key, receiver) : handler.get(target, key, receiver)));
    trap('has', (target, key) => (handler.has === undefined || isHidden(key) ? has(target, key) : handler.has(target, key)));
    trap('getOwnPropertyDescriptor', (target, key) => (
      handler.getOwnPropertyDescriptor === undefined || isHidden(key) ? getOwnPropertyDescriptor(target, key) : handler.getOwnPropertyDescriptor(target, key)));
    apply(remember, veiled, [handler, made]);
    return made;
  };
  const Own = Proxy;
  const Veiled = function Proxy(target, handler) {
    if (new.target === undefined) throw new TypeError("Constructor Proxy requires 'new'");
    return new Own(target, handled(handler));
  };
  put(Veiled, 'revocable', function revocable(target, handler) { return Own.revocable(target, handled(handler)); });
  defineProperty(Veiled, 'prototype', { value: undefined, writable: false });
  put(globalThis, 'Proxy', Veiled);
}`;

/** Hide symbols from the page in a window; `evaluate` runs code there. */
export function veil(evaluate, symbols) {
  evaluate(VEIL)(symbols);
}

/** The symbols under which the page library keeps things at objects of a page. */
export function symbolsOf(utils, objects) {
  const named = Object.values(utils).filter((value) => typeof value === 'symbol');
  const found = objects.flatMap((object) => Object.getOwnPropertySymbols(object));
  return [...new Set([...named, ...found])].filter((symbol) => !WELL_KNOWN.has(symbol));
}

const WELL_KNOWN = new Set(Object.getOwnPropertyNames(Symbol).map((name) => Symbol[name]).filter((value) => typeof value === 'symbol'));
