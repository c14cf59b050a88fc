import { useLayoutEffect, useState } from 'react';

const NONE = [];

export default function SailingSearch({ sailings = NONE, home = 'Holm', onSearch, onPick, className, ...others }) {
  const [from, setFrom] = useState(home);
  const [typed, setTyped] = useState('');
  const [direct, setDirect] = useState(false);
  const to = typed.trim();

  useLayoutEffect(() => setFrom(home), [home]);

  const piers = [...new Set(sailings.map((sailing) => sailing.from))].sort();
  const matching = sailings.filter(
    (sailing) =>
      sailing.from === from &&
      sailing.to.toLowerCase().startsWith(to.toLowerCase()) &&
      (!direct || !sailing.via)
  );

  function search(event) {
    event.preventDefault();
    onSearch?.({ from, to, direct });
  }

  return (
    <form {...others} className={['search', className].filter(Boolean).join(' ')} onSubmit={search}>
      <label>
        {' From '}
        <select value={from} onChange={(event) => setFrom(event.target.value)}>
          {piers.map((pier) => <option key={pier} value={pier}>{pier}</option>)}
        </select>
      </label>
      <label>
        {'To '}
        <input
          placeholder="any pier"
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
          onBlur={() => setTyped(to)}
        />
      </label>
      <label>
        <input type="checkbox" checked={direct} onChange={(event) => setDirect(event.target.checked)} /> direct only
      </label>
      <button disabled={!from}>Search</button>
      {matching.length ? (
        <ol>
          {matching.map((sailing, index) => (
            <li key={sailing.id} className={index === 0 ? 'first' : undefined}>
              {sailing.at} to {sailing.to}{' '}
              <button type="button" onClick={() => onPick?.(sailing)}>Pick</button>
            </li>
          ))}
        </ol>
      ) : (
        <p>No sailings</p>
      )}
    </form>
  );
}
