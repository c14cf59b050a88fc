import React, { useLayoutEffect, useRef, useState } from 'react';

export default function Watch({ onSee, mark }) {
  const [seen, setSeen] = useState(0);

  const previousProps = useRef(null);
  const previousState = useRef(null);
  useLayoutEffect(() => {
    const prevProps = previousProps.current;
    previousProps.current = { mark };
    const prevState = previousState.current;
    previousState.current = { seen };
    if (prevProps === null) return;
    if (prevProps.mark !== mark && mark) {
      setSeen(seen + 1);
    }
    if (prevState.seen !== seen) onSee(prevState.seen, seen);
  });

  return <b>{seen}</b>;
}
