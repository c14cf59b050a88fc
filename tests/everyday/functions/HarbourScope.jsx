import { createContext, useCallback, useContext, useState } from 'react';

export const LanguageContext = createContext('en');

const WORDS = { en: { pier: 'Pier' }, da: { pier: 'Brygge' } };

export default function HarbourScope({ harbour, piers = [], onChoose }) {
  const language = useContext(LanguageContext);
  const [current, setCurrent] = useState(0);
  const [night, setNight] = useState(false);

  const words = WORDS[language] || WORDS.en;

  const choose = useCallback(
    (index) => {
      if (index < 0 || index >= piers.length) return;
      setCurrent(index);
      onChoose?.(piers[index]);
    },
    [piers, onChoose],
  );

  return (
    <main className={night ? 'night' : ''}>
      <h1>{harbour}</h1>
      <nav>
        {piers.map((pier, index) => (
          <button key={pier} type="button" aria-pressed={index === current} onClick={() => choose(index)}>
            {words.pier} {pier}
          </button>
        ))}
      </nav>
      <label>
        <input type="checkbox" checked={night} onChange={() => setNight(!night)} /> Night
      </label>
    </main>
  );
}
