import React from 'react';
import PropTypes from 'prop-types';

export default class FreightForm extends React.Component {
  static propTypes = { onSend: PropTypes.func };

  state = { what: '', fragile: false, size: 'small' };

  send = (event) => {
    event.preventDefault();
    const { what, fragile, size } = this.state;
    if (!what) return;
    if (this.props.onSend) this.props.onSend({ what, fragile, size });
    this.setState({ what: '' });
  };

  render() {
    const { what, fragile, size } = this.state;
    return (
      <form onSubmit={this.send}>
        <input value={what} onChange={(event) => this.setState({ what: event.target.value })} />
        <label>
          <input
            type="checkbox"
            checked={fragile}
            onChange={(event) => this.setState({ fragile: event.target.checked })}
          />{' '}
          fragile
        </label>
        <select value={size} onChange={(event) => this.setState({ size: event.target.value })}>
          <option value="small">small</option>
          <option value="large">large</option>
        </select>
        <p>
          {what} {size}
        </p>
        <button type="submit" disabled={!what}>
          Send
        </button>
      </form>
    );
  }
}
