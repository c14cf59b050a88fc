import React from 'react';

// A lamp at the pier that a parent blinks through a reference.
export default class PierLamp extends React.Component {
  state = { lit: false, count: 0 };
  blink() { this.setState({ lit: !this.state.lit, count: this.state.count + 1 }); }
  render() { return <em>{this.state.lit ? 'on' : 'off'} {this.state.count}</em>; }
}
