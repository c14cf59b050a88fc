import React, { useLayoutEffect, useState } from 'react';

export default function Buoy({ never: neverProp, onMade }) {
  const [, setSize] = useState(null);
  const [at, setAt] = useState(1);
  useState(neverProp);
  useState(() => onMade());

  useLayoutEffect(() => {
    setSize(3);
  }, []);

  return <p onClick={() => setAt(at + 1)}>{at}</p>;
}
