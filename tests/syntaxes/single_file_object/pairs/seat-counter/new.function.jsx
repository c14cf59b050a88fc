import { useState } from 'react';
import './old.css';

// Counts seats for one sailing; never past what the vessel carries.
export default function SeatCounter({
  vessel,
  capacity = 12,
  start = 1,
  onChange,
  titleSlot,
  className,
  ...rest
}) {
  const [value, setValue] = useState(start);
  const left = capacity - value;

  // A smaller boat: give back what no longer fits.
  const [previousCapacity, setPreviousCapacity] = useState(capacity);
  if (!Object.is(capacity, previousCapacity)) {
    setPreviousCapacity(capacity);
    if (value > capacity) setValue(capacity);
  }

  function change(by) {
    const next = value + by;
    setValue(next);
    onChange?.(next);
  }

  return (
    <fieldset
      {...rest}
      className={['seats', left === 0 && 'full', className].filter(Boolean).join(' ')}
      data-seat-counter=""
    >
      <legend data-seat-counter="">{titleSlot ?? <>Seats on {vessel}</>}</legend>
      <button type="button" disabled={value <= 0} onClick={() => change(-1)} data-seat-counter="">−</button>
      <output data-seat-counter="">{value}</output>
      <button type="button" disabled={left === 0} onClick={() => change(+1)} data-seat-counter="">+</button>
      {/* how many are still free */}
      {left > 0 ? <small data-seat-counter="">{left} left</small> : <small data-seat-counter="">Full</small>}
    </fieldset>
  );
}
