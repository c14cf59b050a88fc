import React, { Component } from 'react';

export default class extends Component {
  static displayName = 'BerthToggle';
  state = { open: false };

  render() {
    return <b onClick={() => this.setState({ open: !this.state.open })}>{this.state.open ? 'open' : 'closed'}</b>;
  }
}
