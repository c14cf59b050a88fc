import React, { PureComponent } from 'react';

export default class Berth extends PureComponent {
  state = { used: 0, note: '' };

  take = (by) => {
    this.setState({ used: this.state.used + by }, () => {
      this.props.onTake(this.state.used);
    });
  };

  // The note may be the one it has.
  note(text) {
    this.setState({ note: text }, this.told);
  }

  // What is written may be nothing.
  choose = (used) => {
    const change = used > 4 ? null : { used };
    this.setState(change, this.told);
  };

  told = () => this.props.onSeen(this.state.note);

  render() {
    return (
      <p>
        <button onClick={() => this.take(1)}>Take {this.state.used}</button>
        <button onClick={() => this.take(0)}>Take none</button>
        <button onClick={() => this.choose(this.state.used + 2)}>Two</button>
        <button onClick={() => this.note('full')}>Note {this.state.note}</button>
      </p>
    );
  }
}
