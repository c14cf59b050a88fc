import * as React from 'react';
import { narrow } from './width';

const STEP = 15 * 60 * 1000;

/* The tide of the next hours. Redraws on a narrow window and moves on every quarter of an hour. */
export default function TideStrip({ start, onMove, pier, end, tides }) {
  const [now, setNow] = React.useState(start);
  const [narrowState, setNarrow] = React.useState(() => narrow());
  const listening = React.useRef(false);
  const latestOnMove = React.useRef(onMove);
  latestOnMove.current = onMove;
  const latestPier = React.useRef(pier);
  latestPier.current = pier;
  const latestNow = React.useRef(now);
  latestNow.current = now;

  React.useLayoutEffect(() => {
    listen();
    const clock = window.setInterval(() => {
      setNow(latestNow.current + STEP);
      if (latestOnMove.current) latestOnMove.current(latestNow.current, latestPier.current);
    }, STEP);
    return () => {
      deafen();
      window.clearInterval(clock);
    };
  }, []);

  const previousProps = React.useRef(null);
  const previousState = React.useRef(null);
  React.useLayoutEffect(() => {
    const prevProps = previousProps.current;
    previousProps.current = { pier };
    const prevState = previousState.current;
    previousState.current = { now };
    if (prevProps === null) return;
    if (prevState.now !== now && now >= end) {
      deafen();
    }
    if (prevProps.pier !== pier) {
      setNow(start);
    }
  });

  function listen() {
    if (listening.current) return;
    listening.current = true;
    window.addEventListener('resize', measure);
  }

  function deafen() {
    listening.current = false;
    window.removeEventListener('resize', measure);
  }

  const measure = React.useCallback(() => {
    setNarrow(narrow());
  }, []);

  const ahead = tides.filter((tide) => tide.at >= now);
  return (
    <div className={narrowState ? 'tides narrow' : 'tides'}>
      <b>{pier}</b>
      {ahead.map((tide) => (
        <span key={tide.at} style={{ height: `${tide.metres * 10}px` }}>{tide.metres} m</span>
      ))}
      {ahead.length === 0 && <i>No more tides today</i>}
    </div>
  );
}
