import React, { useState } from 'react';

// one line of the manifest
function Line({ text }) {
  return <li>{text}</li>;
}

/* between the two */

export default function Manifest({ lines: linesProp }) {
  const [short, setShort] = useState(true);

  const lines = short ? linesProp.slice(0, 1) : linesProp;
  return (
    <ul onClick={() => setShort(false)}>
      {lines.map((text) => (
        <Line key={text} text={text} />
      ))}
    </ul>
  );
}
