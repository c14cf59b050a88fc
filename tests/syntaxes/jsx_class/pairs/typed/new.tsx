import React, { useRef, useState } from 'react';

interface Props<T> {
  items: T[];
  label?: string;
  onPick?: (item: T) => void;
}

interface State {
  at: number;
  names: ReadonlyArray<string>;
}

export function Pick<T extends { id: string }>({
  label = 'Pick',
  onPick,
  items,
}: Props<T>) {
  const [at, setAt] = useState<State['at']>(0);
  const [names, setNames] = useState<State['names']>([]);
  const clicks = useRef(0);

  const pick = (item: T): void => {
    clicks.current++;
    setAt(clicks.current);
    setNames([...names, item.id]);
    onPick?.(item);
  };

  function handleNext(): T | undefined {
    return items[at];
  }

  const next = handleNext();
  return (
    <div>
      {items.map((item) => (
        <button key={item.id} onClick={() => pick(item)}>{label} {item.id}</button>
      ))}
      <output>{at} {names.join()} {next?.id}</output>
    </div>
  );
}
