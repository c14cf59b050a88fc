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

// Opens at mount, and focuses what that renders
function Title({ opens, text, onSeen }) {
  // A reducer renders after every write, also an equal one, so that callbacks are called.
  const [state, setState] = useReducer(
    (state, change) => ({ ...state, ...change }),
    { value: '', open: false }
  );
  const fieldRef = useRef();
  const latestOnSeen = useRef(onSeen);
  latestOnSeen.current = onSeen;

  useLayoutEffect(() => {
    if (opens) open();
  }, []);

  const open = () => {
    afterRender(() => {
      latestOnSeen.current(fieldRef.current.value);
    });
    setState({ open: true, value: text });
  };

  const afterRender = useAfterRender();

  return state.open ? (
    <input ref={(field) => (fieldRef.current = field)} value={state.value} readOnly />
  ) : (
    <button onClick={open}>open</button>
  );
}

// Measures in two steps whenever the text is another
function Panel({ text }) {
  // A reducer renders after every write, also an equal one, so that callbacks are called.
  const [state, setState] = useReducer(
    (state, change) => ({ ...state, ...change }),
    { height: 'auto', measured: '' }
  );
  const boxRef = useRef();

  const previousText = useRef(text);
  useLayoutEffect(() => {
    if (previousText.current === text) return;
    previousText.current = text;
    afterRender(() => {
      setState({ height: 'auto', measured: boxRef.current.style.height });
    });
    setState({ height: '1px' });
  });

  const afterRender = useAfterRender();

  return (
    <div ref={(box) => { boxRef.current = box; }} style={{ height: state.height }}>
      {text} {state.measured}
    </div>
  );
}

// Two writes in one go: each callback sees both
function Log({ onSeen }) {
  const [lines, setLines] = useState([]);
  const [count, setCount] = useState(0);
  const latest = useRef({ onSeen, count, lines });
  latest.current = { onSeen, count, lines };

  const add = () => {
    afterRender(() => latest.current.onSeen(latest.current.count));
    setLines([...lines, 'a']);
    afterRender(function () {
      latest.current.onSeen(latest.current.lines.length);
    });
    setCount(count + 1);
  };

  const afterRender = useAfterRender();

  return <button onClick={add}>{lines.length} {count}</button>;
}

export default function Page(props) {
  const { text = 'Skail', onSeen } = props;
  return (
    <main>
      <Title opens text={text} onSeen={onSeen} />
      <Panel text={text} />
      <Log onSeen={onSeen} />
    </main>
  );
}
