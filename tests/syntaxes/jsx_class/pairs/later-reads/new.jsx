import React, { useLayoutEffect, useRef, useState } from 'react';

export default function Later({ onLate, name, onMoved }) {
  const [at, setAt] = useState(0);
  const latest = useRef({ name, onLate, onMoved, at });
  latest.current = { name, onLate, onMoved, at };

  useLayoutEffect(() => {
    const timer = setTimeout(() => {
      latest.current.onLate(latest.current.at, latest.current.name);
    }, 500);
    return () => clearTimeout(timer);
  }, []);

  const move = async () => {
    setAt(at + 1);
    await Promise.resolve();
    latest.current.onMoved(name, latest.current.name, latest.current.at);
  };

  return <button onClick={move}>{at}</button>;
}
