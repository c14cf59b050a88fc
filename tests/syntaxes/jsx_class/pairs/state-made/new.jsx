import React, { useReducer, useRef } from 'react';

export default function Berth({ visible: visibleProp, other, size, fallback }) {
  const measure = (value) => (value > 3 ? 'big' : 'small');

  const _list = useRef([]);
  // One object, as it is made and called as a whole.
  const [state, setState] = useReducer(
    (state, change) => ({ ...state, ...change }),
    undefined,
    () => {
      const visible = typeof visibleProp === 'boolean' ? visibleProp : other;
      const initial = {
        visible,
        inner: visible,
      };

      if (typeof size === 'undefined') {
        initial.size = measure(fallback);
      }
      return initial;
    }
  );

  function press() {
    _list.current.push(1);
    setState({ visible: !state.visible, size: _list.current.length });
  }

  return <button onClick={press}>{String(state.visible)} {String(state.inner)} {state.size}</button>;
}
