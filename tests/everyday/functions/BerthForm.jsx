import React, { useRef, useState } from 'react';

const EMPTY = { vessel: '', length: 8, power: false };

export function BerthForm({ rate = 12, longest = 30, onBook, onClear }) {
  const [form, setForm] = useState(EMPTY);
  const [nights, setNights] = useState(1);
  const [tried, setTried] = useState(false);
  const first = useRef(null);

  const problems = [];
  if (!form.vessel) problems.push('A vessel needs a name');
  if (form.length > longest) problems.push(`No berth is longer than ${longest} m`);
  const price = form.length * rate * nights + (form.power ? 5 * nights : 0);

  const change = (event) => {
    const { name, type, checked, value } = event.target;
    setForm((before) => ({ ...before, [name]: type === 'checkbox' ? checked : value }));
  };

  const submit = (event) => {
    event.preventDefault();
    setTried(true);
    if (problems.length) return;
    onBook({ ...form, nights, price });
  };

  const clear = () => {
    setForm(EMPTY);
    setNights(1);
    setTried(false);
    onClear && onClear();
    first.current.focus();
  };

  return (
    <form className="berth-form" onSubmit={submit}>
      <label>
        Vessel <input ref={first} name="vessel" value={form.vessel} onChange={change} />
      </label>
      <label>
        Length <input name="length" type="number" value={form.length} onChange={change} />
      </label>
      <label>
        <input name="power" type="checkbox" checked={form.power} onChange={change} /> shore power
      </label>
      <select value={nights} onChange={(event) => setNights(Number(event.target.value))}>
        <option value={1}>one night</option>
        <option value={2}>two nights</option>
        <option value={7}>a week</option>
      </select>
      {tried && problems.length > 0 && (
        <ul role="alert">
          {problems.map((problem) => (
            <li key={problem}>{problem}</li>
          ))}
        </ul>
      )}
      <output>{price} crowns</output>
      <button type="submit">Book</button>
      <button type="button" onClick={clear}>
        Clear
      </button>
    </form>
  );
}
