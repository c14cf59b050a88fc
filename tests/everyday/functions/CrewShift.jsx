import { useEffect, useState } from 'react';
import PropTypes from 'prop-types';

export default function CrewShift({ crew, shift = 'day', limit = 3, onAssign, onOver, onLogged }) {
  const [assigned, setAssigned] = useState({});
  const [search, setSearch] = useState('');
  const [log, setLog] = useState([]);

  const text = search.toLowerCase();
  const matching = crew.filter((one) => one.name.toLowerCase().includes(text));
  const count = Object.values(assigned).filter((s) => s === shift).length;
  const free = limit - count;

  useEffect(() => {
    if (count > limit) onOver?.(count - limit);
  }, [count, limit]);

  const assign = (one) => {
    const next = { ...assigned };
    if (next[one.id] === shift) delete next[one.id];
    else next[one.id] = shift;
    setAssigned(next);
    onAssign?.(one.id, next[one.id] ?? null);
  };

  // The entry tells how many there were when it was asked for.
  const note = () => {
    setTimeout(() => {
      setLog((entries) => [...entries, `${count} on ${shift}`]);
      onLogged?.(count);
    }, 300);
  };

  return (
    <section className="crew-shift">
      <h3>
        {shift} shift, {free} free
      </h3>
      <input type="search" value={search} onChange={(event) => setSearch(event.target.value)} />
      <ul>
        {matching.map((one) => (
          <li key={one.id}>
            <label>
              <input type="checkbox" checked={assigned[one.id] === shift} onChange={() => assign(one)} />
              {one.name} {one.role && <em>{one.role}</em>}
            </label>
          </li>
        ))}
      </ul>
      <button type="button" onClick={note}>
        Note
      </button>
      <ol>
        {log.map((entry, at) => (
          <li key={at}>{entry}</li>
        ))}
      </ol>
    </section>
  );
}

CrewShift.propTypes = {
  crew: PropTypes.arrayOf(
    PropTypes.shape({ id: PropTypes.number.isRequired, name: PropTypes.string.isRequired, role: PropTypes.string }),
  ).isRequired,
  shift: PropTypes.string,
  limit: PropTypes.number,
  onAssign: PropTypes.func,
  onOver: PropTypes.func,
  onLogged: PropTypes.func,
};
