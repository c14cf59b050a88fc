'use strict';
const { rows, places, edges, size, box, signs, words } = JSON.parse(document.getElementById('data').textContent);
rows.forEach((row, at) => { row.at = at + 1; row.usesCount = row.uses.length; row.text = `${row.name} ${row.file}`.toLowerCase(); });
const SVG = 'http://www.w3.org/2000/svg';
const picture = document.getElementById('picture');
const detail = document.getElementById('detail');
const wide = picture.clientWidth || 1200;
const make = (name, attributes, text) => {
  const node = document.createElementNS(SVG, name);
  for (const [key, value] of Object.entries(attributes)) node.setAttribute(key, value);
  if (text !== undefined) node.textContent = text;
  return node;
};
const slug = (outcome) => outcome.replace(' ', '-');
const cut = (text) => (text.length > 17 ? `${text.slice(0, 16)}…` : text);
const curve = ([user, used]) => {
  const [x, y] = places[user];
  const [u, v] = places[used];
  const [top, bottom] = [y + box[1], v];
  const middle = (top + bottom) / 2;
  return `M${x + box[0] / 2} ${top}C${x + box[0] / 2} ${middle} ${u + box[0] / 2} ${middle} ${u + box[0] / 2} ${bottom}`;
};

// The picture: all lines where they can be told apart, else those of the chosen component.
const EVERY_LINE = 220;
const lines = make('g', { 'aria-hidden': 'true' });
const near = make('g', { 'aria-hidden': 'true' });
picture.append(lines, near);
if (edges.length <= EVERY_LINE) for (const edge of edges) lines.append(make('path', { d: curve(edge) }));
// One text for all boxes: thousands of elements made one by one take a second.
const SIGNS = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' };
const plain = (text) => text.replace(/[&<>"]/g, (sign) => SIGNS[sign]);
const kinds = [...new Set(rows.map((row) => row.syntax))].sort();
const boxes = make('g', {});
boxes.innerHTML = rows.map((row, at) => (
  `<g class="node o-${slug(row.outcome)} k${kinds.indexOf(row.syntax) % 6}" transform="translate(${places[at].join(' ')})" data-at="${at}">`
  + `<rect width="${box[0]}" height="${box[1]}" rx="6"/><text class="sign" x="14" y="${box[1] / 2}">${signs[row.outcome]}</text>`
  + `<text x="27" y="${box[1] / 2}">${plain(cut(row.name))}</text><title>${plain(`${row.name}: ${row.why}`)}</title></g>`
)).join('');
const nodes = [...boxes.children];
picture.classList.toggle('far', wide / size[0] < 0.3);
picture.append(boxes);

// Moving and zooming.
let view = [0, 0, ...size];
const draw = () => {
  picture.setAttribute('viewBox', view.map((part) => Math.round(part * 10) / 10).join(' '));
  // Names too small to be read cost most of the time that the picture takes.
  picture.classList.toggle('far', wide / view[2] < 0.3);
};
const fit = () => { view = [0, 0, ...size]; draw(); };
const zoom = (by, [x, y] = [view[0] + view[2] / 2, view[1] + view[3] / 2]) => {
  const width = Math.min(Math.max(view[2] * by, 200), size[0] * 3);
  const share = width / view[2];
  view = [x - (x - view[0]) * share, y - (y - view[1]) * share, width, view[3] * share];
  draw();
};
const move = (x, y) => { view[0] += x; view[1] += y; draw(); };
const at = (event) => {
  const point = new DOMPoint(event.clientX, event.clientY).matrixTransform(picture.getScreenCTM().inverse());
  return [point.x, point.y];
};
picture.addEventListener('wheel', (event) => {
  if (!event.ctrlKey && document.activeElement !== picture) return;
  event.preventDefault();
  zoom(event.deltaY > 0 ? 1.2 : 1 / 1.2, at(event));
}, { passive: false });
let held = null;
picture.addEventListener('pointerdown', (event) => { held = [event.clientX, event.clientY, false]; });
window.addEventListener('pointermove', (event) => {
  if (!held) return;
  const scale = view[2] / picture.clientWidth;
  const [x, y] = [event.clientX - held[0], event.clientY - held[1]];
  if (!held[2] && Math.hypot(x, y) < 4) return;
  move(-x * scale, -y * scale);
  held = [event.clientX, event.clientY, true];
});
window.addEventListener('pointerup', () => { setTimeout(() => { held = null; }); });
picture.addEventListener('click', (event) => {
  const node = event.target.closest('.node');
  if (node && !(held && held[2])) choose(Number(node.dataset.at), false);
});
const KEYS = { ArrowLeft: [-0.12, 0], ArrowRight: [0.12, 0], ArrowUp: [0, -0.12], ArrowDown: [0, 0.12] };
picture.addEventListener('keydown', (event) => {
  if (event.ctrlKey || event.metaKey || event.altKey) return;
  const step = KEYS[event.key];
  if (step) move(step[0] * view[2], step[1] * view[3]);
  else if (event.key === '+' || event.key === '=') zoom(1 / 1.3);
  else if (event.key === '-') zoom(1.3);
  else if (event.key === '0') fit();
  else return;
  event.preventDefault();
});
document.getElementById('in').addEventListener('click', () => zoom(1 / 1.3));
document.getElementById('out').addEventListener('click', () => zoom(1.3));
document.getElementById('fit').addEventListener('click', fit);

// One component chosen: its users and what it uses.
let chosen = -1;
const choose = (number, centre) => {
  for (const node of picture.querySelectorAll('.chosen, .node.near')) node.classList.remove('chosen', 'near');
  near.replaceChildren();
  chosen = number;
  nodes[number].classList.add('chosen');
  for (const edge of edges) {
    if (edge[0] !== number && edge[1] !== number) continue;
    near.append(make('path', { class: 'near', d: curve(edge) }));
    nodes[edge[0] === number ? edge[1] : edge[0]].classList.add('near');
  }
  if (centre) {
    const width = Math.min(size[0], 1600);
    const high = width * (picture.clientHeight / picture.clientWidth);
    view = [places[number][0] + box[0] / 2 - width / 2, places[number][1] - high / 2, width, high];
    draw();
  }
  const row = rows[number];
  const lines = [
    [row.name, ` · ${row.file} · ${row.syntax}, ${row.lines} lines`],
    ['In the order: ', `${row.at}, ${row.why}`],
    ['Has: ', Object.entries(row.counts).map(([key, count]) => `${count} ${key}`).join(', ') || 'nothing counted'],
    ['Used by: ', row.users.join(', ') + (row.more ? ` and ${row.more} more` : '') || 'nothing'],
    ['Uses: ', row.uses.map((one) => rows[one].name).join(', ') || 'nothing'],
  ];
  if (row.outcome) lines.push(['Carry: ', `${words[row.outcome]}${row.rules.length ? ` (${row.rules.join(', ')})` : ''}`]);
  detail.replaceChildren(...lines.map(([head, text]) => {
    const line = document.createElement('p');
    const strong = document.createElement('strong');
    strong.textContent = head;
    line.append(strong, text);
    return line;
  }));
};

// The list: filtered, sorted, fifty at a time.
const PAGE = 50;
const table = document.getElementById('rows');
const [find, syntax, outcome, shown, pages, page, earlier, later] = ['find', 'syntax', 'outcome', 'shown', 'pages', 'page', 'earlier', 'later'].map((id) => document.getElementById(id));
let [sorted, first, key, down] = [rows, 0, 'at', false];
let fitting = rows;
const cell = (text, name) => {
  const made = document.createElement('td');
  made.className = name;
  made.textContent = text;
  return made;
};
const list = () => {
  const last = Math.max(0, Math.ceil(fitting.length / PAGE) - 1);
  first = Math.min(first, last);
  table.tBodies[0].replaceChildren(...fitting.slice(first * PAGE, (first + 1) * PAGE).map((row) => {
    const made = document.createElement('tr');
    const head = document.createElement('th');
    head.scope = 'row';
    const name = document.createElement('button');
    name.type = 'button';
    name.className = 'name';
    name.textContent = row.name;
    name.addEventListener('click', () => { choose(row.at - 1, true); picture.scrollIntoView({ block: 'center' }); });
    head.append(name);
    const why = cell(row.why, '');
    const path = document.createElement('span');
    path.className = 'path';
    path.textContent = row.file;
    why.append(path);
    if (row.outcome) why.prepend(Object.assign(document.createElement('span'), { className: `badge o-${slug(row.outcome)}`, textContent: `${signs[row.outcome]} ${words[row.outcome]}` }), ' ');
    made.append(cell(row.at, 'number at'), head, cell(row.syntax, 'path'), cell(row.lines, 'number'), cell(row.used || '', 'number'), cell(row.usesCount || '', 'number'), why);
    return made;
  }));
  shown.textContent = `${fitting.length} of ${rows.length} components`;
  pages.hidden = last === 0;
  page.textContent = `Page ${first + 1} of ${last + 1}`;
  earlier.disabled = first === 0;
  later.disabled = first === last;
};
const filter = () => {
  const text = find.value.trim().toLowerCase();
  const fits = (row) => row.text.includes(text) && (!syntax.value || row.syntax === syntax.value) && (!outcome || outcome.value === '*' || row.outcome === outcome.value);
  fitting = sorted.filter(fits);
  const all = fitting.length === rows.length;
  const here = new Set(fitting.map((row) => row.at - 1));
  nodes.forEach((node, number) => node.classList.toggle('dim', !all && !here.has(number)));
  first = 0;
  list();
};
table.tHead.addEventListener('click', (event) => {
  const button = event.target.closest('button');
  if (!button) return;
  down = key === button.dataset.key ? !down : false;
  key = button.dataset.key;
  const by = (a, b) => (typeof a[key] === 'number' ? a[key] - b[key] : a[key].localeCompare(b[key])) || a.at - b.at;
  sorted = [...rows].sort((a, b) => (down ? by(b, a) : by(a, b)));
  for (const head of table.tHead.querySelectorAll('th')) head.removeAttribute('aria-sort');
  button.closest('th').setAttribute('aria-sort', down ? 'descending' : 'ascending');
  filter();
});
find.addEventListener('input', filter);
syntax.addEventListener('change', filter);
if (outcome) outcome.addEventListener('change', filter);
earlier.addEventListener('click', () => { first -= 1; list(); });
later.addEventListener('click', () => { first += 1; list(); });
fit();
filter();
