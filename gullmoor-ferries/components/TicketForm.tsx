import React, { ChangeEvent, FormEvent } from 'react';

type Fare = 'adult' | 'child' | 'bike';

type Props = {
  sailing: string;
  seats: number;
  onBook: (order: { sailing: string; name: string; fare: Fare; count: number }) => void;
  onBooked?: (reference: string) => void;
};

type State = {
  name: string;
  fare: Fare;
  count: number;
  errors: string[];
  sending: boolean;
};

export default class TicketForm extends React.Component<Props, State> {
  static displayName = 'TicketForm';

  #sent = 0;

  constructor(props: Props) {
    super(props);
    this.state = { name: '', fare: 'adult', count: 1, errors: [], sending: false };
    this.submit = this.submit.bind(this);
  }

  check(): string[] {
    const { name, count } = this.state;
    const errors: string[] = [];
    if (!name.trim()) errors.push('Who travels?');
    if (count < 1) errors.push('At least one ticket');
    if (count > this.props.seats) errors.push(`Only ${this.props.seats} left`);
    return errors;
  }

  async submit(event: FormEvent) {
    event.preventDefault();
    const errors = this.check();
    this.setState({ errors });
    if (errors.length > 0) return;
    const { name, fare, count } = this.state;
    this.#sent += 1;
    this.setState({ sending: true });
    this.props.onBook({ sailing: this.props.sailing, name, fare, count });
    const reply = await fetch('/api/tickets', { method: 'POST', body: JSON.stringify({ name, fare, count, sent: this.#sent }) });
    const { reference } = await reply.json();
    // whoever listens by now
    this.props.onBooked?.(`${reference} ${this.props.sailing} ${this.state.name}`);
    this.setState({ sending: false, count: 1 });
  }

  render() {
    const { name, fare, count, errors, sending } = this.state;
    return (
      <form onSubmit={this.submit} aria-busy={sending}>
        <label>
          Name <input value={name} onChange={(e: ChangeEvent<HTMLInputElement>) => this.setState({ name: e.target.value })} />
        </label>
        <label>
          Fare{' '}
          <select value={fare} onChange={(e) => this.setState({ fare: e.target.value as Fare })}>
            <option value="adult">Adult</option>
            <option value="child">Child</option>
            <option value="bike">Bike</option>
          </select>
        </label>
        <button type="button" onClick={() => this.setState({ count: count - 1 })}>−</button>
        <output>{count}</output>
        <button type="button" onClick={() => this.setState({ count: count + 1 })}>+</button>
        {errors.length > 0 && (
          <ul role="alert">
            {errors.map((error) => <li key={error}>{error}</li>)}
          </ul>
        )}
        <button disabled={sending}>Book</button>
      </form>
    );
  }
}
