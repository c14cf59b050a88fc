import React from 'react';
import PropTypes from 'prop-types';

const COLUMNS = [
  { key: 'time', label: 'Leaves' },
  { key: 'to', label: 'To' },
  { key: 'ship', label: 'Ship' },
  { key: 'state', label: 'State' },
];

const minutesOf = (time) => {
  const [hours, minutes] = time.split(':').map(Number);
  return hours * 60 + minutes;
};

let boards = 0;

/**
 * The board of departures at a pier: filtered, sorted, kept up to date by asking every half minute, and
 * blinking where a sailing has just changed.
 */
export default class DepartureBoard extends React.Component {
  static propTypes = {
    pier: PropTypes.string.isRequired,
    every: PropTypes.number,
    rows: PropTypes.number,
    onPick: PropTypes.func,
    onStale: PropTypes.func,
  };

  static defaultProps = {
    every: 30000,
    rows: 8,
  };

  id = `board-${++boards}`;
  state = {
    sailings: [],
    filter: '',
    sort: 'time',
    down: false,
    picked: null,
    failed: '',
    changed: [],
    page: 0,
  };

  timer = null;
  fades = new Map();
  field = React.createRef();
  requests = 0;

  componentDidMount() {
    this.load();
    this.timer = setInterval(() => this.load(), this.props.every);
    document.addEventListener('keydown', this.handleKey);
    document.addEventListener('visibilitychange', this.handleVisibility);
  }

  componentDidUpdate(prevProps, prevState) {
    if (prevProps.pier !== this.props.pier) {
      this.setState({ sailings: [], picked: null, page: 0 }, () => this.load());
    }
    if (prevProps.every !== this.props.every) {
      clearInterval(this.timer);
      this.timer = setInterval(() => this.load(), this.props.every);
    }
    if (prevState.filter !== this.state.filter && this.state.page !== 0) {
      this.setState({ page: 0 });
    }
  }

  componentWillUnmount() {
    clearInterval(this.timer);
    this.fades.forEach((fade) => clearTimeout(fade));
    this.fades.clear();
    document.removeEventListener('keydown', this.handleKey);
    document.removeEventListener('visibilitychange', this.handleVisibility);
  }

  handleKey = (event) => {
    if (event.key === '/' && document.activeElement !== this.field.current) {
      event.preventDefault();
      this.field.current.focus();
    } else if (event.key === 'Escape') {
      this.setState({ filter: '', picked: null });
    }
  };

  handleVisibility = () => {
    if (document.hidden) {
      clearInterval(this.timer);
      this.timer = null;
    } else if (!this.timer) {
      this.load();
      this.timer = setInterval(() => this.load(), this.props.every);
    }
  };

  handleFilter = (event) => {
    this.setState({ filter: event.target.value });
  };

  async load() {
    const request = ++this.requests;
    try {
      const reply = await fetch(`/departures?pier=${encodeURIComponent(this.props.pier)}`);
      if (!reply.ok) throw new Error(`the pier answered ${reply.status}`);
      const sailings = await reply.json();
      if (request !== this.requests) return;
      const before = new Map(this.state.sailings.map((sailing) => [sailing.id, sailing]));
      const changed = sailings
        .filter((sailing) => before.has(sailing.id) && before.get(sailing.id).state !== sailing.state)
        .map((sailing) => sailing.id);
      this.setState({ sailings, changed, failed: '' });
      changed.forEach((id) => this.fade(id));
    } catch (error) {
      if (request !== this.requests) return;
      this.setState({ failed: error.message });
      if (this.props.onStale) this.props.onStale(this.state.sailings.length);
    }
  }

  // A changed row blinks for three seconds
  fade(id) {
    clearTimeout(this.fades.get(id));
    this.fades.set(
      id,
      setTimeout(() => {
        this.fades.delete(id);
        this.setState((state) => ({ changed: state.changed.filter((one) => one !== id) }));
      }, 3000)
    );
  }

  sortBy(key) {
    this.setState((state) => ({ sort: key, down: state.sort === key ? !state.down : false }));
  }

  pick(sailing) {
    const picked = this.state.picked === sailing.id ? null : sailing.id;
    this.setState({ picked });
    if (this.props.onPick) this.props.onPick(picked ? sailing : null);
  }

  get shown() {
    const { sailings, filter, sort, down } = this.state;
    const needle = filter.trim().toLowerCase();
    const value = (sailing) => (sort === 'time' ? minutesOf(sailing.time) : String(sailing[sort]));
    return sailings
      .filter((sailing) => !needle || `${sailing.to} ${sailing.ship}`.toLowerCase().includes(needle))
      .sort((a, b) => (value(a) < value(b) ? -1 : value(a) > value(b) ? 1 : 0) * (down ? -1 : 1));
  }

  renderHead() {
    const { sort, down } = this.state;
    return (
      <tr>
        {COLUMNS.map(({ key, label }) => (
          <th key={key} aria-sort={sort === key ? (down ? 'descending' : 'ascending') : undefined}>
            <button type="button" onClick={() => this.sortBy(key)}>
              {label}
            </button>
          </th>
        ))}
      </tr>
    );
  }

  renderRow(sailing) {
    const { picked, changed } = this.state;
    const classes = ['sailing', sailing.state];
    if (changed.includes(sailing.id)) classes.push('changed');
    if (picked === sailing.id) classes.push('picked');
    return (
      <tr key={sailing.id} className={classes.join(' ')} onClick={() => this.pick(sailing)}>
        <td>{sailing.time}</td>
        <td>{sailing.to}</td>
        <td>{sailing.ship}</td>
        <td>{sailing.state === 'late' ? `late by ${sailing.late} min` : sailing.state}</td>
      </tr>
    );
  }

  render() {
    const { pier, rows } = this.props;
    const { filter, failed, page } = this.state;
    const shown = this.shown;
    const pages = Math.max(1, Math.ceil(shown.length / rows));

    return (
      <section id={this.id} className="board" aria-labelledby={`${this.id}-title`}>
        <h2 id={`${this.id}-title`}>Departures from {pier}</h2>
        <input ref={this.field} value={filter} onChange={this.handleFilter} placeholder="Where to?" />
        {failed && <p role="alert">{failed}</p>}
        <table>
          <thead>{this.renderHead()}</thead>
          <tbody>{shown.slice(page * rows, (page + 1) * rows).map((sailing) => this.renderRow(sailing))}</tbody>
        </table>
        {pages > 1 && (
          <nav aria-label="Pages">
            <button type="button" disabled={page === 0} onClick={() => this.setState({ page: page - 1 })}>
              back
            </button>
            {page + 1} of {pages}
            <button type="button" disabled={page + 1 >= pages} onClick={() => this.setState({ page: page + 1 })}>
              on
            </button>
          </nav>
        )}
      </section>
    );
  }
}
