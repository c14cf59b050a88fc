import React from 'react';

export default class Through extends React.Component {
  static defaultProps = { kind: 'a', 'aria-label': 'through' };

  render() {
    return <em {...this.props} data-kind={this.props.kind} aria-label={this.props['aria-label']} />;
  }
}
