import React, { Component } from 'react';

export default class Partly extends Component {
  state = { a: 1 };

  get double() {
    return this.state.a * 2;
  }

  touch = () => {
    this.setState({ a: 2 }, function () { this.props.onDone(); });
    this.forceUpdate();
  };

  render() {
    return <p onClick={this.touch}>{this.state.a}</p>;
  }
}
