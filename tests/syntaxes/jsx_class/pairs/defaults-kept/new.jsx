import React, { memo, useLayoutEffect, useRef } from 'react';

const shared = { size: 2, unit: 'm' };

export function BerthRow({ label, size, unit }) {
  return <li>{`${label}: ${size} ${unit}`}</li>;
}

// What rows have in common, and their own.
BerthRow.defaultProps = { ...shared, label: 'berth' };

// Draws again only where an input is another, its default among them.
const BerthCount = memo(function BerthCount({ onDrawn, count }) {
  const mounted = useRef(false);
  useLayoutEffect(() => {
    if (!mounted.current) {
      mounted.current = true;
      return;
    }
    onDrawn(count);
  });
  // StrictMode runs effects twice at mount: the second run is no update.
  useLayoutEffect(() => () => { mounted.current = false; }, []);

  return (
    <ul title={count}>
      <BerthRow size={count} unit={BerthRow.defaultProps.unit} />
    </ul>
  );
});

export default BerthCount;

BerthCount.defaultProps = { count: 3 };
