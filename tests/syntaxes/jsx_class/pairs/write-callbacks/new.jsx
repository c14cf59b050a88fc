import React, { useCallback, useLayoutEffect, useReducer, useRef } from 'react';

export default function Berth({ onSeen, onTake, onSame }) {
  const [state, setState] = useReducer(
    (state, change) => ({
      ...state,
      ...(typeof change === 'function' ? change(state) : change),
    }),
    { used: 0, note: '' }
  );
  const latestOnSeen = useRef(onSeen);
  latestOnSeen.current = onSeen;
  const latestOnTake = useRef(onTake);
  latestOnTake.current = onTake;
  const latestState = useRef(state);
  latestState.current = state;
  const afterwards = useRef([]);

  const displayed = useRef(false);
  useLayoutEffect(() => {
    if (!displayed.current) {
      displayed.current = true;
      return;
    }
    onSeen('updated');
  });

  const take = (by) => {
    afterwards.current.push(() => {
      latestOnTake.current(latestState.current.used);
    });
    setState({ used: state.used + by });
  };

  const note = () => { afterwards.current.push(told); setState((before) => ({ note: `${before.note}!` })); };

  const told = useCallback(() => {
    latestOnSeen.current(latestState.current.note);
  }, []);

  function same() {
    if (state.used > 2) (afterwards.current.push(onSame), setState({ used: state.used }));
  }

  useLayoutEffect(() => {
    afterwards.current.splice(0).forEach((run) => run?.());
  });

  return (
    <p>
      <button onClick={() => take(1)}>Take {state.used}</button>
      <button onClick={note}>Note {state.note}</button>
      <button onClick={() => same()}>Same</button>
    </p>
  );
}
