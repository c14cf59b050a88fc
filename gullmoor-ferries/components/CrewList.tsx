import React, { Component, ReactNode } from 'react';

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
export default class CrewList<T extends Person> extends Component<CrewListProps<T>, CrewListState> {
  state: CrewListState = { by: 'name', query: this.props.query ?? '' };

  // A method may be called like a word of the language.
  delete = (person: T) => {
    if (this.props.delete) this.props.delete(person);
  };

  sorted() {
    const { by, query } = this.state;
    const wanted = query.toLowerCase();
    return this.props.crew
      .filter((person) => person.name.toLowerCase().includes(wanted))
      .sort((a, b) => a[by].localeCompare(b[by]));
  }

  row(person: T) {
    return (
      <tr key={person.id}>
        <td>{this.props.render ? this.props.render(person) : person.name}</td>
        <td>{person.rank}</td>
        <td>
          <button onClick={() => this.delete(person)}>Stand down</button>
        </td>
      </tr>
    );
  }

  render() {
    const { by } = this.state;
    return (
      <div>
        <input type="search" value={this.state.query} onChange={(e) => this.setState({ query: e.target.value })} />
        <button disabled={by === 'name'} onClick={() => this.setState({ by: 'name' })}>By name</button>
        <button disabled={by === 'rank'} onClick={() => this.setState({ by: 'rank' })}>By rank</button>
        <table>
          <tbody>{this.sorted().map((person) => this.row(person))}</tbody>
        </table>
      </div>
    );
  }
}
