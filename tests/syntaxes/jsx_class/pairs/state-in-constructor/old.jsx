import React, { Component } from 'react';

export default class Berth extends Component {
  constructor(props) {
    super(props);
    // what the harbour master sees first
    this.state = { open: false, label: props.name.toUpperCase() };
    this.count = 0; // how often it was opened
    this.show = this.show.bind(this);
  }

  show() {
    this.count += 1;
    this.setState({ open: true });
  }

  render() {
    return <button onClick={this.show}>{this.state.open ? this.state.label : 'closed'}</button>;
  }
}
