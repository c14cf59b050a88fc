import { useLayoutEffect, useState } from 'react';

export default function Notice({ open: first, title, children }) {
  const [open, setOpen] = useState(!!first);

  useLayoutEffect(() => {
    const close = ({ key }) => key === 'Escape' && setOpen(false);
    document.addEventListener('keydown', close);
    return () => document.removeEventListener('keydown', close);
  }, []);

  return (
    <aside>
      <button aria-expanded={open} onClick={() => setOpen(!open)}>{title}</button>
      {open ? <div role="note">{children}</div> : null}
    </aside>
  );
}
