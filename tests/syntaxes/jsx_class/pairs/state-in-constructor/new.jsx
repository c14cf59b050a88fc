import React, { useRef, useState } from 'react';

export default function Berth({ name }) {
  // what the harbour master sees first
  const [open, setOpen] = useState(false);
  const [label] = useState(() => name.toUpperCase());
  const count = useRef(0); // how often it was opened

  function show() {
    count.current += 1;
    setOpen(true);
  }

  return <button onClick={show}>{open ? label : 'closed'}</button>;
}
