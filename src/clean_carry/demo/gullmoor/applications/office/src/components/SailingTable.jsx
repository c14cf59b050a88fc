import React, { Component } from 'react';
import SailingRow from './SailingRow';

export default class SailingTable extends Component {
  state = { booked: 0 };

  count = () => {
    this.setState((state) => ({ booked: state.booked + 1 }));
  };

  render() {
    return (
      <table>
        <caption>{this.state.booked} seats booked</caption>
        <tbody>
          {this.props.sailings.map((sailing) => (
            <SailingRow key={sailing.id} sailing={sailing} onBook={this.count} />
          ))}
        </tbody>
      </table>
    );
  }
}
