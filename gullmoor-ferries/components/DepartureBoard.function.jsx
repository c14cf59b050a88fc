import React, { useLayoutEffect, useRef, useState } from 'react';
import './DepartureBoard.css';

const EVERY = 30 * 1000;

/** Next sailings from one pier, refreshed every half minute. */
function DepartureBoard({ limit = 3, onPick = () => {}, pier }) {
  const [loading, setLoading] = useState(true);
  const [sailings, setSailings] = useState([]);
  const [picked, setPicked] = useState(null);
  const latestPier = useRef(pier);
  latestPier.current = pier;

  useLayoutEffect(() => {
    load();
    const timer = setInterval(() => load(), EVERY);
    return () => clearInterval(timer);
  }, []);

  const previousPier = useRef(pier);
  useLayoutEffect(() => {
    if (previousPier.current === pier) return;
    previousPier.current = pier;
    // A new pier means a new list.
    setLoading(true);
    setPicked(null);
    load();
  });

  async function load() {
    const pier = latestPier.current;
    const reply = await fetch(`/api/piers/${pier}/sailings`);
    const sailings = await reply.json();
    if (pier !== latestPier.current) return; // the pier changed while we waited
    setSailings(sailings);
    setLoading(false);
  }

  function handlePick(id) {
    setPicked(id);
    onPick(id);
  }

  function renderRow(sailing) {
    return (
      <li key={sailing.id} className={sailing.id === picked ? 'row picked' : 'row'}>
        <time>{sailing.at}</time> {sailing.to}
        <button onClick={() => handlePick(sailing.id)}>Pick</button>
      </li>
    );
  }

  if (loading) return <p className="board">Asking the pier…</p>;
  return (
    <ol className="board">
      {sailings.slice(0, limit).map((s) => renderRow(s))}
    </ol>
  );
}

export default DepartureBoard;
