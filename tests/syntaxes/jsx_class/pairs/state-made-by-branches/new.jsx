import React, { useReducer } from 'react';

export default function Berth({ height: heightProp, shut }) {
  // The first one counts.
  // One object, as it is made and called as a whole.
  const [state, setState] = useReducer(
    (state, change) => ({ ...state, ...change }),
    undefined,
    () => {
      let initial;
      let height = heightProp;
      if (!shut) {
        initial = { open: true };
      } else {
        height += 1;
        initial = { height };
      }
      return initial;
    }
  );

  return <button onClick={() => setState({ open: false })}>{String(state.open)} {state.height}</button>;
}
