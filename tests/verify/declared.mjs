// What the development build of a runtime says of inputs, beside what the adapters say: node declared.mjs PLACE MODULE
import { createRequire } from 'node:module';
import { inspect } from 'node:util';

const [folder, ours] = process.argv.slice(2);
const require = createRequire(`${folder}/`);
const { objecting } = await import(ours);

const day = new Date(0);
const own = class Berth {};
const values = [undefined, null, '', 'tide', 'open-late', 3, 0, Number.NaN, true, false, [], [1], {}, { a: 1 }, day, /a/, () => {}, Symbol.iterator, new own()];
const types = [null, String, Number, Boolean, Array, Object, Function, Date, Symbol, RegExp, own, [String, Number], [Boolean, String], [Array, Object], [Date, null]];
const validator = (value) => value !== 'tide' && value !== 3;

function* declarations() {
  yield null;
  for (const type of types) {
    yield type;
    for (const required of [false, true]) yield { type, required };
    yield { type, validator };
    yield { type, required: true, validator };
  }
}

/** Whether the runtime itself objects to one input. */
function said(component, given) {
  const words = [];
  const Vue = require('vue');
  if (Vue.version.startsWith('2')) {
    Vue.config.productionTip = false;
    Vue.config.warnHandler = (text) => words.push(text);
    new (Vue.extend({ ...component, render: (h) => h() }))({ propsData: given });
  } else {
    const nodes = { insert() {}, remove() {}, createComment: () => ({}), createElement: () => ({}), createText: () => ({}), parentNode() {}, nextSibling() {}, setText() {}, setElementText() {}, patchProp() {} };
    const { createRenderer, h } = require('@vue/runtime-core');
    const app = createRenderer(nodes).createApp({ render: () => h({ ...component, render: () => null }, given) });
    app.config.warnHandler = (text) => words.push(text);
    app.mount({});
  }
  return words.some((text) => /^(Invalid|Missing required) prop: /.test(text));
}

/** How a declaration or a value is told. */
const name = (what) => inspect(what, { breakLength: Infinity });

const objections = objecting(require('vue').version.startsWith('2'));
const wrong = [];
let asked = 0;
for (const declaration of declarations()) {
  for (const value of values) {
    const component = { props: { openLate: declaration } };
    const given = value === undefined ? {} : { openLate: value };
    asked += 1;
    const [theirs, told] = [said(component, given), objections(component, {}, () => given).length > 0];
    if (theirs !== told) wrong.push([name(declaration), name(value), theirs]);
  }
}
console.log(JSON.stringify({ asked, wrong }));
