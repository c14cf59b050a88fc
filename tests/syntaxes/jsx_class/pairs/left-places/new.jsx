import React, { useState } from 'react';

export default function Partly() {
  const [a] = useState(1);

  /* left to you (unknown-member): get double() {
    return this.state.a * 2;
  } */

  const touch = () => {
    /* left to you (write-callback): this.setState({ a: 2 }, function () { this.props.onDone(); }); */
    /* left to you (forced-update): this.forceUpdate(); */
  };

  return <p onClick={touch}>{a}</p>;
}
