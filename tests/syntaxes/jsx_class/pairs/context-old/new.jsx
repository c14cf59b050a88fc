import React, { useState } from 'react';

export default function Berth(props, context) {
  const [first] = useState(context.quay || 'none');

  const { quay } = context;
  return <p>{first} {quay}</p>;
}

Berth.contextTypes = { quay: () => null };
