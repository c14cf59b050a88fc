import { useCallback, useEffect, useLayoutEffect, useRef, useState } from 'react';

/** The latest value of anything, for code that runs later. */
function useLatest(value) {
  const held = useRef(value);
  held.current = value;
  return held;
}

function useClock(running) {
  const [seconds, setSeconds] = useState(0);
  const on = useLatest(running);
  useLayoutEffect(() => {
    const key = setInterval(() => on.current && setSeconds((now) => now + 1), 1000);
    return () => clearInterval(key);
  }, [on]);
  return seconds;
}

export function NoticePanel(props) {
  const [open, setOpen] = useState(true);
  const seconds = useClock(open);
  const now = useLatest({ ...props, open, seconds });
  const box = useRef(null);
  const close = (how) => {
    setOpen(false);
    now.current.onClose?.(how, now.current.seconds);
  };
  const keep = useCallback((el) => {
    now.current.onBox?.(el === null);
    box.current = el;
  }, []);
  useLayoutEffect(() => {
    const press = (event) => {
      if (event.key === 'Escape' && now.current.open) close('key');
    };
    document.addEventListener('keydown', press);
    now.current.onShown?.(box.current ? box.current.className : '');
    return () => {
      document.removeEventListener('keydown', press);
      now.current.onGone?.(now.current.seconds);
    };
  }, []);
  useEffect(() => {});
  return open ? (
    <aside className={['notice', props.kind].join(' ')} ref={keep}>
      <header>
        <strong>{props.title}</strong>
        <button aria-label="Close" onClick={() => close('button')}>{'\u00d7'}</button>
      </header>
      {props.children || <p>No details.</p>}
      <small>{seconds} s</small>
    </aside>
  ) : null;
}
NoticePanel.KINDS = ['weather', 'repair', 'holiday'];
