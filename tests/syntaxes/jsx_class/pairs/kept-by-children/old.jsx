import React from 'react';

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

export default class Board extends React.Component {
  state = { rows: [{ name: 'rye', n: 1 }, { name: 'oat', n: 1 }], ticks: 0, added: 0, note: null };

  more(name) {
    this.setState({ rows: this.state.rows.map((row) => (row.name === name ? { ...row, n: row.n + 1 } : row)) });
  }

  tick() {
    this.setState({ ticks: this.state.ticks + 1 });
  }

  show() {
    this.setState({ note: <button onClick={() => this.more('oat')}>note</button> });
  }

  render() {
    return (
      <Harbour.Provider value={{ add: () => this.setState({ added: this.state.added + 1 }) }}>
        <ul>
          {this.state.rows.map((row) => (
            <Row key={row.name} row={row} onMore={(name) => this.more(name)} />
          ))}
        </ul>
        <Clock onTick={() => this.tick()} />
        <Once onPress={() => this.tick()} />
        <Plain label="plain" onPress={() => this.tick()} />
        <Reader />
        <Plain label="show" onPress={() => this.show()} />
        {this.state.note}
        <p>{this.state.ticks} {this.state.added}</p>
      </Harbour.Provider>
    );
  }
}
