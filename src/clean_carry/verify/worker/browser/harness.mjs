// The bench in the browser: it keeps the bundles, makes the frames, and runs trials in them. It runs in a frame of
// its own, to which component code has no path, and only the host holds what it gives.
import { lockdown } from '../lockdown.mjs';
import { Page } from '../page.mjs';
import { runTrial } from '../trial.mjs';
import { Looks, put } from './look.mjs';
import { away, frameAt, placeOf, realm, windowOf } from './realm.mjs';

// A picture ends so far below the last element (CSS pixels).
const MARGIN = 12;
const LEAST_HEIGHT = 40;
const bundles = new Map();
const asked = { __hand: globalThis.__hand, __look: globalThis.__look };
let secret = '';
// Every frame has the way to the host; only what carries the secret is heard there.
const ask = async (name, what) => JSON.parse(await asked[name](JSON.stringify({ secret, what })));
let looks = null;
let kind = '';

/** A frame in which nothing is styled, as wide as the others. */
async function prepare(view) {
  const now = JSON.stringify(view);
  if (now === kind) return;
  looks = new Looks(windowOf(await frameAt('blank', `blank-${secret}`, view, true)));
  kind = now;
}

// The caret blinks by a clock of its own.
const NO_CARET = '* { caret-color: transparent !important }';

async function trial(m) {
  const { code, css } = bundles.get(m.key);
  const { view } = m;
  await prepare(view);
  const slot = m.slot === 'new' ? 'new' : 'old';
  // Both stand at the same place, one after the other: they are painted alike to the last pixel.
  away(slot === 'new' ? 'old' : 'new');
  const frame = await frameAt(slot, `${slot}-${secret}`, view);
  const page = new Page(realm(frame, ask));
  page.style(css);
  const request = m.trial;
  // At which point the page looked like that first.
  const points = new Map();
  let count = -1;
  if (m.looks) {
    page.look = async (run, numbers, name, tree) => {
      count += 1;
      const found = looks.at(run, numbers, {
        marks: m.marks,
        around: name === 'shown',
        known(plain) {
          const now = JSON.stringify([plain, tree]);
          const at = points.get(now);
          if (at === undefined) points.set(now, count);
          return at;
        },
      });
      // What looks as it looked at an earlier point need not be drawn again.
      if (found.as !== undefined) return found;
      const { left, top, width, height: whole } = placeOf(frame);
      const height = Math.min(whole, Math.max(LEAST_HEIGHT, Math.ceil(found.bottom) + MARGIN));
      const show = put(run.natives, run.document, NO_CARET);
      const seen = await ask('__look', { slot, clip: { x: left, y: top, width, height }, picture: m.pictures });
      show();
      return { ...found, ...seen };
    };
  }
  try {
    return await runTrial(page, page.run(code), m.empty ? null : m.exported ?? '', request);
  } finally {
    if (request.steps?.some(({ pull }) => pull?.kept)) await ask('__hand', { mouse: 'mouseReleased', x: 1, y: 1 });
    await ask('__hand', { mouse: 'mouseMoved', x: 1, y: 1 });
    page.close();
    // What still moves in it would be painted on and on.
    away(slot);
  }
}

lockdown({ makers: false });

export const bench = Object.freeze({
  open(told) { secret = told; },
  load(key, code, css) { bundles.set(key, { code, css }); },
  forget(key) { bundles.delete(key); },
  async trial(text) { return JSON.stringify(await trial(JSON.parse(text))); },
});
