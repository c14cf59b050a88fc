import React, { useLayoutEffect, useRef } from 'react';

export default function Focus() {
  const first = useRef(null);
  const setSecond = useRef(null);
  if (setSecond.current === null) {
    setSecond.current = (el) => {
      second.current = el;
    };
  }
  const second = useRef();

  useLayoutEffect(() => {
    first.current.focus();
  }, []);

  return (
    <p>
      <input ref={first} />
      <input ref={setSecond.current} />
      <button onClick={() => second.current.focus()}>second</button>
    </p>
  );
}
