import React, { useCallback, useLayoutEffect, useRef, useState } from 'react';

export default function Keys({ on, onKey }) {
  const [last, setLast] = useState('');
  const latestOnKey = useRef(onKey);
  latestOnKey.current = onKey;
  const latestLast = useRef(last);
  latestLast.current = last;

  useLayoutEffect(() => {
    if (on) attach();
    return () => detach();
  }, []);

  const previousOn = useRef(on);
  useLayoutEffect(() => {
    if (previousOn.current === on) return;
    previousOn.current = on;
    detach();
    if (on) attach();
  });

  function attach() {
    document.addEventListener('keydown', press);
  }

  function detach() {
    document.removeEventListener('keydown', press);
  }

  const press = useCallback(({ key }) => {
    setLast(key);
    latestOnKey.current(key, latestLast.current);
  }, []);

  return <input defaultValue={last} />;
}
