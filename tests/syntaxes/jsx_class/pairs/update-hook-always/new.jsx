import React, { useLayoutEffect, useReducer, useRef } from 'react';

export default function Always({ onDraw }) {
  // A reducer renders after every write, also an equal one, as the class did.
  const [state, setState] = useReducer(
    (state, change) => ({ ...state, ...change }),
    { n: 1 }
  );

  const mounted = useRef(false);
  useLayoutEffect(() => {
    if (!mounted.current) {
      mounted.current = true;
      return;
    }
    onDraw(state.n);
  });
  // StrictMode runs effects twice at mount: the second run is no update.
  useLayoutEffect(() => () => { mounted.current = false; }, []);

  return <button onClick={() => setState({ n: 1 })}>{state.n}</button>;
}
