import React, { useState } from 'react';

export default function Berth(given) {
  const { size = 2, ...others } = given;
  const props = { size, ...others };
  const [open, setOpen] = useState(false);
  const [seen, setSeen] = useState(0);
  const [started, setStarted] = useState(false);
  const [previousProps, setPreviousProps] = useState({ given, props });

  if (!started) {
    setStarted(true);
    setOpen(props.start);
    return null;
  }

  // What came is seen.
  if (previousProps.given !== given) {
    const propsBefore = previousProps.props;
    setPreviousProps({ given, props });
    (() => {
      if (props.start !== propsBefore.start) {
        setOpen(props.start);
      }
      setSeen(props.size + propsBefore.size);
      if (props.size > 3) return;
      propsBefore.onSeen(props.size);
    })();
    return null;
  }

  return <p onClick={() => setOpen(!open)}>{String(open)} {seen} {props.size}</p>;
}
