import { useMemo, useState } from 'react';
import PropTypes from 'prop-types';

export default function DepartureList({ departures }) {
  const [lateOnly, setLateOnly] = useState(false);
  const shown = useMemo(
    () => (lateOnly ? departures.filter((one) => one.late) : departures),
    [departures, lateOnly],
  );

  return (
    <section>
      <button type="button" onClick={() => setLateOnly(!lateOnly)}>
        {lateOnly ? 'All' : 'Late only'}
      </button>
      {shown.length > 0 ? (
        <ul>
          {shown.map((one, index) => (
            <li key={one.id}>
              {index + 1}. {one.to} {one.late && <em>late</em>}
            </li>
          ))}
        </ul>
      ) : (
        <p>No departure</p>
      )}
    </section>
  );
}

DepartureList.propTypes = {
  departures: PropTypes.arrayOf(
    PropTypes.shape({ id: PropTypes.number, to: PropTypes.string, late: PropTypes.bool }),
  ).isRequired,
};
