import { useState } from 'react';
import PropTypes from 'prop-types';

export default function BerthCard({ name, depth = 4, free = true, onPick }) {
  const [picked, setPicked] = useState(0);

  function pick() {
    setPicked((before) => before + 1);
    onPick?.(name);
  }

  return (
    <article className="berth">
      <h3>
        {name}: {depth} m
      </h3>
      <button type="button" disabled={!free} onClick={pick}>
        Picked {picked} times
      </button>
    </article>
  );
}

BerthCard.propTypes = {
  name: PropTypes.string.isRequired,
  depth: PropTypes.number,
  free: PropTypes.bool,
  onPick: PropTypes.func,
};
