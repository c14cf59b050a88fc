import React, { useState } from 'react';

export default function Alias({ title }) {
  const [on, setOn] = useState(false);

  function flip() {
    setOn(!on);
  }

  return (
    <button onClick={() => flip()} title={title}>
      {on ? 'on' : 'off'}
    </button>
  );
}
