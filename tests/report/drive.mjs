// Open pages of a report in a browser and say what they do. Reads a list of jobs, writes a list of answers.
import { createRequire } from 'node:module';
import path from 'node:path';

const [runtime, executable, axe] = process.argv.slice(2);
const { chromium } = createRequire(path.join(runtime, 'package.json'))('playwright-core');
let text = '';
for await (const part of process.stdin) text += part;

// A browser of the machine, or `package:` and the folder of the runtime that holds one.
async function binary() {
  if (!executable.startsWith('package:')) return executable;
  const found = createRequire(path.join(executable.slice(8), 'package.json'))('@sparticuz/chromium');
  return (found.default ?? found).executablePath();
}

const browser = await chromium.launch({ executablePath: await binary(), args: ['--disable-gpu', '--host-resolver-rules=MAP * ~NOTFOUND'] });
const answers = [];
for (const { url, scheme = 'light', width = 1280, act = '', rules = false } of JSON.parse(text)) {
  // The rules are put into the page by the test; nothing else gets by the page's policy.
  const context = await browser.newContext({ viewport: { width, height: 800 }, colorScheme: scheme, bypassCSP: rules });
  const page = await context.newPage();
  const heard = [];
  page.on('console', (message) => heard.push(`console: ${message.text()}`));
  page.on('pageerror', (error) => heard.push(`error: ${error.message}`));
  page.on('dialog', (dialog) => { heard.push(`dialog: ${dialog.message()}`); dialog.dismiss(); });
  page.on('request', (request) => { if (request.url() !== url && !request.url().startsWith('data:')) heard.push(`request: ${request.url()}`); });
  await page.goto(url);
  const answer = { heard };
  answer.did = act ? await (new Function('page', `return (async () => { ${act} })()`))(page) : null;
  Object.assign(answer, await page.evaluate(() => ({
    title: document.title,
    harmed: globalThis.harmed ?? null,
    wide: document.documentElement.scrollWidth > innerWidth,
    scripts: document.scripts.length,
    handlers: [...document.querySelectorAll('*')].flatMap((node) => node.getAttributeNames().filter((name) => name.startsWith('on') || name === 'style')),
    foreign: document.querySelectorAll('iframe, object, embed, link, base, meta[http-equiv=refresh], a[href^="javascript:"], img:not([src^="data:image/png;base64,"])').length,
    text: document.body.innerText,
  })));
  if (rules) {
    await page.addScriptTag({ path: axe });
    const found = await page.evaluate(() => globalThis.axe.run(document, { resultTypes: ['violations'] }));
    answer.violations = found.violations.map(({ id, nodes }) => `${id}: ${nodes.slice(0, 3).map((node) => `${node.target} ${node.failureSummary}`).join(' | ')}`);
    answer.passed = found.passes.length;
  }
  answers.push(answer);
  await context.close();
}
await browser.close();
process.stdout.write(JSON.stringify(answers));
