import React, { useRef, useState } from 'react';

export default function BerthList({ onKeep, onList, name, berths }) {
  const [chosen, setChosen] = useState(0);
  const latestName = useRef(name);
  latestName.current = name;
  const latestOnKeep = useRef(onKeep);
  latestOnKeep.current = onKeep;
  const latestOnList = useRef(onList);
  latestOnList.current = onList;
  const latestChosen = useRef(chosen);
  latestChosen.current = chosen;

  function kept(berth, index) {
    latestOnKeep.current(index, Boolean(berth), latestChosen.current);
  }

  return (
    <ul ref={(list) => latestOnList.current(Boolean(list), latestName.current)}>
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
