import React, { useReducer } from 'react';

function Dump() {
  // One object, since code reads all of it.
  const [state, setState] = useReducer(
    (state, change) => ({ ...state, ...change }),
    { a: 1, b: 2 }
  );

  const change = () => {
    setState({ a: state.a + 1, b: state.b * 2 });
  };

  const all = state;
  return <pre onClick={change}>{JSON.stringify(all)}</pre>;
}

export default Dump;
