import React, { Component } from 'react';

export default class Tabs extends Component {
  state = { tab: this.props.tab, seen: 0 };

  // The tab follows the input.
  static getDerivedStateFromProps(nextProps, prevState) {
    if (prevState.tab !== nextProps.tab) {
      return { tab: nextProps.tab, seen: prevState.seen + 1 };
    }
    return null;
  }

  render() {
    return <p onClick={() => this.setState({ seen: 0 })}>{this.state.tab} {this.state.seen} <Layer isOpen={this.props.tab !== "tides"} /></p>;
  }
}

export class Layer extends Component {
  state = { isOpen: this.props.isOpen };

  static getDerivedStateFromProps(props, state) {
    if (props.isOpen && !state.isOpen) {
      return { isOpen: props.isOpen };
    } else return null;
  }

  render() {
    return <b onClick={() => this.setState({ isOpen: false })}>{String(this.state.isOpen)}</b>;
  }
}
