import React, { useEffect, useReducer } from 'react';

function step(state, what) {
  switch (what) {
    case 'tick':
      return state.running ? { ...state, minutes: state.minutes + 1 } : state;
    default:
      return { ...state, running: !state.running };
  }
}

const Time = ({ of }) => <time>{`${of} min`}</time>;

export default function TideClock(props) {
  const [state, send] = useReducer(step, { minutes: 0, running: true });
  useEffect(() => {
    const clock = setInterval(send, 1000, 'tick');
    return () => { clearInterval(clock); };
  }, []);
  return (
    <p>
      <Time of={state.minutes} />{' to '}{props.tide}
      <button onClick={() => send('turn')}>{state.running ? 'hold' : 'go on'}</button>
    </p>
  );
}
