// Locks the realm the harness runs in. Objects a page is given lead to that realm's built-ins (`setTimeout` is
// a function of it, and so is all that one comes to from there): code of a component may find them there, and
// change nothing of them, keep nothing at them, and make no code of strings with them.

export const NAMES = [
  'Object', 'Function', 'Array', 'String', 'Number', 'Boolean', 'Symbol', 'BigInt', 'Date', 'RegExp', 'Promise', 'Proxy', 'Reflect',
  'Map', 'Set', 'WeakMap', 'WeakSet', 'WeakRef', 'FinalizationRegistry', 'JSON', 'Math', 'Atomics', 'Intl', 'ArrayBuffer',
  'SharedArrayBuffer', 'DataView', 'Error', 'TypeError', 'RangeError', 'SyntaxError', 'ReferenceError', 'EvalError', 'URIError',
  'AggregateError', 'Int8Array', 'Uint8Array', 'Uint8ClampedArray', 'Int16Array', 'Uint16Array', 'Int32Array', 'Uint32Array',
  'Float32Array', 'Float64Array', 'BigInt64Array', 'BigUint64Array', 'eval', 'parseInt', 'parseFloat', 'isNaN', 'isFinite',
  'decodeURI', 'decodeURIComponent', 'encodeURI', 'encodeURIComponent', 'escape', 'unescape',
];
const { defineProperty, freeze, getOwnPropertyDescriptor, getPrototypeOf } = Object;
const { ownKeys } = Reflect;

/** What no name leads to: what makers of functions make, and iterators. */
function unnamed() {
  const makers = [async () => {}, function* () {}, async function* () {}].map((made) => getPrototypeOf(made));
  const iterators = [[][Symbol.iterator](), new Map().entries(), new Set().values(), ''[Symbol.iterator](), 'a'.matchAll(/a/g)];
  const generated = [function* () {}, async function* () {}].map((made) => getPrototypeOf(made.prototype));
  return [...makers, ...iterators.map((one) => getPrototypeOf(one)), ...generated, getPrototypeOf(Int8Array), getPrototypeOf(Int8Array).prototype];
}

/** What is inherited stays what it is, and may be an object's own all the same: `error.name = …` */
function inheritable(proto, key) {
  const { value, writable, configurable } = getOwnPropertyDescriptor(proto, key) ?? {};
  if (!writable || !configurable) return;
  defineProperty(proto, key, {
    get() { return value; },
    set(own) {
      if (this === proto) throw new TypeError('what the harness is made of is not changed');
      defineProperty(this, key, { value: own, writable: true, enumerable: true, configurable: true });
    },
    enumerable: false, configurable: false,
  });
}

/** Freeze functions, their prototypes and what these inherit from, as far as they are reached from `root`. */
export function hardened(root, seen, whole = false) {
  const queue = [[root, whole]];
  while (queue.length) {
    const [one, fixed] = queue.pop();
    const made = typeof one === 'function';
    if (one === null || (typeof one !== 'object' && !made) || seen.has(one)) continue;
    seen.add(one);
    for (const key of ownKeys(one)) {
      const { value, get, set } = getOwnPropertyDescriptor(one, key);
      queue.push([value, made && key === 'prototype'], [get, false], [set, false]);
    }
    queue.push([getPrototypeOf(one), true]);
    if (made || fixed) freeze(one);
  }
}

/** Close a prototype whose heirs have their own in the place of what stands there, or write to it by design. */
export function overridable(proto, seen) {
  for (const key of ownKeys(proto)) inheritable(proto, key);
  Object.preventExtensions(proto);
  seen.add(proto);
}

/** Lock the built-ins of this realm. `makers`: whether functions may go on being made of strings (a flag forbids it elsewhere). */
export function lockdown({ makers = true } = {}) {
  for (const proto of [Error, TypeError, RangeError, SyntaxError, ReferenceError, EvalError, URIError, AggregateError].map((kind) => kind.prototype)) {
    for (const key of ['name', 'message', 'toString', 'constructor', 'stack']) inheritable(proto, key);
  }
  for (const proto of [Promise.prototype, Date.prototype, RegExp.prototype, Map.prototype, Set.prototype]) {
    for (const key of ['constructor', 'toString', 'then', 'get', 'set']) inheritable(proto, key);
  }
  const hidden = unnamed();
  if (!makers) {
    for (const proto of [Function.prototype, ...hidden.slice(0, 3)]) defineProperty(proto, 'constructor', { value: undefined });
  }
  const seen = new Set([globalThis]);
  for (const name of NAMES) hardened(globalThis[name], seen, true);
  for (const one of hidden) hardened(one, seen, true);
  return seen;
}
