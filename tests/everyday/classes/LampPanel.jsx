import React from 'react';

class Lamp extends React.Component {
  state = { lit: false, blinks: 0 };

  blink() {
    this.setState({ lit: !this.state.lit, blinks: this.state.blinks + 1 });
  }

  reset = () => {
    this.setState({ lit: false, blinks: 0 });
  };

  getBlinks() {
    return this.state.blinks;
  }

  render() {
    return (
      <em className={this.state.lit ? 'lamp lit' : 'lamp'}>
        {this.props.label} {this.state.blinks}
      </em>
    );
  }
}

// Two lamps that the panel blinks in turn
export default class LampPanel extends React.Component {
  static defaultProps = { every: 1000 };

  port = React.createRef();
  starboard = null;
  turn = 0;
  state = { total: 0, running: true };

  componentDidMount() {
    const port = this.port.current;
    const starboard = this.starboard;
    this.timer = setInterval(() => {
      (this.turn++ % 2 ? starboard : port).blink();
    }, this.props.every);
  }

  componentDidUpdate(prevProps, prevState) {
    if (prevState.running && !this.state.running) clearInterval(this.timer);
  }

  componentWillUnmount() {
    clearInterval(this.timer);
  }

  count = () => {
    this.setState({ total: this.port.current.getBlinks() + this.starboard.getBlinks() });
  };

  reset() {
    [this.port.current, this.starboard].forEach(function (lamp) {
      lamp.reset();
      this.turn = 0;
    }, this);
    this.setState({ total: 0 });
  }

  render() {
    return (
      <div>
        <Lamp ref={this.port} label="port" />
        <Lamp ref={(lamp) => { this.starboard = lamp; }} label="starboard" />
        <button onClick={this.count}>count</button>
        <button onClick={() => this.reset()}>reset</button>
        <button onClick={() => this.setState({ running: false })}>stop</button>
        <output>{this.state.total}</output>
      </div>
    );
  }
}
