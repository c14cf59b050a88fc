import React, { Component } from 'react';

export default class Always extends Component {
  state = { n: 1 };

  componentDidUpdate() {
    this.props.onDraw(this.state.n);
  }

  render() {
    return <button onClick={() => this.setState({ n: 1 })}>{this.state.n}</button>;
  }
}
