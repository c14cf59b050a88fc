import React, { Component } from 'react';
import throttle from './throttle';

export default class BerthBoard extends Component {
  constructor(props) {
    super(props);
    this.state = {
      rows: this.rowsOf(props.berths),
      label: this.labelled('berths'),
      taken: 0,
    };
    this.tell = throttle(this.told, 10);
  }

  rowsOf(berths) {
    return berths.filter((berth) => berth.length < this.props.longest).map(this.upper);
  }

  upper = (text) => (this.props.loud ? text.toUpperCase() : text);

  labelled = (text) => `${this.props.harbour} ${text}`;

  take = () => {
    this.setState({ taken: this.state.taken + 1 });
    this.tell();
  };

  told = () => {
    this.props.onTold(this.state.taken, this.props.harbour);
  };

  actions = [
    { name: 'Take', run: this.take },
    { name: 'Sort', run: () => this.setState({ rows: this.rowsOf(this.state.rows.slice().sort()) }) },
  ];

  render() {
    return (
      <p>
        {this.state.label}: {this.state.rows} {this.state.taken}
        {this.actions.map((action) => (
          <button key={action.name} onClick={action.run}>{action.name}</button>
        ))}
      </p>
    );
  }
}
