// Made-up boxes. The simulated page lays nothing out; code that measures gets boxes made from the tree of
// elements alone, so that two equal trees have equal boxes: each element stands below the one before it, is
// as high as what is inside it (a leaf is one line), and gets narrower with its depth. Sizes in pixels that
// an element's own style sets are taken as they are; what its style or attribute hides has no box.

const LINE = 20;
const INDENT = 8;
const NARROWEST = 40;
const VIEW = { width: 1024, height: 768 };
const NEVER_SHOWN = new Set(['head', 'style', 'script', 'template', 'link', 'meta', 'title', 'option']);

/** What is worked out for a node, kept until the page changes; `changes` counts its changes. */
export function kept(changes, make) {
  let at = -1;
  let known = new Map();
  return (node) => {
    const now = changes();
    if (now !== at) {
      at = now;
      known = new Map();
    }
    if (!known.has(node)) known.set(node, make(node));
    return known.get(node);
  };
}

/** Give the elements of a window their boxes. */
export function layOut(w, changes) {
  const proto = { element: w.Element.prototype, html: w.HTMLElement.prototype, node: w.Node.prototype };
  const { parentNode, children, style, hidden, connected, localName } = readers(w);
  const pixels = (node, name) => {
    const found = /^(\d+(?:\.\d+)?)px$/.exec(style(node)?.[name] ?? '');
    return found ? Number(found[1]) : null;
  };
  const gone = kept(changes, (node) => hidden(node) || NEVER_SHOWN.has(localName(node)) || style(node)?.display === 'none');
  const inside = (node) => children(node).reduce((sum, child) => sum + height(child), 0);
  const height = kept(changes, (node) => (gone(node) ? 0 : pixels(node, 'height') ?? Math.max(LINE, inside(node))));
  const { documentElement: html } = w.document;
  const shown = (node) => {
    if (!connected(node)) return false;
    for (let up = node; up && up !== html; up = parentNode(up)) if (gone(up)) return false;
    return true;
  };
  const view = () => ({ left: 0, top: 0, width: w.innerWidth || VIEW.width, height: w.innerHeight || VIEW.height });
  const box = (node) => {
    if (node === html || node === w.document.body) return view();
    if (!shown(node)) return { left: 0, top: 0, width: 0, height: 0 };
    let left = 0;
    let top = 0;
    for (let here = node; here !== html; here = parentNode(here)) {
      left += INDENT;
      for (const other of children(parentNode(here))) {
        if (other === here) break;
        top += height(other);
      }
    }
    return { left, top, width: pixels(node, 'width') ?? Math.max(NARROWEST, view().width - 2 * left), height: height(node) };
  };
  const rect = (node) => {
    const { left, top, width, height: high } = box(node);
    return { x: left, y: top, left, top, width, height: high, right: left + width, bottom: top + high, toJSON() { return { ...this }; } };
  };
  const whole = (node) => (shown(node) && node !== html ? Math.max(LINE, inside(node)) : box(node).height);
  const read = (target, name, value) => Object.defineProperty(target, name, { configurable: true, get() { return value(this); } });
  proto.element.getBoundingClientRect = function getBoundingClientRect() { return rect(this); };
  proto.element.getClientRects = function getClientRects() { return shown(this) ? [rect(this)] : []; };
  for (const [kind, target] of [['client', proto.element], ['scroll', proto.element], ['offset', proto.html]]) {
    read(target, `${kind}Width`, (node) => box(node).width);
    read(target, `${kind}Height`, kind === 'scroll' ? whole : (node) => box(node).height);
  }
  read(proto.html, 'offsetLeft', (node) => box(node).left);
  read(proto.html, 'offsetTop', (node) => box(node).top);
  read(proto.html, 'offsetParent', (node) => (shown(node) && node !== w.document.body && node !== html ? w.document.body : null));
  return (node) => box(node);
}

/** The page's own ways to look at its tree, taken before component code can replace them. */
function readers(w) {
  const getter = (proto, name) => {
    const { get } = Object.getOwnPropertyDescriptor(proto, name);
    return (node) => Reflect.apply(get, node, []);
  };
  const first = getter(w.Node.prototype, 'firstChild');
  const next = getter(w.Node.prototype, 'nextSibling');
  const type = getter(w.Node.prototype, 'nodeType');
  const attribute = w.Element.prototype.getAttribute;
  const htmlStyle = getter(w.HTMLElement.prototype, 'style');
  return {
    parentNode: getter(w.Node.prototype, 'parentNode'),
    connected: getter(w.Node.prototype, 'isConnected'),
    localName: getter(w.Element.prototype, 'localName'),
    children: (node) => {
      const found = [];
      for (let child = node && first(node); child; child = next(child)) if (type(child) === 1) found.push(child);
      return found;
    },
    style: (node) => (node instanceof w.HTMLElement ? htmlStyle(node) : null),
    hidden: (node) => type(node) === 1 && Reflect.apply(attribute, node, ['hidden']) !== null,
  };
}
