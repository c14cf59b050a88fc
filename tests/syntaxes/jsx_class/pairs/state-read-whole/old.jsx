import React from 'react';

class Dump extends React.Component {
  state = { a: 1, b: 2 };

  change = () => {
    this.setState({ a: this.state.a + 1, b: this.state.b * 2 });
  };

  render() {
    const all = this.state;
    return <pre onClick={this.change}>{JSON.stringify(all)}</pre>;
  }
}

export default Dump;
