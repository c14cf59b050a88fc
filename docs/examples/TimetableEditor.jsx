import React from 'react';

const DAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];
const blank = () => ({ time: '', days: [], note: '' });

/**
 * Edits the timetable of a crossing: sailings are added, changed and ordered; what clashes is marked, and
 * nothing is lost when the page is left by mistake.
 */
export default class TimetableEditor extends React.Component {
  displayName = 'TimetableEditor';

  static get defaultProps() {
    return { crossing: 'Skail – Holm', gap: 20, storage: 'timetable' };
  }

  constructor(props) {
    super(props);
    this.state = {
      sailings: props.sailings || [],
      draft: blank(),
      editing: null,
      dirty: false,
      said: '',
      open: {},
    };
    this.rows = {};
    this.next = 1;
    const self = this;
    this.closeAll = function () {
      self.state.sailings.forEach(function (sailing) {
        this.fold(sailing.id, false);
      }, self);
    };
  }

  componentDidMount = () => {
    const stored = window.localStorage.getItem(this.props.storage);
    if (stored) {
      this.setState({ sailings: JSON.parse(stored), dirty: true }, function () {
        this.say(`${this.state.sailings.length} sailings found again`);
      });
    }
    window.addEventListener('beforeunload', this.keep);
  };

  componentDidUpdate = (previousProps, previousState) => {
    if (previousState.sailings !== this.state.sailings) {
      this.keep();
      if (this.props.onChange) this.props.onChange(this.state.sailings, this.clashes.length);
    }
    if (previousState.editing !== this.state.editing && this.state.editing !== null) {
      const row = this.rows[this.state.editing];
      if (row) row.focus();
    }
    if (previousProps.crossing !== this.props.crossing) {
      this.setState({ draft: blank(), editing: null });
    }
  };

  componentWillUnmount = () => {
    clearTimeout(this.quiet);
    window.removeEventListener('beforeunload', this.keep);
  };

  get clashes() {
    const { sailings } = this.state;
    const { gap } = this.props;
    return sailings.filter((one) =>
      sailings.some(
        (other) =>
          other.id !== one.id &&
          other.days.some((day) => one.days.includes(day)) &&
          Math.abs(this.minutes(other) - this.minutes(one)) < gap
      )
    );
  }

  get note() {
    return this.state.draft.note;
  }

  set note(note) {
    this.setState({ draft: { ...this.state.draft, note: note.slice(0, 40) } });
  }

  minutes({ time }) {
    const [hours, minutes] = time.split(':').map(Number);
    return hours * 60 + (minutes || 0);
  }

  keep = () => {
    window.localStorage.setItem(this.props.storage, JSON.stringify(this.state.sailings));
  };

  say(said) {
    clearTimeout(this.quiet);
    this.setState({ said });
    this.quiet = setTimeout(
      function () {
        this.setState({ said: '' });
      }.bind(this),
      4000
    );
  }

  fold(id, open = !this.state.open[id]) {
    this.setState((state) => ({ open: { ...state.open, [id]: open } }));
  }

  toggleDay(day) {
    const { draft } = this.state;
    const days = draft.days.includes(day) ? draft.days.filter((one) => one !== day) : [...draft.days, day];
    this.setState({ draft: { ...draft, days } });
  }

  edit(sailing) {
    const { id, ...draft } = sailing;
    this.setState({ draft, editing: id });
  }

  submit = (event) => {
    event.preventDefault();
    const { draft, editing } = this.state;
    if (!/^\d{1,2}:\d{2}$/.test(draft.time) || draft.days.length === 0) {
      this.say('A time and a day, please');
      return;
    }
    const id = editing === null ? this.next++ : editing;
    const others = this.state.sailings.filter((sailing) => sailing.id !== id);
    const sailings = [...others, { ...draft, id }].sort((a, b) => this.minutes(a) - this.minutes(b));
    this.setState({ sailings, draft: blank(), editing: null, dirty: true }, () => {
      this.say(`${this.state.sailings.length} sailings, ${this.clashes.length} clash`);
    });
  };

  remove(id) {
    this.setState({ sailings: this.state.sailings.filter((sailing) => sailing.id !== id), dirty: true });
    if (this.state.editing === id) this.setState({ draft: blank(), editing: null });
  }

  renderDay(day) {
    const chosen = this.state.draft.days.includes(day);
    return (
      <button key={day} type="button" aria-pressed={chosen} onClick={this.toggleDay.bind(this, day)}>
        {day}
      </button>
    );
  }

  renderSailing(sailing) {
    const open = Boolean(this.state.open[sailing.id]);
    const clashes = this.clashes.some((one) => one.id === sailing.id);
    return (
      <li key={sailing.id} className={clashes ? 'clash' : undefined}>
        <button
          type="button"
          ref={(row) => { this.rows[sailing.id] = row; }}
          aria-expanded={open}
          onClick={() => this.fold(sailing.id)}
        >
          {sailing.time}
        </button>
        {open && (
          <p>
            {sailing.days.join(', ')} {sailing.note}
            <button type="button" onClick={() => this.edit(sailing)}>change</button>
            <button type="button" onClick={() => this.remove(sailing.id)}>remove</button>
          </p>
        )}
      </li>
    );
  }

  render = () => {
    const { crossing } = this.props;
    const { sailings, draft, editing, dirty, said } = this.state;
    return (
      <form onSubmit={this.submit}>
        <h3>
          {crossing} {dirty && '•'}
        </h3>
        <ol>{sailings.map(this.renderSailing, this)}</ol>
        <fieldset>
          <legend>{editing === null ? 'A new sailing' : 'Change it'}</legend>
          <input
            value={draft.time}
            placeholder="7:30"
            onChange={({ target }) => this.setState({ draft: { ...this.state.draft, time: target.value } })}
          />
          {DAYS.map(this.renderDay, this)}
          <input value={this.note} onChange={(event) => (this.note = event.target.value)} />
          <button>{editing === null ? 'add' : 'change'}</button>
        </fieldset>
        <button type="button" onClick={this.closeAll}>fold all</button>
        <p role="status">{said}</p>
      </form>
    );
  };
}
