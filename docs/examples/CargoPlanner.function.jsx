import React, { memo, useCallback, useLayoutEffect, useReducer, useRef, useState } from 'react';

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
const Deck = memo(function Deck({ onDrop, deck, crates, children }) {
  const [over, setOver] = useState(false);

  const handleOver = (event) => {
    event.preventDefault();
    if (!over) setOver(true);
  };

  const handleLeave = () => setOver(false);

  const handleDrop = (event) => {
    event.preventDefault();
    setOver(false);
    onDrop(deck.id);
  };

  function load() {
    return crates.reduce((sum, crate) => sum + crate.weight, 0);
  }

  const free = deck.limit - load();
  return (
    <section
      className={over ? 'deck over' : 'deck'}
      onDragOver={handleOver}
      onDragLeave={handleLeave}
      onDrop={handleDrop}
    >
      <h4>
        {deck.name} <span className={free < 0 ? 'too-much' : undefined}>{free} kg free</span>
      </h4>
      <ul>{children}</ul>
    </section>
  );
});

const defaultCrates = [
  { id: 'c1', label: 'Wool', weight: 120, kind: 'dry', deck: 'main', turned: false },
  { id: 'c2', label: 'Slate', weight: 210, kind: 'heavy', deck: 'low', turned: false },
  { id: 'c3', label: 'Barley', weight: 90, kind: 'dry', deck: null, turned: true },
];

/**
 * Plans which crate goes on which deck. Every change can be taken back, and is saved a second after the
 * last one.
 */
export default function CargoPlanner({
  decks = CargoPlanner.decks,
  crates: cratesProp = defaultCrates,
  wait = 1000,
  onBalance,
  onSave,
}) {
  // One object, since a write may be of several fields, or of none.
  const [state, setState] = useReducer(
    (state, change) => {
      const patch = typeof change === 'function' ? change(state) : change;
      return patch == null ? state : { ...state, ...patch };
    },
    { crates: cratesProp, past: [], future: [], lifted: null, saved: 'as it was' }
  );
  const [save] = useState(() => debounce(saveNow, wait));
  const latestOnSave = useRef(onSave);
  latestOnSave.current = onSave;
  const latestState = useRef(state);
  latestState.current = state;

  useLayoutEffect(() => {
    window.addEventListener('keydown', handleKey);
    return () => {
      window.removeEventListener('keydown', handleKey);
      save.cancel();
    };
  }, []);

  const previousCrates = useRef(state.crates);
  useLayoutEffect(() => {
    if (previousCrates.current === state.crates) return;
    previousCrates.current = state.crates;
    save();
    if (onBalance) onBalance(balance());
  });

  const handleKey = (event) => {
    if (!event.ctrlKey) return;
    if (event.key === 'z') undo();
    if (event.key === 'y') redo();
  };

  const lift = useCallback((id) => {
    setState({ lifted: id });
  }, []);

  const drop = useCallback((deck) => {
    const { lifted } = latestState.current;
    if (lifted === null) return;
    change(lifted, { deck });
    setState({ lifted: null });
  }, []);

  const turn = useCallback((id) => {
    const crate = latestState.current.crates.find((one) => one.id === id);
    change(id, { turned: !crate.turned });
  }, []);

  function change(id, part) {
    setState((state) => ({
      crates: state.crates.map((crate) => (crate.id === id ? { ...crate, ...part } : crate)),
      past: [...state.past, state.crates],
      future: [],
    }));
  }

  function undo() {
    setState((state) => {
      if (state.past.length === 0) return null;
      const past = state.past.slice(0, -1);
      return { crates: state.past[past.length], past, future: [state.crates, ...state.future] };
    });
  }

  function redo() {
    setState((state) => {
      if (state.future.length === 0) return null;
      const [crates, ...future] = state.future;
      return { crates, past: [...state.past, state.crates], future };
    });
  }

  function saveNow() {
    const { crates } = latestState.current;
    setState({ saved: `${crates.filter((crate) => crate.deck).length} of ${crates.length} planned` });
    if (latestOnSave.current) latestOnSave.current(crates);
  }

  // How far the load is from the middle: nothing is best
  function balance() {
    return state.crates.reduce((sum, crate) => {
      const at = decks.findIndex((deck) => deck.id === crate.deck);
      return at < 0 ? sum : sum + (at % 2 ? -1 : 1) * crate.weight;
    }, 0);
  }

  function renderCrate(crate) {
    return <Crate key={crate.id} crate={crate} dragged={crate.id === state.lifted} onLift={lift} onTurn={turn} />;
  }

  const { crates, past, future, saved } = state;
  const on = (deck) => crates.filter((crate) => crate.deck === deck);

  return (
    <div className="planner">
      <header>
        <button disabled={past.length === 0} onClick={() => undo()}>
          take back
        </button>
        <button disabled={future.length === 0} onClick={() => redo()}>
          do again
        </button>
        <span>
          balance {balance()} · {saved}
        </span>
      </header>
      {decks.map((deck) => (
        <Deck key={deck.id} deck={deck} crates={on(deck.id)} onDrop={drop}>
          {on(deck.id).map((crate) => renderCrate(crate))}
        </Deck>
      ))}
      <aside>
        <h4>On the quay</h4>
        <ul>{on(null).map((crate) => renderCrate(crate))}</ul>
      </aside>
    </div>
  );
}

CargoPlanner.decks = [
  { id: 'main', name: 'Main deck', limit: 400 },
  { id: 'low', name: 'Lower deck', limit: 250 },
];
