// Runs one trial of one component version in a page of its own: mount, steps, removal, leftovers.
import { find, pathOf, snapshot } from './tree.mjs';

const MOST_DEPTH = 5;

/** Plain data for a value a component handed out. Events become type, target and value. */
function describe(natives, root, value, depth = 0) {
  if (value === null || ['string', 'boolean'].includes(typeof value)) return value;
  if (value === undefined) return { $: 'undefined' };
  if (typeof value === 'number') return Number.isFinite(value) ? value : { $: String(value) };
  if (typeof value === 'function') return { $: 'function' };
  if (typeof value === 'symbol' || typeof value === 'bigint') return { $: String(value) };
  try {
    const native = value.nativeEvent && typeof value.nativeEvent === 'object' ? value.nativeEvent : value;
    if (native instanceof natives.Event) {
      const target = native.target;
      return { $: 'event', type: native.type, target: target?.nodeType === 1 ? pathOf(natives, root, target) : '', value: target?.value ?? null };
    }
    if (value.nodeType === 1) return { $: 'element', target: pathOf(natives, root, value) };
    if (value.$$typeof) return { $: 'markup' };
    if (value instanceof natives.window.Error) return { $: 'error', message: String(value.message) };
    if (value instanceof natives.window.Date) return { $: 'date', time: value.getTime() };
    if (typeof value.then === 'function') return { $: 'promise' };
    if (depth >= MOST_DEPTH) return { $: 'deep' };
    if (Array.isArray(value)) return value.slice(0, 200).map((part) => describe(natives, root, part, depth + 1));
    const out = Object.create(null);
    for (const key of Object.keys(value).sort().slice(0, 100)) out[key] = describe(natives, root, value[key], depth + 1);
    return out;
  } catch {
    return { $: 'unreadable' };
  }
}

/** Run a trial; the answer is the list of settled points and what was left at the end. */
export async function runTrial(page, bundle, exported, trial) {
  const { natives, window } = page;
  natives.window = window;
  page.replies = (trial.replies ?? []).map((reply) => ({ ...reply }));
  const root = window.document.createElement('div');
  window.document.body.appendChild(root);
  const component = exported === null ? bundle.adapter.empty : pick(bundle.subject, exported);
  const calls = [];
  const values = stubs(page, natives, root, calls, trial);
  const run = { page, natives, window, root, calls, points: [], frames: [], prevented: [], last: '' };
  const painted = () => {
    if (run.quiet) return;
    const text = JSON.stringify(snapshot(natives, root));
    if (text !== run.last) {
      run.last = text;
      run.frames.push(text);
    }
  };
  const attempt = (act) => {
    try { return act(); } catch (error) { page.fail(error); return null; }
  };
  let input = { inputs: trial.inputs ?? {}, slots: trial.slots ?? {} };
  let handle = attempt(() => bundle.adapter.mount(root, component, input, values));
  await page.settle(painted);
  point(run, 'shown');
  const others = [];
  for (const step of trial.steps ?? []) {
    const [kind] = Object.keys(step);
    const given = step[kind];
    switch (kind) {
      case 'change':
        input = { inputs: { ...input.inputs, ...given.inputs }, slots: given.slots ?? input.slots };
        attempt(() => handle?.update(input));
        break;
      case 'pass': await page.pass(given, painted); break;
      case 'remove': attempt(() => handle?.remove()); handle = null; break;
      case 'twice': {
        const place = window.document.createElement('div');
        root.appendChild(place);
        others.push(attempt(() => bundle.adapter.mount(place, component, input, values)));
        break;
      }
      case 'everything': await everything(run, painted); break;
      default: await act(run, kind, given, painted);
    }
    await page.settle(painted);
    point(run, kind);
  }
  run.quiet = true;
  for (const other of others) attempt(() => other?.remove());
  if (handle) attempt(() => handle.remove());
  await page.settle(painted);
  const timers = [...page.timers.values()].map((t) => `${t.kind} ${t.delay}`).sort();
  const listeners = [...page.listeners.values()].sort();
  return { points: run.points, left: { timers, listeners }, last: { calls: run.calls.splice(0), errors: page.errors.splice(0), requests: page.requests.splice(0) } };
}

function pick(subject, exported) {
  if (exported && exported !== 'default') return subject[exported];
  if (subject.default !== undefined) return subject.default;
  const [first] = Object.values(subject).filter((value) => typeof value === 'function' || (value && typeof value === 'object'));
  return first;
}

function point(run, name) {
  const frames = run.frames.splice(0);
  const tree = snapshot(run.natives, run.root);
  if (frames.length && frames[frames.length - 1] === JSON.stringify(tree)) frames.pop();
  run.points.push({
    name, tree, frames: frames.map((frame) => JSON.parse(frame)),
    calls: run.calls.splice(0), requests: run.page.requests.splice(0),
    errors: run.page.errors.splice(0), prevented: run.prevented.splice(0),
    missing: run.missing ?? null,
    focus: focused(run),
  });
  run.missing = null;
}

/** The place of the element that has the focus, if it is the component's. */
function focused(run) {
  const node = run.natives.active(run.window.document);
  const path = node ? pathOf(run.natives, run.root, node) : '';
  return path.startsWith('html') ? '' : path;
}

/** Turns neutral inputs into values: functions named in the trial are recording stubs. */
function stubs(page, natives, root, calls, trial) {
  const made = new Map();
  const functions = trial.functions ?? {};
  const stub = (name) => {
    if (!made.has(name)) {
      const plan = functions[name] ?? {};
      made.set(name, (...given) => {
        calls.push([plan.called ?? name, ...given.map((value) => describe(natives, root, value))]);
        if (plan.throws) throw new page.window.Error(plan.throws);
        return inWindow(page, plan.returns);
      });
    }
    return made.get(name);
  };
  return (input) => {
    const out = inWindow(page, input.inputs);
    for (const name of Object.keys(functions)) out[name] = stub(name);
    return out;
  };
}

/** A copy of plain data made of the page's own arrays and objects. */
function inWindow(page, value) {
  if (value === undefined) return undefined;
  return page.window.JSON.parse(JSON.stringify(value));
}

const MOST_ELEMENTS = 40;

/** Press every element there is, then type into every field, in the order of the page. */
async function everything(run, painted) {
  const { natives, root } = run;
  for (let position = 1; position <= MOST_ELEMENTS && find(natives, root, { position }); position++) {
    await act(run, 'press', { position }, painted);
    await run.page.settle(painted);
  }
  for (const role of ['textbox', 'searchbox', 'spinbutton']) {
    for (let position = 1; position <= MOST_ELEMENTS && find(natives, root, { role, position }); position++) {
      await act(run, 'type', { role, position, text: role === 'spinbutton' ? '7' : 'ab' }, painted);
      await act(run, 'commit', { role, position }, painted);
      await run.page.settle(painted);
    }
  }
}

async function act(run, kind, given, painted) {
  const { natives, root } = run;
  const target = given.target ?? given;
  const node = find(natives, root, target);
  if (!node) {
    run.missing = target;
    return;
  }
  const fire = (on, event) => {
    natives.dispatch(on, event);
    run.prevented.push([event.type, event.defaultPrevented]);
  };
  const turn = async () => run.page.settle(painted);
  if (OF_A_USER.has(kind) && natives.closest(node, DISABLED)) {
    // HTML §4.10.18.5: a disabled control gets no click from a user, and no typing.
    run.prevented.push(['disabled', true]);
    return;
  }
  await STEPS[kind](run, node, given, fire, turn);
}

const DISABLED = 'button:disabled, input:disabled, select:disabled, textarea:disabled, option:disabled';
const OF_A_USER = new Set(['press', 'type', 'key', 'commit', 'choose']);
const BUBBLES = { bubbles: true, cancelable: true, composed: true };

function focus(run, node) {
  const { natives, window } = run;
  if (natives.active(window.document) !== node) {
    try { natives.focus(node); } catch { /* not an element that takes focus */ }
  }
}

const STEPS = {
  async press(run, node, given, fire, turn) {
    const { natives } = run;
    fire(node, new natives.PointerEvent('pointerdown', BUBBLES));
    fire(node, new natives.MouseEvent('mousedown', BUBBLES));
    focus(run, node);
    await turn();
    fire(node, new natives.PointerEvent('pointerup', BUBBLES));
    fire(node, new natives.MouseEvent('mouseup', BUBBLES));
    fire(node, new natives.MouseEvent('click', { ...BUBBLES, detail: 1 }));
  },
  async type(run, node, given, fire, turn) {
    const { natives } = run;
    const area = natives.localName(node) === 'textarea';
    const read = area ? natives.areaValue : natives.inputValue;
    const write = area ? natives.setArea : natives.setInput;
    focus(run, node);
    await turn();
    for (const key of given.text) {
      fire(node, new natives.KeyboardEvent('keydown', { ...BUBBLES, key }));
      fire(node, new natives.KeyboardEvent('keypress', { ...BUBBLES, key }));
      Reflect.apply(write, node, [read(node) + key]);
      fire(node, new natives.InputEvent('input', { bubbles: true, data: key, inputType: 'insertText' }));
      fire(node, new natives.KeyboardEvent('keyup', { ...BUBBLES, key }));
      await turn();
    }
  },
  async key(run, node, given, fire) {
    const { natives } = run;
    focus(run, node);
    fire(node, new natives.KeyboardEvent('keydown', { ...BUBBLES, key: given.key }));
    fire(node, new natives.KeyboardEvent('keyup', { ...BUBBLES, key: given.key }));
  },
  async commit(run, node, given, fire, turn) {
    const { natives } = run;
    fire(node, new natives.Event('change', { bubbles: true }));
    await turn();
    node.blur?.();
  },
  async choose(run, node, given, fire) {
    const { natives } = run;
    focus(run, node);
    Reflect.apply(natives.setSelect, node, [given.value]);
    fire(node, new natives.Event('input', { bubbles: true }));
    fire(node, new natives.Event('change', { bubbles: true }));
  },
  async hover(run, node, given, fire) {
    const { natives } = run;
    fire(node, new natives.MouseEvent('mouseover', BUBBLES));
    fire(node, new natives.MouseEvent('mousemove', BUBBLES));
  },
  async submit(run, node, given, fire) {
    fire(node, new run.natives.Event('submit', { bubbles: true, cancelable: true }));
  },
};
