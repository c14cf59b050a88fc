// What a user's hand does, by the browser's own input: pointer and keys go through the page as from a device.
import { eventsOf, heldIn } from '../keys.mjs';
import { placeOf } from './realm.mjs';

const HEARD = ['pointerdown', 'mousedown', 'pointerup', 'mouseup', 'click', 'dblclick', 'keydown', 'keypress', 'keyup', 'input', 'change', 'submit'];
// What such a field is pressed for is a window of the browser, which is no part of the page.
const OPENS = 'select, option, input[type=file], input[type=color], input[type=date], input[type=time], input[type=month], input[type=week], input[type=datetime-local]';
const NOT_TYPED = `${OPENS}, input[type=range]`;
// Bits of Input.dispatchMouseEvent and Input.dispatchKeyEvent (the browser's debugging protocol).
const HELD = { altKey: 1, ctrlKey: 2, metaKey: 4, shiftKey: 8 };

/** The steps that a hand does in this page; each says whether it could (an element may be covered). */
export function hands(page) {
  const { natives, realm, window } = page;
  const add = window.EventTarget.prototype.addEventListener;
  let heard = null;
  for (const type of HEARD) Reflect.apply(add, window, [type, (event) => heard?.push(event), true]);
  const ask = (what) => realm.ask('__hand', what);
  const atPoint = window.Document.prototype.elementFromPoint;
  const scroll = window.Element.prototype.scrollIntoView;
  const contains = window.Node.prototype.contains;

  /** Where the hand points, in the whole page; null where something else lies there, or nothing can be seen. */
  function pointOn(node, share = 0.5) {
    const inside = () => {
      const { left, top, width, height } = page.box(node);
      return { width, height, x: left + width * share, y: top + height / 2 };
    };
    let here = inside();
    if (!here.width || !here.height) return null;
    if (here.x < 0 || here.y < 0 || here.x >= window.innerWidth || here.y >= window.innerHeight) {
      Reflect.apply(scroll, node, [{ block: 'nearest', inline: 'nearest', behavior: 'instant' }]);
      here = inside();
    }
    const hit = Reflect.apply(atPoint, window.document, [here.x, here.y]);
    if (!hit || (hit !== node && !Reflect.apply(contains, node, [hit]))) return null;
    const frame = placeOf(realm.frame);
    return { x: frame.left + here.x, y: frame.top + here.y };
  }

  /** Do something by hand; then note what was heard of it, and whether it was held off. */
  async function by(run, act) {
    heard = [];
    const note = () => { for (const event of heard.splice(0)) run.prevented.push([event.type, event.defaultPrevented]); };
    await act(async () => { note(); await run.between(); });
    note();
    heard = null;
    return true;
  }

  const held = (given) => {
    const keys = heldIn(given);
    return Object.keys(HELD).reduce((bits, name) => bits | (keys[name] ? HELD[name] : 0), 0);
  };

  async function keyed(run, given, between) {
    const { down } = eventsOf(natives, given);
    const text = given.key.length === 1 ? given.key : given.key === 'Enter' ? '\r' : undefined;
    const key = { key: down.key, code: down.code, windowsVirtualKeyCode: down.keyCode, modifiers: held(given) };
    await ask({ stroke: 'keyDown', ...key, text: given.ctrl || given.meta ? undefined : text });
    await between?.();
    await ask({ stroke: 'keyUp', ...key });
  }

  const focused = (node) => natives.active(window.document) === node;
  const focus = (node) => { try { natives.focus(node); } catch { /* takes no focus */ } };

  return {
    async press(run, node, given) {
      if (natives.matches(node, OPENS)) return false;
      const point = pointOn(node, given.at);
      if (!point) return false;
      return by(run, async (between) => {
        const modifiers = held(given);
        await ask({ mouse: 'mouseMoved', ...point, modifiers });
        for (let times = 1; times <= (given.double ? 2 : 1); times++) {
          await ask({ mouse: 'mousePressed', ...point, modifiers, times });
          await between();
          await ask({ mouse: 'mouseReleased', ...point, modifiers, times });
        }
      });
    },
    async hover(run, node) {
      const point = pointOn(node);
      if (!point) return false;
      return by(run, async () => { await ask({ mouse: 'mouseMoved', ...point }); });
    },
    async leave(run, node) {
      if (!natives.matches(node, ':hover')) return false;
      return by(run, async () => { await ask({ mouse: 'mouseMoved', x: 1, y: 1 }); });
    },
    async pull(run, node, given) {
      const [from, half, to] = [0.5, (0.5 + given.at) / 2, given.at].map((share) => pointOn(node, share));
      if (given.finger || !from || !half || !to) return false;
      return by(run, async (between) => {
        await ask({ mouse: 'mouseMoved', ...from });
        for (const [mouse, point] of [['mousePressed', from], ['mouseMoved', half], ['mouseMoved', to], ...(given.kept ? [] : [['mouseReleased', to]])]) {
          await ask({ mouse, ...point, pulls: mouse === 'mouseMoved' });
          await between();
        }
      });
    },
    async key(run, node, given) {
      if (given.place) return false;
      focus(node);
      if (!focused(node)) return false;
      return by(run, (between) => keyed(run, given, between));
    },
    async type(run, node, given) {
      if (given.over || natives.matches(node, NOT_TYPED)) return false;
      focus(node);
      await run.settle();
      if (!focused(node)) return false;
      for (const key of given.text) {
        await by(run, () => keyed(run, { key }));
        await run.settle();
      }
      return true;
    },
  };
}
