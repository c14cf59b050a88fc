import React, { Component } from 'react';

export default class Berth extends Component {
  static defaultProps = { size: 2 };

  state = { open: false, seen: 0 };

  componentWillMount() {
    this.setState({ open: this.props.start });
  }

  // What came is seen.
  componentWillReceiveProps(nextProps) {
    if (nextProps.start !== this.props.start) {
      this.setState({ open: nextProps.start });
    }
    this.setState({ seen: nextProps.size + this.props.size });
    if (nextProps.size > 3) return;
    this.props.onSeen(nextProps.size);
  }

  render() {
    return <p onClick={() => this.setState({ open: !this.state.open })}>{String(this.state.open)} {this.state.seen} {this.props.size}</p>;
  }
}
