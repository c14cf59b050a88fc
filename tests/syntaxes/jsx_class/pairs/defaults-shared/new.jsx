import React from 'react';

const defaultProps = {
  labels: { one: 'one berth', many: 'many berths' },
  size: 3,
  'aria-label': 'berths',
  onPick: () => 'nobody asked',
};

export default function Berths({
  labels = defaultProps.labels,
  size = 3,
  'aria-label': ariaLabel = 'berths',
  onPick = defaultProps.onPick,
}) {
  const same = labels === defaultProps.labels ? 'as made' : 'given';
  return (
    <b aria-label={ariaLabel} onClick={() => onPick(size)}>
      {size > 1 ? labels.many : labels.one} {same}
    </b>
  );
}
