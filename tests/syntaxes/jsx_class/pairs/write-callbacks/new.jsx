import React, { useCallback, useLayoutEffect, useReducer, useRef } from 'react';

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

export default function Berth({ onSeen, onTake, onSame }) {
  // A reducer renders after every write, also an equal one, so that callbacks are called.
  const [state, setState] = useReducer(
    (state, change) => ({
      ...state,
      ...(typeof change === 'function' ? change(state) : change),
    }),
    { used: 0, note: '' }
  );
  const latest = useRef({ onSeen, onTake, state });
  latest.current = { onSeen, onTake, state };

  const mounted = useRef(false);
  useLayoutEffect(() => {
    if (!mounted.current) {
      mounted.current = true;
      return;
    }
    onSeen('updated');
  });
  // StrictMode runs effects twice at mount: the second run is no update.
  useLayoutEffect(() => () => { mounted.current = false; }, []);

  const take = (by) => {
    afterRender(() => {
      latest.current.onTake(latest.current.state.used);
    });
    setState({ used: state.used + by });
  };

  const note = () => { afterRender(told); setState((before) => ({ note: `${before.note}!` })); };

  const told = useCallback(() => {
    latest.current.onSeen(latest.current.state.note);
  }, []);

  function same() {
    if (state.used > 2) (afterRender(onSame), setState({ used: state.used }));
  }

  const afterRender = useAfterRender();

  return (
    <p>
      <button onClick={() => take(1)}>Take {state.used}</button>
      <button onClick={note}>Note {state.note}</button>
      <button onClick={() => same()}>Same</button>
    </p>
  );
}
