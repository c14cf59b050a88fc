import React, { useReducer, useRef, useState } from 'react';
import throttle from './throttle';

export default function BerthBoard({ berths, longest, loud, harbour, onTold }) {
  const upper = (text) => (latestProps.current.loud ? text.toUpperCase() : text);

  const labelled = (text) => `${harbour} ${text}`;

  const latestProps = useRef({ harbour, longest, loud, onTold });
  latestProps.current = { harbour, longest, loud, onTold };
  // A reducer renders after every write, also an equal one, as the class did.
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
    tell();
  };

  const told = () => {
    latestProps.current.onTold(latestState.current.taken, latestProps.current.harbour);
  };

  const actions = useRef([
    { name: 'Take', run: take },
    { name: 'Sort', run: () => setState({ rows: rowsOf(latestState.current.rows.slice().sort()) }) },
  ]);
  const [tell] = useState(() => throttle(told, 10));

  function rowsOf(berths) {
    return berths.filter((berth) => berth.length < latestProps.current.longest).map(upper);
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
