import React, { Component } from 'react';

export default class Berth extends Component {
  state = { used: 0, note: '' };

  componentDidUpdate() {
    this.props.onSeen('updated');
  }

  take = (by) => {
    this.setState({ used: this.state.used + by }, () => {
      this.props.onTake(this.state.used);
    });
  };

  note = () => this.setState((before) => ({ note: `${before.note}!` }), this.told);

  told = () => {
    this.props.onSeen(this.state.note);
  };

  same() {
    if (this.state.used > 2) this.setState({ used: this.state.used }, this.props.onSame);
  }

  render() {
    return (
      <p>
        <button onClick={() => this.take(1)}>Take {this.state.used}</button>
        <button onClick={this.note}>Note {this.state.note}</button>
        <button onClick={() => this.same()}>Same</button>
      </p>
    );
  }
}
