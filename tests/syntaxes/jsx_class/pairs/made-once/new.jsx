import React, { useRef, useState } from 'react';

const tag = (parts, ...values) => parts.join('*') + values.join('*');
let made = 0;

// Numbers, caches and labels are made once for each berth, in this order
function Berth() {
  const [first] = useState(() => `${++made}`);
  const [id] = useState(() => `berth-${Berth.next++}`);
  const [label] = useState(() => tag`Berth ${id}`);
  const [open, setOpen] = useState(false);
  const [number] = useState(made);
  const [of] = useState(id);
  const last = useRef(made * 10);
  const [initialCache] = useState(() => new Map());
  const cache = useRef(initialCache);

  const forget = () => {
    cache.current = null;
    setOpen(!open);
  };

  return (
    <p>
      <button id={id} onClick={forget}>
        {label} {first} {last.current} {number} {of}
      </button>
      {String(open)} {cache.current ? 'kept' : 'forgotten'}
    </p>
  );
}

Berth.next = 0;

export default function Berths() {
  return (
    <div>
      <Berth />
      <Berth />
    </div>
  );
}
