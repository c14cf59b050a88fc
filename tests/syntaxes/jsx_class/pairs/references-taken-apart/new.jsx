import React, { useLayoutEffect, useRef } from 'react';

// Elements that are named in markup and taken apart all at once.
export default function TideStrip({ height, mark }) {
  const markRef = useRef(null);
  const scaleRef = useRef(null);

  useLayoutEffect(() => {
    const mark = markRef.current;
    const ruler = scaleRef.current;
    ruler.title = `from ${mark.textContent}`;
  }, []);

  const flood = () => {
    const scale = scaleRef.current;
    scale.style.width = `${height}px`;
  };

  return (
    <div>
      <b ref={markRef}>{mark}</b>
      <i ref={scaleRef} />
      <button onClick={flood}>flood</button>
    </div>
  );
}
