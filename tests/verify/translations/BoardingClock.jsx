import { useEffect, useRef, useState } from 'react';

export default function BoardingClock({ seconds = 90, onClosed, onPaused, children, className, ...others }) {
  const [left, setLeft] = useState(seconds);
  const [running, setRunning] = useState(true);
  const rest = useRef(seconds);
  const newest = useRef({});
  newest.current = { onClosed, onPaused };

  function set(value) {
    rest.current = value;
    setLeft(value);
  }

  function pause() {
    setRunning(false);
    if (rest.current > 0) newest.current.onPaused?.(rest.current);
  }

  // A new time starts the clock again.
  const first = useRef(true);
  useEffect(() => {
    if (first.current) {
      first.current = false;
      return;
    }
    set(seconds);
    setRunning(true);
  }, [seconds]);

  useEffect(() => {
    if (!running) return undefined;
    const timer = setInterval(() => {
      set(rest.current - 1);
      if (rest.current > 0) return;
      clearInterval(timer);
      pause();
      newest.current.onClosed?.();
    }, 1000);
    return () => clearInterval(timer);
  }, [running, seconds]);

  return (
    <div role="timer" {...others} className={['clock', className].filter(Boolean).join(' ')}>
      {left > 0 ? (
        <>
          <strong>{Math.floor(left / 60)}:{String(left % 60).padStart(2, '0')}</strong>
          {children?.({ left }) ?? 'until boarding closes'}
        </>
      ) : (
        <em>Boarding has closed</em>
      )}
      {running ? (
        <button key="pause" type="button" onClick={pause}>Pause</button>
      ) : (
        <button key="on" type="button" disabled={left <= 0} onClick={() => setRunning(true)}>Go on</button>
      )}
    </div>
  );
}
