import React from 'react';
import PropTypes from 'prop-types';

export default class QuayBadge extends React.Component {
  static propTypes = { level: PropTypes.number, wide: PropTypes.bool };

  static defaultProps = { level: 1, wide: false };

  state = { on: false };

  render() {
    const { level, wide } = this.props;
    const { on } = this.state;
    return (
      <b
        className={`badge ${on ? 'on' : 'off'}`}
        style={{ opacity: level / 10, width: wide ? '12em' : '6em' }}
        onClick={() => this.setState({ on: !on })}
      >
        Level {level}
      </b>
    );
  }
}
