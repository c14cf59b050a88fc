import React from 'react';

// A name that inputs are taken apart under means something else around it.
export default function TideList({ tide: tideProp }) {
  function above(tide) {
    return [1, 2].map((at) => {
      const tide = tideProp;
      return tide + at;
    }).concat(tide);
  }

  const tide = tideProp;
  return <p title={tide}>{above(10).join(' ')}</p>;
}
