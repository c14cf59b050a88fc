import React, { useState } from 'react';

function Gate({ ready }) {
  const [open, setOpen] = useState(false);
  const [by, setBy] = useState('');

  return (
    <div>
      <button onClick={() => { setOpen(true); setBy('crew'); }}>open</button>
      <button onClick={() => ready && (setOpen(false), setBy(''))}>close</button>
      <i>{String(open)}{by}</i>
    </div>
  );
}

export default Gate;
