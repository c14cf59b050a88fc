import React, { memo, useState } from 'react';

const TideMark = memo(function ({ depth }) {
  return <i style={{ height: TideMark.heightOf(depth, TideMark.scale) }}>{depth}</i>;
});

TideMark.displayName = 'TideMark';

TideMark.scale = 10;

TideMark.heightOf = function heightOf(depth, by) {
  return `${depth * by}px`;
};

export default function TideChart({ depth: depthProp, name }) {
  const [depth, setDepth] = useState(depthProp);

  const deeper = () => setDepth((depth) => depth + 1);

  return (
    <p onClick={deeper}>
      {TideChart.label(name)} <TideMark depth={depth} />
    </p>
  );
}

TideChart.label = (name) => `Tide at ${name}`;
