import { useLayoutEffect, useRef, useState } from 'react';

export default function TideClock({ tide }) {
  const [minutes, setMinutes] = useState(0);
  const [running, setRunning] = useState(true);
  const now = useRef(running);
  now.current = running;

  useLayoutEffect(() => {
    const timer = setInterval(() => {
      if (now.current) setMinutes((known) => known + 1);
    }, 1000);
    return () => clearInterval(timer);
  }, []);

  const label = running ? 'hold' : 'go on';
  return (
    <p>
      <time>{minutes} min</time> to {tide}
      <button onClick={() => setRunning((known) => !known)}>{label}</button>
    </p>
  );
}
