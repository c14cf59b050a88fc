import * as React from 'react';
import { narrow } from './width';

const STEP = 15 * 60 * 1000;

/* The tide of the next hours. Redraws on a narrow window and moves on every quarter of an hour. */
export default class TideStrip extends React.Component {
  state = { now: this.props.start, narrow: narrow() };

  listening = false;

  componentDidMount() {
    this.listen();
    this.clock = window.setInterval(() => {
      this.setState({ now: this.state.now + STEP });
      if (this.props.onMove) this.props.onMove(this.state.now, this.props.pier);
    }, STEP);
  }

  componentDidUpdate(prevProps, prevState) {
    if (prevState.now !== this.state.now && this.state.now >= this.props.end) {
      this.deafen();
    }
    if (prevProps.pier !== this.props.pier) {
      this.setState({ now: this.props.start });
    }
  }

  componentWillUnmount() {
    this.deafen();
    window.clearInterval(this.clock);
  }

  listen() {
    if (this.listening) return;
    this.listening = true;
    window.addEventListener('resize', this.measure);
  }

  deafen() {
    this.listening = false;
    window.removeEventListener('resize', this.measure);
  }

  measure = () => {
    this.setState({ narrow: narrow() });
  };

  render() {
    const { tides, pier } = this.props;
    const ahead = tides.filter((tide) => tide.at >= this.state.now);
    return (
      <div className={this.state.narrow ? 'tides narrow' : 'tides'}>
        <b>{pier}</b>
        {ahead.map((tide) => (
          <span key={tide.at} style={{ height: `${tide.metres * 10}px` }}>{tide.metres} m</span>
        ))}
        {ahead.length === 0 && <i>No more tides today</i>}
      </div>
    );
  }
}
