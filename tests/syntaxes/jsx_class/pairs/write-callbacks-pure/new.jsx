import React, {
  memo,
  useCallback,
  useLayoutEffect,
  useReducer,
  useRef,
} from 'react';

export default memo(function Berth({ onTake, onSeen }) {
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

  const take = (by) => {
    afterwards.current.push(() => {
      latestOnTake.current(latestState.current.used);
    });
    setState({ used: state.used + by });
  };

  // The note may be the one it has.
  function note(text) {
    afterwards.current.push(told);
    setState({ note: text });
  }

  // What is written may be nothing.
  const choose = (used) => {
    const change = used > 4 ? null : { used };
    afterwards.current.push(told);
    setState(change);
  };

  const told = useCallback(() => latestOnSeen.current(latestState.current.note), []);

  useLayoutEffect(() => {
    afterwards.current.splice(0).forEach((run) => run?.());
  });

  return (
    <p>
      <button onClick={() => take(1)}>Take {state.used}</button>
      <button onClick={() => take(0)}>Take none</button>
      <button onClick={() => choose(state.used + 2)}>Two</button>
      <button onClick={() => note('full')}>Note {state.note}</button>
    </p>
  );
});
