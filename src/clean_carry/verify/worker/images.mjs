// Pictures of the simulated page (HTML §4.8.4): those whose address can be one are there after a while, all
// others fail; both are told by their events. Nothing is fetched.

// After so many milliseconds a picture is there, or is known not to be; so large is every one.
const AFTER = 30;
const WIDTH = 320;
const HEIGHT = 200;
const FOUND = /^(#|data:image|blob:|https?:\/\/|\.{0,2}\/)[^\s<>]*$/;
const MISSING = /missing|broken|404/i;

/** Give a window pictures that come or fail. */
export function images(page) {
  const w = page.window;
  const { Element, HTMLImageElement } = w;
  const { Event } = page.natives;
  const state = new WeakMap();
  const plain = Object.getOwnPropertyDescriptor(HTMLImageElement.prototype, 'src');
  const { setAttribute } = Element.prototype;

  function ask(image) {
    const address = image.getAttribute('src') ?? '';
    const asked = { done: false, found: false };
    state.set(image, asked);
    page.later('image', AFTER, () => {
      if (state.get(image) !== asked) return;
      asked.done = true;
      asked.found = FOUND.test(address) && !MISSING.test(address);
      image.dispatchEvent(new Event(asked.found ? 'load' : 'error'));
    });
  }

  Object.defineProperty(HTMLImageElement.prototype, 'src', {
    ...plain,
    set(value) { Reflect.apply(plain.set, this, [value]); ask(this); },
  });
  HTMLImageElement.prototype.setAttribute = function set(name, value) {
    Reflect.apply(setAttribute, this, [name, value]);
    if (String(name).toLowerCase() === 'src') ask(this);
  };
  const measure = (size) => ({ configurable: true, enumerable: true, get() { return state.get(this)?.found ? size : 0; } });
  // What is not drawn is as large as its attribute says, or else as it is by nature.
  const sized = (name, natural) => {
    const known = Object.getOwnPropertyDescriptor(HTMLImageElement.prototype, name);
    return {
      ...known,
      get() {
        if (this.isConnected || this.hasAttribute(name)) return Reflect.apply(known.get, this, []);
        return state.get(this)?.found ? natural : 0;
      },
    };
  };
  Object.defineProperties(HTMLImageElement.prototype, {
    width: sized('width', WIDTH),
    height: sized('height', HEIGHT),
    naturalWidth: measure(WIDTH),
    naturalHeight: measure(HEIGHT),
    complete: { configurable: true, enumerable: true, get() { return state.get(this)?.done ?? !this.getAttribute('src'); } },
  });
}
