import React, { useState } from 'react';

export default function Old() {
  const [open, setOpen] = useState(false);

  return <b onClick={() => setOpen(!open)}>{open ? 'open' : 'closed'}</b>;
}

Old.displayName = 'BerthToggle';
