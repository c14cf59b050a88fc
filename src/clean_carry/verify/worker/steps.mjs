// The steps of a trial, as a user does them.
import { edited, eventsOf, heldIn, isField, nextFocus } from './keys.mjs';
import { find } from './tree.mjs';

const DISABLED = 'button:disabled, input:disabled, select:disabled, textarea:disabled, option:disabled';
const OF_A_USER = new Set(['press', 'type', 'key', 'commit', 'choose', 'focus', 'drag', 'pull', 'files']);
const BUBBLES = { bubbles: true, cancelable: true, composed: true };
const MOST_ELEMENTS = 40;

/** Press every element there is, then type into every field, in the order of the page. */
export async function everything(run) {
  const { natives, scope } = run;
  for (let position = 1; position <= MOST_ELEMENTS && find(natives, scope, { position }, run.places); position++) {
    await act(run, 'press', { position });
    await run.settle();
  }
  for (const role of ['textbox', 'searchbox', 'spinbutton']) {
    for (let position = 1; position <= MOST_ELEMENTS && find(natives, scope, { role, position }, run.places); position++) {
      await act(run, 'type', { role, position, text: role === 'spinbutton' ? '7' : 'ab' });
      await act(run, 'commit', { role, position });
      await run.settle();
    }
  }
}

/** Do one step on the element it is aimed at; notes a target that is not there. */
export async function act(run, kind, given) {
  const { natives, scope, window } = run;
  const node = given.place ? places(window)[given.place] : find(natives, scope, given, run.places);
  if (!node) {
    run.missing = given;
    return;
  }
  if (OF_A_USER.has(kind) && !given.place && natives.closest(node, DISABLED)) {
    // HTML §4.10.18.5: a disabled control gets no click from a user, and no typing.
    run.prevented.push(['disabled', true]);
    return;
  }
  // A user takes time: an event never has the very time at which what hears it was attached.
  run.page.now += 1;
  const fire = (on, event) => {
    natives.dispatch(on, event);
    run.prevented.push([event.type, event.defaultPrevented]);
  };
  const hand = given.place ? null : run.page.hand?.[kind];
  if (hand) {
    if (await hand(run, node, given)) return;
    // Where no hand reaches (something lies over it), the events are made; the other side must be so as well.
    run.prevented.push(['out of reach', true]);
  }
  await STEPS[kind](run, node, given, fire);
}

function places(window) {
  return { window, document: window.document, body: window.document.body, html: window.document.documentElement };
}

function focus(run, node) {
  const { natives, window } = run;
  if (natives.active(window.document) !== node) {
    try { natives.focus(node); } catch { /* not an element that takes focus */ }
  }
}

function above(run, node) {
  const found = [];
  for (let here = node; here && run.natives.nodeType(here) === 1; here = run.natives.parentNode(here)) found.push(here);
  return found;
}

const ENTERED = 'button, a[href], summary, input[type=button], input[type=submit], input[type=reset]';
const SPACED = `${ENTERED.replace(' a[href],', '')}, input[type=checkbox], input[type=radio]`;

/** HTML §6.4.3: a key activates what has the focus; Enter in a field of a form submits it. */
function activate(run, node, fire, which, submits) {
  const { natives } = run;
  if (natives.matches(node, which)) {
    fire(node, new natives.MouseEvent('click', { ...BUBBLES, detail: 0 }));
  } else if (submits && natives.localName(node) === 'input') {
    const form = natives.closest(node, 'form');
    const button = form && [...natives.all(form, 'button, input')].find((b) => natives.matches(b, 'button:not([type]), button[type=submit], input[type=submit]'));
    if (button && !natives.matches(button, ':disabled')) fire(button, new natives.MouseEvent('click', { ...BUBBLES, detail: 0 }));
  }
}

/** Where a user points at an element: its middle, or the share of its width from the left that is given. */
function pointAt(run, node, share = 0.5) {
  const { left, top, width, height } = run.page.box(node.nodeType === 1 ? node : run.window.document.body);
  return { clientX: Math.round(left + width * share), clientY: Math.round(top + height / 2), button: 0 };
}

/** The event of a finger at a point. */
function touched(run, node, type, point) {
  const event = new run.natives.Event(type, BUBBLES);
  const finger = { identifier: 0, target: node, pageX: point.clientX, pageY: point.clientY, screenX: point.clientX, screenY: point.clientY, ...point };
  const down = type === 'touchend' ? [] : [finger];
  for (const [name, value] of [['touches', down], ['targetTouches', down], ['changedTouches', [finger]]]) Object.defineProperty(event, name, { value });
  return event;
}

/** Tell of what was written, if anything was. */
function write(node, fire, event) {
  if (event) fire(node, event);
}

// So far an element of the component goes that is scrolled; the next time it comes back.
const FAR = { top: 400, left: 40 };

/** Scroll an element of the component, before it is told. */
function moved(natives, node) {
  if (!natives.scrolls) return;
  const there = natives.scrollTop(node) !== 0;
  Reflect.apply(natives.setScrollTop, node, [there ? 0 : FAR.top]);
  Reflect.apply(natives.setScrollLeft, node, [there ? 0 : FAR.left]);
}

const STEPS = {
  async press(run, node, given, fire) {
    const { natives } = run;
    const init = { ...BUBBLES, ...pointAt(run, node, given.at), ...heldIn(given) };
    for (let times = 0; times < (given.double ? 2 : 1); times++) {
      fire(node, new natives.PointerEvent('pointerdown', init));
      fire(node, new natives.MouseEvent('mousedown', init));
      focus(run, node);
      await run.between();
      fire(node, new natives.PointerEvent('pointerup', init));
      fire(node, new natives.MouseEvent('mouseup', init));
      fire(node, new natives.MouseEvent('click', { ...init, detail: times + 1 }));
    }
    if (given.double) fire(node, new natives.MouseEvent('dblclick', { ...init, detail: 2 }));
  },
  async touch(run, node, given, fire) {
    const point = pointAt(run, node);
    fire(node, touched(run, node, 'touchstart', point));
    await run.settle();
    fire(node, touched(run, node, 'touchend', point));
  },
  /** Held and moved with the mouse, then with a finger, from the middle to a share of the width. */
  async pull(run, node, given, fire) {
    const { natives } = run;
    const [from, half, to] = [0.5, (0.5 + given.at) / 2, given.at].map((share) => pointAt(run, node, share));
    const mouse = (type, point) => {
      fire(node, new natives.PointerEvent(`pointer${type}`, { ...BUBBLES, ...point, buttons: 1 }));
      fire(node, new natives.MouseEvent(`mouse${type}`, { ...BUBBLES, ...point, buttons: 1 }));
    };
    if (given.finger) {
      for (const [type, point] of [['touchstart', from], ['touchmove', half], ['touchmove', to], ...(given.kept ? [] : [['touchend', to]])]) {
        fire(node, touched(run, node, type, point));
        await run.between();
      }
      return;
    }
    for (const [type, point] of [['down', from], ['move', half], ['move', to], ...(given.kept ? [] : [['up', to]])]) {
      mouse(type, point);
      await run.between();
    }
  },
  /** Files are chosen; their names are given. */
  async files(run, node, given, fire) {
    const { natives } = run;
    const made = given.names.map((name) => new natives.File([`content of ${name}`], name, { type: 'text/plain', lastModified: 0 }));
    const listed = (files) => ({ ...files, length: files.length, item: (at) => files[at] ?? null, [Symbol.iterator]: () => files[Symbol.iterator]() });
    let chosen = listed(made);
    Object.defineProperty(node, 'files', { configurable: true, get: () => chosen });
    // The value is the first file's name on a made-up path; emptying it forgets the files (HTML, input type=file).
    Object.defineProperty(node, 'value', {
      configurable: true,
      get: () => (chosen.length > 0 ? `C:\\fakepath\\${chosen[0].name}` : ''),
      set: (text) => { if (text === '') chosen = listed([]); },
    });
    fire(node, new natives.Event('input', { bubbles: true }));
    fire(node, new natives.Event('change', { bubbles: true }));
  },
  async type(run, node, given, fire) {
    const { natives } = run;
    const area = natives.localName(node) === 'textarea';
    focus(run, node);
    await run.settle();
    if (natives.attribute(node, 'readonly') !== null) return;
    for (const key of given.text) {
      const events = eventsOf(natives, { key });
      fire(node, events.down);
      if (!natives.prevented(events.down)) fire(node, events.press);
      if (!natives.prevented(events.down) && !natives.prevented(events.press)) {
        if (!given.over) write(node, fire, edited(natives, node, key));
        else {
          Reflect.apply(area ? natives.setArea : natives.setInput, node, [given.text]);
          write(node, fire, new natives.InputEvent('input', { bubbles: true, data: key, inputType: 'insertText' }));
        }
      }
      fire(node, events.up);
      await run.settle();
      if (given.over) break;
    }
  },
  async key(run, node, given, fire) {
    const { natives } = run;
    if (!given.place) focus(run, node);
    const { down, press, up } = eventsOf(natives, given);
    fire(node, down);
    if (press && !natives.prevented(down)) fire(node, press);
    await run.between();
    const { key } = given;
    const does = !given.place && !given.ctrl && !given.meta && !natives.prevented(down) && !(press && natives.prevented(press));
    if (does && key === 'Enter') activate(run, node, fire, ENTERED, true);
    if (does && (key.length === 1 || key === 'Backspace' || key === 'Delete') && isField(natives, node)) write(node, fire, edited(natives, node, key));
    if (does && key === 'Tab') {
      const next = nextFocus(natives, run.scope, node, given.shift);
      if (next) focus(run, next);
      else node.blur?.();
    }
    fire(key === 'Tab' ? natives.active(run.window.document) ?? node : node, up);
    if (does && key === ' ') activate(run, node, fire, SPACED, false);
  },
  async commit(run, node, given, fire) {
    const { natives } = run;
    fire(node, new natives.Event('change', { bubbles: true }));
    await run.settle();
    node.blur?.();
  },
  async choose(run, node, given, fire) {
    const { natives } = run;
    focus(run, node);
    Reflect.apply(natives.setSelect, node, [given.value]);
    fire(node, new natives.Event('input', { bubbles: true }));
    fire(node, new natives.Event('change', { bubbles: true }));
  },
  async focus(run, node) { focus(run, node); },
  async blur(run, node) { node.blur?.(); },
  async hover(run, node, given, fire) {
    const { natives } = run;
    const init = { ...BUBBLES, ...pointAt(run, node) };
    for (const [kind, make] of [['pointer', natives.PointerEvent], ['mouse', natives.MouseEvent]]) {
      fire(node, new make(`${kind}over`, init));
      for (const up of above(run, node).reverse()) natives.dispatch(up, new make(`${kind}enter`, { bubbles: false }));
      fire(node, new make(`${kind}move`, init));
    }
  },
  async leave(run, node, given, fire) {
    const { natives } = run;
    for (const [kind, make] of [['pointer', natives.PointerEvent], ['mouse', natives.MouseEvent]]) {
      fire(node, new make(`${kind}out`, BUBBLES));
      for (const up of above(run, node)) natives.dispatch(up, new make(`${kind}leave`, { bubbles: false }));
    }
  },
  async drag(run, node, given, fire) {
    const { natives } = run;
    const data = new Map();
    const transfer = { setData: (kind, text) => data.set(kind, String(text)), getData: (kind) => data.get(kind) ?? '', files: [], items: [], types: [], effectAllowed: 'all', dropEffect: 'move', setDragImage() {}, clearData: () => data.clear() };
    const over = given.onto ? find(natives, run.scope, given.onto, run.places) : node;
    for (const [on, type] of [[node, 'dragstart'], [over, 'dragenter'], [over, 'dragover'], [over, 'drop'], [node, 'dragend']]) {
      if (!on) continue;
      const event = new natives.MouseEvent(type, { ...BUBBLES, ...pointAt(run, on) });
      Object.defineProperty(event, 'dataTransfer', { value: transfer });
      fire(on, event);
      await run.settle();
    }
  },
  async submit(run, node, given, fire) {
    fire(node, new run.natives.Event('submit', { bubbles: true, cancelable: true }));
  },
  async event(run, node, given, fire) {
    if (given.type === 'scroll' && !given.place) moved(run.natives, node);
    fire(node, new run.natives.Event(given.type, { bubbles: given.type !== 'scroll' && given.type !== 'resize', cancelable: true }));
  },
};
