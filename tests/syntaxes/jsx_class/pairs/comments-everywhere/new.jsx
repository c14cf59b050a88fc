// file
import React, { useState } from 'react'; // import

/** doc */
export default function Notes() {
  /* name */
  // after a
  // loose, above nothing
  // before super
  // before bind
  // after bind
  /* patch */
  /* two */
  /* a? */
  // end
  // state
  /* a */
  const [a, setA] = useState(1); // after state

  /* go */
  function go(/* none */) {
    // in go
    setA(2); // after write
  } // after go

  // render
  // first
  // taken
  return <p onClick={go}>{/* shown */ a}</p>; // last
}
// eof
