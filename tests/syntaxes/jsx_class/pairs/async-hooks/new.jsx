import React, { useLayoutEffect, useReducer, useRef } from 'react';

export default function Tides({ harbour, onShown, onGone }) {
  // One object, since a write may be of several fields, or of none.
  const [state, setState] = useReducer(
    (state, change) => {
      const patch = typeof change === 'function' ? change(state) : change;
      return patch == null ? state : { ...state, ...patch };
    },
    { tides: null }
  );
  const latest = useRef({ harbour, onGone, onShown });
  latest.current = { harbour, onGone, onShown };

  useLayoutEffect(() => {
    return () => {
      (async () => {
        await latest.current.onGone(latest.current.harbour);
      })();
    };
  }, []);

  useLayoutEffect(() => {
    (async () => {
      const answer = await fetch(`/tides/${harbour}`);
      const { tides } = await answer.json();
      setState({ tides });
      latest.current.onShown(latest.current.harbour);
    })();
  }, []);

  const previousProps = useRef(null);
  useLayoutEffect(() => {
    const before = previousProps.current;
    previousProps.current = { harbour };
    if (before === null) return;
    (async () => {
      if (before.harbour === harbour) return;
      setState({ tides: null });
      const answer = await fetch(`/tides/${harbour}`);
      setState(await answer.json());
    })();
  });
  // StrictMode runs effects twice at mount: the second run is no update.
  useLayoutEffect(() => () => { previousProps.current = null; }, []);

  const { tides } = state;
  return tides ? <ol>{tides.map((tide) => <li key={tide}>{tide}</li>)}</ol> : <p>…</p>;
}
