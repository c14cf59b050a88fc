import React, { Component } from 'react';

export default class Apart extends Component {
  componentDidMount() {
    if (!this.props.on) return;
    const early = 'shown';
    this.props.onShown(early);
  }

  // tell whoever listens by then
  componentWillUnmount() {
    this.props.onGone(this.props.name);
  }

  render() {
    return <b>{this.props.name}</b>;
  }
}
