import React from 'react';

const shared = { size: 2, unit: 'm' };

export class BerthRow extends React.Component {
  // What rows have in common, and their own.
  static defaultProps = { ...shared, label: 'berth' };

  render() {
    const { label, size, unit } = this.props;
    return <li>{`${label}: ${size} ${unit}`}</li>;
  }
}

// Draws again only where an input is another, its default among them.
export default class BerthCount extends React.PureComponent {
  componentDidUpdate() {
    this.props.onDrawn(this.props.count);
  }

  render() {
    return (
      <ul title={this.props.count}>
        <BerthRow size={this.props.count} unit={BerthRow.defaultProps.unit} />
      </ul>
    );
  }
}

BerthCount.defaultProps = { count: 3 };
