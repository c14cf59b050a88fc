import React, { useReducer } from 'react';

export default function Tabs({ tab }) {
  // A reducer keeps what is written while rendering.
  const [state, setState] = useReducer(
    (state, change) => ({ ...state, ...change }),
    { tab: tab, seen: 0 }
  );

  // The tab follows the input.
  if (!Object.is(state.tab, tab)) {
    setState({ tab: tab, seen: state.seen + 1 });
    return null;
  }

  return <p onClick={() => setState({ seen: 0 })}>{state.tab} {state.seen} <Layer isOpen={tab !== "tides"} /></p>;
}

export function Layer({ isOpen }) {
  // A reducer keeps what is written while rendering.
  const [ownState, setState] = useReducer(
    (ownState, change) => ({ ...ownState, ...change }),
    { isOpen: isOpen }
  );

  if (isOpen && !ownState.isOpen) {
    setState({ isOpen: isOpen });
    return null;
  }

  return <b onClick={() => setState({ isOpen: false })}>{String(ownState.isOpen)}</b>;
}
