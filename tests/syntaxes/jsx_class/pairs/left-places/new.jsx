import React, { useLayoutEffect, useReducer, useRef } from 'react';

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

export default function Partly({ onDone }) {
  // A reducer renders after every write, also an equal one, so that callbacks are called.
  const [state, setState] = useReducer(
    (state, change) => ({ ...state, ...change }),
    { a: 1 }
  );
  const latestOnDone = useRef(onDone);
  latestOnDone.current = onDone;

  /* left to you (reached-from-outside): set double(value) {
    this.setState({ a: value / 2 });
  } */

  const touch = () => {
    afterRender(function () { latestOnDone.current(); });
    setState({ a: 2 });
    /* left to you (forced-update): this.forceUpdate(() => this.props.onDone()); */
  };

  const afterRender = useAfterRender();

  return <p onClick={touch}>{state.a}</p>;
}
