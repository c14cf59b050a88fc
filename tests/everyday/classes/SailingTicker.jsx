import React, { Component } from 'react';

let tickers = 0;

// Counts down to the next sailing and calls out once the gate closes
class SailingTicker extends Component {
  static displayName = 'SailingTicker';
  static opened = 0;

  static get defaultProps() {
    return { minutes: 5, label: 'Gate closes in' };
  }

  id = `ticker-${++tickers}`;
  number = SailingTicker.opened++;
  started = new Date().getTime();
  timer = null;
  state = { left: this.props.minutes * 60, paused: false, closed: false };

  componentDidMount = () => {
    this.timer = setInterval(this.tick, 1000);
  };

  componentDidUpdate = (prevProps, prevState) => {
    if (!prevState.closed && this.state.closed && this.props.onClose) {
      this.props.onClose(this.id);
    }
    if (prevProps.minutes !== this.props.minutes) {
      this.setState({ left: this.props.minutes * 60, closed: false });
    }
  };

  componentWillUnmount = () => {
    clearInterval(this.timer);
  };

  tick = () => {
    if (this.state.paused) return;
    this.setState((state, props) => {
      const left = Math.max(0, state.left - 1);
      return { left, closed: left === 0 && props.minutes > 0 };
    });
  };

  togglePause = () => this.setState({ paused: !this.state.paused });

  render() {
    const { label } = this.props;
    const { left, paused, closed } = this.state;
    const minutes = Math.floor(left / 60);
    const seconds = String(left % 60).padStart(2, '0');

    return (
      <section id={this.id} className="ticker" data-number={this.number} aria-live="polite">
        <h3 id={`${this.id}-title`}>{label}</h3>
        <time aria-labelledby={`${this.id}-title`}>
          {minutes}:{seconds}
        </time>
        {closed ? (
          <strong>Gate closed</strong>
        ) : (
          <button type="button" onClick={this.togglePause}>
            {paused ? 'Resume' : 'Pause'}
          </button>
        )}
      </section>
    );
  }
}

export default SailingTicker;
