import React, { ReactNode, useState } from 'react';

interface Person {
  id: number;
  name: string;
  rank: string;
}

interface CrewListProps<T extends Person> {
  crew: T[];
  delete?: (person: T) => void;
  render?: (person: T) => ReactNode;
  query?: string;
}

interface CrewListState {
  by: 'name' | 'rank';
  query: string;
}

/** Who is on duty; sorted, searched, and drawn by whoever knows better. */
export default function CrewList<T extends Person>({ query: queryProp, delete: deleteProp, crew, render }: CrewListProps<T>) {
  const [by, setBy] = useState<CrewListState['by']>('name');
  const [query, setQuery] = useState<CrewListState['query']>(queryProp ?? '');

  // A method may be called like a word of the language.
  const handleDelete = (person: T) => {
    if (deleteProp) deleteProp(person);
  };

  function sorted() {
    const wanted = query.toLowerCase();
    return crew
      .filter((person) => person.name.toLowerCase().includes(wanted))
      .sort((a, b) => a[by].localeCompare(b[by]));
  }

  function row(person: T) {
    return (
      <tr key={person.id}>
        <td>{render ? render(person) : person.name}</td>
        <td>{person.rank}</td>
        <td>
          <button onClick={() => handleDelete(person)}>Stand down</button>
        </td>
      </tr>
    );
  }

  return (
    <div>
      <input type="search" value={query} onChange={(e) => setQuery(e.target.value)} />
      <button disabled={by === 'name'} onClick={() => setBy('name')}>By name</button>
      <button disabled={by === 'rank'} onClick={() => setBy('rank')}>By rank</button>
      <table>
        <tbody>{sorted().map((person) => row(person))}</tbody>
      </table>
    </div>
  );
}
