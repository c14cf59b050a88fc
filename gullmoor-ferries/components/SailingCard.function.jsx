import React, { useState } from 'react';
import './SailingCard.css';

const LABELS = { open: 'On sale', few: 'Few seats left', full: 'Sold out' };

// One sailing; whatever else a page passes on ends up on the article.
export default function SailingCard({
  id,
  tag: Tag = 'article',
  from,
  to,
  status = 'open',
  stops,
  className,
  children,
  onPin,
  startPinned,
  ...rest
}) {
  const [open, setOpen] = useState(false);
  const [pinned, setPinned] = useState(startPinned || false);

  const toggle = () => {
    setOpen((open) => !open);
  };

  const pin = (event) => {
    event.stopPropagation();
    setPinned(!pinned);
    if (onPin) onPin(id, !pinned);
  };

  const classes = ['sailing', status, pinned && 'pinned', className].filter(Boolean).join(' ');
  return (
    <Tag {...rest} className={classes}>
      <h3>
        {from} <span aria-hidden="true">→</span> {to}
      </h3>
      {/* the state of sales, in words */}
      <p className="status">{LABELS[status]}</p>
      <button type="button" aria-expanded={open} onClick={toggle}>
        {open ? 'Hide stops' : 'Show stops'}
      </button>
      <button type="button" aria-pressed={pinned} onClick={pin}>Pin</button>
      {open && (
        <ul>
          {stops.map((stop) => <li key={stop}>{stop}</li>)}
        </ul>
      )}
      {children}
    </Tag>
  );
}
