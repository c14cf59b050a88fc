import { useEffect, useMemo, useState } from 'react';
import PropTypes from 'prop-types';

const UNITS = { m: 1, ft: 3.28 };

export default function TideBoard({ harbour = 'Gullmoor', readings, refresh = 60, onRefresh, onSelect }) {
  const [unit, setUnit] = useState('m');
  const [selected, setSelected] = useState(null);
  const [ticks, setTicks] = useState(0);

  // Highest water of the day, in metres.
  const highest = useMemo(() => {
    if (!readings || !readings.length) return null;
    return Math.max(...readings.map((r) => r.height));
  }, [readings]);

  useEffect(() => {
    const timer = setInterval(() => setTicks((t) => t + 1), refresh * 1000);
    return () => clearInterval(timer);
  }, [refresh]);

  useEffect(() => {
    setSelected(null);
  }, [harbour]);

  useEffect(() => {
    if (ticks > 0) onRefresh?.(ticks);
  }, [ticks, onRefresh]);

  function show(height) {
    return `${(height * UNITS[unit]).toFixed(1)} ${unit}`;
  }

  function pick(reading) {
    const next = selected === reading.time ? null : reading.time;
    setSelected(next);
    if (onSelect) onSelect(next);
  }

  if (!readings) return <p>Loading tides …</p>;

  return (
    <section className="tide-board">
      <header>
        <h2>Tides at {harbour}</h2>
        <button type="button" onClick={() => setUnit(unit === 'm' ? 'ft' : 'm')}>
          {unit}
        </button>
      </header>
      <p className="highest">{highest === null ? 'no readings' : `Highest: ${show(highest)}`}</p>
      <ol>
        {readings.map((reading) => (
          <li
            key={reading.time}
            className={reading.time === selected ? 'chosen' : undefined}
            onClick={() => pick(reading)}
          >
            <time>{reading.time}</time> <span>{show(reading.height)}</span>
          </li>
        ))}
      </ol>
      <small>refreshed {ticks} times</small>
    </section>
  );
}

TideBoard.propTypes = {
  harbour: PropTypes.string,
  readings: PropTypes.arrayOf(PropTypes.shape({ time: PropTypes.string, height: PropTypes.number })),
  refresh: PropTypes.number,
  onRefresh: PropTypes.func,
  onSelect: PropTypes.func,
};
