import React, { PureComponent } from 'react';

export default class Tide extends PureComponent {
  state = { marks: 0 };

  render() {
    return <button onClick={() => this.setState({ marks: this.state.marks + 1 })}>{this.props.name} {this.state.marks}</button>;
  }
}
