import { useLayoutEffect, useRef, useState } from 'react';

const NONE = [];

export default function TicketBasket({ passenger, items = NONE, onUpdateCount, onPaid, line: drawLine, className, ...others }) {
  const [lines, setLines] = useState(() => items.map((item) => ({ ...item, count: 1 })));
  const [discount, setDiscount] = useState(0);
  const [paying, setPaying] = useState(null);
  const sum = useRef(null);
  const voucher = useRef(null);
  useLayoutEffect(() => {
    voucher.current.value = discount;
  }, [discount]);

  const total = Math.max(0, lines.reduce((all, line) => all + line.count * line.price, 0) - discount);

  const known = useRef(items);
  useLayoutEffect(() => {
    if (known.current === items) return;
    known.current = items;
    setLines((before) =>
      items.map((item) => ({ ...item, count: before.find((line) => line.id === item.id)?.count ?? 1 }))
    );
  }, [items]);

  useLayoutEffect(() => {
    onUpdateCount?.(lines.reduce((all, line) => all + line.count, 0));
  }, [lines]);

  useLayoutEffect(() => {
    if (paying === null) return;
    onPaid?.(paying, sum.current.textContent);
    setPaying(null);
  }, [paying]);

  return (
    <section {...others} className={['basket', className].filter(Boolean).join(' ')}>
      <h3>Basket of {passenger}</h3>
      <ul>
        {lines.map((line, at) => (
          <li key={line.id}>
            {drawLine?.({ line, total: line.count * line.price }) ?? `${line.count} × ${line.name}`}
            <button
              type="button"
              aria-label={`one more ${line.name}`}
              onClick={() => setLines(lines.map((one, n) => (n === at ? { ...one, count: one.count + 1 } : one)))}
            >+</button>
            <button
              type="button"
              aria-label={`drop ${line.name}`}
              onClick={() => setLines(lines.filter((_, n) => n !== at))}
            >drop</button>
          </li>
        ))}
      </ul>
      <p style={{ display: lines.length ? undefined : 'none' }}>Total <b ref={sum}>{total.toFixed(2)}</b></p>
      <input
        type="number"
        min="0"
        aria-label="Voucher"
        ref={voucher}
        defaultValue={discount}
        onChange={(event) => setDiscount(Number(event.target.value) || 0)}
      />
      <button type="button" disabled={total <= 0} onClick={() => setPaying(total)}>Pay</button>
    </section>
  );
}
