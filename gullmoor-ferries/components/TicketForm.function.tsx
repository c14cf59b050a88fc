import React, { ChangeEvent, FormEvent, useRef, useState } from 'react';

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

export default function TicketForm({ seats, onBook, sailing, onBooked }: Props) {
  const [name, setName] = useState<State['name']>('');
  const [fare, setFare] = useState<State['fare']>('adult');
  const [count, setCount] = useState<State['count']>(1);
  const [errors, setErrors] = useState<State['errors']>([]);
  const [sending, setSending] = useState<State['sending']>(false);
  const sent = useRef(0);
  const latestOnBooked = useRef(onBooked);
  latestOnBooked.current = onBooked;
  const latestSailing = useRef(sailing);
  latestSailing.current = sailing;
  const latestName = useRef(name);
  latestName.current = name;

  function check(): string[] {
    const errors: string[] = [];
    if (!name.trim()) errors.push('Who travels?');
    if (count < 1) errors.push('At least one ticket');
    if (count > seats) errors.push(`Only ${seats} left`);
    return errors;
  }

  async function submit(event: FormEvent) {
    event.preventDefault();
    const errors = check();
    setErrors(errors);
    if (errors.length > 0) return;
    sent.current += 1;
    setSending(true);
    onBook({ sailing: sailing, name, fare, count });
    const reply = await fetch('/api/tickets', { method: 'POST', body: JSON.stringify({ name, fare, count, sent: sent.current }) });
    const { reference } = await reply.json();
    // whoever listens by now
    latestOnBooked.current?.(`${reference} ${latestSailing.current} ${latestName.current}`);
    setSending(false);
    setCount(1);
  }

  return (
    <form onSubmit={submit} aria-busy={sending}>
      <label>
        Name <input value={name} onChange={(e: ChangeEvent<HTMLInputElement>) => setName(e.target.value)} />
      </label>
      <label>
        Fare{' '}
        <select value={fare} onChange={(e) => setFare(e.target.value as Fare)}>
          <option value="adult">Adult</option>
          <option value="child">Child</option>
          <option value="bike">Bike</option>
        </select>
      </label>
      <button type="button" onClick={() => setCount(count - 1)}>−</button>
      <output>{count}</output>
      <button type="button" onClick={() => setCount(count + 1)}>+</button>
      {errors.length > 0 && (
        <ul role="alert">
          {errors.map((error) => <li key={error}>{error}</li>)}
        </ul>
      )}
      <button disabled={sending}>Book</button>
    </form>
  );
}

TicketForm.displayName = 'TicketForm';
