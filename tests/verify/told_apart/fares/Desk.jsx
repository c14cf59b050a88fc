import React from 'react';
import FareList from './FareList';
import { FareProvider } from './FareContext';

export default function Desk() {
  return <FareProvider><FareList /></FareProvider>;
}
