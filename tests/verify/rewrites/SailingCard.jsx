import { createElement, useReducer } from 'react';

export default function Card(given) {
  const { id, from, to, stops, children, onPin, startPinned, className } = given;
  const rest = Object.fromEntries(
    Object.entries(given).filter(([name]) => !['id', 'tag', 'from', 'to', 'status', 'stops', 'className', 'children', 'onPin', 'startPinned'].includes(name)),
  );
  const status = given.status === undefined ? 'open' : given.status;
  const [open, flip] = useReducer((value) => !value, false);
  const [pinned, pin] = useReducer((_, value) => value, Boolean(startPinned));
  const names = new Set(['sailing', status]);
  if (pinned) names.add('pinned');
  if (className) names.add(className);
  return createElement(
    given.tag ?? 'article',
    { className: [...names].reverse().join('  '), ...rest },
    <h3>
      {from}
      {' '}
      <span aria-hidden="true">→</span>
      {' '}
      {to}
    </h3>,
    <p className="status">{status === 'open' ? 'On sale' : status === 'few' ? 'Few seats left' : 'Sold out'}</p>,
    <button type="button" aria-expanded={open} onClick={flip}>{(open ? 'Hide' : 'Show') + ' stops'}</button>,
    <button
      type="button"
      aria-pressed={pinned}
      onClick={(event) => {
        event.stopPropagation();
        pin(!pinned);
        onPin?.(id, !pinned);
      }}
    >
      Pin
    </button>,
    open ? <ul>{stops.map((stop) => <li key={stop}>{stop}</li>)}</ul> : null,
    children,
  );
}
