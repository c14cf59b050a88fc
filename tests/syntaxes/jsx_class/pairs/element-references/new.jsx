import React, { useLayoutEffect, useRef, useState } from 'react';

export default function Focus() {
  const first = useRef(null);
  const [setSecond] = useState(() => (el) => {
    second.current = el;
  });
  const second = useRef();

  useLayoutEffect(() => {
    first.current.focus();
  }, []);

  return (
    <p>
      <input ref={first} />
      <input ref={setSecond} />
      <button onClick={() => second.current.focus()}>second</button>
    </p>
  );
}
