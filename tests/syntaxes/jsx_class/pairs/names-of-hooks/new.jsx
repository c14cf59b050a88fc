import React, { useLayoutEffect, useRef, useState } from 'react';

function Notice({ text, onText }) {
  const [open, setOpen] = useState(false);
  const [looks, setLooks] = useState(0);

  const lastProps = useRef(null);
  const stateBefore = useRef(null);
  useLayoutEffect(() => {
    const previousProps = lastProps.current;
    lastProps.current = { text };
    const previousState = stateBefore.current;
    stateBefore.current = { open };
    if (previousProps === null) return;
    if (previousState.open !== open && !open) {
      setLooks(looks + 1);
    }
    if (previousProps.text !== text) {
      const propsBefore = previousProps.text;
      onText(propsBefore);
    }
  });

  return (
    <button onClick={() => setOpen(!open)}>
      {looks} {text}
    </button>
  );
}

function Tide({ onText }) {
  const [level, setLevel] = useState(0);

  const previousState = useRef(null);
  useLayoutEffect(() => {
    const stateBefore = previousState.current;
    previousState.current = { level };
    if (stateBefore === null) return;
    if (stateBefore.level !== level) {
      const previousLevel = stateBefore.level;
      const setLevel = previousLevel + 1;
      onText(`${previousLevel} ${setLevel}`);
    }
  });

  return <button onClick={() => setLevel(level + 2)}>{level}</button>;
}

function Lamp({ onText }) {
  const [mountedState, setMounted] = useState(0);

  const wasMounted = useRef(false);
  useLayoutEffect(() => {
    if (!wasMounted.current) {
      wasMounted.current = true;
      return;
    }
    const mounted = mountedState;
    onText(mounted);
  });
  // StrictMode runs effects twice at mount: the second run is no update.
  useLayoutEffect(() => () => { wasMounted.current = false; }, []);

  return <button onClick={() => setMounted(mountedState + 1)}>{mountedState}</button>;
}

export default function Page(props) {
  return (
    <div>
      <Notice {...props} />
      <Tide {...props} />
      <Lamp {...props} />
    </div>
  );
}
