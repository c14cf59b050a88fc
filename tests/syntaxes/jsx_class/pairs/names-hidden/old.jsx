import React from 'react';

// A name that inputs are taken apart under means something else around it.
export default class TideList extends React.Component {
  above(tide) {
    return [1, 2].map((at) => {
      const { tide } = this.props;
      return tide + at;
    }).concat(tide);
  }

  render() {
    const { tide } = this.props;
    return <p title={tide}>{this.above(10).join(' ')}</p>;
  }
}
