import React, { useLayoutEffect, useReducer, useRef } from 'react';

export default function Always({ onDraw }) {
  const [state, setState] = useReducer(
    (state, change) => ({ ...state, ...change }),
    { n: 1 }
  );

  const displayed = useRef(false);
  useLayoutEffect(() => {
    if (!displayed.current) {
      displayed.current = true;
      return;
    }
    onDraw(state.n);
  });

  return <button onClick={() => setState({ n: 1 })}>{state.n}</button>;
}
