import React, { Component } from 'react';

/**
 * What has to be on board before the ramp goes up.
 */
class CargoChecklist extends Component {
  constructor(props) {
    super(props);
    this.state = {
      // ids of what is on board
      loaded: [],
      filter: 'all',
      draft: '',
      extra: [],
    };
    this.nextId = 1;
    this.add = this.add.bind(this);
    this.toggle = this.toggle.bind(this);
  }

  componentDidMount() {
    if (this.props.autoFocus && this.input) {
      this.input.focus();
    }
  }

  add(event) {
    event.preventDefault();
    const { draft, extra } = this.state;
    const name = draft.trim();
    if (!name) return;
    const id = `extra-${this.nextId++}`;
    this.setState({ extra: [...extra, { id, name }], draft: '' });
  }

  toggle(id) {
    this.setState((state) => ({
      loaded: state.loaded.includes(id) ? state.loaded.filter((other) => other !== id) : [...state.loaded, id],
    }));
  }

  visible() {
    const { items } = this.props;
    const { extra, filter, loaded } = this.state;
    const all = [...items, ...extra];
    switch (filter) {
      case 'open':
        return all.filter((item) => !loaded.includes(item.id));
      case 'done':
        return all.filter((item) => loaded.includes(item.id));
      default:
        return all;
    }
  }

  render() {
    const { loaded, draft, filter } = this.state;
    const items = this.visible();
    return (
      <section className="cargo">
        <h3>{this.props.title}</h3>
        <select aria-label="Show" value={filter} onChange={(e) => this.setState({ filter: e.target.value })}>
          <option value="all">All</option>
          <option value="open">Open</option>
          <option value="done">On board</option>
        </select>
        <ul>
          {items.map(({ id, name }) => (
            <li key={id}>
              <label>
                <input type="checkbox" checked={loaded.includes(id)} onChange={() => this.toggle(id)} /> {name}
              </label>
            </li>
          ))}
        </ul>
        <form onSubmit={this.add}>
          <input
            ref={(el) => { this.input = el; }}
            aria-label="Add"
            value={draft}
            onChange={(e) => this.setState({ draft: e.target.value })}
          />
          <button>Add</button>
        </form>
        <p>
          {loaded.length} of {this.props.items.length + this.state.extra.length} on board
        </p>
      </section>
    );
  }
}

CargoChecklist.defaultProps = { title: 'Cargo', items: [] };

export default CargoChecklist;
