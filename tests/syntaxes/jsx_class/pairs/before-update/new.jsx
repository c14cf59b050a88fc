import React, { memo, useLayoutEffect, useReducer, useRef } from 'react';

export default function BerthLog(props) {
  // One object, since code reads all of it.
  const [state, setState] = useReducer(
    (state, change) => ({
      ...state,
      ...(typeof change === 'function' ? change(state) : change),
    }),
    { open: false, seen: 0 }
  );
  const left = useRef();
  const timer = useRef();
  const latestProps = useRef(props);
  latestProps.current = props;
  const latestState = useRef(state);
  latestState.current = state;
  const drawnProps = useRef(props);
  const drawnState = useRef(state);

  const mounted = useRef(false);
  useLayoutEffect(() => {
    if (!mounted.current) {
      mounted.current = true;
      return;
    }
    props.onUpdate(state.seen, left.current);
  });
  // StrictMode runs effects twice at mount: the second run is no update.
  useLayoutEffect(() => () => { mounted.current = false; }, []);

  useLayoutEffect(() => {
    return () => {
      clearTimeout(timer.current);
    };
  }, []);

  const toggle = () => setState((state) => ({ open: !state.open, seen: state.seen + 1 }));

  // Tells of what is to come, while all is as it was.
  if (drawnProps.current !== props || drawnState.current !== state) {
    const propsThen = drawnProps.current;
    const stateThen = drawnState.current;
    drawnProps.current = props;
    drawnState.current = state;
    (() => {
      const { berth } = propsThen;
      if (props.berth !== berth) {
        propsThen.onLeave(berth, props.berth, stateThen.seen);
        if (state.open) return;
        left.current = berth;
      }
      if (!stateThen.open && state.open) {
        timer.current = setTimeout(() => {
          latestProps.current.onLate(latestState.current.seen);
        }, 30);
      }
    })();
  }

  return (
    <p onClick={toggle}>
      {props.berth} {String(state.open)} {state.seen}
      <Gate berth={props.berth} onShut={props.onShut} />
      <Lamp onLight={props.onLight} />
    </p>
  );
}

export function Gate({ width = 2, ...others }) {
  const props = { width, ...others };
  const drawnProps = useRef(props);

  if (drawnProps.current !== props) {
    const propsThen = drawnProps.current;
    drawnProps.current = props;
    const { berth } = props;
    if (propsThen.berth !== berth) propsThen.onShut(berth, propsThen.width);
  }

  return <i>{props.berth}</i>;
}

export const Lamp = memo(function Lamp(props) {
  // One object, since code reads all of it.
  const [state, setState] = useReducer(
    (state, change) => {
      const same =
        Object.keys(change).every((key) => Object.is(change[key], state[key]));
      return same ? state : { ...state, ...change };
    },
    { lit: 0, shade: 'dark' }
  );
  const drawnProps = useRef(props);
  const drawnState = useRef(state);

  if (drawnProps.current !== props || drawnState.current !== state) {
    const propsThen = drawnProps.current;
    const stateThen = drawnState.current;
    drawnProps.current = props;
    drawnState.current = state;
    if (state.lit !== stateThen.lit) {
      propsThen.onLight(stateThen.lit, state.lit);
    }
  }

  return (
    <b onClick={() => setState({ lit: Math.min(state.lit + 1, 2) })}>
      {state.lit} {state.shade}
    </b>
  );
});
