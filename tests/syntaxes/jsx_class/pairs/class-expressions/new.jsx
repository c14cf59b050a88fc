import React, { memo, useState } from 'react';

const announced = (Inner) => (props) => <section aria-live="polite"><Inner {...props} /></section>;

function Fare({ crossing = 4, seats }) {
  return <i>{crossing * seats} {Fare.currency}</i>;
}

Fare.currency = 'crowns';

const Seat = memo(function Seat({ seat }) {
  return <li>{seat}</li>;
});

// The list that is shown.
export default announced(function Deck({ deck }) {
  const [seats, setSeats] = useState(1);

  return (
    <ul onClick={() => setSeats(seats + 1)}>
      {Array.from({ length: seats }, (_, at) => <Seat key={at} seat={`${deck}${at}`} />)}
      <Fare seats={seats} />
    </ul>
  );
});
