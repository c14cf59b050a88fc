import React from 'react';

const format = (name) => `the ${name}`;
const sizes = [1, 2];
const tide = () => 'low';

export default function Berth(props) {
  function label() {
    return format(props.name) + sizes.length;
  }

  const { format, sizes, name, ...others } = props;
  return (
    <p {...others} onClick={() => format(name)}>
      {label()} {sizes} <Tide name={name} />
    </p>
  );
}

function Tide({ tide: tideProp = tide, name }) {
  return <i title={name}>{tideProp()}</i>;
}

