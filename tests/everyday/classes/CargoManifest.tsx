import * as React from 'react';

export interface Crate {
  id: number;
  label: string;
  weight: number;
}

interface Props {
  crates: Crate[];
  limit: number;
  unit: 'kg' | 't';
  title?: React.ReactNode;
  onOver?: (by: number) => void;
}

interface State {
  query: string;
  order: keyof Crate;
  down: boolean;
}

export class CargoManifest extends React.Component<Props, State> {
  static defaultProps: Partial<Props> = { limit: 100, unit: 'kg', crates: [] };

  private field = React.createRef<HTMLInputElement>();
  private alive = false;
  private seen = new Set<number>();
  private timer: ReturnType<typeof setTimeout> | null = null;

  state: State = { query: '', order: 'id', down: false };

  componentDidMount() {
    this.alive = true;
    this.field.current?.focus();
    document.addEventListener('keydown', this.handleKey);
  }

  componentDidUpdate(prevProps: Props, prevState: State) {
    if (prevProps.crates !== this.props.crates && this.total > this.props.limit) {
      this.props.onOver?.(this.total - this.props.limit);
    }
    if (prevState.query !== this.state.query) {
      this.seen.clear();
    }
  }

  componentWillUnmount() {
    this.alive = false;
    document.removeEventListener('keydown', this.handleKey);
    if (this.timer) clearTimeout(this.timer);
  }

  get total(): number {
    return this.props.crates.reduce((sum, crate) => sum + crate.weight, 0);
  }

  handleKey = (event: KeyboardEvent) => {
    if (event.key === 'Escape') this.setState({ query: '' });
  };

  handleQuery = (event: React.ChangeEvent<HTMLInputElement>) => {
    this.setState({ query: event.target.value });
  };

  sortBy(order: keyof Crate) {
    this.setState((state) => ({ order, down: state.order === order ? !state.down : false }));
  }

  blink(id: number) {
    this.seen.add(id);
    this.timer = setTimeout(() => {
      if (this.alive) this.forceUpdate();
    }, 200);
  }

  render() {
    const { crates, limit, unit, title } = this.props;
    const { query, order, down } = this.state;
    const rows = crates
      .filter((crate) => crate.label.toLowerCase().includes(query.toLowerCase()))
      .sort((a, b) => (a[order] < b[order] ? -1 : 1) * (down ? -1 : 1));

    return (
      <section>
        {title && <h2>{title}</h2>}
        <input ref={this.field} value={query} onChange={this.handleQuery} aria-label="Find" />
        <table>
          <thead>
            <tr>
              <th onClick={() => this.sortBy('label')}>Crate</th>
              <th onClick={() => this.sortBy('weight')}>Weight ({unit})</th>
            </tr>
          </thead>
          <tbody>
            {rows.map((crate) => (
              <tr key={crate.id} onClick={() => this.blink(crate.id)} data-seen={this.seen.has(crate.id)}>
                <td>{crate.label}</td>
                <td>{crate.weight}</td>
              </tr>
            ))}
          </tbody>
        </table>
        <p className={this.total > limit ? 'over' : ''}>
          {this.total} of {limit} {unit}
        </p>
      </section>
    );
  }
}

export const EmptyManifest = () => <CargoManifest title="Nothing on board" />;

export default CargoManifest;
