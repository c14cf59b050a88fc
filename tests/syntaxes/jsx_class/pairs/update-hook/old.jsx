import React, { Component } from 'react';

export default class Watch extends Component {
  state = { seen: 0 };

  componentDidUpdate(prevProps, prevState) {
    const { onSee } = this.props;
    if (prevProps.mark !== this.props.mark && this.props.mark) {
      this.setState({ seen: this.state.seen + 1 });
    }
    if (prevState.seen !== this.state.seen) onSee(prevState.seen, this.state.seen);
  }

  render() {
    return <b>{this.state.seen}</b>;
  }
}
