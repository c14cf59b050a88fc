import React, { useReducer } from 'react';

const rowsOf = (berths) => berths.map((berth) => berth.toUpperCase());

export default function BerthPanel({ open: openProp, berths: berthsProp }) {
  // A reducer keeps what is written while rendering.
  const [state, setState] = useReducer(
    (state, change) => ({ ...state, ...change }),
    { closing: false, before: {}, rows: [] }
  );

  // Closes slowly, and makes its rows anew for other berths.
  if (state.before.open && !openProp) {
    setState({ before: { open: openProp }, closing: true });
    return null;
  }

  // Opens at once.
  if (!Object.is(state.before.open, openProp)) {
    setState({ before: { open: openProp }, rows: rowsOf(berthsProp) });
    return null;
  }

  return (
    <p onClick={() => setState({ closing: false })}>
      {state.rows} {state.closing && 'closing'}
      <Tide at={berthsProp[0]} />
      <Light colour={openProp ? 'green' : undefined} />
    </p>
  );
}

export function Tide({ at: atProp }) {
  // A reducer keeps what is written while rendering.
  const [ownState, setState] = useReducer(
    (ownState, change) => ({ ...ownState, ...change }),
    { last: null, draws: 0, marks: [] }
  );

  // Nothing new.
  if (!Object.is(atProp, ownState.last)) {
    setState({ last: atProp, draws: ownState.draws + 1, marks: [atProp, ownState.last] });
    return null;
  }

  return <b onClick={() => setState({ draws: 0 })}>{ownState.marks} {ownState.draws}</b>;
}

export function Light({ colour }) {
  // A reducer keeps what is written while rendering.
  const [state, setState] = useReducer(
    (state, change) => ({ ...state, ...change }),
    { colour: 'red', lit: false }
  );

  if (colour !== undefined && (!Object.is(state.colour, colour) || state.lit !== true)) {
    setState({ colour: colour, lit: true });
    return null;
  }

  return (
    <u onClick={() => setState({ colour: 'amber', lit: false })}>
      {state.colour} {String(state.lit)}
    </u>
  );
}
