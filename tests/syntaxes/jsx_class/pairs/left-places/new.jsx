import React, { useState } from 'react';

export default function Partly() {
  const [a] = useState(1);

  /* left to you (unknown-member): set double(value) {
    this.setState({ a: value / 2 });
  } */

  const touch = () => {
    /* left to you (write-callback): this.setState({ a: 2 }, function () { this.props.onDone(); }); */
    /* left to you (forced-update): this.forceUpdate(() => this.props.onDone()); */
  };

  return <p onClick={touch}>{a}</p>;
}
