import { useState } from 'react';
import PropTypes from 'prop-types';

export default function NoticePanel({ children, header, title = 'Notice' }) {
  const [open, setOpen] = useState(true);

  return (
    <section>
      <header>{header || <h2>{title}</h2>}</header>
      <button type="button" onClick={() => setOpen((now) => !now)}>
        {open ? 'Hide' : 'Show'}
      </button>
      {open && <div className="body">{children}</div>}
    </section>
  );
}

NoticePanel.propTypes = { children: PropTypes.node, header: PropTypes.node, title: PropTypes.string };
