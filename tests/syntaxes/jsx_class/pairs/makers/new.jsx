import React, { memo, useLayoutEffect, useRef, useState } from 'react';

const withBerth = (Inner, berth) => {
  const WithBerth = memo(function WithBerth(props) {
    return <Inner berth={berth} {...props} />;
  });

  return WithBerth;
};

function withTide(Inner, from) {
  function Tide({ harbour = 'Gullmoor', ...others }) {
    const props = { harbour, ...others };
    const [level, setLevel] = useState(from);
    const latestLevel = useRef(level);
    latestLevel.current = level;

    useLayoutEffect(() => {
      const timer = setInterval(() => setLevel(latestLevel.current + 1), 1000);
      return () => clearInterval(timer);
    }, []);

    return <Inner {...props} level={level} />;
  }

  Tide.displayName = `withTide(${Inner.name})`;
  return Tide;
}

const Mast = ({ berth, harbour, level, flag }) => <p title={flag}>{harbour} {berth}: {level}</p>;

export default withTide(withBerth(Mast, 'A4'), 2);
