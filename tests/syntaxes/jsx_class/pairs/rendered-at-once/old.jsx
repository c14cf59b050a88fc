import React from 'react';
import { flushSync } from 'react-dom';

export default class Crates extends React.Component {
  state = { rows: ['rye'], said: '' };
  list = React.createRef();

  add = () => {
    flushSync(() => {
      this.setState({ rows: [...this.state.rows, `oat ${this.state.rows.length}`] });
    });
    this.setState({ said: `${this.state.rows.length} rows, ${this.list.current.children.length} shown` });
  };

  addTwo() {
    for (const name of ['wool', 'slate']) {
      flushSync(() => this.setState({ rows: [...this.state.rows, name] }));
      this.props.onAdd(this.state.rows.length);
    }
  }

  clear() {
    const { rows } = this.state;
    flushSync(() => this.setState({ rows: [] }));
    this.props.onAdd(rows.length, this.state.rows.length);
  }

  render() {
    return (
      <div>
        <ul ref={this.list}>{this.state.rows.map((row) => <li key={row}>{row}</li>)}</ul>
        <button onClick={this.add}>add</button>
        <button onClick={() => this.addTwo()}>two</button>
        <button onClick={() => this.clear()}>clear</button>
        <p>{this.state.said}</p>
      </div>
    );
  }
}
