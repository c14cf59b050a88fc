import { Fragment, useMemo, useState } from 'react';

type Person = { id: number; name: string; rank: string };

function Row({ person, shown, onStandDown }: { person: Person; shown: any; onStandDown: () => void }) {
  return (
    <tr>
      <td>{shown}</td>
      <td>{person.rank}</td>
      <td><button onClick={onStandDown}>Stand down</button></td>
    </tr>
  );
}

export default function Crew(props: any) {
  const [sorting, setSorting] = useState<{ by: 'name' | 'rank' }>({ by: 'name' });
  const [query, setQuery] = useState<string>(() => props.query ?? '');
  const rows: Person[] = useMemo(() => {
    const wanted = query.toLowerCase();
    const found = props.crew.filter((p: Person) => p.name.toLowerCase().indexOf(wanted) >= 0);
    found.sort((a: Person, b: Person) => a[sorting.by].localeCompare(b[sorting.by]));
    return found;
  }, [props.crew, query, sorting.by]);
  return (
    <div>
      <Fragment>
        <input type="search" value={query} onChange={(e) => setQuery(e.target.value)} />
        {(['name', 'rank'] as const).map((by) => (
          <button key={by} disabled={sorting.by === by} onClick={() => setSorting({ by })}>By {by}</button>
        ))}
      </Fragment>
      <table>
        <tbody>
          {rows.map((person) => (
            <Row
              key={person.id}
              person={person}
              shown={props.render ? props.render(person) : person.name}
              onStandDown={() => props.delete?.(person)}
            />
          ))}
        </tbody>
      </table>
    </div>
  );
}
