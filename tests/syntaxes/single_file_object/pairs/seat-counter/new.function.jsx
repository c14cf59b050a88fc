import { useLayoutEffect, useRef, useState } from 'react';
import './old.css';

// Counts seats for one sailing; never past what the vessel carries.
export default function SeatCounter({
  vessel,
  capacity = 12,
  start = 1,
  onChange,
  titleSlot,
  className,
  ...others
}) {
  const [value, setValue, valueNow] = useNewest(start);

  const left = capacity - value;

  function change(by) {
    setValue(valueNow.current + by);
    onChange?.(valueNow.current);
  }

  // A smaller boat: give back what no longer fits.
  useChange(capacity, (now) => {
    if (valueNow.current > now) setValue(now);
  });

  return (
    <fieldset
      {...others}
      data-seat-counter=""
      className={['seats', left === 0 && 'full', className].filter(Boolean).join(' ')}
    >
      <legend data-seat-counter="">
        {titleSlot ?? <>Seats on {vessel}</>}
      </legend>
      <button
        data-seat-counter=""
        type="button"
        disabled={value <= 0}
        onClick={() => change(-1)}
      >−</button>
      <output data-seat-counter="">{value}</output>
      <button
        data-seat-counter=""
        type="button"
        disabled={left === 0}
        onClick={() => change(+1)}
      >+</button>
      {/* how many are still free */}
      {left > 0 ? <small key="if" data-seat-counter="">{left} left</small> : <small key="else" data-seat-counter="">Full</small>}
    </fieldset>
  );
}

// State whose latest value can be read before the next render.
function useNewest(initial) {
  const [value, setValue] = useState(initial);
  const newest = useRef(value);
  const set = (next) => {
    newest.current = next;
    setValue(() => next);
    return next;
  };
  return [value, set, newest];
}

// Runs when a value has changed, and on mount too if `atOnce`.
function useChange(value, run, atOnce = false) {
  const before = useRef(atOnce ? useChange : value);
  useLayoutEffect(() => {
    const last = before.current;
    if (Object.is(last, value)) return;
    before.current = value;
    run(value, last === useChange ? undefined : last);
  });
}
