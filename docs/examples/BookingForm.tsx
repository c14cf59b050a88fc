import React, { ChangeEvent, FormEvent, ReactNode } from 'react';

export type Kind = 'adult' | 'child' | 'bike';

export interface Passenger {
  id: number;
  name: string;
  kind: Kind;
}

export interface Booking {
  sailing: string;
  passengers: Passenger[];
  mail: string;
  total: number;
}

interface Props {
  sailings: { id: string; label: string; seats: number }[];
  prices: Record<Kind, number>;
  most: number;
  initial?: Partial<Booking>;
  title?: ReactNode;
  onBook: (booking: Booking) => Promise<string>;
  onChange?: (total: number) => void;
}

interface State {
  sailing: string;
  passengers: Passenger[];
  mail: string;
  errors: Partial<Record<'sailing' | 'passengers' | 'mail' | 'all', string>>;
  sending: boolean;
  reference: string;
  touched: boolean;
}

const KINDS: Kind[] = ['adult', 'child', 'bike'];

/** Books places on a sailing: who comes along, what it costs, and where the tickets go. */
export class BookingForm extends React.Component<Props, State> {
  static defaultProps: Pick<Props, 'most' | 'prices'> = {
    most: 9,
    prices: { adult: 12, child: 6, bike: 3 },
  };

  private mounted = false;
  private next = 1;
  private mailField = React.createRef<HTMLInputElement>();
  private summary: HTMLParagraphElement | null = null;
  private saved: ReturnType<typeof setTimeout> | null = null;

  constructor(props: Props) {
    super(props);
    this.state = {
      sailing: '',
      passengers: [],
      mail: '',
      ...props.initial,
      errors: {},
      sending: false,
      reference: '',
      touched: false,
    };
    this.handleSubmit = this.handleSubmit.bind(this);
  }

  componentDidMount() {
    this.mounted = true;
    window.addEventListener('beforeunload', this.warn);
  }

  componentDidUpdate(prevProps: Props, prevState: State) {
    if (prevState.passengers !== this.state.passengers || prevProps.prices !== this.props.prices) {
      this.props.onChange?.(this.total);
    }
    if (prevState.reference !== this.state.reference && this.summary) {
      this.summary.scrollIntoView?.();
    }
  }

  componentWillUnmount() {
    this.mounted = false;
    window.removeEventListener('beforeunload', this.warn);
    if (this.saved) clearTimeout(this.saved);
  }

  get total(): number {
    return this.state.passengers.reduce((sum, one) => sum + this.props.prices[one.kind], 0);
  }

  warn = (event: BeforeUnloadEvent) => {
    if (this.state.touched && !this.state.reference) event.preventDefault();
  };

  handleSailing = (event: ChangeEvent<HTMLSelectElement>) => {
    this.setState({ sailing: event.target.value, touched: true });
  };

  handleMail = (event: ChangeEvent<HTMLInputElement>) => {
    this.setState({ mail: event.target.value, touched: true });
  };

  addPassenger = () => {
    if (this.state.passengers.length >= this.props.most) {
      this.setState({ errors: { passengers: `No more than ${this.props.most}` } });
      return;
    }
    const passenger: Passenger = { id: this.next++, name: '', kind: 'adult' };
    this.setState({ passengers: [...this.state.passengers, passenger], touched: true });
  };

  change(id: number, part: Partial<Passenger>) {
    this.setState({
      passengers: this.state.passengers.map((one) => (one.id === id ? { ...one, ...part } : one)),
      touched: true,
    });
  }

  remove(id: number) {
    this.setState((state) => ({ passengers: state.passengers.filter((one) => one.id !== id) }));
  }

  validate(): State['errors'] {
    const errors: State['errors'] = {};
    const { sailing, passengers, mail } = this.state;
    const chosen = this.props.sailings.find((one) => one.id === sailing);
    if (!chosen) errors.sailing = 'Choose a sailing';
    else if (chosen.seats < passengers.length) errors.sailing = `Only ${chosen.seats} places left`;
    if (passengers.length === 0) errors.passengers = 'Nobody comes along';
    else if (passengers.some((one) => !one.name.trim())) errors.passengers = 'A name for everybody, please';
    if (!/^\S+@\S+$/.test(mail)) errors.mail = 'Where should the tickets go?';
    return errors;
  }

  async handleSubmit(event: FormEvent) {
    event.preventDefault();
    const errors = this.validate();
    this.setState({ errors });
    if (errors.mail) this.mailField.current?.focus();
    if (Object.keys(errors).length > 0) return;
    this.setState({ sending: true });
    const { sailing, passengers, mail } = this.state;
    try {
      const reference = await this.props.onBook({ sailing, passengers, mail, total: this.total });
      if (this.mounted) this.setState({ reference, touched: false });
    } catch (error) {
      if (this.mounted) this.setState({ errors: { all: error instanceof Error ? error.message : 'Not booked' } });
    } finally {
      if (this.mounted) this.setState({ sending: false });
    }
  }

  renderPassenger(passenger: Passenger, index: number) {
    return (
      <li key={passenger.id}>
        <input
          value={passenger.name}
          aria-label={`Name of passenger ${index + 1}`}
          onChange={(event) => this.change(passenger.id, { name: event.target.value })}
        />
        <select
          value={passenger.kind}
          aria-label="Kind"
          onChange={(event) => this.change(passenger.id, { kind: event.target.value as Kind })}
        >
          {KINDS.map((kind) => (
            <option key={kind} value={kind}>
              {kind} ({this.props.prices[kind]})
            </option>
          ))}
        </select>
        <button type="button" onClick={() => this.remove(passenger.id)}>
          remove
        </button>
      </li>
    );
  }

  render() {
    const { sailings, title } = this.props;
    const { sailing, passengers, mail, errors, sending, reference } = this.state;
    if (reference) {
      return (
        <p ref={(node) => { this.summary = node; }}>
          Booked: {reference}, {this.total} in all
        </p>
      );
    }
    return (
      <form onSubmit={this.handleSubmit} noValidate>
        {title && <h3>{title}</h3>}
        <select value={sailing} onChange={this.handleSailing} aria-label="Sailing">
          <option value="">…</option>
          {sailings.map((one) => (
            <option key={one.id} value={one.id}>
              {one.label}
            </option>
          ))}
        </select>
        {errors.sailing && <em>{errors.sailing}</em>}
        <ol>{passengers.map((passenger, index) => this.renderPassenger(passenger, index))}</ol>
        {errors.passengers && <em>{errors.passengers}</em>}
        <button type="button" onClick={this.addPassenger}>
          add a passenger
        </button>
        <input ref={this.mailField} type="email" value={mail} onChange={this.handleMail} aria-invalid={!!errors.mail} />
        {errors.mail && <em>{errors.mail}</em>}
        {errors.all && <p role="alert">{errors.all}</p>}
        <button disabled={sending}>{sending ? 'Booking…' : `Book for ${this.total}`}</button>
      </form>
    );
  }
}

export default BookingForm;
