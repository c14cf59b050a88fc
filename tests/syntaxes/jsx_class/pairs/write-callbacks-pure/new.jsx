import React, {
  memo,
  useCallback,
  useLayoutEffect,
  useReducer,
  useRef,
} from 'react';

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

export default memo(function Berth({ onTake, onSeen }) {
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

  const take = (by) => {
    afterRender(() => {
      latest.current.onTake(latest.current.state.used);
    });
    setState({ used: state.used + by });
  };

  // The note may be the one it has.
  function note(text) {
    afterRender(told);
    setState({ note: text });
  }

  // What is written may be nothing.
  const choose = (used) => {
    const change = used > 4 ? null : { used };
    afterRender(told);
    setState(change);
  };

  const told = useCallback(() => latest.current.onSeen(latest.current.state.note), []);

  const afterRender = useAfterRender();

  return (
    <p>
      <button onClick={() => take(1)}>Take {state.used}</button>
      <button onClick={() => take(0)}>Take none</button>
      <button onClick={() => choose(state.used + 2)}>Two</button>
      <button onClick={() => note('full')}>Note {state.note}</button>
    </p>
  );
});
