import { useReducer, useState } from 'react';

interface Row {
  id: number;
  name: string;
  weight: number;
  loaded: boolean;
}

type Action =
  | { type: 'add'; name: string; weight: number }
  | { type: 'toggle'; id: number }
  | { type: 'remove'; id: number };

interface CargoLedgerProps {
  vessel: string;
  limit?: number;
  start?: Row[];
  onFull?: (over: number) => void;
}

function reduce(rows: Row[], action: Action): Row[] {
  switch (action.type) {
    case 'add':
      return [...rows, { id: rows.length + 100, name: action.name, weight: action.weight, loaded: false }];
    case 'toggle':
      return rows.map((row) => (row.id === action.id ? { ...row, loaded: !row.loaded } : row));
    case 'remove':
      return rows.filter((row) => row.id !== action.id);
    default:
      return rows;
  }
}

export default function CargoLedger({ vessel, limit = 1000, start = [], onFull }: CargoLedgerProps) {
  const [rows, dispatch] = useReducer(reduce, start);
  const [draft, setDraft] = useState('');
  const [weight, setWeight] = useState<number>(10);

  const loaded = rows.filter((row) => row.loaded).reduce((sum, row) => sum + row.weight, 0);
  const over = Math.max(0, loaded - limit);

  function add() {
    const name = draft.trim();
    if (!name) return;
    dispatch({ type: 'add', name, weight });
    setDraft('');
  }

  function toggle(row: Row) {
    dispatch({ type: 'toggle', id: row.id });
    const next = row.loaded ? loaded - row.weight : loaded + row.weight;
    if (next > limit) onFull?.(next - limit);
  }

  return (
    <section className={over > 0 ? 'ledger over' : 'ledger'}>
      <h3>
        {vessel} · {loaded} of {limit} kg
      </h3>
      <ul>
        {rows.map((row, index) => (
          <li key={row.id}>
            {index + 1}. {row.name} ({row.weight} kg)
            <input type="checkbox" checked={row.loaded} onChange={() => toggle(row)} />
            <button type="button" onClick={() => dispatch({ type: 'remove', id: row.id })}>
              ×
            </button>
          </li>
        ))}
      </ul>
      {over > 0 ? <p>{over} kg too much</p> : null}
      <input value={draft} onChange={(event) => setDraft(event.target.value)} placeholder="What is loaded?" />
      <input type="number" value={weight} onChange={(event) => setWeight(Number(event.target.value))} />
      <button type="button" onClick={add}>
        Add
      </button>
    </section>
  );
}
