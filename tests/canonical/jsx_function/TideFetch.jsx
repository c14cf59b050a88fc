import { useEffect, useState } from 'react';
import PropTypes from 'prop-types';

export default function TideFetch({ load, pier }) {
  const [level, setLevel] = useState(null);
  const [failed, setFailed] = useState(false);

  useEffect(() => {
    let over = false;
    Promise.resolve(load(pier)).then(
      (found) => {
        if (over) return;
        setLevel(found);
        setFailed(false);
      },
      () => {
        if (!over) setFailed(true);
      },
    );
    return () => {
      over = true;
    };
  }, [load, pier]);

  if (failed) return <p role="alert">No answer from {pier}</p>;
  return <p>{level === null ? 'Measuring …' : `${pier}: ${level}`}</p>;
}

TideFetch.propTypes = { load: PropTypes.func.isRequired, pier: PropTypes.string.isRequired };
