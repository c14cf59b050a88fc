import React, { PureComponent } from 'react';

export default class Berth extends PureComponent {
  state = { at: 0, name: 'a' };

  UNSAFE_componentWillReceiveProps({ start, size }) {
    const { start: before } = this.props;
    if (start !== before || size !== this.props.size) {
      this.setState(this.made(start, size));
    }
  }

  made(start, size) {
    return size > 2 ? null : { name: `${start}${size}` };
  }

  press = (change) => {
    this.setState({ ...change, at: this.state.at + 1 });
  };

  render() {
    return <button onClick={() => this.press({ name: 'pressed' })}>{this.state.name} {this.state.at}</button>;
  }
}
