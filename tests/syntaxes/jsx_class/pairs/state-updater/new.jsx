import { useState } from 'react';

export function Counter() {
  const [n, setN] = useState(0);
  const [last, setLast] = useState(null);

  const add = () => setN((n) => n + 1);

  const takeAway = () => setN((n) => n - 1);

  const note = (word) => {
    if (word) setLast(word);
  };

  return (
    <p>
      <button onClick={add}>+</button>
      <button onClick={takeAway}>-</button>
      <button onClick={() => note('seen')}>note</button>
      {n} {last}
    </p>
  );
}
