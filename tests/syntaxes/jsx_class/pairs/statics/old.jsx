import React, { Component } from 'react';

export default class Flag extends Component {
  static COLOURS = {
    calm: 'green',
    gale: 'red',
  };

  static of(name) {
    return Flag.COLOURS[name];
  }

  // shown in tools
  static displayName = 'HarbourFlag';

  render() {
    return <i style={{ color: Flag.of(this.props.weather) }}>{this.props.children}</i>;
  }
}
