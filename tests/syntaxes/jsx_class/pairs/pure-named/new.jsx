import React, { memo } from 'react';

/** Shown above the quay. */
const Strip = memo(function ({ children }) {
  return <b className={Strip.kind}>{children}</b>;
});

Strip.kind = 'strip';

export default Strip;
Strip.displayName = 'Strip';
