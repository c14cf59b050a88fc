import { Component } from 'react';

export class Counter extends Component {
  state = { n: 0, last: null };

  add = () => this.setState((prev) => ({ n: prev.n + 1 }));

  takeAway = () => this.setState(({ n }) => ({ n: n - 1 }));

  note = (word) => {
    if (word) this.setState({ last: word });
  };

  render() {
    const { n, last } = this.state;
    return (
      <p>
        <button onClick={this.add}>+</button>
        <button onClick={this.takeAway}>-</button>
        <button onClick={() => this.note('seen')}>note</button>
        {n} {last}
      </p>
    );
  }
}
