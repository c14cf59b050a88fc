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

const scripts = new Map();

export function loadPages(workbench) {
  const { JSDOM, VirtualConsole } = createRequire(path.join(workbench, 'package.json'))('jsdom');
  return () => new Page(realm(JSDOM, VirtualConsole));
}

function realm(JSDOM, VirtualConsole) {
  const dom = new JSDOM('<!doctype html><html><head></head><body></body></html>', {
    runScripts: 'outside-only', url: 'http://localhost/', virtualConsole: new VirtualConsole(),
  });
  const { window } = dom;
  const context = dom.getInternalVMContext();
  return {
    window,
    reusable: true,
    evaluate: (code) => vm.runInContext(code, context),
    run: (code) => compiled(code).runInContext(context),
    turn: () => new Promise((resolve) => setImmediate(resolve)),
    furnish,
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
  inner._clearStyleCache = function forget() {
    count += 1;
    return Reflect.apply(clear, this, []);
  };
  return () => count;
}

function resize(page, width, height) {
  const w = page.window;
  for (const name of ['innerWidth', 'outerWidth']) w[name] = width;
  for (const name of ['innerHeight', 'outerHeight']) w[name] = height;
  page.remeasure();
  w.dispatchEvent(new page.natives.Event('resize'));
}
