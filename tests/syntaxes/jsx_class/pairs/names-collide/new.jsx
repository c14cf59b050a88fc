import React, { useState } from 'react';
import { load } from './load';

function Clash({ value: valueProp, open: openProp }) {
  const [value, setValue] = useState(valueProp);
  const [openState] = useState(false);

  function handleLoad() {
    return load(valueProp);
  }

  const handleFetch = () => fetch('/api/' + value);

  function change(value) {
    if (value !== valueProp) setValue(value);
  }

  const open = openState || openProp;
  return (
    <div onClick={handleFetch}>
      <input value={value} onChange={(e) => change(e.target.value)} />
      {open && handleLoad()}
    </div>
  );
}

export default Clash;
