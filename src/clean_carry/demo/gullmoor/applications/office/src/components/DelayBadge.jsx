import React from 'react';
import './DelayBadge.css';

export default class DelayBadge extends React.PureComponent {
  static defaultProps = { minutes: 0 };

  render() {
    const { minutes } = this.props;
    return minutes > 0 ? <b className="delay">{minutes} min late</b> : <span className="delay">on time</span>;
  }
}
