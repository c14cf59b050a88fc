import React, { Component } from 'react';

export default class Buoy extends Component {
  state = { size: null, at: 1, never: this.props.never, loud: this.props.onMade() };

  componentDidMount() {
    this.setState({ size: 3 });
  }

  render() {
    return <p onClick={() => this.setState({ at: this.state.at + 1 })}>{this.state.at}</p>;
  }
}
