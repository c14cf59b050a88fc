// The simulated page: a window of a page library, with what it lacks (layout, canvas, observers, media).
import { createRequire } from 'node:module';
import path from 'node:path';
import vm from 'node:vm';
import { canvas } from './canvas.mjs';
import { images } from './images.mjs';
import { kept, layOut } from './layout.mjs';
import { media } from './media.mjs';
import { observers } from './observers.mjs';
import { Page } from './page.mjs';
import { symbolsOf, veil } from './veil.mjs';

const scripts = new Map();

// What the page says of the browser it is shown in: what a browser says.
const BROWSER = 'Mozilla/5.0 (X11; Linux x86_64) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/130.0.0.0 Safari/537.36';

const AGENT = `(agent) => {
  const said = { userAgent: agent, appVersion: agent.slice(8), vendor: 'Google Inc.', product: 'Gecko', productSub: '20030107', webdriver: false };
  for (const name of Object.keys(said)) Object.defineProperty(Navigator.prototype, name, { get() { return said[name]; }, enumerable: true, configurable: true });
}`;

// What every window gets a copy of, which it then makes its own.
const COPIED = /(Global|Window)EventHandlers-impl\.js$/;

/** {newPage, libraries}: what makes pages, and what all modules of the page library export. */
export function loadPages(workbench) {
  const require = createRequire(path.join(workbench, 'package.json'));
  const library = require('jsdom');
  const modules = Object.values(require.cache);
  const exported = (end) => modules.find(({ filename }) => filename.endsWith(path.join('jsdom', 'lib', ...end))).exports;
  const utils = exported(['generated', 'idl', 'utils.js']);
  const windows = exported(['jsdom', 'browser', 'Window.js']);
  const { createWindow } = windows;
  let symbols = null;
  const hide = (context) => veil((code) => vm.runInContext(code, context), symbols);
  // The window of a frame is one more way to what is hidden.
  windows.createWindow = (options) => {
    const context = createWindow(options);
    hide(context);
    return context;
  };
  const newPage = () => {
    const dom = new library.JSDOM('<!doctype html><html><head></head><body></body></html>', {
      runScripts: 'outside-only', url: 'http://localhost/', virtualConsole: new library.VirtualConsole(),
    });
    const context = dom.getInternalVMContext();
    const { window } = dom;
    const { document } = window;
    symbols ??= symbolsOf(utils, [window, document, document.body, new window.Event('load'), new window.Headers().entries()]);
    hide(context);
    return new Page(realm(window, context));
  };
  return { newPage, libraries: modules.filter(({ filename }) => !COPIED.test(filename)).map((module) => module.exports) };
}

// The page library sends some events (select, selectionchange, toggle, storage) after a real timeout of 0 ms. They
// become tasks of the page a trial runs in: their order must not depend on how fast the machine is.
let open = null;
const { setTimeout: after } = globalThis;
globalThis.setTimeout = (run, delay, ...given) => {
  if (delay || !open) return after(run, delay, ...given);
  open.tasks.push(() => run(...given));
  return {};
};

function realm(window, context) {
  let page = null;
  return {
    window,
    reusable: true,
    evaluate: (code) => vm.runInContext(code, context),
    run(code) {
      open = page;
      return compiled(code).runInContext(context);
    },
    turn: () => new Promise((resolve) => setImmediate(resolve)),
    furnish(made) {
      page = made;
      furnish(made);
    },
    resize,
    close: () => window.close(),
  };
}

function compiled(code) {
  let script = scripts.get(code);
  if (!script) {
    if (scripts.size > 24) scripts.clear();
    script = new vm.Script(`${code}\n;__bundle`, { filename: 'component.js' });
    scripts.set(code, script);
  }
  return script;
}

function furnish(page) {
  const w = page.window;
  page.realm.evaluate(AGENT)(BROWSER);
  w.scrollTo = () => {};
  w.scrollBy = () => {};
  w.Element.prototype.scrollIntoView ??= () => {};
  w.PointerEvent ??= w.MouseEvent;
  page.natives.PointerEvent = w.PointerEvent;
  page.natives.scrolls = true;
  const changes = counted(w.document);
  page.box = layOut(w, changes);
  const style = kept(changes, w.getComputedStyle);
  const { getComputedStyle } = w;
  w.getComputedStyle = (element, pseudo) => (pseudo ? getComputedStyle(element, pseudo) : style(element));
  canvas(w, (name, values) => page.drawn.push([name, ...values]));
  observers(page);
  media(page);
  images(page);
  // The page library's selector engine listens on the window from its first use on: not the component's doing.
  w.document.querySelectorAll('*:focus');
}

/** How often the page library has forgotten the styles of a document: whenever something it shows has changed. */
function counted(document) {
  const inner = document[Object.getOwnPropertySymbols(document).find((symbol) => symbol.description === 'impl')];
  const { _clearStyleCache: clear } = inner;
  let count = 0;
  Object.defineProperty(inner, '_clearStyleCache', {
    value: function forget() {
      count += 1;
      return Reflect.apply(clear, this, []);
    },
  });
  return () => count;
}

function resize(page, width, height) {
  const w = page.window;
  for (const name of ['innerWidth', 'outerWidth']) w[name] = width;
  for (const name of ['innerHeight', 'outerHeight']) w[name] = height;
  page.remeasure();
  w.dispatchEvent(new page.natives.Event('resize'));
}
