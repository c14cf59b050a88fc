import React, { useLayoutEffect, useRef, useState } from 'react';

export default function SeatTally({ onTaken }) {
  const [taken, setTaken] = useState(0);

  const displayed = useRef(false);
  useLayoutEffect(() => {
    if (!displayed.current) {
      displayed.current = true;
      return;
    }
    onTaken && onTaken(taken);
  });

  return <button onClick={() => setTaken(taken + 1)}>{taken}</button>;
}
