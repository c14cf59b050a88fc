import React from 'react';

const format = (name) => `the ${name}`;
const sizes = [1, 2];
const tide = () => 'low';

export default function Berth({
  name,
  id,
  format: formatProp,
  sizes: sizesProp,
}) {
  function label() {
    return format(name) + sizes.length;
  }

  return (
    <p id={id} onClick={() => formatProp(name)}>
      {label()} {sizesProp} <Tide name={name} />
    </p>
  );
}

function Tide({ tide: tideProp = tide, name }) {
  return <i title={name}>{tideProp()}</i>;
}

