import React, { Component } from 'react';

export default class Berth extends Component {
  state = { note: '' };

  componentWillReceiveProps(nextProps) {
    if (nextProps.ship !== this.props.ship) {
      this.compare(nextProps.ship);
      ['a', 'b'].forEach(this.tell);
    }
  }

  compare(ship) {
    const { onChange } = this.props;
    onChange(this.props.ship, ship);
    this.setState({ note: `${this.props.ship} left` });
  }

  tell = (mark) => {
    this.props.onTell(mark, this.props.ship);
  };

  render() {
    return <p onClick={() => this.tell('pressed')}>{this.props.ship} {this.state.note}</p>;
  }
}
