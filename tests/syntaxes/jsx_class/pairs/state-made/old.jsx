import React, { Component } from 'react';

export default class Berth extends Component {
  constructor(props) {
    super(props);

    const visible = typeof props.visible === 'boolean' ? props.visible : props.other;
    this.state = {
      visible,
      inner: visible,
    };

    if (typeof props.size === 'undefined') {
      this.state.size = this.measure(props.fallback);
    }
    this._list = [];
    this.press = this.press.bind(this);
  }

  measure = (value) => (value > 3 ? 'big' : 'small');

  press() {
    this._list.push(1);
    this.setState({ visible: !this.state.visible, size: this._list.length });
  }

  render() {
    return <button onClick={this.press}>{String(this.state.visible)} {String(this.state.inner)} {this.state.size}</button>;
  }
}
