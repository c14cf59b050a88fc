import { useLayoutEffect, useRef, useState } from 'react';
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
  ...others
}) {
  // picked so far
  const [picked, setPicked, pickedNow] = useNewest(0);
  const [note, setNote] = useState('');
  const [open, setOpen] = useState(false);

  // those that are left
  const left = FREE - picked;
  const sum = left * 2 + 1;

  function pick() {
    setPicked(pickedNow.current + 1);
    setNote(`${word(pickedNow.current)}!`);
    onPick?.(pickedNow.current, { night });
  }

  // forgets everything
  function forget() {
    setPicked(0);
    setNote('');
  }

  useChange(picked, (now, before) => {
    if (now > before) setNote(`more: ${now}`);
  });

  return (
    <section
      {...others}
      className={['berths', className].filter(Boolean).join(' ')}
    >
      <button type="button" aria-expanded={open} onClick={() => setOpen(!open)}> Pier {picked} of many </button>
      {open && (
        <div>
          {/* between */}
          {picked === 0 ? <p key="if">all</p> : left > 1 ? <p key="else-1" title={note}>{left} and {sum}</p> : <p key="else">few</p>}
          <hr />
          <input placeholder="Name &amp; boat" maxLength="3" disabled />
        </div>
      )}
      <label
        htmlFor="x"
        tabIndex="0"
        data-a=""
        onKeyDown={() => setPicked(pickedNow.current + 2)}
      >{String(open)}</label>
      {children}
      {foot ?? <b>none</b>}
      <button type="button" onClick={() => pick()}>Pick</button>
      <button type="button" onClick={() => forget()}>Forget</button>
      <button type="button" onClick={() => onClose?.()}>Close</button>
    </section>
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
