import React, { useCallback, useRef } from 'react';

export default function Field() {
  const box = useRef();
  const elRef = useRef();

  const keep = useCallback((el) => {
    elRef.current = el;
    box.current = el;
  }, []);

  /* left to you (reached-from-outside): focus() {
    this.el.focus();
  } */

  return <input ref={keep} onChange={() => box.current.select()} />;
}
