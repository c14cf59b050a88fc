import React, { useReducer, useRef } from 'react';

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
  const [state, setState] = useReducer(
    (state: State, change: Partial<State>) => ({ ...state, ...change }),
    { at: 0, names: [] }
  );
  const clicks = useRef(0);

  const pick = (item: T): void => {
    clicks.current++;
    setState({ at: clicks.current, names: [...state.names, item.id] });
    onPick?.(item);
  };

  function handleNext(): T | undefined {
    return items[state.at];
  }

  const next = handleNext();
  return (
    <div>
      {items.map((item) => (
        <button key={item.id} onClick={() => pick(item)}>{label} {item.id}</button>
      ))}
      <output>{state.at} {state.names.join()} {next?.id}</output>
    </div>
  );
}
