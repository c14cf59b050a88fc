import React, { useCallback, useLayoutEffect, useRef, useState } from 'react';
import './NoticePanel.css';

// A notice with any content. Escape closes it while it is open.
export function NoticePanel({ onShown, onGone, onBox, onClose, kind, children, title }) {
  const [open, setOpen] = useState(true);
  const [seconds, setSeconds] = useState(0);
  const box = useRef();
  const ticking = useRef();
  const latestOnBox = useRef(onBox);
  latestOnBox.current = onBox;
  const latestOnClose = useRef(onClose);
  latestOnClose.current = onClose;
  const latestOnGone = useRef(onGone);
  latestOnGone.current = onGone;
  const latestOpen = useRef(open);
  latestOpen.current = open;
  const latestSeconds = useRef(seconds);
  latestSeconds.current = seconds;

  useLayoutEffect(() => () => {
    document.removeEventListener('keydown', onKey);
    clearInterval(ticking.current);
    if (latestOnGone.current) latestOnGone.current(latestSeconds.current);
  }, []);

  useLayoutEffect(() => {
    document.addEventListener('keydown', onKey);
    ticking.current = setInterval(() => tick(), 1000); // how long it has been up
    if (onShown) onShown(box.current ? box.current.className : '');
  }, []);

  const onKey = useCallback((event) => {
    if (event.key === 'Escape' && latestOpen.current) {
      close('key');
    }
  }, []);

  const setBox = useCallback((el) => {
    if (latestOnBox.current) latestOnBox.current(el === null);
    box.current = el;
  }, []);

  function tick() {
    if (!latestOpen.current) return;
    setSeconds(latestSeconds.current + 1);
  }

  function close(how) {
    setOpen(false);
    if (latestOnClose.current) {
      latestOnClose.current(how, latestSeconds.current);
    }
  }

  if (!open) return null;
  return (
    <aside className={`notice ${kind}`} ref={setBox}>
      <header>
        <strong>{title}</strong>
        <button aria-label="Close" onClick={() => close('button')}>×</button>
      </header>
      {children || <p>No details.</p>}
      <small>{seconds} s</small>
    </aside>
  );
}

NoticePanel.KINDS = ['weather', 'repair', 'holiday'];
