import React from 'react';

const tag = (parts, ...values) => parts.join('*') + values.join('*');
let made = 0;

// Numbers, caches and labels are made once for each berth, in this order
class Berth extends React.Component {
  static next = 0;

  first = `${++made}`;
  id = `berth-${Berth.next++}`;
  label = tag`Berth ${this.id}`;
  state = { open: false, number: made, of: this.id };
  last = made * 10;
  cache = new Map();

  forget = () => {
    this.cache = null;
    this.setState({ open: !this.state.open });
  };

  render() {
    return (
      <p>
        <button id={this.id} onClick={this.forget}>
          {this.label} {this.first} {this.last} {this.state.number} {this.state.of}
        </button>
        {String(this.state.open)} {this.cache ? 'kept' : 'forgotten'}
      </p>
    );
  }
}

export default class Berths extends React.Component {
  render() {
    return (
      <div>
        <Berth />
        <Berth />
      </div>
    );
  }
}
