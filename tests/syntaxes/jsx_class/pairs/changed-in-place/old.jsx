import React, { Component } from 'react';

export default class Berths extends Component {
  state = { list: ['Holm'], count: 0 };

  add = (name) => {
    const { list } = this.state;
    list.push(name);
    this.setState({ list });
  };

  turn() {
    const now = this.state.list;
    this.setState({ list: now.reverse() });
  }

  render() {
    return (
      <p>
        <button onClick={() => this.add('Brae')}>Add</button>
        <button onClick={() => this.turn()}>Turn</button>
        {this.state.list.join(', ')}
      </p>
    );
  }
}
