import React, { forwardRef, useImperativeHandle, useState } from 'react';
import PropTypes from 'prop-types';

const SeatCounter = forwardRef(function SeatCounter({ value, onChange, capacity = 6, prices, name = '' }, ref) {
  const [children, setChildren] = useState(0);
  const [history, setHistory] = useState([]);

  const { adult = 8, child = 4 } = prices || {};
  const adults = value - children;
  const total = adults * adult + children * child;

  const change = (by) => {
    const next = Math.min(capacity, Math.max(1, value + by));
    if (next === value) return;
    setHistory([...history, value]);
    if (children > next) setChildren(next);
    onChange(next);
  };

  const undo = () => {
    if (!history.length) return;
    onChange(history[history.length - 1]);
    setHistory(history.slice(0, -1));
  };

  useImperativeHandle(ref, () => ({ undo }));

  return (
    <fieldset className="seats">
      <legend>{name || 'Nobody'}</legend>
      <button type="button" disabled={value <= 1} onClick={() => change(-1)}>
        −
      </button>
      <output>{value}</output>
      <button type="button" disabled={value >= capacity} onClick={() => change(1)}>
        +
      </button>
      <input
        type="range"
        min="0"
        max="6"
        value={children}
        onChange={(event) => setChildren(Number(event.target.value))}
      />
      <p>
        {adults} adults, {children} children: {total} crowns
      </p>
      {history.length > 0 && (
        <button type="button" onClick={undo}>
          Undo ({history.length})
        </button>
      )}
    </fieldset>
  );
});

SeatCounter.propTypes = {
  value: PropTypes.number.isRequired,
  onChange: PropTypes.func.isRequired,
  capacity: PropTypes.number,
  prices: PropTypes.shape({ adult: PropTypes.number, child: PropTypes.number }),
  name: PropTypes.string,
};

export default SeatCounter;
