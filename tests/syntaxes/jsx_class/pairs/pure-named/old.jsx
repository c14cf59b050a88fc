import React from 'react';

/** Shown above the quay. */
export default class Strip extends React.PureComponent {
  static kind = 'strip';

  render() {
    return <b className={Strip.kind}>{this.props.children}</b>;
  }
}
Strip.displayName = 'Strip';
