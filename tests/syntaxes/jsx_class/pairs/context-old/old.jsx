import React, { Component } from 'react';

export default class Berth extends Component {
  static contextTypes = { quay: () => null };

  constructor(props, context) {
    super(props, context);
    this.state = { first: context.quay || 'none' };
  }

  render() {
    const { quay } = this.context;
    return <p>{this.state.first} {quay}</p>;
  }
}
