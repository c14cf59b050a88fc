import React, { Component } from 'react';

const defaultProps = {
  labels: { one: 'one berth', many: 'many berths' },
  size: 3,
  'aria-label': 'berths',
  onPick: () => 'nobody asked',
};

export default class Berths extends Component {
  static defaultProps = defaultProps;

  render() {
    const { labels, size } = this.props;
    const same = labels === defaultProps.labels ? 'as made' : 'given';
    return (
      <b aria-label={this.props['aria-label']} onClick={() => this.props.onPick(size)}>
        {size > 1 ? labels.many : labels.one} {same}
      </b>
    );
  }
}
