import React from 'react';
import { SailingTable } from '../components';
import { sailings } from '../sailings';

export default function SailingsPage() {
  return (
    <section>
      <h2>Sailings today</h2>
      <SailingTable sailings={sailings} />
    </section>
  );
}
