import { useState } from 'react';

export default function Seats({ start = 1, most = 4, onChange }) {
  const [count, setCount] = useState(start);

  function by(step) {
    return () => {
      const next = count + step;
      setCount(next);
      if (onChange) onChange(next);
    };
  }

  return (
    <div className="seats">
      <button disabled={count <= 1} onClick={by(-1)}>less</button>
      <output>{count} of {most}</output>
      <button disabled={count >= most} onClick={by(1)}>more</button>
      {count === most ? <em>full</em> : null}
    </div>
  );
}
