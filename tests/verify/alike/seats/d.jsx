import React from 'react';

class Seats extends React.Component {
  constructor(props) {
    super(props);
    this.state = { held: { seats: props.start } };
    this.less = this.less.bind(this);
    this.more = this.more.bind(this);
  }

  put(seats) {
    this.setState({ held: { seats } });
    const { onChange } = this.props;
    onChange && onChange(seats);
  }

  less() {
    this.put(this.state.held.seats + -1);
  }

  more() {
    this.put(this.state.held.seats + 1);
  }

  get full() {
    return this.state.held.seats === this.props.most;
  }

  render() {
    const { seats } = this.state.held;
    const parts = [
      <button key="less" onClick={this.less} disabled={seats <= 1}>less</button>,
      <output key="shown">{seats} of {this.props.most}</output>,
      <button key="more" onClick={this.more} disabled={seats >= this.props.most}>more</button>,
    ];
    if (this.full) parts.push(<em key="full">full</em>);
    return <div className="seats">{parts}</div>;
  }
}

Seats.defaultProps = { most: 4, start: 1 };

export default Seats;
