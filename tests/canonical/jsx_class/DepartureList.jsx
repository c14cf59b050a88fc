import React from 'react';
import PropTypes from 'prop-types';

export default class DepartureList extends React.Component {
  static propTypes = {
    departures: PropTypes.arrayOf(
      PropTypes.shape({ id: PropTypes.number, to: PropTypes.string, late: PropTypes.bool }),
    ).isRequired,
  };

  state = { lateOnly: false };

  toggle = () => this.setState({ lateOnly: !this.state.lateOnly });

  render() {
    const { departures } = this.props;
    const { lateOnly } = this.state;
    const shown = lateOnly ? departures.filter((one) => one.late) : departures;
    return (
      <section>
        <button type="button" onClick={this.toggle}>
          {lateOnly ? 'All' : 'Late only'}
        </button>
        {shown.length > 0 ? (
          <ul>
            {shown.map((one, index) => (
              <li key={one.id}>
                {index + 1}. {one.to} {one.late && <em>late</em>}
              </li>
            ))}
          </ul>
        ) : (
          <p>No departure</p>
        )}
      </section>
    );
  }
}
