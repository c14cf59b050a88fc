import React, { ChangeEvent, FormEvent, ReactNode, useLayoutEffect, useReducer, useRef } from 'react';

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
  prices?: Record<Kind, number>;
  most?: number;
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

const defaultPrices: NonNullable<Props['prices']> = { adult: 12, child: 6, bike: 3 };

/** Books places on a sailing: who comes along, what it costs, and where the tickets go. */
export function BookingForm({ most = 9, prices = defaultPrices, initial, onChange, sailings, onBook, title }: Props) {
  // One object, as it is made and called as a whole.
  const [state, setState] = useReducer(
    (state: State, change: Partial<State> | ((before: State) => Partial<State>)) => ({
      ...state,
      ...(typeof change === 'function' ? change(state) : change),
    }),
    {
      sailing: '',
      passengers: [],
      mail: '',
      ...initial,
      errors: {},
      sending: false,
      reference: '',
      touched: false,
    }
  );
  const mounted = useRef(false);
  const next = useRef(1);
  const mailField = useRef<HTMLInputElement>(null);
  const summary = useRef<HTMLParagraphElement | null>(null);
  const saved = useRef<ReturnType<typeof setTimeout> | null>(null);
  const latestState = useRef(state);
  latestState.current = state;

  useLayoutEffect(() => {
    mounted.current = true;
    window.addEventListener('beforeunload', warn);
    return () => {
      mounted.current = false;
      window.removeEventListener('beforeunload', warn);
      if (saved.current) clearTimeout(saved.current);
    };
  }, []);

  const previousProps = useRef<{ prices: typeof prices } | null>(null);
  const previousState = useRef<typeof state | null>(null);
  useLayoutEffect(() => {
    const prevProps = previousProps.current;
    previousProps.current = { prices };
    const prevState = previousState.current;
    previousState.current = state;
    if (prevProps === null || prevState === null) return;
    if (prevState.passengers !== state.passengers || prevProps.prices !== prices) {
      onChange?.(total());
    }
    if (prevState.reference !== state.reference && summary.current) {
      summary.current.scrollIntoView?.();
    }
  });

  function total(): number {
    return state.passengers.reduce((sum, one) => sum + prices[one.kind], 0);
  }

  const warn = (event: BeforeUnloadEvent) => {
    if (latestState.current.touched && !latestState.current.reference) event.preventDefault();
  };

  const handleSailing = (event: ChangeEvent<HTMLSelectElement>) => {
    setState({ sailing: event.target.value, touched: true });
  };

  const handleMail = (event: ChangeEvent<HTMLInputElement>) => {
    setState({ mail: event.target.value, touched: true });
  };

  const addPassenger = () => {
    if (state.passengers.length >= most) {
      setState({ errors: { passengers: `No more than ${most}` } });
      return;
    }
    const passenger: Passenger = { id: next.current++, name: '', kind: 'adult' };
    setState({ passengers: [...state.passengers, passenger], touched: true });
  };

  function change(id: number, part: Partial<Passenger>) {
    setState({
      passengers: state.passengers.map((one) => (one.id === id ? { ...one, ...part } : one)),
      touched: true,
    });
  }

  function remove(id: number) {
    setState((state) => ({ passengers: state.passengers.filter((one) => one.id !== id) }));
  }

  function validate(): State['errors'] {
    const errors: State['errors'] = {};
    const { sailing, passengers, mail } = state;
    const chosen = sailings.find((one) => one.id === sailing);
    if (!chosen) errors.sailing = 'Choose a sailing';
    else if (chosen.seats < passengers.length) errors.sailing = `Only ${chosen.seats} places left`;
    if (passengers.length === 0) errors.passengers = 'Nobody comes along';
    else if (passengers.some((one) => !one.name.trim())) errors.passengers = 'A name for everybody, please';
    if (!/^\S+@\S+$/.test(mail)) errors.mail = 'Where should the tickets go?';
    return errors;
  }

  async function handleSubmit(event: FormEvent) {
    event.preventDefault();
    const errors = validate();
    setState({ errors });
    if (errors.mail) mailField.current?.focus();
    if (Object.keys(errors).length > 0) return;
    setState({ sending: true });
    const { sailing, passengers, mail } = state;
    try {
      const reference = await onBook({ sailing, passengers, mail, total: total() });
      if (mounted.current) setState({ reference, touched: false });
    } catch (error) {
      if (mounted.current) setState({ errors: { all: error instanceof Error ? error.message : 'Not booked' } });
    } finally {
      if (mounted.current) setState({ sending: false });
    }
  }

  function renderPassenger(passenger: Passenger, index: number) {
    return (
      <li key={passenger.id}>
        <input
          value={passenger.name}
          aria-label={`Name of passenger ${index + 1}`}
          onChange={(event) => change(passenger.id, { name: event.target.value })}
        />
        <select
          value={passenger.kind}
          aria-label="Kind"
          onChange={(event) => change(passenger.id, { kind: event.target.value as Kind })}
        >
          {KINDS.map((kind) => (
            <option key={kind} value={kind}>
              {kind} ({prices[kind]})
            </option>
          ))}
        </select>
        <button type="button" onClick={() => remove(passenger.id)}>
          remove
        </button>
      </li>
    );
  }

  const { sailing, passengers, mail, errors, sending, reference } = state;
  if (reference) {
    return (
      <p ref={(node) => { summary.current = node; }}>
        Booked: {reference}, {total()} in all
      </p>
    );
  }
  return (
    <form onSubmit={handleSubmit} noValidate>
      {title && <h3>{title}</h3>}
      <select value={sailing} onChange={handleSailing} aria-label="Sailing">
        <option value="">…</option>
        {sailings.map((one) => (
          <option key={one.id} value={one.id}>
            {one.label}
          </option>
        ))}
      </select>
      {errors.sailing && <em>{errors.sailing}</em>}
      <ol>{passengers.map((passenger, index) => renderPassenger(passenger, index))}</ol>
      {errors.passengers && <em>{errors.passengers}</em>}
      <button type="button" onClick={addPassenger}>
        add a passenger
      </button>
      <input ref={mailField} type="email" value={mail} onChange={handleMail} aria-invalid={!!errors.mail} />
      {errors.mail && <em>{errors.mail}</em>}
      {errors.all && <p role="alert">{errors.all}</p>}
      <button disabled={sending}>{sending ? 'Booking…' : `Book for ${total()}`}</button>
    </form>
  );
}

export default BookingForm;
