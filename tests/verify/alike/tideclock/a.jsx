import React from 'react';

export default class TideClock extends React.Component {
  state = { minutes: 0, running: true };

  componentDidMount() {
    this.timer = setInterval(() => this.tick(), 1000);
  }

  componentWillUnmount() {
    clearInterval(this.timer);
  }

  tick() {
    if (this.state.running) this.setState({ minutes: this.state.minutes + 1 });
  }

  render() {
    return (
      <p>
        <time>{this.state.minutes} min</time> to {this.props.tide}
        <button onClick={() => this.setState({ running: !this.state.running })}>
          {this.state.running ? 'hold' : 'go on'}
        </button>
      </p>
    );
  }
}
