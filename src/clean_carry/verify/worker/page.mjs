// A fresh window with a clock that only moves when told, seeded chance, a stubbed network, and errors caught.
// The window is a simulated one (`simulated.mjs`) or a frame of a browser (`browser/realm.mjs`).
import { NAMES } from './lockdown.mjs';
import { natives } from './natives.mjs';

const START = Date.UTC(2024, 0, 1);
const MOST_TIMERS = 5000;
// In one stretch of time timers run at so many moments at most: what runs each millisecond does so again and again.
const MOST_MOMENTS = 300;
// How often what moves by itself is brought to its end before the page counts as settled.
const MOST_RESTS = 4;

/**
 * `realm` is where the window comes from: {window, evaluate(code), run(bundle), turn(): one turn of the host's
 * loop, furnish(page): what it has beside a browser's window, resize(page, width, height), close()}, and where
 * pages can be used again, `reusable`. A realm that paints by itself also has `rest()`, which waits for that
 * and says whether something was still moving.
 */
export class Page {
  constructor(realm) {
    this.realm = realm;
    this.window = realm.window;
    this.now = 0;
    this.nextKey = 1;
    this.timers = new Map();
    this.tasks = [];
    this.errors = [];
    this.requests = [];
    this.replies = [];
    this.listeners = new Map();
    this.handled = new WeakMap();
    this.outside = new Map();
    this.#clock();
    this.#chance();
    this.#network();
    this.#quiet();
    this.drawn = [];
    this.natives = natives(this.window);
    realm.furnish(this);
    this.#watch();
    // Functions of the harness hold nothing that is put at them.
    for (const name of PLACED) if (typeof this.window[name] === 'function') Object.freeze(this.window[name]);
    this.asFound = realm.reusable ? found(this.window) : null;
    this.builtIns = realm.reusable ? builtIns(this.window) : [];
  }

  #clock() {
    const w = this.window;
    const add = (kind, run, delay, repeat) => {
      const key = this.nextKey++;
      const wait = Math.max(repeat ? 1 : 0, Number(delay) || 0);
      this.timers.set(key, { key, kind, at: this.now + wait, run, every: repeat ? wait : 0, delay: wait });
      return key;
    };
    const clear = (key) => { this.timers.delete(key); };
    w.setTimeout = (run, delay, ...rest) => add('timeout', () => typeof run === 'function' && run(...rest), delay);
    w.setInterval = (run, delay, ...rest) => add('interval', () => typeof run === 'function' && run(...rest), delay, true);
    w.requestAnimationFrame = (run) => add('frame', () => run(this.now), 16);
    w.requestIdleCallback = (run) => add('idle', () => run({ didTimeout: false, timeRemaining: () => 10 }), 1);
    w.clearTimeout = w.clearInterval = w.cancelAnimationFrame = w.cancelIdleCallback = clear;
    w.queueMicrotask = (run) => { this.realm.evaluate('Promise.resolve()').then(run); };
    const page = this;
    w.MessageChannel = class MessageChannel {
      constructor() {
        const port = (other) => ({
          onmessage: null,
          postMessage: (data) => page.tasks.push(() => other().onmessage?.({ data })),
          close() {}, start() {},
        });
        this.port1 = port(() => this.port2);
        this.port2 = port(() => this.port1);
      }
    };
    w.__page = { now: () => START + this.now };
    this.realm.evaluate(`{
      const now = __page.now; delete globalThis.__page;
      const Real = Date;
      globalThis.Date = class Date extends Real {
        constructor(...given) { if (given.length) super(...given); else super(now()); }
        static now() { return now(); }
      };
      let seed = 1;
      Math.random = () => { seed = (seed * 48271) % 2147483647; return (seed - 1) / 2147483646; };
      globalThis.__reseed = () => { seed = 1; };
    }`);
    this.reseed = w.__reseed;
    delete w.__reseed;
    w.performance.now = () => this.now;
  }

  #chance() {
    let seed = 7;
    this.reseedBytes = () => { seed = 7; };
    const next = () => { seed = (seed * 48271) % 2147483647; return seed & 255; };
    Object.defineProperty(this.window, 'crypto', {
      configurable: true,
      value: {
        getRandomValues: (array) => { for (let i = 0; i < array.length; i++) array[i] = next(); return array; },
        randomUUID: () => `00000000-0000-4000-8000-${String(next() * 4096 + next()).padStart(12, '0')}`,
      },
    });
  }

  #network() {
    const w = this.window;
    const page = this;
    const answer = (method, url, body) => {
      const asked = { method: String(method || 'GET').toUpperCase(), url: String(url), body: body == null ? null : String(body) };
      page.requests.push(asked);
      const fits = (r) => (r.url === '*' || r.url === asked.url) && (r.method === undefined ? r.url === '*' || asked.method === 'GET' : r.method.toUpperCase() === asked.method);
      const at = page.replies.findIndex(fits);
      const reply = at < 0 ? { status: 404, text: '' } : page.replies[at];
      if (at >= 0 && reply.once) page.replies.splice(at, 1);
      return reply;
    };
    const text = (reply) => (reply.text !== undefined ? reply.text : JSON.stringify(reply.json ?? null));
    const waits = (reply, run) => { if (reply.after) w.setTimeout(run, reply.after); else run(); };
    w.__answer = (method, url, body, done) => {
      const reply = answer(method, url, body);
      waits(reply, () => done(Boolean(reply.fail), reply.status ?? 200, text(reply)));
    };
    this.realm.evaluate(`{
      const answer = __answer; delete globalThis.__answer;
      const response = (url, status, text) => ({
        ok: status >= 200 && status < 300, status, statusText: '', url, redirected: false,
        headers: { get: () => null, has: () => false, forEach() {} },
        json: async () => JSON.parse(text), text: async () => text,
        clone() { return response(url, status, text); },
      });
      globalThis.fetch = (target, options = {}) => new Promise((resolve, reject) => {
        const url = String(target?.url ?? target);
        options.signal?.addEventListener('abort', () => reject(new DOMException('The operation was aborted.', 'AbortError')));
        answer(options.method ?? target?.method, url, options.body, (fail, status, text) =>
          fail ? reject(new TypeError('Failed to fetch')) : resolve(response(url, status, text)));
      });
      globalThis.XMLHttpRequest = class XMLHttpRequest extends EventTarget {
        readyState = 0; status = 0; statusText = ''; responseText = ''; response = ''; responseType = '';
        upload = new EventTarget();
        open(method, url) { this.method = method; this.url = url; this.readyState = 1; }
        setRequestHeader() {} overrideMimeType() {} abort() { this.gone = true; }
        getResponseHeader() { return null; } getAllResponseHeaders() { return ''; }
        send(body) {
          answer(this.method, this.url, body, (fail, status, text) => Promise.resolve().then(() => {
            if (this.gone) return;
            this.readyState = 4; this.status = fail ? 0 : status;
            this.responseText = text;
            this.response = this.responseType === 'json' ? JSON.parse(text) : text;
            for (const type of ['readystatechange', fail ? 'error' : 'load', 'loadend']) {
              const event = new Event(type);
              this['on' + type]?.(event);
              this.dispatchEvent(event);
            }
          }));
        }
      };
      delete globalThis.WebSocket;
    }`);
  }

  #quiet() {
    const w = this.window;
    for (const name of ['log', 'info', 'debug', 'warn', 'error', 'trace', 'group', 'groupEnd']) w.console[name] = () => {};
  }

  #watch() {
    const w = this.window;
    const page = this;
    const proto = w.EventTarget.prototype;
    const { addEventListener: add, removeEventListener: remove } = proto;
    const keys = new WeakMap();
    let next = 1;
    const keyOf = (object) => { if (!keys.has(object)) keys.set(object, next++); return keys.get(object); };
    const name = (target, type, listener, options) => {
      const capture = typeof options === 'object' && options ? Boolean(options.capture) : Boolean(options);
      const held = listener && (typeof listener === 'function' || typeof listener === 'object') ? keyOf(listener) : 0;
      return `${keyOf(target)} ${type} ${capture} ${held}`;
    };
    const outside = (target) => (target === w ? 'window' : target === w.document ? 'document' : target === w.document.documentElement ? 'html' : target === w.document.body ? 'body' : null);
    proto.addEventListener = function addEventListener(type, listener, options) {
      const target = this ?? w;
      const place = outside(target);
      if (!place && listener) {
        const types = page.handled.get(target) ?? new Set();
        page.handled.set(target, types.add(String(type)));
      }
      if (place && listener) {
        const key = name(target, type, listener, options);
        page.listeners.set(key, `${place} ${type}`);
        page.outside.set(key, () => remove.call(target, type, listener, options));
      }
      return add.call(target, type, listener, options);
    };
    proto.removeEventListener = function removeEventListener(type, listener, options) {
      const target = this ?? w;
      if (listener) page.listeners.delete(name(target, type, listener, options));
      return remove.call(target, type, listener, options);
    };
    add.call(w, 'error', (event) => { this.fail(event.error ?? event.message); event.preventDefault(); });
  }

  /** Give the window another size, as a user who drags its edge does. */
  resize(width, height = 768) { return this.realm.resize(this, width, height); }

  /** Watch what is below `scope`, so that an unchanged page need not be looked at again. */
  observe(scope) {
    const { MutationObserver } = this.window;
    const { observe, takeRecords } = MutationObserver.prototype;
    this.dirty = true;
    const observer = new MutationObserver(() => { this.dirty = true; });
    Reflect.apply(observe, observer, [scope, { subtree: true, childList: true, attributes: true, characterData: true }]);
    this.records = () => Reflect.apply(takeRecords, observer, []).length;
    this.unobserve = () => Reflect.apply(MutationObserver.prototype.disconnect, observer, []);
  }

  /** Whether the page's tree changed since this was asked last. */
  changed() {
    const changed = this.records() > 0 || this.dirty;
    this.dirty = false;
    return changed;
  }

  /** Which counters of the instrumented component were reached: branches "b0.1", functions "f2". */
  reach() {
    const hits = [];
    for (const file of Object.values(this.window.__reach__ ?? {})) {
      for (const [key, counts] of Object.entries(file.b ?? {})) counts.forEach((count, arm) => { if (count > 0) hits.push(`b${key}.${arm}`); });
      for (const [key, count] of Object.entries(file.f ?? {})) if (count > 0) hits.push(`f${key}`);
    }
    return hits;
  }

  /** Note an error made by the component. */
  fail(error) {
    let text;
    try { text = error && typeof error === 'object' && 'message' in error ? `${error.name ?? 'Error'}: ${error.message}` : String(error); } catch { text = 'Error'; }
    this.errors.push(String(text).slice(0, 300));
  }

  /** Run a compiled bundle; returns what it exports. */
  run(code) { return this.realm.run(code); }

  /** Put the styles of a bundle into the page. */
  style(css) {
    if (!css) return;
    const style = this.window.document.createElement('style');
    style.textContent = css;
    this.window.document.head.appendChild(style);
  }

  #try(run) {
    try { run(); } catch (error) { this.fail(error); }
  }

  /** Do something of the page's own after a while: no timer of the component's. */
  later(kind, delay, run) {
    const key = this.nextKey++;
    this.timers.set(key, { key, kind, at: this.now + delay, run, every: 0, delay });
  }

  #due() {
    let best = null;
    for (const timer of this.timers.values()) {
      if (timer.kind !== 'frame' && timer.at <= this.now && (!best || timer.at < best.at || (timer.at === best.at && timer.key < best.key))) best = timer;
    }
    return best;
  }

  #fire(timer) {
    if (timer.every) timer.at = this.now + timer.every;
    else this.timers.delete(timer.key);
    this.#try(timer.run);
  }

  /** Run tasks until nothing is due; `painted` is called wherever the page could be painted. Unless told not to `rest`,
   *  a realm that paints by itself is waited for.
   */
  async settle(painted, rest = true) {
    let frames = 0;
    let rests = rest && this.realm.rest ? MOST_RESTS : 0;
    // A view that is checked may start work whose end is seen at the next check.
    let again = painted.checks;
    for (let round = 0; round < MOST_TIMERS; round++) {
      await this.realm.turn();
      painted();
      if (!this.tasks.length) this.notice();
      const task = this.tasks.shift();
      if (task) { this.#try(task); again = painted.checks; continue; }
      const due = this.#due();
      if (due) { this.#fire(due); again = painted.checks; continue; }
      const pending = [...this.timers.values()].filter((timer) => timer.kind === 'frame');
      if (pending.length && frames++ < 3) {
        for (const timer of pending) if (this.timers.has(timer.key)) this.#fire(timer);
        continue;
      }
      if (again) { again = false; continue; }
      if (!rests) return;
      rests = (await this.realm.rest()) ? rests - 1 : 0;
    }
    this.errors.push('the page never came to rest');
  }

  /** Let time pass, timer by timer. */
  async pass(ms, painted) {
    const end = this.now + ms;
    let moments = 0;
    for (let round = 0; round < MOST_TIMERS; round++) {
      let best = null;
      for (const timer of this.timers.values()) if (timer.at <= end && (!best || timer.at < best.at || (timer.at === best.at && timer.key < best.key))) best = timer;
      if (!best) break;
      moments += best.at > this.now;
      if (moments > MOST_MOMENTS) break;
      this.now = Math.max(this.now, best.at);
      this.#fire(best);
      await this.settle(painted);
    }
    this.now = end;
    await this.settle(painted);
  }

  /** Put the page back as it was found; false where that cannot be shown to have worked. */
  reset() {
    if (!this.realm.reusable) return false;
    const w = this.window;
    const { document } = w;
    this.unobserve?.();
    for (const undo of this.outside.values()) undo();
    this.outside.clear();
    this.unwatch();
    this.unmeasure();
    this.listeners.clear();
    this.handled = new WeakMap();
    this.timers.clear();
    this.now = 0;
    this.nextKey = 1;
    for (const list of [this.tasks, this.errors, this.requests, this.replies, this.drawn]) list.length = 0;
    for (const node of [document.head, document.body]) while (node.firstChild) node.removeChild(node.firstChild);
    for (const node of [document.documentElement, document.head, document.body]) {
      for (const name of node.getAttributeNames()) node.removeAttribute(name);
    }
    // A runtime marks what it listens to, so as not to listen twice.
    for (const [node, own] of this.asFound.owns) {
      for (const name of Object.getOwnPropertyNames(node)) if (!own.has(name) && !Reflect.deleteProperty(node, name)) return false;
    }
    w.localStorage.clear();
    w.sessionStorage.clear();
    for (const name of Object.getOwnPropertyNames(w)) {
      if (!this.asFound.globals.has(name) && name !== '__bundle' && !Reflect.deleteProperty(w, name)) return false;
    }
    for (const name of ['innerWidth', 'innerHeight', 'outerWidth', 'outerHeight']) w[name] = this.asFound.globals.get(name);
    this.reseed();
    this.reseedBytes();
    return holdStill(this.builtIns) && same(this.asFound, found(w)) && w.history.length === 1 && w.location.href === 'http://localhost/' && document.cookie === '' && document.childNodes.length === 2;
  }

  close() {
    this.timers.clear();
    this.tasks.length = 0;
    this.realm.close();
  }
}

const PLACED = [
  'setTimeout', 'setInterval', 'requestAnimationFrame', 'requestIdleCallback', 'clearTimeout', 'clearInterval', 'cancelAnimationFrame',
  'cancelIdleCallback', 'queueMicrotask', 'scrollTo', 'scrollBy', 'matchMedia', 'getComputedStyle',
];
const PROTOTYPES = ['EventTarget', 'Node', 'Element', 'HTMLElement', 'Document', 'Event', 'Array', 'Object', 'String', 'Promise', 'Function', 'Date', 'Storage', 'HTMLInputElement'];

/** What a page is compared by after use: its globals by identity, and the members of prototypes. */
function found(w) {
  const globals = new Map();
  for (const name of Object.getOwnPropertyNames(w)) {
    if (name !== '__bundle') globals.set(name, Object.getOwnPropertyDescriptor(w, name).value);
  }
  const members = PROTOTYPES.map((name) => Object.getOwnPropertyNames(w[name].prototype).length);
  const { document } = w;
  const owns = [document, document.documentElement, document.head, document.body].map((node) => [node, new Set(Object.getOwnPropertyNames(node))]);
  return { globals, members, owns };
}

/** The built-ins of the language: [object, how many keys it has, [key, value] of what is no getter]. */
function builtIns(w) {
  const built = NAMES.flatMap((name) => [w[name], w[name]?.prototype]).filter((one) => one && /^(object|function)$/.test(typeof one));
  return built.map((one) => {
    const keys = Reflect.ownKeys(one);
    const plain = keys.map((key) => [key, Object.getOwnPropertyDescriptor(one, key)]).filter(([, { get, set }]) => !get && !set);
    return [one, keys.length, plain.map(([key, { value }]) => [key, value])];
  });
}

/** Whether they hold what they held: a function put in the place of another is seen. */
function holdStill(list) {
  for (const [one, count, plain] of list) {
    if (Reflect.ownKeys(one).length !== count) return false;
    for (const [key, value] of plain) if (!Object.is(one[key], value)) return false;
  }
  return true;
}

function same(one, other) {
  if (one.globals.size !== other.globals.size) return false;
  for (const [name, value] of one.globals) if (!Object.is(value, other.globals.get(name)) && name !== 'name' && name !== 'event') return false;
  return one.members.every((count, at) => count === other.members[at]);
}
