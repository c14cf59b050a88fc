import React from 'react';

class Seat extends React.Component {
  shouldComponentUpdate(next) {
    return next.seat !== this.props.seat || next.selected !== this.props.selected;
  }

  render() {
    const { seat, selected, onPick } = this.props;
    return (
      <button
        className={`seat ${seat.taken ? 'taken' : ''} ${selected ? 'selected' : ''}`.trim()}
        disabled={seat.taken}
        onClick={() => onPick(seat)}
      >
        {seat.row}
        {seat.letter}
      </button>
    );
  }
}

function makeSeats(rows, letters) {
  const seats = [];
  for (let row = 1; row <= rows; row++) {
    for (const letter of letters) seats.push({ id: `${row}${letter}`, row, letter, taken: (row * letter.charCodeAt(0)) % 5 === 0 });
  }
  return seats;
}

export default class SeatMap extends React.Component {
  static defaultProps = { rows: 3, letters: 'ABC' };

  state = { seats: makeSeats(this.props.rows, this.props.letters), picked: [], clicks: 0 };
  renders = 0;

  pick = (seat) => {
    const picked = this.state.picked.includes(seat.id)
      ? this.state.picked.filter((id) => id !== seat.id)
      : [...this.state.picked, seat.id];
    this.setState({ picked, clicks: this.state.clicks + 1 });
    this.props.onPick?.(picked);
  };

  clear() {
    this.setState({ picked: [] });
  }

  render() {
    const { seats, picked, clicks } = this.state;
    return (
      <div>
        {seats.map((seat) => (
          <Seat key={seat.id} seat={seat} selected={picked.includes(seat.id)} onPick={(one) => this.pick(one)} />
        ))}
        <p>
          {picked.length ? picked.join(', ') : 'no seat'} after {clicks} presses
        </p>
        <button onClick={this.clear.bind(this)}>clear</button>
      </div>
    );
  }
}
