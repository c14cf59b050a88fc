import { memo, useMemo, useState } from 'react';

const COLUMNS = ['route', 'adult', 'child'];

// Rows in the order of a column, which a click turns round.
function useSorting(rows, first) {
  const [column, setColumn] = useState(first);
  const [descending, setDescending] = useState(false);

  const sorted = useMemo(() => {
    const list = [...(rows || [])];
    list.sort((a, b) => (a[column] > b[column] ? 1 : -1));
    return descending ? list.reverse() : list;
  }, [rows, column, descending]);

  function sortBy(name) {
    if (column === name) setDescending(!descending);
    setColumn(name);
  }

  return { sorted, column, descending, sortBy };
}

function FareTable({ fares, currency, compact, onChoose }) {
  const [filter, setFilter] = useState('');
  const { sorted, column, descending, sortBy } = useSorting(fares, 'route');

  const shown = sorted.filter((fare) => fare.route.includes(filter));
  const price = (value) => `${value} ${currency || 'cr'}`;

  return (
    <div className="fares" data-compact={compact}>
      <input aria-label="Filter" value={filter} onChange={(event) => setFilter(event.target.value)} />
      <table>
        <thead>
          <tr>
            {COLUMNS.map((name) => (
              <th key={name} onClick={() => sortBy(name)}>
                {name}
                {name === column && (descending ? ' ↓' : ' ↑')}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {shown.map((fare) => (
            <tr key={fare.route} onClick={() => onChoose?.(fare.route)}>
              <td>{fare.route}</td>
              <td>{price(fare.adult)}</td>
              <td>{price(fare.child)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p>{shown.length} fares</p>
    </div>
  );
}

export default memo(FareTable);
