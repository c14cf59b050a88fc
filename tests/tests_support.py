"""Small sources that several tests use."""

CLASS = """import React, { Component } from 'react';

export default class Berth extends Component {
  state = { open: false };

  render() {
    return <button onClick={() => this.setState({ open: true })}>{String(this.state.open)}</button>;
  }
}
"""
