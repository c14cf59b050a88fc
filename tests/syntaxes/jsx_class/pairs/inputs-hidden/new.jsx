import React, { useLayoutEffect } from 'react';

export default function Gauge(props) {
  useLayoutEffect(() => {
    props.onMeasure(measured(3), rounded());
  }, []);

  // A parameter and a variable have the name of an input.
  function measured(depth) {
    return depth * props.depth;
  }

  function rounded() {
    let radius = props.radius;
    radius = Math.max(radius, 2);
    return radius;
  }

  const { depth, radius, onMeasure, ...others } = props;
  return (
    <p {...others} onClick={() => onMeasure(measured(2), rounded())}>
      {depth} {radius} {measured(1)}
    </p>
  );
}

export function Mark(props) {
  function label() {
    let { name } = props;
    if (!name) name = 'none';
    return name;
  }

  const { name, ...others } = props;
  return <i {...others} title={name}>{label()}</i>;
}
