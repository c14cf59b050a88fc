// Keeps a browser, and has its page run trials. One JSON object a line in, one a line out.
// Component code runs in the browser alone: no request leaves it, nothing is opened, nothing is written.
import { randomBytes } from 'node:crypto';
import { createRequire } from 'node:module';
import path from 'node:path';
import readline from 'node:readline';
import { fileURLToPath } from 'node:url';

// The browser is a path, or `package:` and the folder of the runtime that holds one.
const [folder, binary] = process.argv.slice(2);
const require = createRequire(path.join(folder, 'package.json'));
const { chromium } = require('playwright-core');
const esbuild = require('esbuild');

const here = path.dirname(fileURLToPath(import.meta.url));
const harness = esbuild.buildSync({
  entryPoints: [path.join(here, 'harness.mjs')], bundle: true, write: false, format: 'iife', globalName: 'harness', target: 'es2022', logLevel: 'silent',
}).outputFiles[0].text;
const secret = randomBytes(16).toString('hex');

// Nothing of the machine is reached: names are not looked up, and what is asked for goes to a proxy that is not there.
const ARGUMENTS = [
  '--disable-gpu', '--disable-quic', '--no-first-run', '--disable-background-networking', '--disable-component-update',
  '--disable-sync', '--disable-blink-features=AutomationControlled', '--disable-extensions', '--hide-scrollbars', '--force-device-scale-factor=1', '--font-render-hinting=none',
  '--disable-lcd-text', '--disable-frame-rate-limit', '--disable-gpu-vsync', '--disable-smooth-scrolling', '--force-color-profile=srgb', '--mute-audio', '--host-resolver-rules=MAP * ~NOTFOUND',
  '--proxy-server=http://127.0.0.1:9', '--proxy-bypass-list=<-loopback>', '--webrtc-ip-handling-policy=disable_non_proxied_udp',
];
async function executable() {
  if (!binary.startsWith('package:')) return binary;
  const found = createRequire(path.join(binary.slice(8), 'package.json'))('@sparticuz/chromium');
  return (found.default ?? found).executablePath();
}

const browser = await chromium.launch({
  executablePath: await executable(), headless: true, args: ARGUMENTS, chromiumSandbox: process.platform === 'linux' && process.getuid() !== 0,
});
const DOCUMENTS = { 'http://localhost/bench': '<!doctype html><meta charset="utf-8"><title>bench</title><body style="margin: 0">', 'http://localhost/': '<!doctype html><html><head></head><body></body></html>' };
// What a page is told of its browser is what it is told in one that a person uses.
const userAgent = `Mozilla/5.0 (X11; Linux x86_64) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/${browser.version()} Safari/537.36`;
const context = await browser.newContext({ userAgent, deviceScaleFactor: 1, locale: 'en-US', timezoneId: 'UTC', serviceWorkers: 'block', acceptDownloads: false });
await context.route('**/*', (route) => {
  const request = route.request();
  const body = DOCUMENTS[request.url()];
  if (request.isNavigationRequest()) {
    // A page that would go elsewhere stays (HTTP 204 changes no document).
    const own = body !== undefined && request.method() === 'GET' && !loaded.has(request.frame());
    loaded.add(request.frame());
    return own ? route.fulfill({ contentType: 'text/html', body }) : route.fulfill({ status: 204 });
  }
  return route.abort();
});
const loaded = new WeakSet();
await context.routeWebSocket(/.*/, (socket) => socket.close());

const page = await context.newPage();
page.on('popup', (popup) => popup.close().catch(() => {}));
page.on('dialog', (dialog) => dialog.dismiss().catch(() => {}));
const session = await context.newCDPSession(page);
await session.send('Emulation.setFocusEmulationEnabled', { enabled: true });

async function hand(m) {
  if (m.mouse) {
    const pressed = m.mouse === 'mousePressed' || m.pulls;
    await session.send('Input.dispatchMouseEvent', {
      type: m.mouse, x: m.x, y: m.y, modifiers: m.modifiers ?? 0, button: m.mouse === 'mouseMoved' && !m.pulls ? 'none' : 'left',
      buttons: pressed ? 1 : 0, clickCount: m.mouse === 'mouseMoved' ? 0 : m.times ?? 1,
    });
  } else {
    const { stroke: type, ...key } = m;
    await session.send('Input.dispatchKeyEvent', { type, ...key });
  }
  return null;
}

async function frameOf(slot) {
  const { frameTree } = await session.send('Page.getFrameTree');
  return frameTree.childFrames.find(({ frame }) => frame.name === `${slot}-${secret}`).frame.id;
}

// What assistive technology is told, as [role, name, states]; what it is not told of is left out.
const SHOWN = new Set(['disabled', 'checked', 'expanded', 'pressed', 'selected', 'level', 'required', 'invalid', 'readonly', 'modal', 'hasPopup', 'valuetext', 'valuemin', 'valuemax', 'live', 'multiselectable', 'orientation']);
async function accessible(slot) {
  const { nodes } = await session.send('Accessibility.getFullAXTree', { frameId: await frameOf(slot) });
  // The engine lists nodes level by level, and what it leaves out changes the levels: here they stand in the page's order.
  const known = new Map(nodes.map((node) => [node.nodeId, node]));
  const ordered = [];
  const open = nodes.filter((node) => !known.has(node.parentId)).reverse();
  while (open.length) {
    const node = open.pop();
    ordered.push(node);
    for (const id of [...(node.childIds ?? [])].reverse()) if (known.has(id)) open.push(known.get(id));
  }
  return ordered.filter((node) => !node.ignored && !['RootWebArea', 'InlineTextBox', 'StaticText', 'none', 'generic'].includes(node.role?.value)).map((node) => [
    node.role?.value ?? '', node.name?.value ?? '',
    Object.fromEntries((node.properties ?? []).filter(({ name }) => SHOWN.has(name)).map(({ name, value }) => [name, value.value])),
  ]);
}

async function look({ slot, clip, picture }) {
  const tree = await accessible(slot);
  const drawn = picture ? (await session.send('Page.captureScreenshot', { format: 'png', clip: { ...clip, scale: 1 }, optimizeForSpeed: true })).data : null;
  return { accessible: tree, picture: drawn };
}

/** What the harness asks of the host; nobody else knows the secret. */
async function told(text, answer) {
  const { secret: said, what } = JSON.parse(text);
  return said === secret ? JSON.stringify(await answer(what)) : 'null';
}
await page.exposeBinding('__hand', (source, text) => told(text, hand));
await page.exposeBinding('__look', (source, text) => told(text, look));
await page.goto('http://localhost/bench');
// The harness has a frame to itself, in a closed root, under a name nobody knows.
await page.evaluate((name) => new Promise((resolve) => {
  const holder = document.createElement('div');
  const frame = Object.assign(document.createElement('iframe'), { name, src: 'http://localhost/', onload: resolve });
  frame.style.cssText = 'position: absolute; border: 0; top: 0; left: 0; width: 4px; height: 4px; pointer-events: none';
  holder.attachShadow({ mode: 'closed' }).append(frame);
  document.body.append(holder);
}), `bench-${secret}`);
const home = page.frame({ name: `bench-${secret}` });
const bench = await home.evaluateHandle(`${harness}; harness.bench`);
await bench.evaluate((own, name) => own.open(name), secret);

let shown = '';
/** How large a frame gets in the course of a trial. */
function extent({ view, trial }) {
  const sizes = (trial?.steps ?? []).map(({ resize }) => resize ?? {});
  return { width: Math.max(view.width, ...sizes.map(({ width = 0 }) => width)), height: Math.max(view.height, ...sizes.map(({ height = 0 }) => height)) };
}

/** The medium of a view: colour scheme, what a page may ask for besides, and room for a frame. */
async function show(view, { width, height }) {
  const now = JSON.stringify([view, width, height]);
  if (now === shown) return;
  await page.setViewportSize({ width, height: height + 10 });
  await page.emulateMedia({
    media: view.print ? 'print' : 'screen', colorScheme: view.scheme ?? 'light', reducedMotion: view.motion ?? 'no-preference',
    forcedColors: view.forced ?? 'none', contrast: view.contrast ?? 'no-preference',
  });
  shown = now;
}

async function handle(m) {
  switch (m.op) {
    case 'load':
      await bench.evaluate((own, [key, code, css]) => own.load(key, code, css), [m.key, m.code, m.css]);
      return {};
    case 'forget':
      await bench.evaluate((own, key) => own.forget(key), m.key);
      return {};
    case 'trial':
      await show(m.view, extent(m));
      return JSON.parse(await bench.evaluate((own, text) => own.trial(text), JSON.stringify(m)));
    default:
      throw new Error(`unknown request ${m.op}`);
  }
}

const GONE = /context was destroyed|has been closed|was detached/;
process.stdout.write(`${JSON.stringify({ ready: true, version: browser.version() })}\n`);
for await (const line of readline.createInterface({ input: process.stdin })) {
  const m = JSON.parse(line);
  let answer;
  try {
    answer = { ok: true, ...(await handle(m)) };
  } catch (error) {
    // Where the frame of the harness is gone, nothing can be asked any more: the next request gets another host.
    if (home.isDetached() || page.isClosed() || GONE.test(error?.message)) break;
    answer = { ok: false, error: String(error?.message ?? error).slice(0, 500) };
  }
  answer.id = m.id;
  process.stdout.write(`${JSON.stringify(answer)}\n`);
}
await browser.close();
process.exit(0);
