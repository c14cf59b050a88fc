import React, { Component } from 'react';

// one line of the manifest
class Line extends Component {
  render() {
    return <li>{this.props.text}</li>;
  }
}

/* between the two */

export default class Manifest extends Component {
  state = { short: true };

  render() {
    const lines = this.state.short ? this.props.lines.slice(0, 1) : this.props.lines;
    return (
      <ul onClick={() => this.setState({ short: false })}>
        {lines.map((text) => (
          <Line key={text} text={text} />
        ))}
      </ul>
    );
  }
}
