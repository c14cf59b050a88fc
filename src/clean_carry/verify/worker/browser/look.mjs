// What a page looks like at a settled point: computed styles, boxes, focus order, neighbours.
// Nothing of the page's own is asked, which its code may have replaced: the harness has built-ins of its own, and
// natives taken before any other code ran.

const get = (kind, name) => {
  const { get: read } = Object.getOwnPropertyDescriptor(kind.prototype, name);
  return (object) => Reflect.apply(read, object, []);
};
const { getPropertyValue } = CSSStyleDeclaration.prototype;
const valueOf = (style, name) => Reflect.apply(getPropertyValue, style, [name]);
const computed = (node, pseudo) => getComputedStyle(node, pseudo);
const css = {
  sheets: get(Document, 'styleSheets'), rules: get(CSSStyleSheet, 'cssRules'), inner: get(CSSGroupingRule, 'cssRules'),
  selector: get(CSSStyleRule, 'selectorText'), style: get(CSSStyleRule, 'style'), nested: get(CSSStyleRule, 'cssRules'), media: get(CSSMediaRule, 'media'),
  text: get(MediaList, 'mediaText'), adopted: get(Document, 'adoptedStyleSheets'),
  setSelector: Object.getOwnPropertyDescriptor(CSSStyleRule.prototype, 'selectorText').set,
  setAdopted: Object.getOwnPropertyDescriptor(Document.prototype, 'adoptedStyleSheets').set,
};
/** What a getter gives of something that may be of another kind. */
const ifAny = (read, object) => { try { return read(object); } catch { return undefined; } };

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
    this.blank = blank;
    this.names = [...computed(this.blank.document.body)].filter((name) => !OF_BOXES.has(name) && !TWIN.test(name)
      && (!name.startsWith('-') || KEPT_PREFIXED.has(name)));
  }

  #read(node, pseudo) {
    const style = computed(node, pseudo);
    return this.names.map((name) => valueOf(style, name));
  }

  #unstyled(natives, node, namespace, pseudo) {
    const name = natives.localName(node);
    const type = natives.attribute(node, 'type');
    const kind = `${namespace} ${name} ${type ?? ''} ${pseudo ?? ''}`;
    if (!this.#plain.has(kind)) {
      const { document } = this.blank;
      const made = document.createElementNS(namespace, name);
      if (type !== null) made.setAttribute('type', type);
      document.body.append(made);
      this.#plain.set(kind, [kind, this.#read(made, pseudo)]);
      made.remove();
    }
    return this.#plain.get(kind);
  }

  of(natives, node, namespace, pseudo) {
    const values = this.#read(node, pseudo);
    const [kind, plain] = this.#unstyled(natives, node, namespace, pseudo);
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
  changed(natives, node, namespace, pseudo, numbers, base) {
    const style = computed(node, pseudo);
    const [, plain] = this.#unstyled(natives, node, namespace, pseudo);
    let own = base;
    for (const at of numbers) {
      const name = this.names[at];
      const value = valueOf(style, name);
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
function rulesOf(natives, document) {
  const found = [];
  const into = (list) => {
    for (const rule of list) {
      const media = ifAny(css.media, rule);
      const inner = ifAny(css.inner, rule);
      if (ifAny(css.selector, rule) !== undefined) found.push(rule);
      else if (media && !natives.matchMedia(css.text(media)).matches) continue;
      else if (inner) into(inner);
    }
  };
  for (const sheet of css.sheets(document)) {
    try { into(css.rules(sheet)); } catch { /* of another place */ }
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
export function put(natives, document, text) {
  const sheet = natives.sheet(text);
  const before = [...css.adopted(document)];
  Reflect.apply(css.setAdopted, document, [[...before, sheet]]);
  return () => Reflect.apply(css.setAdopted, document, [before]);
}

/** Look as if every element were in a state, for each state the page's rules ask for, and in a page that sets what is inherited.
 *  `look` is given the properties that may be others then. */
function inStates(natives, document, rules, look) {
  const found = {};
  // A colour on its way to another one is still the first.
  const move = put(natives, document, STILL);
  const plain = put(natives, document, INHERITED);
  found.inherited = look(GIVEN.split(' '), true);
  plain();
  for (const state of STATES) {
    const asked = stateIn(state);
    const changed = rules.filter((rule) => asked.test(css.selector(rule)) || (asked.lastIndex = 0)).map((rule) => [rule, css.selector(rule)]);
    if (!changed.length) continue;
    for (const [rule, text] of changed) Reflect.apply(css.setSelector, rule, [text.replace(asked, ':nth-child(n)')]);
    found[state] = look(changed.flatMap(([rule]) => (ifAny(css.nested, rule)?.length ? ['--'] : [...css.style(rule)])));
    for (const [rule, text] of changed) Reflect.apply(css.setSelector, rule, [text]);
  }
  // Everything is back where it was before it may move again.
  natives.rects(document.documentElement);
  move();
  return found;
}

/** The part of a selector that says which element, without what it draws beside it. */
const plainSelector = (text) => text.replace(/::?(before|after|first-line|first-letter|placeholder|marker|selection|backdrop)\b/g, '').replace(new RegExp(`:(${STATES.join('|')})(?![\\w-])`, 'g'), ':nth-child(n)');

/** The rules that match each of some elements, by number. */
function matching(natives, rules, nodes) {
  const selectors = rules.map((rule) => plainSelector(css.selector(rule)));
  return nodes.map((node) => selectors.flatMap((selector, at) => {
    try { return natives.matches(node, selector || '*') ? [at] : []; } catch { return []; }
  }));
}

const PSEUDOS = ['::before', '::after', '::placeholder', '::marker'];

/** What a page may draw beside its elements: only rules, and quotations, put something there. */
function besides(natives, rules, nodes) {
  const asked = (name) => rules.some((rule) => new RegExp(`:${name}\\b`).test(css.selector(rule))) || nodes.some((node) => natives.localName(node) === 'q');
  return PSEUDOS.filter((pseudo) => !['::before', '::after'].includes(pseudo) || asked(pseudo.slice(2)));
}

/** Whether something is drawn beside an element, or for its placeholder or marker. */
function draws(natives, node, pseudo) {
  if (pseudo === '::placeholder') return natives.hasAttribute(node, 'placeholder');
  if (pseudo === '::marker') return natives.localName(node) === 'li';
  return !['none', 'normal'].includes(valueOf(computed(node, pseudo), 'content'));
}

/** Reads the styles of elements of one page, what is drawn beside them among them. */
class Reader {
  constructor(styles, natives, pseudos) { Object.assign(this, { styles, natives, pseudos }); }

  all(node, namespace) {
    const { styles, natives } = this;
    const found = { own: styles.of(natives, node, namespace) };
    for (const pseudo of this.pseudos) if (draws(natives, node, pseudo)) found[pseudo] = styles.of(natives, node, namespace, pseudo);
    return found;
  }

  /** The same where only some properties may be others, 0 where none is. */
  changed(node, namespace, numbers, base) {
    const { styles, natives } = this;
    const found = { own: styles.changed(natives, node, namespace, undefined, numbers, base.own) };
    let other = found.own !== base.own;
    for (const pseudo of this.pseudos) {
      const drawn = draws(natives, node, pseudo);
      if (drawn) found[pseudo] = base[pseudo] ? styles.changed(natives, node, namespace, pseudo, numbers, base[pseudo]) : styles.of(natives, node, namespace, pseudo);
      other ||= found[pseudo] !== base[pseudo];
    }
    return other ? found : 0;
  }
}

/** Copies of what the component drew, without what scopes its styles, before and after it. */
function neighbours(run, marks) {
  const { natives, document } = run;
  const isMark = (name) => marks.some((mark) => (mark.endsWith('*') ? name.startsWith(mark.slice(0, -1)) : name === mark));
  const copies = [];
  for (const child of natives.children(run.root)) {
    const copy = natives.clone(child, true);
    for (const node of [copy, ...natives.all(copy, '*')]) {
      for (const name of natives.attributeNames(node)) if (name === 'id' || name === 'name' || name === 'for' || isMark(name)) natives.removeAttribute(node, name);
    }
    copies.push(copy);
  }
  const made = ['before', 'after'].map((where) => {
    const place = natives.create(document, 'trial-neighbour');
    Reflect.apply(natives.setMarkup, place, [SAMPLES]);
    for (const copy of copies) natives.insert(place, natives.clone(copy, true), null);
    natives.insert(run.scope, place, where === 'before' ? run.stage : null);
    return place;
  });
  return { nodes: made.flatMap((place) => [...natives.all(place, '*')]).slice(0, MOST), remove: () => made.forEach((place) => natives.take(place)) };
}

const round = (number) => Math.round(number * 100) / 100;

/** Looks at the pages of one browser; `blank` is the window of a frame in which nothing is styled. */
export class Looks {
  constructor(blank) { this.styles = new Styles(blank); }

  /**
   * {elements, order, rules, states, neighbours, unlooked, bottom} of a run's page; `numbers` are the elements and their
   * numbers. `known` says by all but states and neighbours at which point the page looked like that before: then that is all.
   */
  at(run, numbers, { marks = [], around = false, known }) {
    const { natives, document } = run;
    const nodes = [...numbers.keys()].slice(0, MOST);
    const rules = rulesOf(natives, document);
    const spaces = nodes.map((node) => natives.namespace(node));
    const reader = new Reader(this.styles, natives, besides(natives, rules, nodes));
    const plainly = nodes.map((node, at) => reader.all(node, spaces[at]));
    const matched = matching(natives, rules, nodes);
    const otherwise = (declared, alone) => {
      const numbers = this.styles.touched(declared, alone);
      return nodes.map((node, at) => (numbers ? reader.changed(node, spaces[at], numbers, plainly[at]) : reader.all(node, spaces[at])));
    };
    const elements = plainly.map((style, at) => {
      const { left, top, width, height } = run.page.box(nodes[at]);
      const [x, y] = natives.scrolledTo();
      return { style, box: [left + x, top + y, width, height].map(round), rules: matched[at] };
    });
    const plain = {
      elements,
      order: focusOrder(natives, nodes, numbers),
      rules: rules.map((rule) => css.selector(rule)),
      unlooked: numbers.size - nodes.length,
      bottom: Math.max(0, ...elements.map(({ box }) => box[1] + box[3])),
    };
    const as = known(plain);
    if (as !== undefined) return { as };
    const found = { ...plain, states: inStates(natives, document, rules, otherwise), neighbours: null };
    if (around && rules.length) {
      const { nodes: near, remove } = neighbours(run, marks);
      const hit = matching(natives, rules, near);
      found.neighbours = near.map((node, at) => ({
        tag: natives.localName(node), class: natives.attribute(node, 'class') ?? '', rules: hit[at], style: reader.all(node, natives.namespace(node)),
      }));
      remove();
    }
    return found;
  }
}

/** The elements the focus goes to with Tab, in order (HTML §6.6.3). */
function focusOrder(natives, nodes, numbers) {
  const turn = (node) => ifAny(natives.tabIndex, node) ?? ifAny(natives.svgTabIndex, node) ?? -1;
  const able = nodes.filter((node) => natives.matches(node, FOCUSABLE) && !natives.matches(node, ':disabled') && turn(node) >= 0
    && valueOf(computed(node), 'visibility') === 'visible' && natives.rects(node).length > 0);
  const first = able.filter((node) => turn(node) > 0).sort((a, b) => turn(a) - turn(b));
  return [...first, ...able.filter((node) => turn(node) === 0)].map((node) => numbers.get(node));
}
