// A frame of the browser's page as the window of a component: real layout, real paint, real media.
import { media } from '../media.mjs';
import { observers } from '../observers.mjs';
import { hands } from './hand.mjs';

// What opens a window of its own, or would wait for a person.
const STUBBED = ['open', 'alert', 'confirm', 'prompt', 'print', 'stop'];
const LEFT_OUT = ['WebSocket', 'EventSource', 'RTCPeerConnection', 'webkitRTCPeerConnection', 'WebTransport', 'SharedWorker', 'Worker', 'BroadcastChannel'];

// Above the frames is room for the pointer to rest.
const TOP = 10;

// The harness runs in a frame of its own. What it does to the page around it, it does by built-ins of its own: those of
// that page can be reached from every frame. Each frame stands alone in a closed root, where no other frame finds it.
const native = (kind, name) => {
  const method = kind.prototype[name];
  return (object, ...given) => Reflect.apply(method, object, given);
};
const read = (kind, name) => {
  const { get } = Object.getOwnPropertyDescriptor(kind.prototype, name);
  return (object) => Reflect.apply(get, object, []);
};
const make = native(Document, 'createElement');
const put = native(Node, 'appendChild');
const take = native(Element, 'remove');
const root = native(Element, 'attachShadow');
const write = native(Element, 'setAttribute');
const listen = native(EventTarget, 'addEventListener');
const inside = read(HTMLIFrameElement, 'contentWindow');
const boxOf = native(Element, 'getBoundingClientRect');
const page = parent.document;
const { body } = page;
const shown = new Map();

/** A fresh frame in the corner of the page, once it has loaded. `called` is its name for the host. */
export async function frameAt(slot, called, size, hidden = false) {
  away(slot);
  const holder = make(page, 'div');
  const frame = make(page, 'iframe');
  write(frame, 'name', called);
  styled(frame, size, hidden);
  const loaded = new Promise((resolve) => { listen(frame, 'load', resolve, { once: true }); });
  write(frame, 'src', 'http://localhost/');
  put(root(holder, { mode: 'closed' }), frame);
  put(body, holder);
  shown.set(slot, holder);
  await loaded;
  return frame;
}

/** Take the frame of a slot away. */
export function away(slot) {
  const holder = shown.get(slot);
  if (holder) take(holder);
  shown.delete(slot);
}

function styled(frame, { width, height }, hidden = false) {
  write(frame, 'style', `position: absolute; border: 0; top: ${TOP}px; left: 0; width: ${width}px; height: ${height}px${hidden ? '; visibility: hidden' : ''}`);
}

/** The window of a frame, and where the frame stands in the page. */
export const windowOf = inside;
export const placeOf = boxOf;

const channel = new MessageChannel();
const turns = [];
channel.port1.onmessage = () => turns.shift()();

function turn() {
  return new Promise((resolve) => {
    turns.push(resolve);
    channel.port2.postMessage(0);
  });
}

/** The realm of a frame. `ask` sends what a hand does, and asks for pictures, to the host. */
export function realm(frame, ask) {
  const window = inside(frame);
  const evaluate = window.eval;
  const { getAnimations } = window.Document.prototype;
  const rect = window.Element.prototype.getBoundingClientRect;
  const { CSSStyleSheet, matchMedia } = window;
  const { replaceSync } = CSSStyleSheet.prototype;
  const scrolled = ['scrollX', 'scrollY'].map((name) => Object.getOwnPropertyDescriptor(window, name).get);
  const pictures = picturesMade(window);
  const box = (node) => {
    const { left, top, width, height } = Reflect.apply(rect, node, []);
    return { left, top, width, height };
  };
  return {
    window,
    frame,
    ask,
    reusable: false,
    evaluate,
    run: (code) => evaluate(`${code}\n;__bundle`),
    turn,
    /** Bring what moves by itself to its end, let pictures arrive or fail, and let the page be painted. */
    async rest() {
      const waited = await arrived(window, pictures);
      const moving = ended(Reflect.apply(getAnimations, window.document, []));
      await new Promise((resolve) => { requestAnimationFrame(resolve); });
      await turn();
      return moving || waited;
    },
    furnish(page) {
      for (const name of [...LEFT_OUT, '__hand', '__look', '__playwright__binding__']) delete window[name];
      for (const name of STUBBED) window[name] = () => undefined;
      page.box = box;
      Object.assign(page.natives, {
        matchMedia: (text) => Reflect.apply(matchMedia, window, [text]),
        scrolledTo: () => scrolled.map((read) => Reflect.apply(read, window, [])),
        sheet(text) {
          const made = new CSSStyleSheet();
          Reflect.apply(replaceSync, made, [text]);
          return made;
        },
      });
      delete window.ResizeObserver;
      delete window.IntersectionObserver;
      observers(page, (node) => {
        const { left, top, width, height } = box(node);
        return left < window.innerWidth && top < window.innerHeight && left + width > 0 && top + height > 0;
      });
      media(page, (text) => Reflect.apply(matchMedia, window, [text]).matches);
      window.addEventListener('unhandledrejection', (event) => {
        page.fail(event.reason);
        event.preventDefault();
      });
      page.hand = hands(page);
    },
    async resize(page, width, height) {
      styled(frame, { width, height });
      await new Promise((resolve) => { requestAnimationFrame(() => requestAnimationFrame(resolve)); });
      page.remeasure();
    },
    close() {},
  };
}

// Milliseconds for which pictures are waited for: every request of a page is answered at once, or ended.
const ARRIVES = 500;
const givenUp = new WeakSet();

/** Wait for pictures, which arrive or fail outside of the page's clock; whether there was one to wait for. */
async function arrived({ document }, pictures) {
  const until = performance.now() + ARRIVES;
  // A picture that is loaded late, when it comes near, may never be asked for: it is waited for once.
  const pending = () => [...document.images, ...pictures].filter((image) => !image.complete && !givenUp.has(image));
  let waited = false;
  while (pending().length && performance.now() < until) {
    waited = true;
    await new Promise((resolve) => { setTimeout(resolve, 2); });
  }
  for (const image of pending()) givenUp.add(image);
  for (const image of pictures) if (image.complete && image.src) pictures.delete(image);
  return waited;
}

/** Pictures made by code, which need not stand in the document. */
function picturesMade(window) {
  const made = new Set();
  const noted = (node) => {
    if (node.localName === 'img') made.add(node);
    return node;
  };
  window.Image = new Proxy(window.Image, { construct: (...given) => noted(Reflect.construct(...given)) });
  const { prototype } = window.Document;
  prototype.createElement = new Proxy(prototype.createElement, { apply: (...given) => noted(Reflect.apply(...given)) });
  return made;
}

/** Finish what ends, hold what does not at its beginning; whether anything was under way. */
function ended(animations) {
  let moving = false;
  for (const animation of animations) {
    if (animation.playState !== 'running') continue;
    moving = true;
    try {
      animation.finish();
    } catch {
      animation.pause();
      animation.currentTime = 0;
    }
  }
  return moving;
}
