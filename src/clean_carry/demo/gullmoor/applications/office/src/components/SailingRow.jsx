import React from 'react';
import DelayBadge from './DelayBadge';

export default class SailingRow extends React.Component {
  state = { booked: 0 };

  book = () => {
    const { sailing, onBook } = this.props;
    this.setState({ booked: this.state.booked + 1 });
    if (onBook) onBook(sailing.id);
  };

  render() {
    const { sailing } = this.props;
    const free = sailing.free - this.state.booked;
    return (
      <tr>
        <td>{sailing.leaves}</td>
        <td>{sailing.to}</td>
        <td>
          <DelayBadge minutes={sailing.late} />
        </td>
        <td>
          <button type="button" disabled={free === 0} onClick={this.book}>
            {free} free
          </button>
        </td>
      </tr>
    );
  }
}
