import React, { Component, createContext } from 'react';

const Quay = createContext({ name: 'Holm' });

class Berth extends Component {
  call = () => {
    const { name } = this.context;
    setTimeout(() => this.props.onCall(name, this.context.name), 10);
  };

  render() {
    return <button onClick={this.call}>{this.context.name}</button>;
  }
}
Berth.contextType = Quay;

export default Berth;
