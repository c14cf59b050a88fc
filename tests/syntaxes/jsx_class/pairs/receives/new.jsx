import React, { memo, useReducer, useState } from 'react';

export default memo(function Berth(props) {
  // One object, since a write may be of several fields, or of none.
  const [state, setState] = useReducer(
    (state, change) => {
      const patch = typeof change === 'function' ? change(state) : change;
      const same =
        patch == null ||
        Object.keys(patch).every((key) => Object.is(patch[key], state[key]));
      return same ? state : { ...state, ...patch };
    },
    { at: 0, name: 'a' }
  );
  const [previousProps, setPreviousProps] = useState(props);

  function made(start, size) {
    return size > 2 ? null : { name: `${start}${size}` };
  }

  const press = (change) => {
    setState({ ...change, at: state.at + 1 });
  };

  if (previousProps !== props) {
    setPreviousProps(props);
    const { start, size } = props;
    const { start: before } = previousProps;
    if (start !== before || size !== previousProps.size) {
      setState(made(start, size));
    }
    return null;
  }

  return <button onClick={() => press({ name: 'pressed' })}>{state.name} {state.at}</button>;
});
