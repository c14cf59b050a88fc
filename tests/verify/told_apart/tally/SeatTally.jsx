import React from 'react';

export default class SeatTally extends React.Component {
  state = { taken: 0 };
  componentDidUpdate() { this.props.onTaken && this.props.onTaken(this.state.taken); }
  render() { return <button onClick={() => this.setState({ taken: this.state.taken + 1 })}>{this.state.taken}</button>; }
}
