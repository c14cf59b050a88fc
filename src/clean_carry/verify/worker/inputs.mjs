// Neutral inputs as values of the page: functions named in the trial are recording stubs, and what
// JSON cannot say is written {"$": …}.
import { describe } from './describe.mjs';

/** {values: (input) → values, renew: (name, plan), made: (neutral) → value}. Stubs keep their identity until they are renewed (a plan), or taken away (null). */
export function valuesOf(page, natives, root, note, trial) {
  const made = new Map();
  const functions = { ...trial.functions };
  const stub = (name) => {
    if (!made.has(name)) made.set(name, recording(page, natives, root, note, name, functions[name] ?? {}));
    return made.get(name);
  };
  const held = new Map();
  page.recorder = (name, plan) => recording(page, natives, root, note, name, plan);
  const values = (input) => {
    const out = inWindow(page, {});
    for (const name of Object.keys(input.inputs)) {
      // What is not changed stays the very same value.
      const text = JSON.stringify(input.inputs[name] ?? null);
      if (held.get(name)?.text !== text) held.set(name, { text, value: inWindow(page, input.inputs[name]) });
      out[name] = held.get(name).value;
    }
    for (const name of Object.keys(functions)) out[name] = stub(name);
    return out;
  };
  const renew = (name, plan) => {
    if (plan === null) delete functions[name];
    else functions[name] = { called: `${name} (new)`, ...plan };
    made.delete(name);
  };
  return { values, renew, made: (value) => inWindow(page, value) };
}

function recording(page, natives, root, note, name, plan) {
  return (...given) => {
    note([plan.called ?? name, ...given.map((value) => describe(natives, root, value))]);
    if (plan.throws !== undefined) throw new page.window.Error(plan.throws);
    if (plan.calls !== undefined) {
      // The function calls back what it was given, as a caller of an asynchronous input would.
      for (const value of given) if (typeof value === 'function') value(...inWindow(page, plan.calls));
    }
    if (plan.resolves === undefined && plan.rejects === undefined) return inWindow(page, plan.returns);
    return new page.window.Promise((resolve, reject) => {
      page.window.setTimeout(() => {
        if (plan.rejects !== undefined) reject(new page.window.Error(plan.rejects));
        else resolve(inWindow(page, plan.resolves));
      }, plan.after ?? 0);
    });
  };
}

/** A copy of plain data made of the page's own arrays and objects. */
function inWindow(page, value) {
  if (value === undefined) return undefined;
  return revived(page, page.window.JSON.parse(JSON.stringify(value)));
}

function revived(page, value) {
  if (value === null || typeof value !== 'object') return value;
  if (typeof value.$ === 'string') return SPECIAL[value.$]?.(page, value);
  for (const key of Object.keys(value)) value[key] = revived(page, value[key]);
  return value;
}

const SPECIAL = {
  undefined: () => undefined,
  NaN: () => NaN,
  Infinity: () => Infinity,
  date: (page, value) => new page.window.Date(value.time),
  expression: (page, value) => new page.window.RegExp(value.text),
  event: (page) => {
    // One that was heard by an element outside of the component.
    const event = new page.window.MouseEvent('click', { bubbles: true, cancelable: true });
    const outside = page.window.document.getElementById('page-aside');
    Object.defineProperties(event, { target: { value: outside }, currentTarget: { value: outside } });
    return event;
  },
  element: (page, value) => {
    const node = page.window.document.createElement(value.tag ?? 'div');
    node.textContent = value.text ?? '';
    return node;
  },
  function: (page, value) => page.recorder(value.called ?? 'a function', value),
  markup: (page, value) => page.markup(value.content ?? []),
  drawn: (page, value) => page.drawnBy(value.use, value.instance),
};
