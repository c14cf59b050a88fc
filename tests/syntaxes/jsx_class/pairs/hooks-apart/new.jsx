import React, { useLayoutEffect, useRef } from 'react';

export default function Apart({ on, onShown, onGone, name }) {
  const latestName = useRef(name);
  latestName.current = name;
  const latestOnGone = useRef(onGone);
  latestOnGone.current = onGone;

  // tell whoever listens by then
  useLayoutEffect(() => {
    return () => {
      latestOnGone.current(latestName.current);
    };
  }, []);

  useLayoutEffect(() => {
    if (!on) return;
    const early = 'shown';
    onShown(early);
  }, []);

  return <b>{name}</b>;
}
