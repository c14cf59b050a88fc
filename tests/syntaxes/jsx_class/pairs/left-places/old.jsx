import React, { Component } from 'react';

export default class Partly extends Component {
  state = { a: 1 };

  set double(value) {
    this.setState({ a: value / 2 });
  }

  touch = () => {
    this.setState({ a: 2 }, function () { this.props.onDone(); });
    this.forceUpdate(() => this.props.onDone());
  };

  render() {
    return <p onClick={this.touch}>{this.state.a}</p>;
  }
}
