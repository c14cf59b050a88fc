import React, { useLayoutEffect, useReducer, useRef, useState } from 'react';
import PropTypes from 'prop-types';

const COLUMNS = [
  { key: 'time', label: 'Leaves' },
  { key: 'to', label: 'To' },
  { key: 'ship', label: 'Ship' },
  { key: 'state', label: 'State' },
];

const minutesOf = (time) => {
  const [hours, minutes] = time.split(':').map(Number);
  return hours * 60 + minutes;
};

let boards = 0;

// Calls back once the state written next to it is rendered, as the second argument of setState.
function useAfterRender() {
  const queue = useRef([]);
  const due = queue.current.length;
  useLayoutEffect(() => {
    queue.current.splice(0, due).forEach((run) => run());
  });
  return (run) => {
    if (run) queue.current.push(run);
  };
}

/**
 * The board of departures at a pier: filtered, sorted, kept up to date by asking every half minute, and
 * blinking where a sailing has just changed.
 */
export default function DepartureBoard({ every = 30000, rows = 8, pier, onStale, onPick }) {
  // One object, since a write may be of several fields, or of none.
  const [state, setState] = useReducer(
    (state, change) => ({ ...state, ...(typeof change === 'function' ? change(state) : change) }),
    {
      sailings: [],
      filter: '',
      sort: 'time',
      down: false,
      picked: null,
      failed: '',
      changed: [],
      page: 0,
    }
  );
  const [id] = useState(() => `board-${++boards}`);
  const timer = useRef(null);
  const [fades] = useState(() => new Map());
  const field = useRef(null);
  const requests = useRef(0);
  const latest = useRef({ every, onStale, pier, state });
  latest.current = { every, onStale, pier, state };

  useLayoutEffect(() => {
    load();
    timer.current = setInterval(() => load(), every);
    document.addEventListener('keydown', handleKey);
    document.addEventListener('visibilitychange', handleVisibility);
    return () => {
      clearInterval(timer.current);
      fades.forEach((fade) => clearTimeout(fade));
      fades.clear();
      document.removeEventListener('keydown', handleKey);
      document.removeEventListener('visibilitychange', handleVisibility);
    };
  }, []);

  const previousProps = useRef(null);
  const previousState = useRef(null);
  useLayoutEffect(() => {
    const prevProps = previousProps.current;
    previousProps.current = { pier, every };
    const prevState = previousState.current;
    previousState.current = state;
    if (prevProps === null) return;
    if (prevProps.pier !== pier) {
      afterRender(() => load());
      setState({ sailings: [], picked: null, page: 0 });
    }
    if (prevProps.every !== every) {
      clearInterval(timer.current);
      timer.current = setInterval(() => load(), every);
    }
    if (prevState.filter !== state.filter && state.page !== 0) {
      setState({ page: 0 });
    }
  });

  const handleKey = (event) => {
    if (event.key === '/' && document.activeElement !== field.current) {
      event.preventDefault();
      field.current.focus();
    } else if (event.key === 'Escape') {
      setState({ filter: '', picked: null });
    }
  };

  const handleVisibility = () => {
    if (document.hidden) {
      clearInterval(timer.current);
      timer.current = null;
    } else if (!timer.current) {
      load();
      timer.current = setInterval(() => load(), latest.current.every);
    }
  };

  const handleFilter = (event) => {
    setState({ filter: event.target.value });
  };

  async function load() {
    const request = ++requests.current;
    try {
      const reply = await fetch(`/departures?pier=${encodeURIComponent(latest.current.pier)}`);
      if (!reply.ok) throw new Error(`the pier answered ${reply.status}`);
      const sailings = await reply.json();
      if (request !== requests.current) return;
      const before = new Map(latest.current.state.sailings.map((sailing) => [sailing.id, sailing]));
      const changed = sailings
        .filter((sailing) => before.has(sailing.id) && before.get(sailing.id).state !== sailing.state)
        .map((sailing) => sailing.id);
      setState({ sailings, changed, failed: '' });
      changed.forEach((id) => fade(id));
    } catch (error) {
      if (request !== requests.current) return;
      setState({ failed: error.message });
      if (latest.current.onStale) latest.current.onStale(latest.current.state.sailings.length);
    }
  }

  // A changed row blinks for three seconds
  function fade(id) {
    clearTimeout(fades.get(id));
    fades.set(
      id,
      setTimeout(() => {
        fades.delete(id);
        setState((state) => ({ changed: state.changed.filter((one) => one !== id) }));
      }, 3000)
    );
  }

  function sortBy(key) {
    setState((state) => ({ sort: key, down: state.sort === key ? !state.down : false }));
  }

  function pick(sailing) {
    const picked = state.picked === sailing.id ? null : sailing.id;
    setState({ picked });
    if (onPick) onPick(picked ? sailing : null);
  }

  function getShown() {
    const { sailings, filter, sort, down } = state;
    const needle = filter.trim().toLowerCase();
    const value = (sailing) => (sort === 'time' ? minutesOf(sailing.time) : String(sailing[sort]));
    return sailings
      .filter((sailing) => !needle || `${sailing.to} ${sailing.ship}`.toLowerCase().includes(needle))
      .sort((a, b) => (value(a) < value(b) ? -1 : value(a) > value(b) ? 1 : 0) * (down ? -1 : 1));
  }

  function renderHead() {
    const { sort, down } = state;
    return (
      <tr>
        {COLUMNS.map(({ key, label }) => (
          <th key={key} aria-sort={sort === key ? (down ? 'descending' : 'ascending') : undefined}>
            <button type="button" onClick={() => sortBy(key)}>
              {label}
            </button>
          </th>
        ))}
      </tr>
    );
  }

  function renderRow(sailing) {
    const { picked, changed } = state;
    const classes = ['sailing', sailing.state];
    if (changed.includes(sailing.id)) classes.push('changed');
    if (picked === sailing.id) classes.push('picked');
    return (
      <tr key={sailing.id} className={classes.join(' ')} onClick={() => pick(sailing)}>
        <td>{sailing.time}</td>
        <td>{sailing.to}</td>
        <td>{sailing.ship}</td>
        <td>{sailing.state === 'late' ? `late by ${sailing.late} min` : sailing.state}</td>
      </tr>
    );
  }

  const afterRender = useAfterRender();

  const { filter, failed, page } = state;
  const shown = getShown();
  const pages = Math.max(1, Math.ceil(shown.length / rows));

  return (
    <section id={id} className="board" aria-labelledby={`${id}-title`}>
      <h2 id={`${id}-title`}>Departures from {pier}</h2>
      <input ref={field} value={filter} onChange={handleFilter} placeholder="Where to?" />
      {failed && <p role="alert">{failed}</p>}
      <table>
        <thead>{renderHead()}</thead>
        <tbody>{shown.slice(page * rows, (page + 1) * rows).map((sailing) => renderRow(sailing))}</tbody>
      </table>
      {pages > 1 && (
        <nav aria-label="Pages">
          <button type="button" disabled={page === 0} onClick={() => setState({ page: page - 1 })}>
            back
          </button>
          {page + 1} of {pages}
          <button type="button" disabled={page + 1 >= pages} onClick={() => setState({ page: page + 1 })}>
            on
          </button>
        </nav>
      )}
    </section>
  );
}

DepartureBoard.propTypes = {
  pier: PropTypes.string.isRequired,
  every: PropTypes.number,
  rows: PropTypes.number,
  onPick: PropTypes.func,
  onStale: PropTypes.func,
};
