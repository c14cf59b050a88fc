import React, { createContext, useContext, useRef } from 'react';

const Quay = createContext({ name: 'Holm' });

function Berth({ onCall }) {
  const context = useContext(Quay);
  const latestContext = useRef(context);
  latestContext.current = context;
  const latestOnCall = useRef(onCall);
  latestOnCall.current = onCall;

  const call = () => {
    const { name } = context;
    setTimeout(() => latestOnCall.current(name, latestContext.current.name), 10);
  };

  return <button onClick={call}>{context.name}</button>;
}

export default Berth;
