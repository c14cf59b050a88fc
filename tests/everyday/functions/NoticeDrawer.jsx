import { useState } from 'react';
import PropTypes from 'prop-types';

function NoticeDrawer({ notices, level, header, footer, children, onDismiss, ...rest }) {
  const [open, setOpen] = useState(false);
  const [seen, setSeen] = useState([]);

  const unread = notices.filter((notice) => !seen.includes(notice.id));

  function dismiss(notice) {
    setSeen([...seen, notice.id]);
    if (onDismiss) {
      onDismiss(notice.id);
    }
    if (unread.length === 1) setOpen(false);
  }

  return (
    <div {...rest} className={`drawer drawer--${level}`}>
      <button type="button" aria-expanded={open} onClick={() => setOpen((now) => !now)}>
        Notices {unread.length > 0 && <sup>{unread.length}</sup>}
      </button>
      {open && (
        <div className="body">
          {header || <h3>{unread.length} unread</h3>}
          {unread.map((notice) => (
            <article key={notice.id}>
              <p>{notice.text}</p>
              <button type="button" onClick={() => dismiss(notice)}>
                Dismiss
              </button>
            </article>
          ))}
          {children}
          {footer && <footer>{footer}</footer>}
        </div>
      )}
    </div>
  );
}

NoticeDrawer.propTypes = {
  notices: PropTypes.arrayOf(PropTypes.object).isRequired,
  level: PropTypes.oneOf(['info', 'warning']),
  header: PropTypes.node,
  footer: PropTypes.node,
  children: PropTypes.node,
  onDismiss: PropTypes.func,
};

NoticeDrawer.defaultProps = {
  level: 'info',
};

export default NoticeDrawer;
