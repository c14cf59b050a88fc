import React from 'react';

// Told of every berth that is taken.
const defaultOnTake = function () {};

const defaultLabel = function (berth) {
  return `berth ${berth}`;
};

const defaultAsked = async function (berth) {
  return berth;
};

export default function BerthButton({
  onTake = defaultOnTake,
  label = defaultLabel,
  asked = defaultAsked,
  berth,
}) {
  return (
    <button onClick={onTake} title={typeof asked}>
      {label(berth)}
    </button>
  );
}
