import { Component } from 'react';

const pad = (number) => String(number).padStart(2, '0');

export default class DepartureClock extends Component {
  displayName = 'DepartureClock';
  mounted = false;
  frame = null;
  offset = Math.round(this.props.zone * 60);
  format = new Intl.NumberFormat('en', { minimumIntegerDigits: 2 });

  state = { minutes: this.props.start, running: true, laps: [] };

  static defaultProps = { start: 0, zone: 0, onLap: () => {} };

  componentDidMount = () => {
    this.mounted = true;
    this.schedule();
  };

  componentWillUnmount = () => {
    this.mounted = false;
    window.clearTimeout(this.frame);
  };

  schedule = () => {
    this.frame = window.setTimeout(() => {
      if (!this.mounted) return;
      if (this.state.running) this.setState(({ minutes }) => ({ minutes: minutes + 1 }));
      this.schedule();
    }, 60000);
  };

  lap = () => {
    this.setState(
      (state) => ({ laps: [...state.laps, state.minutes] }),
      () => this.props.onLap(this.state.laps.length)
    );
  };

  get text() {
    const total = this.state.minutes + this.offset;
    return `${pad(Math.floor(total / 60) % 24)}:${this.format.format(total % 60)}`;
  }

  render = () => {
    const { running, laps } = this.state;
    return (
      <div role="timer">
        <time>{this.text}</time>
        <button onClick={() => this.setState({ running: !running })}>{running ? 'hold' : 'go'}</button>
        <button onClick={this.lap}>mark</button>
        <ol>
          {laps.map((lap, index) => (
            <li key={index}>{lap}</li>
          ))}
        </ol>
      </div>
    );
  };
}
