import React, { useContext } from 'react';
import { FareContext } from './FareContext';

export default function FareList() {
  const { fares } = useContext(FareContext);
  return <ul>{fares.map((fare) => <li key={fare}>{fare}</li>)}</ul>;
}
