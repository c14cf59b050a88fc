import React, { Component } from 'react';

export default class Alias extends Component {
  state = { on: false };

  flip() {
    const self = this;
    self.setState({ on: !self.state.on });
  }

  render() {
    const { props, state } = this;
    return (
      <button onClick={() => this.flip()} title={props.title}>
        {state.on ? 'on' : 'off'}
      </button>
    );
  }
}
