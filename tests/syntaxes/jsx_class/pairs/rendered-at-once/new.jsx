import React, { useRef, useState } from 'react';
import { flushSync } from 'react-dom';

export default function Crates({ onAdd }) {
  const [rows, setRows] = useState(['rye']);
  const [said, setSaid] = useState('');
  const list = useRef(null);
  const latestOnAdd = useRef(onAdd);
  latestOnAdd.current = onAdd;
  const latestRows = useRef(rows);
  latestRows.current = rows;

  const add = () => {
    flushSync(() => {
      setRows([...latestRows.current, `oat ${latestRows.current.length}`]);
    });
    setSaid(`${latestRows.current.length} rows, ${list.current.children.length} shown`);
  };

  function addTwo() {
    for (const name of ['wool', 'slate']) {
      flushSync(() => setRows([...latestRows.current, name]));
      latestOnAdd.current(latestRows.current.length);
    }
  }

  function clear() {
    flushSync(() => setRows([]));
    latestOnAdd.current(rows.length, latestRows.current.length);
  }

  return (
    <div>
      <ul ref={list}>{rows.map((row) => <li key={row}>{row}</li>)}</ul>
      <button onClick={add}>add</button>
      <button onClick={() => addTwo()}>two</button>
      <button onClick={() => clear()}>clear</button>
      <p>{said}</p>
    </div>
  );
}
