import React, { Component } from 'react';
import { load } from './load';

class Clash extends Component {
  state = { value: this.props.value, open: false };

  load() {
    return load(this.props.value);
  }

  fetch = () => fetch('/api/' + this.state.value);

  change(value) {
    if (value !== this.props.value) this.setState({ value });
  }

  render() {
    const open = this.state.open || this.props.open;
    return (
      <div onClick={this.fetch}>
        <input value={this.state.value} onChange={(e) => this.change(e.target.value)} />
        {open && this.load()}
      </div>
    );
  }
}

export default Clash;
