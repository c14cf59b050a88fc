import React, { useReducer, useRef } from 'react';
import throttle from './throttle';

export default function BerthBoard({ berths, longest, loud, harbour, onTold }) {
  const upper = (text) => (latestLoud.current ? text.toUpperCase() : text);

  const labelled = (text) => `${harbour} ${text}`;

  const latestHarbour = useRef(harbour);
  latestHarbour.current = harbour;
  const latestLongest = useRef(longest);
  latestLongest.current = longest;
  const latestLoud = useRef(loud);
  latestLoud.current = loud;
  const latestOnTold = useRef(onTold);
  latestOnTold.current = onTold;
  const [state, setState] = useReducer(
    (state, change) => ({ ...state, ...change }),
    undefined,
    () => ({
      rows: rowsOf(berths),
      label: labelled('berths'),
      taken: 0,
    })
  );
  const latestState = useRef(state);
  latestState.current = state;

  const take = () => {
    setState({ taken: latestState.current.taken + 1 });
    tell.current();
  };

  const told = () => {
    latestOnTold.current(latestState.current.taken, latestHarbour.current);
  };

  const actions = useRef([
    { name: 'Take', run: take },
    { name: 'Sort', run: () => setState({ rows: rowsOf(latestState.current.rows.slice().sort()) }) },
  ]);
  const tell = useRef(null);
  if (tell.current === null) {
    tell.current = throttle(told, 10);
  }

  function rowsOf(berths) {
    return berths.filter((berth) => berth.length < latestLongest.current).map(upper);
  }

  return (
    <p>
      {state.label}: {state.rows} {state.taken}
      {actions.current.map((action) => (
        <button key={action.name} onClick={action.run}>{action.name}</button>
      ))}
    </p>
  );
}
