import React, { useRef, useState } from 'react';

export default function BerthList({ onKeep, onList, name, berths }) {
  const [chosen, setChosen] = useState(0);
  const latest = useRef({ name, onKeep, onList, chosen });
  latest.current = { name, onKeep, onList, chosen };

  function kept(berth, index) {
    latest.current.onKeep(index, Boolean(berth), latest.current.chosen);
  }

  return (
    <ul ref={(list) => latest.current.onList(Boolean(list), latest.current.name)}>
      {berths.map((berth, index) => (
        <li
          key={berth}
          ref={(item) => kept(item, index)}
          onClick={() => setChosen(index)}
        >
          {berth}
        </li>
      ))}
    </ul>
  );
}
