import React, { forwardRef, useImperativeHandle, useState } from 'react';

// A lamp at the pier that a parent blinks through a reference.
export default forwardRef(function PierLamp(props, ref) {
  const [lit, setLit] = useState(false);
  const [count, setCount] = useState(0);

  function blink() { setLit(!lit); setCount(count + 1); }

  useImperativeHandle(ref, () => ({ blink }));

  return <em>{lit ? 'on' : 'off'} {count}</em>;
});
