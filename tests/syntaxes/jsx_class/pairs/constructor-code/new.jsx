import React, { useRef, useState } from 'react';

export default function Buoy({ onAnnounce, light }) {
  const lit = useRef(false);
  const seen = useRef(0);

  function announce(text) {
    onAnnounce(text, seen.current);
  }

  // Whoever lights it is told once.
  useState(() => {
    if (light) {
      const by = `${light}!`;
      lit.current = by;
      announce(by);
    }
  });

  seen.current += 1;
  return <b onClick={() => announce('pressed')}>{String(lit.current)}</b>;
}

export function Beacon({ onMade, light }) {
  useState(() => onMade(light));

  return <i>{light}</i>;
}
