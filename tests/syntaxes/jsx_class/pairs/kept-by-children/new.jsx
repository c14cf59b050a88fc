import React, { useRef, useState } from 'react';

const Row = React.memo(
  ({ row, onMore }) => <li>{row.name} {row.n} <button onClick={() => onMore(row.name)}>more</button></li>,
  (before, now) => before.row === now.row
);

function Clock({ onTick }) {
  React.useEffect(() => {
    const timer = setInterval(() => onTick(), 1000);
    return () => clearInterval(timer);
  }, []);
  return <time>clock</time>;
}

function Once(props) {
  const [press] = React.useState(() => props.onPress);
  return <button onClick={press}>once</button>;
}

const Plain = ({ onPress, label }) => <button onClick={onPress}>{label}</button>;

const Harbour = React.createContext({});
const Reader = React.memo(() => {
  const kept = React.useRef(null);
  const harbour = React.useContext(Harbour);
  if (kept.current === null) kept.current = harbour;
  return <button onClick={() => kept.current.add()}>context</button>;
});

export default function Board() {
  const [rows, setRows] = useState([{ name: 'rye', n: 1 }, { name: 'oat', n: 1 }]);
  const [ticks, setTicks] = useState(0);
  const [added, setAdded] = useState(0);
  const [note, setNote] = useState(null);
  const latest = useRef({ added, rows, ticks });
  latest.current = { added, rows, ticks };

  function more(name) {
    setRows(latest.current.rows.map((row) => (row.name === name ? { ...row, n: row.n + 1 } : row)));
  }

  function tick() {
    setTicks(latest.current.ticks + 1);
  }

  function show() {
    setNote(<button onClick={() => more('oat')}>note</button>);
  }

  return (
    <Harbour.Provider value={{ add: () => setAdded(latest.current.added + 1) }}>
      <ul>
        {rows.map((row) => (
          <Row key={row.name} row={row} onMore={(name) => more(name)} />
        ))}
      </ul>
      <Clock onTick={() => tick()} />
      <Once onPress={() => tick()} />
      <Plain label="plain" onPress={() => tick()} />
      <Reader />
      <Plain label="show" onPress={() => show()} />
      {note}
      <p>{ticks} {added}</p>
    </Harbour.Provider>
  );
}
