import React, { useState } from 'react';

export const FareContext = React.createContext({ fares: [] });

export function FareProvider({ children }) {
  const [state] = useState({ fares: ['Holm 12', 'Skail 15'] });
  return <FareContext.Provider value={state}>{children}</FareContext.Provider>;
}
