import React, { Component } from 'react';

export default class Berth extends Component {
  constructor(props) {
    super(props);

    // The first one counts.
    let height = props.height;
    if (!props.shut) {
      this.state = { open: true };
    } else {
      height += 1;
      this.state = { height };
    }
  }

  render() {
    return <button onClick={() => this.setState({ open: false })}>{String(this.state.open)} {this.state.height}</button>;
  }
}
