import React from 'react';

export default class BerthButton extends React.Component {
  static defaultProps = {
    // Told of every berth that is taken.
    onTake() {},
    label(berth) {
      return `berth ${berth}`;
    },
    async asked(berth) {
      return berth;
    },
  };

  render() {
    const { berth, label, onTake } = this.props;
    return (
      <button onClick={onTake} title={typeof this.props.asked}>
        {label(berth)}
      </button>
    );
  }
}
