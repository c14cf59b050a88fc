import React, { Component } from 'react';

const rowsOf = (berths) => berths.map((berth) => berth.toUpperCase());

export default class BerthPanel extends Component {
  state = { closing: false, before: {}, rows: [] };

  // Closes slowly, and makes its rows anew for other berths.
  static getDerivedStateFromProps({ open, berths }, prevState) {
    if (prevState.before.open && !open) {
      return { before: { open }, closing: true };
    }
    // Opens at once.
    if (prevState.before.open !== open) {
      return { before: { open }, rows: rowsOf(berths) };
    }
    return null;
  }

  render() {
    return (
      <p onClick={() => this.setState({ closing: false })}>
        {this.state.rows} {this.state.closing && 'closing'}
        <Tide at={this.props.berths[0]} />
        <Light colour={this.props.open ? 'green' : undefined} />
      </p>
    );
  }
}

export class Tide extends Component {
  state = { last: null, draws: 0, marks: [] };

  static getDerivedStateFromProps(props, state) {
    const { at } = props;
    const { last } = state;
    // Nothing new.
    if (at === last) return null;
    return { last: at, draws: state.draws + 1, marks: [at, last] };
  }

  render() {
    return <b onClick={() => this.setState({ draws: 0 })}>{this.state.marks} {this.state.draws}</b>;
  }
}

export class Light extends Component {
  state = { colour: 'red', lit: false };

  static getDerivedStateFromProps(props) {
    if (props.colour !== undefined) return { colour: props.colour, lit: true };
    return null;
  }

  render() {
    return (
      <u onClick={() => this.setState({ colour: 'amber', lit: false })}>
        {this.state.colour} {String(this.state.lit)}
      </u>
    );
  }
}
