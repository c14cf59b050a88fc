import { useState } from 'react';
import PropTypes from 'prop-types';

export default function QuayBadge({ level = 1, wide = false }) {
  const [on, setOn] = useState(false);

  return (
    <b
      className={`badge ${on ? 'on' : 'off'}`}
      style={{ opacity: level / 10, width: wide ? '12em' : '6em' }}
      onClick={() => setOn(!on)}
    >
      Level {level}
    </b>
  );
}

QuayBadge.propTypes = { level: PropTypes.number, wide: PropTypes.bool };
