import { useEffect, useLayoutEffect, useRef, useState } from 'react';
import PropTypes from 'prop-types';

const DECKS = [
  { id: 'a', name: 'Upper' },
  { id: 'b', name: 'Car' },
];

const DeckPicker = ({ decks = DECKS, value, onChange, onReady }) => {
  const [plan, setPlan] = useState({ deck: '', rows: [] });
  const [updates, setUpdates] = useState(0);
  const list = useRef(null);
  const chosen = useRef(0);

  const index = decks.findIndex((deck) => deck.id === value);

  useLayoutEffect(() => {
    list.current.dataset.ready = 'yes';
  }, []);

  useEffect(() => {
    onReady?.();
  }, []);

  useEffect(() => {
    const deck = decks.find((one) => one.id === value);
    if (deck) setPlan({ deck: value, rows: [] });
  }, [value]);

  const choose = (deck) => {
    chosen.current += 1;
    onChange?.(deck.id);
    setPlan({ deck: deck.id, rows: [1, 2, 3].map((row) => `${deck.name} ${row}`) });
  };

  const onKey = (event) => {
    let by = 0;
    if (event.key === 'ArrowDown') by = 1;
    else if (event.key === 'ArrowUp') by = -1;
    else return;
    event.preventDefault();
    choose(decks[(index + by + decks.length) % decks.length]);
  };

  return (
    <div ref={list} className="deck-picker" role="listbox" onKeyDown={onKey}>
      {decks.map((deck, at) => (
        <button
          key={deck.id}
          type="button"
          role="option"
          aria-selected={at === index}
          onClick={() => choose(deck)}
        >
          {deck.name}
        </button>
      ))}
      {plan.rows.length ? (
        <ul>
          {plan.rows.map((row) => (
            <li key={row}>{row}</li>
          ))}
        </ul>
      ) : (
        <p>No plan for {plan.deck || 'any deck'}</p>
      )}
      <button type="button" onClick={() => setUpdates(updates + 1)}>
        {updates}
      </button>
    </div>
  );
};

DeckPicker.propTypes = {
  decks: PropTypes.arrayOf(PropTypes.shape({ id: PropTypes.string.isRequired, name: PropTypes.string.isRequired })),
  value: PropTypes.string,
  onChange: PropTypes.func,
  onReady: PropTypes.func,
};

export default DeckPicker;
