import React, { useLayoutEffect, useReducer, useRef, useState } from 'react';

// Calls back once the state written next to it is rendered, as the second argument of setState.
function useAfterRender() {
  const queue = useRef([]);
  const due = queue.current.length;
  useLayoutEffect(() => {
    queue.current.splice(0, due).forEach((run) => run());
  });
  return (run) => {
    if (run) queue.current.push(run);
  };
}

export default function Gates({ gates }) {
  // A reducer renders after every write, also an equal one, so that callbacks are called.
  const [state, setState] = useReducer(
    (state, change) => ({
      ...state,
      ...(typeof change === 'function' ? change(state) : change),
    }),
    { open: {}, log: [], found: '' }
  );
  const shutAll = useRef();
  const latestGates = useRef(gates);
  latestGates.current = gates;
  const latestState = useRef(state);
  latestState.current = state;

  function toggle(gate, open) {
    afterRender(function () {
      setState({ log: latestState.current.log.concat(`${gate} ${latestState.current.open[gate]}`) });
    });
    setState(function (state) {
      return { open: { ...state.open, [gate]: open === undefined ? !latestState.current.open[gate] : open } };
    });
  }

  function later(gate) {
    setTimeout(
      function () {
        toggle(gate, true);
      },
      100
    );
  }

  function find() {
    const gate = gates.find(function (one) {
      return state.open[one];
    });
    setState({ found: String(gate) });
  }

  function row(gate) {
    return (
      <li key={gate}>
        <button onClick={toggle.bind(null, gate)}>{gate} {String(state.open[gate])}</button>
      </li>
    );
  }

  useState(() => {
    shutAll.current = function () {
      latestGates.current.forEach(function (gate) {
        toggle(gate, false);
      });
    };
  });

  const afterRender = useAfterRender();

  return (
    <div>
      <ul>{gates.map(row)}</ul>
      <button onClick={() => later('B')}>later</button>
      <button onClick={shutAll.current}>shut</button>
      <button onClick={() => find()}>find</button>
      <p>{state.log.join()} {state.found}</p>
    </div>
  );
}
