import React, { PureComponent } from 'react';

function debounce(run, wait) {
  let timer;
  function later(...values) {
    clearTimeout(timer);
    timer = setTimeout(() => run.apply(this, values), wait);
  }
  later.cancel = () => clearTimeout(timer);
  return later;
}

const Crate = React.memo(function Crate({ crate, dragged, onLift, onTurn }) {
  const classes = ['crate', crate.kind, dragged ? 'lifted' : ''].filter(Boolean);
  return (
    <li className={classes.join(' ')} draggable onDragStart={() => onLift(crate.id)}>
      {crate.label} <small>{crate.weight} kg</small>
      <button onClick={() => onTurn(crate.id)}>{crate.turned ? 'lengthwise' : 'crosswise'}</button>
    </li>
  );
});

// What stands on a deck, with what is still free
class Deck extends PureComponent {
  state = { over: false };

  handleOver = (event) => {
    event.preventDefault();
    if (!this.state.over) this.setState({ over: true });
  };

  handleLeave = () => this.setState({ over: false });

  handleDrop = (event) => {
    event.preventDefault();
    this.setState({ over: false });
    this.props.onDrop(this.props.deck.id);
  };

  get load() {
    return this.props.crates.reduce((sum, crate) => sum + crate.weight, 0);
  }

  render() {
    const { deck, children } = this.props;
    const free = deck.limit - this.load;
    return (
      <section
        className={this.state.over ? 'deck over' : 'deck'}
        onDragOver={this.handleOver}
        onDragLeave={this.handleLeave}
        onDrop={this.handleDrop}
      >
        <h4>
          {deck.name} <span className={free < 0 ? 'too-much' : undefined}>{free} kg free</span>
        </h4>
        <ul>{children}</ul>
      </section>
    );
  }
}

/**
 * Plans which crate goes on which deck. Every change can be taken back, and is saved a second after the
 * last one.
 */
export default class CargoPlanner extends React.Component {
  static decks = [
    { id: 'main', name: 'Main deck', limit: 400 },
    { id: 'low', name: 'Lower deck', limit: 250 },
  ];

  static defaultProps = {
    decks: CargoPlanner.decks,
    crates: [
      { id: 'c1', label: 'Wool', weight: 120, kind: 'dry', deck: 'main', turned: false },
      { id: 'c2', label: 'Slate', weight: 210, kind: 'heavy', deck: 'low', turned: false },
      { id: 'c3', label: 'Barley', weight: 90, kind: 'dry', deck: null, turned: true },
    ],
    wait: 1000,
  };

  constructor(props) {
    super(props);
    this.state = { crates: props.crates, past: [], future: [], lifted: null, saved: 'as it was' };
    this.save = debounce(this.save.bind(this), props.wait);
    this.lift = this.lift.bind(this);
    this.drop = this.drop.bind(this);
  }

  componentDidMount() {
    window.addEventListener('keydown', this.handleKey);
  }

  componentDidUpdate(prevProps, prevState) {
    if (prevState.crates !== this.state.crates) {
      this.save();
      if (this.props.onBalance) this.props.onBalance(this.balance());
    }
  }

  componentWillUnmount() {
    window.removeEventListener('keydown', this.handleKey);
    this.save.cancel();
  }

  handleKey = (event) => {
    if (!event.ctrlKey) return;
    if (event.key === 'z') this.undo();
    if (event.key === 'y') this.redo();
  };

  lift(id) {
    this.setState({ lifted: id });
  }

  drop(deck) {
    const { lifted } = this.state;
    if (lifted === null) return;
    this.change(lifted, { deck });
    this.setState({ lifted: null });
  }

  turn = (id) => {
    const crate = this.state.crates.find((one) => one.id === id);
    this.change(id, { turned: !crate.turned });
  };

  change(id, part) {
    this.setState((state) => ({
      crates: state.crates.map((crate) => (crate.id === id ? { ...crate, ...part } : crate)),
      past: [...state.past, state.crates],
      future: [],
    }));
  }

  undo() {
    this.setState((state) => {
      if (state.past.length === 0) return null;
      const past = state.past.slice(0, -1);
      return { crates: state.past[past.length], past, future: [state.crates, ...state.future] };
    });
  }

  redo() {
    this.setState((state) => {
      if (state.future.length === 0) return null;
      const [crates, ...future] = state.future;
      return { crates, past: [...state.past, state.crates], future };
    });
  }

  save() {
    const { crates } = this.state;
    this.setState({ saved: `${crates.filter((crate) => crate.deck).length} of ${crates.length} planned` });
    if (this.props.onSave) this.props.onSave(crates);
  }

  // How far the load is from the middle: nothing is best
  balance() {
    const { decks } = this.props;
    return this.state.crates.reduce((sum, crate) => {
      const at = decks.findIndex((deck) => deck.id === crate.deck);
      return at < 0 ? sum : sum + (at % 2 ? -1 : 1) * crate.weight;
    }, 0);
  }

  renderCrate(crate) {
    return (
      <Crate
        key={crate.id}
        crate={crate}
        dragged={crate.id === this.state.lifted}
        onLift={this.lift}
        onTurn={this.turn}
      />
    );
  }

  render() {
    const { decks } = this.props;
    const { crates, past, future, saved } = this.state;
    const on = (deck) => crates.filter((crate) => crate.deck === deck);

    return (
      <div className="planner">
        <header>
          <button disabled={past.length === 0} onClick={() => this.undo()}>
            take back
          </button>
          <button disabled={future.length === 0} onClick={() => this.redo()}>
            do again
          </button>
          <span>
            balance {this.balance()} · {saved}
          </span>
        </header>
        {decks.map((deck) => (
          <Deck key={deck.id} deck={deck} crates={on(deck.id)} onDrop={this.drop}>
            {on(deck.id).map((crate) => this.renderCrate(crate))}
          </Deck>
        ))}
        <aside>
          <h4>On the quay</h4>
          <ul>{on(null).map((crate) => this.renderCrate(crate))}</ul>
        </aside>
      </div>
    );
  }
}
