import React from 'react';
import { BerthCard, DelayBadge } from '../components';
import { berths } from '../sailings';

export default class BerthsPage extends React.Component {
  render() {
    return (
      <section>
        <h2>
          Berths <DelayBadge minutes={0} />
        </h2>
        {berths.map((berth) => (
          <BerthCard key={berth.id} berth={berth} />
        ))}
      </section>
    );
  }
}
