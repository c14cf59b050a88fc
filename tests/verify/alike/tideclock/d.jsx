import React, { Component } from 'react';

const beats = (Inner) => class Beating extends Component {
  state = { beats: 0 };
  held = false;

  componentDidMount() {
    const beat = () => {
      if (!this.held) this.setState(({ beats }) => ({ beats: beats + 1 }));
    };
    this.stop = clearInterval.bind(null, setInterval(beat, 1000));
  }

  componentWillUnmount() {
    this.stop();
  }

  turn = () => {
    this.held = !this.held;
    this.forceUpdate();
  };

  render() {
    return <Inner {...this.props} minutes={this.state.beats} held={this.held} onTurn={this.turn} />;
  }
};

function Face({ minutes, held, onTurn, tide }) {
  let label = 'hold';
  if (held) label = 'go on';
  return <p><time>{minutes} min</time> to {tide}<button onClick={onTurn}>{label}</button></p>;
}

export default beats(Face);
