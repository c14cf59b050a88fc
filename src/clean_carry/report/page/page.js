'use strict';
// Marks in the margin stay open where they were pressed; Escape closes them.
document.addEventListener('click', (event) => {
  const mark = event.target.closest('button.mark');
  for (const open of document.querySelectorAll('button.mark[aria-expanded="true"]')) {
    if (open !== mark) open.setAttribute('aria-expanded', 'false');
  }
  if (mark) mark.setAttribute('aria-expanded', String(mark.getAttribute('aria-expanded') !== 'true'));
});
document.addEventListener('keydown', (event) => {
  if (event.key !== 'Escape') return;
  for (const open of document.querySelectorAll('button.mark[aria-expanded="true"]')) open.setAttribute('aria-expanded', 'false');
});
// Everything is open on paper.
window.addEventListener('beforeprint', () => {
  for (const part of document.querySelectorAll('details')) part.open = true;
});

const list = document.getElementById('list');
if (list) {
  const body = list.tBodies[0];
  const PAGE = 50;
  let rows = [...body.rows];
  let at = 0;
  const find = document.getElementById('find');
  const boxes = [...document.querySelectorAll('#filters input[type=checkbox]')];
  const shown = document.getElementById('shown');
  const pages = document.getElementById('pages');
  const [earlier, later, page] = ['earlier', 'later', 'page'].map((id) => document.getElementById(id));
  const show = () => {
    const wanted = find.value.trim().toLowerCase();
    const standings = new Set(boxes.filter((box) => box.checked).map((box) => box.value));
    const fitting = rows.filter((row) => standings.has(row.dataset.standing) && row.cells[1].textContent.toLowerCase().includes(wanted));
    const last = Math.max(0, Math.ceil(fitting.length / PAGE) - 1);
    at = Math.min(at, last);
    const here = new Set(fitting.slice(at * PAGE, (at + 1) * PAGE));
    for (const row of rows) row.hidden = !here.has(row);
    shown.textContent = `${fitting.length} of ${rows.length} components`;
    pages.hidden = last === 0;
    page.textContent = `Page ${at + 1} of ${last + 1}`;
    earlier.disabled = at === 0;
    later.disabled = at === last;
  };
  const filter = () => { at = 0; show(); };
  earlier.addEventListener('click', () => { at -= 1; show(); });
  later.addEventListener('click', () => { at += 1; show(); });
  // Without this script all rows are there; with it, the first page.
  show();
  find.addEventListener('input', filter);
  for (const box of boxes) box.addEventListener('change', filter);
  document.getElementById('filters').addEventListener('submit', (event) => event.preventDefault());

  const valueOf = (cell, number) => (number ? Number(cell.dataset.value) : cell.dataset.value ? Number(cell.dataset.value) : cell.textContent.trim().toLowerCase());
  list.tHead.addEventListener('click', (event) => {
    const button = event.target.closest('button');
    if (!button) return;
    const head = button.closest('th');
    const column = head.cellIndex;
    const number = button.dataset.kind === 'number';
    const before = head.getAttribute('aria-sort');
    const up = before ? before !== 'ascending' : !number;
    for (const other of list.tHead.rows[0].cells) other.removeAttribute('aria-sort');
    head.setAttribute('aria-sort', up ? 'ascending' : 'descending');
    rows = [...rows].sort((a, b) => {
      const [one, other] = [valueOf(a.cells[column], number), valueOf(b.cells[column], number)];
      return (one < other ? -1 : one > other ? 1 : 0) * (up ? 1 : -1);
    });
    body.append(...rows);
    at = 0;
    show();
  });
}
