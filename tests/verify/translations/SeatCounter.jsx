import { useLayoutEffect, useState } from 'react';

export default function SeatCounter({ vessel, capacity = 12, start = 1, onChange, title, className, ...others }) {
  const [value, setValue] = useState(start);
  const left = capacity - value;

  // A smaller boat: give back what no longer fits.
  useLayoutEffect(() => {
    setValue((count) => Math.min(count, capacity));
  }, [capacity]);

  function change(by) {
    setValue(value + by);
    onChange?.(value + by);
  }

  const classes = ['seats', left === 0 && 'full', className].filter(Boolean).join(' ');
  return (
    <fieldset {...others} className={classes}>
      <legend>{title ?? `Seats on ${vessel}`}</legend>
      <button type="button" disabled={value <= 0} onClick={() => change(-1)}>−</button>
      <output>{value}</output>
      <button type="button" disabled={left === 0} onClick={() => change(1)}>+</button>
      <small>{left > 0 ? `${left} left` : 'Full'}</small>
    </fieldset>
  );
}
