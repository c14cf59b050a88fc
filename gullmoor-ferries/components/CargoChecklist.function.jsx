import React, { useLayoutEffect, useRef, useState } from 'react';

const defaultItems = [];

/**
 * What has to be on board before the ramp goes up.
 */
function CargoChecklist({ title = 'Cargo', items: itemsProp = defaultItems, autoFocus }) {
  // ids of what is on board
  const [loaded, setLoaded] = useState([]);
  const [filter, setFilter] = useState('all');
  const [draft, setDraft] = useState('');
  const [extra, setExtra] = useState([]);
  const nextId = useRef(1);
  const input = useRef();

  useLayoutEffect(() => {
    if (autoFocus && input.current) {
      input.current.focus();
    }
  }, []);

  function add(event) {
    event.preventDefault();
    const name = draft.trim();
    if (!name) return;
    const id = `extra-${nextId.current++}`;
    setExtra([...extra, { id, name }]);
    setDraft('');
  }

  function toggle(id) {
    setLoaded((loaded) => loaded.includes(id) ? loaded.filter((other) => other !== id) : [...loaded, id]);
  }

  function visible() {
    const items = itemsProp;
    const all = [...items, ...extra];
    switch (filter) {
      case 'open':
        return all.filter((item) => !loaded.includes(item.id));
      case 'done':
        return all.filter((item) => loaded.includes(item.id));
      default:
        return all;
    }
  }

  const items = visible();
  return (
    <section className="cargo">
      <h3>{title}</h3>
      <select aria-label="Show" value={filter} onChange={(e) => setFilter(e.target.value)}>
        <option value="all">All</option>
        <option value="open">Open</option>
        <option value="done">On board</option>
      </select>
      <ul>
        {items.map(({ id, name }) => (
          <li key={id}>
            <label>
              <input type="checkbox" checked={loaded.includes(id)} onChange={() => toggle(id)} /> {name}
            </label>
          </li>
        ))}
      </ul>
      <form onSubmit={add}>
        <input
          ref={(el) => { input.current = el; }}
          aria-label="Add"
          value={draft}
          onChange={(e) => setDraft(e.target.value)}
        />
        <button>Add</button>
      </form>
      <p>
        {loaded.length} of {itemsProp.length + extra.length} on board
      </p>
    </section>
  );
}

export default CargoChecklist;
