import { useState } from 'react';
import './old.css';
import { FREE } from './berths';

const word = (n) => (n === 1 ? 'berth' : 'berths');

/* What is free at one pier. */
// the pier, as painted on the board
export default function BerthStatus({
  pier,
  night,
  onPick,
  onClose,
  children,
  foot,
  className,
  ...rest
}) {
  // picked so far
  const [picked, setPicked] = useState(0);
  const [note, setNote] = useState('');
  const [open, setOpen] = useState(false);
  // those that are left
  const left = FREE - picked;
  const sum = left * 2 + 1;

  const [previousPicked, setPreviousPicked] = useState(picked);
  if (!Object.is(picked, previousPicked)) {
    setPreviousPicked(picked);
    if (picked > previousPicked) setNote(`more: ${picked}`);
  }

  function pick() {
    const next = picked + 1;
    setPicked(next);
    setNote(`${word(next)}!`);
    onPick?.(next, { night: night });
  }

  // forgets everything
  function forget() {
    setPicked(0);
    setNote('');
  }

  return (
    <section {...rest} className={['berths', className].filter(Boolean).join(' ')}>
      <button type="button" aria-expanded={open} onClick={() => setOpen(!open)}>{' Pier '}{picked}{' of many '}</button>
      {open && (
        <div>
          {/* between */}
          {picked === 0 ? <p>all</p> : left > 1 ? <p title={note}>{left} and {sum}</p> : <p>few</p>}
          <hr />
          <input placeholder="Name &amp; boat" maxLength="3" disabled />
        </div>
      )}
      <label htmlFor="x" tabIndex="0" data-a="" onKeyDown={() => setPicked(picked + 2)}>{String(open)}</label>
      {children}
      {foot ?? <b>none</b>}
      <button type="button" onClick={() => pick()}>Pick</button>
      <button type="button" onClick={() => forget()}>Forget</button>
      <button type="button" onClick={() => onClose?.()}>Close</button>
    </section>
  );
}
