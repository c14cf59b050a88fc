import React, { useRef, useState } from 'react';

export default function Berth(given) {
  const { size = 2, ...others } = given;
  const props = { size, ...others };
  const [open, setOpen] = useState(false);
  const [seen, setSeen] = useState(0);

  const started = useRef(false);
  if (!started.current) {
    started.current = true;
    setOpen(props.start);
  }

  // What came is seen.
  const [previousProps, setPreviousProps] = useState({ given, props });
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
  }

  return <p onClick={() => setOpen(!open)}>{String(open)} {seen} {props.size}</p>;
}
