import { useEffect, useRef, useState } from 'react';

export default function SailingSearch({ find, wait = 200, initial = '', onFound, onFailed }) {
  const [text, setText] = useState(initial);
  const [hits, setHits] = useState([]);
  const [busy, setBusy] = useState(false);
  const [message, setMessage] = useState('');
  const asked = useRef(0);

  useEffect(() => {
    if (!text.trim()) return undefined;
    let over = false;
    const delay = setTimeout(async () => {
      setBusy(true);
      asked.current += 1;
      try {
        const reply = await find(text.trim());
        if (over) return;
        setHits(reply || []);
        onFound?.((reply || []).length);
      } catch (error) {
        if (over) return;
        setMessage(error.message);
        onFailed?.(error.message);
      } finally {
        if (!over) setBusy(false);
      }
    }, wait);
    return () => {
      over = true;
      clearTimeout(delay);
    };
  }, [text, wait, find, onFound, onFailed]);

  useEffect(() => {
    document.title = busy ? 'Searching …' : `${hits.length} sailings`;
  }, [busy, hits]);

  const change = (event) => {
    setMessage('');
    setText(event.target.value);
  };

  let body;
  if (busy) {
    body = <p>Searching …</p>;
  } else if (message) {
    body = <p className="failed">{message}</p>;
  } else if (hits.length) {
    body = (
      <ul>
        {hits.map((hit) => (
          <li key={hit.id}>
            <b>{hit.from}</b> – {hit.to}
          </li>
        ))}
      </ul>
    );
  } else {
    body = <p>No sailing yet.</p>;
  }

  return (
    <div className="sailing-search" aria-busy={busy}>
      <input type="search" aria-label="Search sailings" value={text} onChange={change} />
      {body}
    </div>
  );
}
