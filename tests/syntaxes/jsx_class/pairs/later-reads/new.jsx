import React, { useLayoutEffect, useRef, useState } from 'react';

export default function Later({ onLate, name, onMoved }) {
  const [at, setAt] = useState(0);
  const latestName = useRef(name);
  latestName.current = name;
  const latestOnLate = useRef(onLate);
  latestOnLate.current = onLate;
  const latestOnMoved = useRef(onMoved);
  latestOnMoved.current = onMoved;
  const latestAt = useRef(at);
  latestAt.current = at;

  useLayoutEffect(() => {
    const timer = setTimeout(() => {
      latestOnLate.current(latestAt.current, latestName.current);
    }, 500);
    return () => clearTimeout(timer);
  }, []);

  const move = async () => {
    setAt(at + 1);
    await Promise.resolve();
    latestOnMoved.current(name, latestName.current, latestAt.current);
  };

  return <button onClick={move}>{at}</button>;
}
