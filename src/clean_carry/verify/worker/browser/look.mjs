// What a page looks like at a settled point: computed styles, boxes, focus order, neighbours.

// Sizes and centres follow from boxes, which are told by themselves.
const OF_BOXES = new Set(['width', 'height', 'inline-size', 'block-size', 'perspective-origin', 'transform-origin']);
const STATES = ['hover', 'focus', 'focus-visible', 'focus-within', 'active'];
const SAMPLES = '<p>text <a href="#n">link</a> <span>span</span> <strong>strong</strong></p><h1>one</h1><h2>two</h2><h3>three</h3>'
  + '<ul><li>item</li></ul><button type="button">button</button><label>label <input></label><select><option>one</option></select>'
  + '<textarea></textarea><table><tbody><tr><th>head</th><td>cell</td></tr></tbody></table><div>block</div><section>part</section>';
const FOCUSABLE = 'a[href], button, input, select, textarea, summary, iframe, [tabindex], [contenteditable]';
// Styles of more elements than these are not asked for; how many were left out is told.
const MOST = 600;

// What is written for the direction of text is told by its physical twin.
const TWIN = /(^|-)(block|inline)(-|$)/;
const KEPT_PREFIXED = new Set(['-webkit-line-clamp', '-webkit-text-fill-color', '-webkit-text-stroke-width', '-webkit-text-stroke-color']);

/** Styles of elements, as what differs from an element of the same kind that nothing styles. */
class Styles {
  #plain = new Map();
  #known = new Map();

  constructor(blank) {
    this.blank = blank.contentWindow;
    this.names = [...this.blank.getComputedStyle(this.blank.document.body)].filter((name) => !OF_BOXES.has(name) && !TWIN.test(name)
      && (!name.startsWith('-') || KEPT_PREFIXED.has(name)));
  }

  #read(window, node, pseudo) {
    const style = window.getComputedStyle(node, pseudo);
    return this.names.map((name) => style.getPropertyValue(name));
  }

  #unstyled(node, namespace, pseudo) {
    const kind = `${namespace} ${node.localName} ${node.getAttribute('type') ?? ''} ${pseudo ?? ''}`;
    if (!this.#plain.has(kind)) {
      const { document } = this.blank;
      const made = document.createElementNS(namespace, node.localName);
      if (node.hasAttribute('type')) made.setAttribute('type', node.getAttribute('type'));
      document.body.append(made);
      this.#plain.set(kind, [kind, this.#read(this.blank, made, pseudo)]);
      made.remove();
    }
    return this.#plain.get(kind);
  }

  of(window, node, namespace, pseudo) {
    const values = this.#read(window, node, pseudo);
    const [kind, plain] = this.#unstyled(node, namespace, pseudo);
    const key = `${kind}\n${values.join('\n')}`;
    if (!this.#known.has(key)) {
      const own = {};
      this.names.forEach((name, at) => { if (plain[at] !== values[at]) own[name] = values[at]; });
      if (this.#known.size > 4000) this.#known.clear();
      this.#known.set(key, own);
    }
    return this.#known.get(key);
  }

  /** Styles where only some properties, by number, may be other than in `base`: `base` itself where none is. */
  changed(window, node, namespace, pseudo, numbers, base) {
    const style = window.getComputedStyle(node, pseudo);
    const [, plain] = this.#unstyled(node, namespace, pseudo);
    let own = base;
    for (const at of numbers) {
      const name = this.names[at];
      const value = style.getPropertyValue(name);
      const before = base[name] ?? plain[at];
      if (value === before) continue;
      if (own === base) own = { ...base };
      if (value === plain[at]) delete own[name];
      else own[name] = value;
    }
    return own;
  }

  /** The numbers of the properties that some declarations may change, null where that may be any; `alone`: no others. */
  touched(declared, alone) {
    if (alone) return declared.map((name) => this.names.indexOf(name)).filter((at) => at >= 0);
    if (declared.some((name) => WIDE.test(name))) return null;
    const families = new Set(declared.map((name) => name.split('-')[0]));
    const coloured = families.has('color');
    return this.names.flatMap((name, at) => (families.has(name.split('-')[0]) || (coloured && COLOURED.test(name)) ? [at] : []));
  }
}

// What other properties are worked out from, wherever they stand.
const WIDE = /^(--|font|line-height$|zoom$|direction$|writing-mode$|display$|position$|float$|container|color-scheme$)/;
// What may follow the colour of the text.
const COLOURED = /color|shadow|fill|stroke|image|decoration|emphasis|filter/;

/** Every style rule of a page, those inside of conditions that hold now as well. */
function rulesOf(window) {
  const found = [];
  const into = (list) => {
    for (const rule of list) {
      if (rule.selectorText !== undefined) found.push(rule);
      else if (rule.media && !window.matchMedia(rule.media.mediaText).matches) continue;
      else if (rule.cssRules && rule.keyText === undefined && rule.name === undefined) into(rule.cssRules);
    }
  };
  for (const sheet of window.document.styleSheets) {
    try { into(sheet.cssRules); } catch { /* of another place */ }
  }
  return found;
}

// `:nth-child(n)` is true of every element and weighs as much as a state.
const stateIn = (state) => new RegExp(`:${state}(?![\\w-])`, 'g');

// What a page may set for all that is in it: where a component takes it over and where not shows only in such a page.
// It weighs less than anything a component writes (css-cascade-5, layers; selectors-4, `:where`). Only what is set is read.
const INHERITED = `@layer { :where(body) {
  color: rgb(74, 25, 66); font-family: fantasy; font-size: 19px; font-style: italic; font-weight: 500; line-height: 1.9; letter-spacing: 1px; word-spacing: 2px;
  text-align: right; text-indent: 3px; text-transform: uppercase; white-space: pre-line; cursor: help; list-style: square inside;
  text-shadow: 1px 1px rgb(1, 2, 3);
} }`;
const GIVEN = 'color font-family font-size font-style font-weight line-height letter-spacing word-spacing text-align text-indent text-transform '
  + 'white-space-collapse text-wrap-mode cursor list-style-type list-style-position text-shadow';
const STILL = '*, ::before, ::after { transition: none !important; }';

/** Put a stylesheet of ours on a page; gives what takes it off again. */
export function put({ CSSStyleSheet, document }, text) {
  const sheet = new CSSStyleSheet();
  sheet.replaceSync(text);
  const before = [...document.adoptedStyleSheets];
  document.adoptedStyleSheets = [...before, sheet];
  return () => { document.adoptedStyleSheets = before; };
}

/** Look as if every element were in a state, for each state the page's rules ask for, and in a page that sets what is inherited.
 *  `look` is given the properties that may be others then. */
function inStates(window, rules, look) {
  const found = {};
  // A colour on its way to another one is still the first.
  const move = put(window, STILL);
  const plain = put(window, INHERITED);
  found.inherited = look(GIVEN.split(' '), true);
  plain();
  for (const state of STATES) {
    const asked = stateIn(state);
    const changed = rules.filter((rule) => asked.test(rule.selectorText) || (asked.lastIndex = 0)).map((rule) => [rule, rule.selectorText]);
    if (!changed.length) continue;
    for (const [rule, text] of changed) rule.selectorText = text.replace(asked, ':nth-child(n)');
    found[state] = look(changed.flatMap(([rule]) => (rule.cssRules?.length ? ['--'] : [...rule.style])));
    for (const [rule, text] of changed) rule.selectorText = text;
  }
  // Everything is back where it was before it may move again.
  void window.document.documentElement.offsetHeight;
  move();
  return found;
}

/** The part of a selector that says which element, without what it draws beside it. */
const plainSelector = (text) => text.replace(/::?(before|after|first-line|first-letter|placeholder|marker|selection|backdrop)\b/g, '').replace(new RegExp(`:(${STATES.join('|')})(?![\\w-])`, 'g'), ':nth-child(n)');

/** The rules that match each of some elements, by number. */
function matching(rules, nodes) {
  const selectors = rules.map((rule) => plainSelector(rule.selectorText));
  return nodes.map((node) => selectors.flatMap((selector, at) => {
    try { return node.matches(selector || '*') ? [at] : []; } catch { return []; }
  }));
}

const PSEUDOS = ['::before', '::after', '::placeholder', '::marker'];

/** What a page may draw beside its elements: only rules, and quotations, put something there. */
function besides(rules, nodes) {
  const asked = (name) => rules.some((rule) => new RegExp(`:${name}\\b`).test(rule.selectorText)) || nodes.some((node) => node.localName === 'q');
  return PSEUDOS.filter((pseudo) => !['::before', '::after'].includes(pseudo) || asked(pseudo.slice(2)));
}

/** Whether something is drawn beside an element, or for its placeholder or marker. */
function draws(window, node, pseudo) {
  if (pseudo === '::placeholder') return node.hasAttribute('placeholder');
  if (pseudo === '::marker') return node.localName === 'li';
  return !['none', 'normal'].includes(window.getComputedStyle(node, pseudo).content);
}

/** Reads the styles of elements of one page, what is drawn beside them among them. */
class Reader {
  constructor(styles, window, pseudos) { Object.assign(this, { styles, window, pseudos }); }

  all(node, namespace) {
    const { styles, window } = this;
    const found = { own: styles.of(window, node, namespace) };
    for (const pseudo of this.pseudos) if (draws(window, node, pseudo)) found[pseudo] = styles.of(window, node, namespace, pseudo);
    return found;
  }

  /** The same where only some properties may be others, 0 where none is. */
  changed(node, namespace, numbers, base) {
    const { styles, window } = this;
    const found = { own: styles.changed(window, node, namespace, undefined, numbers, base.own) };
    let other = found.own !== base.own;
    for (const pseudo of this.pseudos) {
      const drawn = draws(window, node, pseudo);
      if (drawn) found[pseudo] = base[pseudo] ? styles.changed(window, node, namespace, pseudo, numbers, base[pseudo]) : styles.of(window, node, namespace, pseudo);
      other ||= found[pseudo] !== base[pseudo];
    }
    return other ? found : 0;
  }
}

/** Copies of what the component drew, without what scopes its styles, before and after it. */
function neighbours(run, marks) {
  const { document } = run.window;
  const isMark = (name) => marks.some((mark) => (mark.endsWith('*') ? name.startsWith(mark.slice(0, -1)) : name === mark));
  const copies = [];
  for (const child of run.root.children) {
    const copy = child.cloneNode(true);
    for (const node of [copy, ...copy.querySelectorAll('*')]) {
      for (const name of node.getAttributeNames()) if (name === 'id' || name === 'name' || name === 'for' || isMark(name)) node.removeAttribute(name);
    }
    copies.push(copy);
  }
  const made = ['before', 'after'].map((where) => {
    const place = document.createElement('trial-neighbour');
    place.innerHTML = SAMPLES;
    for (const copy of copies) place.append(copy.cloneNode(true));
    if (where === 'before') run.scope.insertBefore(place, run.stage);
    else run.scope.append(place);
    return place;
  });
  return { nodes: made.flatMap((place) => [...place.querySelectorAll('*')]).slice(0, MOST), remove: () => made.forEach((place) => place.remove()) };
}

const round = (number) => Math.round(number * 100) / 100;

/** Looks at the pages of one browser; `blank` is a frame in which nothing is styled. */
export class Looks {
  constructor(blank) { this.styles = new Styles(blank); }

  /** {elements, order, rules, states, neighbours, unlooked, bottom} of a run's page; `numbers` are the elements and their numbers. */
  at(run, numbers, { marks = [], around = false }) {
    const { natives, window } = run;
    const nodes = [...numbers.keys()].slice(0, MOST);
    const rules = rulesOf(window);
    const spaces = nodes.map((node) => natives.namespace(node));
    const reader = new Reader(this.styles, window, besides(rules, nodes));
    const plainly = nodes.map((node, at) => reader.all(node, spaces[at]));
    const matched = matching(rules, nodes);
    const otherwise = (declared, alone) => {
      const numbers = this.styles.touched(declared, alone);
      return nodes.map((node, at) => (numbers ? reader.changed(node, spaces[at], numbers, plainly[at]) : reader.all(node, spaces[at])));
    };
    const elements = plainly.map((style, at) => {
      const { left, top, width, height } = run.page.box(nodes[at]);
      return { style, box: [left + window.scrollX, top + window.scrollY, width, height].map(round), rules: matched[at] };
    });
    const found = {
      elements,
      order: focusOrder(natives, window, nodes, numbers),
      rules: rules.map((rule) => rule.selectorText),
      states: inStates(window, rules, otherwise),
      neighbours: null,
      unlooked: numbers.size - nodes.length,
      bottom: Math.max(0, ...elements.map(({ box }) => box[1] + box[3])),
    };
    if (around && rules.length) {
      const { nodes: near, remove } = neighbours(run, marks);
      const hit = matching(rules, near);
      found.neighbours = near.map((node, at) => ({
        tag: node.localName, class: node.getAttribute('class') ?? '', rules: hit[at], style: reader.all(node, node.namespaceURI),
      }));
      remove();
    }
    return found;
  }
}

/** The elements the focus goes to with Tab, in order (HTML §6.6.3). */
function focusOrder(natives, window, nodes, numbers) {
  const able = nodes.filter((node) => natives.matches(node, FOCUSABLE) && !natives.matches(node, ':disabled') && node.tabIndex >= 0
    && window.getComputedStyle(node).visibility === 'visible' && node.getClientRects().length > 0);
  const first = able.filter((node) => node.tabIndex > 0).sort((a, b) => a.tabIndex - b.tabIndex);
  return [...first, ...able.filter((node) => node.tabIndex === 0)].map((node) => numbers.get(node));
}
