import React, { Component } from 'react';

export default class Seats extends Component {
  state = { seats: this.props.start };

  change(by) {
    const seats = this.state.seats + by;
    this.setState({ seats });
    if (this.props.onChange) this.props.onChange(seats);
  }

  render() {
    const { seats } = this.state;
    return (
      <div className="seats">
        <button disabled={seats <= 1} onClick={() => this.change(-1)}>less</button>
        <output>{seats} of {this.props.most}</output>
        <button disabled={seats >= this.props.most} onClick={() => this.change(1)}>more</button>
        {seats === this.props.most && <em>full</em>}
      </div>
    );
  }
}

Seats.defaultProps = { start: 1, most: 4 };
