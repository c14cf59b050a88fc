import React from 'react';

export default function Flag({ weather, children }) {
  return <i style={{ color: Flag.of(weather) }}>{children}</i>;
}

Flag.COLOURS = {
  calm: 'green',
  gale: 'red',
};

Flag.of = function of(name) {
  return Flag.COLOURS[name];
};

// shown in tools
Flag.displayName = 'HarbourFlag';
