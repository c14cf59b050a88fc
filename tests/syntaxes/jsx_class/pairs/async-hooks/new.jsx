import React, { useLayoutEffect, useReducer, useRef } from 'react';

export default function Tides({ harbour, onShown, onGone }) {
  const [state, setState] = useReducer(
    (state, change) => {
      const patch = typeof change === 'function' ? change(state) : change;
      return patch == null ? state : { ...state, ...patch };
    },
    { tides: null }
  );
  const latestHarbour = useRef(harbour);
  latestHarbour.current = harbour;
  const latestOnGone = useRef(onGone);
  latestOnGone.current = onGone;
  const latestOnShown = useRef(onShown);
  latestOnShown.current = onShown;

  useLayoutEffect(() => {
    return () => {
      (async () => {
        await latestOnGone.current(latestHarbour.current);
      })();
    };
  }, []);

  useLayoutEffect(() => {
    (async () => {
      const answer = await fetch(`/tides/${harbour}`);
      const { tides } = await answer.json();
      setState({ tides });
      latestOnShown.current(latestHarbour.current);
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

  const { tides } = state;
  return tides ? <ol>{tides.map((tide) => <li key={tide}>{tide}</li>)}</ol> : <p>…</p>;
}
