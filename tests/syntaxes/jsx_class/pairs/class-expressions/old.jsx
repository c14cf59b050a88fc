import React, { Component } from 'react';

const announced = (Inner) => (props) => <section aria-live="polite"><Inner {...props} /></section>;

const Fare = class extends Component {
  static defaultProps = { crossing: 4 };
  static currency = 'crowns';

  render() {
    return <i>{this.props.crossing * this.props.seats} {Fare.currency}</i>;
  }
};

const Seat = class extends React.PureComponent {
  render() {
    return <li>{this.props.seat}</li>;
  }
};

// The list that is shown.
export default announced(class Deck extends Component {
  state = { seats: 1 };

  render() {
    const { seats } = this.state;
    return (
      <ul onClick={() => this.setState({ seats: seats + 1 })}>
        {Array.from({ length: seats }, (_, at) => <Seat key={at} seat={`${this.props.deck}${at}`} />)}
        <Fare seats={seats} />
      </ul>
    );
  }
});
