import React from 'react';
import PropTypes from 'prop-types';

export default class BerthCard extends React.Component {
  static propTypes = {
    name: PropTypes.string.isRequired,
    depth: PropTypes.number,
    free: PropTypes.bool,
    onPick: PropTypes.func,
  };

  static defaultProps = { depth: 4, free: true };

  state = { picked: 0 };

  pick = () => {
    const { name, onPick } = this.props;
    this.setState((before) => ({ picked: before.picked + 1 }));
    if (onPick) onPick(name);
  };

  render() {
    const { name, depth, free } = this.props;
    return (
      <article className="berth">
        <h3>
          {name}: {depth} m
        </h3>
        <button type="button" disabled={!free} onClick={this.pick}>
          Picked {this.state.picked} times
        </button>
      </article>
    );
  }
}
