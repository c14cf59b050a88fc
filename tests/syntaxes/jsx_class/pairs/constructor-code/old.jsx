import React, { Component } from 'react';

export default class Buoy extends Component {
  constructor(props) {
    super(props);
    this.lit = false;
    this.seen = 0;
    // Whoever lights it is told once.
    if (props.light) {
      const by = `${props.light}!`;
      this.lit = by;
      this.announce(by);
    }
    this.announce = this.announce.bind(this);
  }

  announce(text) {
    this.props.onAnnounce(text, this.seen);
  }

  render() {
    this.seen += 1;
    return <b onClick={() => this.announce('pressed')}>{String(this.lit)}</b>;
  }
}

export class Beacon extends Component {
  constructor(props) {
    super(props);
    props.onMade(this.props.light);
  }

  render() {
    return <i>{this.props.light}</i>;
  }
}
