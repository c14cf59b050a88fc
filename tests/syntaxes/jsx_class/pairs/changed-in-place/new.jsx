import React, { useReducer } from 'react';

export default function Berths() {
  // A reducer renders after every write: values are changed in place.
  const [state, setState] = useReducer(
    (state, change) => ({ ...state, ...change }),
    { list: ['Holm'], count: 0 }
  );

  const add = (name) => {
    const { list } = state;
    list.push(name);
    setState({ list });
  };

  function turn() {
    const now = state.list;
    setState({ list: now.reverse() });
  }

  return (
    <p>
      <button onClick={() => add('Brae')}>Add</button>
      <button onClick={() => turn()}>Turn</button>
      {state.list.join(', ')}
    </p>
  );
}
