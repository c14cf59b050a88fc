import { useLayoutEffect, useMemo, useRef, useState } from 'react';

function useList() {
  const [list, setList] = useState([]);
  const flip = (id) => setList((now) => (now.includes(id) ? now.filter((x) => x !== id) : now.concat(id)));
  return [list, flip];
}

const SHOWN = {
  all: () => true,
  open: (loaded, item) => !loaded.includes(item.id),
  done: (loaded, item) => loaded.includes(item.id),
};

export default function Cargo({ title = 'Cargo', items = [], autoFocus }) {
  const [loaded, flip] = useList();
  const [filter, setFilter] = useState('all');
  const [form, setForm] = useState({ draft: '', extra: [] });
  const field = useRef(null);
  useLayoutEffect(() => {
    if (autoFocus) field.current?.focus();
  }, []);
  const shown = useMemo(
    () => [...items, ...form.extra].filter((item) => SHOWN[filter](loaded, item)),
    [items, form.extra, filter, loaded],
  );
  const submit = (event) => {
    event.preventDefault();
    setForm((now) => {
      const name = now.draft.trim();
      return name ? { draft: '', extra: [...now.extra, { id: `extra-${now.extra.length + 1}`, name }] } : now;
    });
  };
  return (
    <section className="cargo">
      <h3>{title}</h3>
      <select aria-label="Show" value={filter} onChange={({ target }) => setFilter(target.value)}>
        {[['all', 'All'], ['open', 'Open'], ['done', 'On board']].map(([value, text]) => (
          <option key={value} value={value}>{text}</option>
        ))}
      </select>
      <ul>
        {shown.map((item) => (
          <li key={item.id}>
            <label>
              <input type="checkbox" checked={loaded.includes(item.id)} onChange={flip.bind(null, item.id)} />
              {` ${item.name}`}
            </label>
          </li>
        ))}
      </ul>
      <form onSubmit={submit}>
        <input ref={field} aria-label="Add" value={form.draft} onChange={(e) => { const draft = e.target.value; setForm((now) => ({ ...now, draft })); }} />
        <button>Add</button>
      </form>
      <p>{`${loaded.length} of ${items.length + form.extra.length} on board`}</p>
    </section>
  );
}
