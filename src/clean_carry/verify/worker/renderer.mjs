// Renders component bundles and answers with what was seen. One JSON object a line in, one a line out.
import { takeProcess, takeSockets } from './isolation.mjs';

// The two streams this process talks through are opened before every way to a socket is taken away.
const { stdin, stdout } = process;
takeSockets();

const [workbench] = process.argv.slice(2);
const readline = await import('node:readline');
const { loadPages } = await import('./simulated.mjs');
const { Run, runTrial } = await import('./trial.mjs');

const { newPage, libraries } = loadPages(workbench);
const exit = process.exit.bind(process);
const write = stdout.write.bind(stdout);
const quote = JSON.stringify;
const parse = JSON.parse;
newPage().close();
const bundles = new Map();
const runs = new Map();

/** JSON without asking the values themselves how they want to be written. */
function plain(value) {
  if (value === null || value === undefined) return 'null';
  if (typeof value === 'string' || typeof value === 'number' || typeof value === 'boolean') return quote(value);
  if (Array.isArray(value)) {
    let out = '[';
    for (let at = 0; at < value.length; at++) out += (at ? ',' : '') + plain(value[at]);
    return `${out}]`;
  }
  let out = '{';
  let first = true;
  for (const key of Object.keys(value)) {
    out += `${first ? '' : ','}${quote(key)}:${plain(value[key])}`;
    first = false;
  }
  return `${out}}`;
}

let page = null;
// A page that was used and put back as it was found, for runs that take one.
let spare = null;
process.on('unhandledRejection', (error) => page?.fail(error));
process.on('uncaughtException', (error) => page?.fail(error));
for (const name of ['exit', 'reallyExit']) {
  Object.defineProperty(process, name, { value: () => { throw new Error('exit is not available to components'); }, configurable: false });
}
takeProcess(libraries);

/** A page with the bundle of a request running in it: what a run is made of. */
function prepared(m) {
  const { code, css } = bundles.get(m.key);
  page = (m.reuse && spare) || newPage();
  if (page === spare) spare = null;
  page.style(css);
  return [page, page.run(code), m.empty ? null : m.exported ?? '', m.trial];
}

/** Keep the page for the next run that takes one, if it could be put back as it was found. */
function finished(m) {
  let kept = false;
  try { kept = Boolean(m.reuse) && !spare && page.reset(); } catch { /* then it is closed */ }
  if (kept) spare = page;
  else page.close();
  page = null;
}

function seen(run, point, m) {
  return m.look ? { point, actions: run.actions() } : { point };
}

async function handle(m) {
  switch (m.op) {
    case 'load':
      bundles.set(m.key, { code: m.code, css: m.css });
      return {};
    case 'forget':
      bundles.delete(m.key);
      return {};
    case 'trial':
      try {
        return await runTrial(...prepared(m));
      } finally {
        finished(m);
      }
    case 'open': {
      const run = new Run(...prepared(m));
      runs.set(m.run, run);
      return seen(run, await run.open(), m);
    }
    case 'step': {
      const run = runs.get(m.run);
      page = run.page;
      return seen(run, await run.step(m.step), m);
    }
    case 'end': {
      const run = runs.get(m.run);
      page = run.page;
      runs.delete(m.run);
      try {
        return await run.end();
      } finally {
        finished(m);
      }
    }
    default:
      throw new Error(`unknown request ${m.op}`);
  }
}

let secret = null;
write(`${quote({ ready: true })}\n`);
for await (const line of readline.createInterface({ input: stdin })) {
  const m = parse(line);
  // What is told first is told before any component runs; every answer carries it.
  if (secret === null) { secret = m.secret; continue; }
  let answer;
  try {
    answer = { ok: true, ...(await handle(m)) };
  } catch (error) {
    answer = { ok: false, error: String(error?.message ?? error).slice(0, 500) };
  }
  answer.id = m.id;
  answer.secret = secret;
  write(`${plain(answer)}\n`);
}
exit(0);
