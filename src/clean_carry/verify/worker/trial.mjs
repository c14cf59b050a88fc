// One run of one component version in a page of its own: mount, steps, removal, leftovers.
import { actions } from './actions.mjs';
import { describe } from './describe.mjs';
import { valuesOf } from './inputs.mjs';
import { act, everything } from './steps.mjs';
import { pathOf, snapshot } from './tree.mjs';

// Methods by which objects of all kinds send signals.
const SENDS = ['emit', '$emit', 'publish', 'trigger', 'fire', 'dispatch'];

// So many handlers of children are offered.
const MOST_HANDLERS = 24;

/** A component mounted in a page; `step` by step, each answered with a settled point. */
export class Run {
  constructor(page, bundle, exported, trial) {
    const { natives, window } = page;
    natives.window = window;
    this.page = page;
    this.natives = natives;
    this.window = window;
    this.document = window.document;
    this.trial = trial;
    this.adapter = bundle.adapter;
    this.hubs = bundle.hubs;
    page.replies = (trial.replies ?? []).map((reply) => ({ ...reply }));
    bundle.adapter.provide?.(bundle.uses);
    bundle.adapter.application?.(bundle.application, !natives.scrolls);
    bundle.adapter.strictly?.(Boolean(trial.strict));
    page.markup = (list) => bundle.adapter.fragment(list);
    page.drawnBy = (use, instance) => bundle.adapter.drawnBy?.(use, instance) ?? null;
    this.scope = window.document.body;
    this.stage = window.document.createElement('div');
    this.scope.appendChild(this.stage);
    this.root = window.document.createElement('div');
    this.stage.appendChild(this.root);
    // An element elsewhere, for components that are told to listen to one, or to stand by it.
    this.outside = window.document.createElement('aside');
    this.outside.id = 'page-aside';
    this.stage.appendChild(this.outside);
    this.outsideAsMade = JSON.stringify(snapshot(natives, this.stage, this.root));
    const subject = exported === null ? bundle.adapter.empty : component(bundle, exported);
    this.subject = subject;
    this.component = exported === null ? subject : wrapped(bundle, subject);
    this.calls = [];
    this.frames = [];
    this.prevented = [];
    this.missing = null;
    this.last = '';
    this.others = [];
    this.places = new Set([this.stage, this.root]);
    this.handle = null;
    this.acting = false;
    const note = (call) => {
      this.calls.push(call);
      // Between the events of one step it counts which of them a call came with.
      if (this.acting) this.prevented.push(['call', call[0]]);
    };
    Object.assign(this, valuesOf(page, natives, this.root, note, trial));
    bundle.adapter.provides?.((name) => page.recorder(name, {}), bundle.setup.install);
    this.input = { inputs: trial.inputs ?? {}, slots: trial.slots ?? {} };
    this.hold = (reached) => {
      this.reached = reached;
      // What a parent may have kept from the first display on.
      this.kept ??= reached;
    };
    this.painted = () => {
      bundle.adapter.refresh?.();
      if (this.quiet || this.trial.blind || !page.changed()) return;
      const text = JSON.stringify(this.tree());
      if (text !== this.last) {
        this.last = text;
        this.frames.push(text);
      }
    };
    this.painted.checks = Boolean(bundle.adapter.refresh);
    page.observe(this.scope);
  }

  /** The tree of the component, and what it drew elsewhere in the page. */
  tree() {
    const tree = snapshot(this.natives, this.root);
    for (const place of this.places) {
      if (place !== this.root && place !== this.stage) tree.push(['trial-place', {}, null, snapshot(this.natives, place)]);
    }
    const outside = snapshot(this.natives, this.stage, this.root).slice(0, 1);
    if (JSON.stringify(outside) !== this.outsideAsMade) tree.push(['trial-outside', {}, null, outside]);
    const elsewhere = snapshot(this.natives, this.scope, this.stage);
    if (elsewhere.length) tree.push(['elsewhere', {}, null, elsewhere]);
    return tree;
  }

  attempt(make) {
    try { return make(); } catch (error) { this.page.fail(error); return null; }
  }

  settle(rest) { return this.page.settle(this.painted, rest); }

  /** Settle between the events of one step, and note whether the page has changed by then. Nobody looks at it yet. */
  async between() {
    const before = this.last;
    await this.settle(false);
    this.prevented.push(['between', this.last !== before]);
  }

  mount(place) {
    const hold = this.trial.held && place === this.root ? this.hold : null;
    return this.attempt(() => this.adapter.mount(place, this.component, this.input, this.values, hold));
  }

  /** Note what the component's declared types say of its inputs. */
  #objections() {
    const said = this.attempt(() => this.adapter.objections?.(this.subject, this.input, this.values));
    for (const text of said ?? []) this.calls.push(['an input type objects', text]);
  }

  async open() {
    this.#objections();
    this.handle = this.mount(this.root);
    await this.settle();
    return this.point('shown');
  }

  async step(step) {
    const [kind] = Object.keys(step);
    await this.#do(kind, step[kind]);
    await this.settle();
    return this.point(kind);
  }

  #change(given) {
    this.input = { inputs: { ...this.input.inputs, ...given.inputs }, slots: given.slots ?? this.input.slots };
    for (const name of given.without ?? []) {
      delete this.input.inputs[name];
      this.renew(name, null);
    }
    for (const name of Object.keys(given.functions ?? {})) this.renew(name, given.functions[name]);
    this.#objections();
    for (const handle of [this.handle, ...this.others]) this.attempt(() => handle?.update(this.input));
  }

  /** Call a method of the component by a reference to it, as its parent may, or ask for a value it gives. */
  #call(given) {
    const reached = given.kept ? this.kept : this.reached;
    const method = this.attempt(() => reached?.[given.method]);
    if (typeof method !== 'function') {
      if (!reached || !(given.method in reached)) { this.missing = given; return; }
      this.calls.push([`value of ${given.method}`, describe(this.natives, this.root, method)]);
      return;
    }
    const result = this.attempt(() => method.apply(reached, this.made(given.given ?? [])));
    this.calls.push([`result of ${given.method}`, describe(this.natives, this.root, result)]);
  }

  /** The handlers that children hold, in the order of the page: [name, function]. */
  #children() {
    return (this.handle && this.attempt(() => this.adapter.handlers?.(this.root, this.subject))) || [];
  }

  /** Have a child call a handler it is given. */
  #callFrom({ calls, position = 1, given = [] }) {
    const [, handler] = this.#children().filter(([name]) => name === calls)[position - 1] ?? [];
    if (!handler) { this.missing = { calls, position }; return; }
    this.attempt(() => handler(...this.made(given)));
  }

  /** Send a signal by an object of a module, as another component may. */
  #send(given) {
    const hub = this.hubs[given.from];
    const send = SENDS.find((name) => typeof hub?.[name] === 'function');
    if (!send) { this.missing = given; return; }
    this.attempt(() => hub[send](given.type, ...this.made(given.given ?? [])));
  }

  async #do(kind, given) {
    switch (kind) {
      case 'change':
        this.#change(given);
        if (given.then) this.#change(given.then);
        return;
      case 'pass': await this.page.pass(given, this.painted); return;
      case 'remove': this.attempt(() => this.handle?.remove()); this.handle = null; return;
      case 'return':
        this.attempt(() => this.handle?.remove());
        await this.settle();
        this.kept = null;
        this.handle = this.mount(this.root);
        return;
      case 'twice': {
        const place = this.window.document.createElement('div');
        this.stage.appendChild(place);
        this.places.add(place);
        this.others.push(this.mount(place));
        return;
      }
      case 'resize':
        await this.page.resize(given.width, given.height);
        return;
      case 'call': this.#call(given); return;
      case 'signal': this.#send(given); return;
      case 'child': this.#callFrom(given); return;
      case 'everything': await everything(this); return;
      default:
        this.acting = true;
        await act(this, kind, given);
        this.acting = false;
    }
  }

  async point(name) {
    const { page } = this;
    const tree = this.trial.blind ? [] : this.tree();
    const look = page.look && !this.trial.blind ? await this.#look(name) : undefined;
    const frames = this.frames.splice(0);
    if (frames.length && frames[frames.length - 1] === JSON.stringify(tree)) frames.pop();
    const point = {
      name, tree: look?.tree ?? tree, frames: frames.map((frame) => JSON.parse(frame)), look: look?.seen,
      calls: [...this.calls.splice(0), ...page.drawn.splice(0)], requests: page.requests.splice(0),
      errors: page.errors.splice(0), prevented: this.prevented.splice(0),
      missing: this.missing, focus: this.#focused(),
    };
    this.missing = null;
    return point;
  }

  /** What the page looks like, and its tree with the numbers by which the look calls its elements. */
  async #look(name) {
    const numbers = new Map();
    this.natives.numbers = numbers;
    const tree = this.tree();
    this.natives.numbers = null;
    return { tree, seen: await this.page.look(this, numbers, name, tree) };
  }

  /** What a user could do at this point. */
  actions() {
    const counts = new Map();
    const children = (this.trial.handed ? this.#children() : []).slice(0, MOST_HANDLERS).map(([calls]) => {
      counts.set(calls, (counts.get(calls) ?? 0) + 1);
      return { calls, position: counts.get(calls) };
    });
    const { page, natives, scope, places, adapter, outside } = this;
    const heard = adapter.heard ?? (() => true);
    return { ...actions(page, natives, scope, { places, eventsOf: adapter.events, heard, outsider: outside }), children };
  }

  /** The place of the element that has the focus, if it is the component's. */
  #focused() {
    const node = this.natives.active(this.window.document);
    if (!node || node === this.scope) return '';
    const path = pathOf(this.natives, this.root, node);
    return path.startsWith('html') ? pathOf(this.natives, this.scope, node) : path;
  }

  async end() {
    this.quiet = true;
    for (const other of this.others) this.attempt(() => other?.remove());
    if (this.handle) this.attempt(() => this.handle.remove());
    await this.settle();
    const { page } = this;
    const timers = [...page.timers.values()].filter((t) => t.kind !== 'image').map((t) => `${t.kind} ${t.delay}`).sort();
    const listeners = [...page.listeners.values()].sort();
    return {
      left: { timers, listeners, elements: snapshot(this.natives, this.scope, this.stage).length },
      last: { calls: this.calls.splice(0), errors: page.errors.splice(0), requests: page.requests.splice(0) },
      reach: page.reach(),
    };
  }
}

/** Run a whole trial; the answer is the list of settled points and what was left at the end. */
export async function runTrial(page, bundle, exported, trial) {
  const run = new Run(page, bundle, exported, trial);
  const points = [await run.open()];
  for (const step of trial.steps ?? []) points.push(await run.step(step));
  return { points, ...(await run.end()) };
}

/** The component inside the parents of a use, inside what the project's set-up module provides. */
function wrapped({ adapter, around, setup }, component) {
  const inside = around ? adapter.within(around, component) : component;
  return setup.default ? adapter.within(setup.default, inside) : inside;
}

// A function that makes components takes one first (`(Inner, options) => …`), or is called so (`withTide`).
const MAKER = /^with[A-Z]/;
const TAKES = /^(?:function\b\s*[\w$]*\s*)?\(?\s*((?:[A-Z][\w$]*\s*,\s*)*[A-Z][\w$]*)\s*[,)=]/;

/** How many components a function takes to make one of them; 0 where it makes none. */
function taken(found) {
  if (typeof found !== 'function' || found.prototype?.isReactComponent) return 0;
  const [, names] = TAKES.exec(Function.prototype.toString.call(found)) ?? [];
  return names ? names.split(',').length : Number(MAKER.test(found.name));
}

/** The component mounted: what is exported, or what a function that makes components gives. */
function component({ adapter, subject }, exported) {
  if (adapter.named) return adapter.named(exported);
  const found = pick(subject, exported);
  const count = adapter.made ? taken(found) : 0;
  return count ? adapter.made(found, count) : found;
}

function pick(subject, exported) {
  if (exported && exported !== 'default') return subject[exported];
  if (subject.default !== undefined) return subject.default;
  const [first] = Object.values(subject).filter((value) => typeof value === 'function' || (value && typeof value === 'object'));
  return first;
}
