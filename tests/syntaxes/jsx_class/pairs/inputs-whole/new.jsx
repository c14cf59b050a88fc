import React from 'react';

export default function Through({
  kind = 'a',
  'aria-label': ariaLabel = 'through',
  ...others
}) {
  const props = { kind, 'aria-label': ariaLabel, ...others };

  return <em {...props} data-kind={props.kind} aria-label={props['aria-label']} />;
}
