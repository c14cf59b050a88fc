import React, { memo, useState } from 'react';

export default memo(function Tide({ name }) {
  const [marks, setMarks] = useState(0);

  return <button onClick={() => setMarks(marks + 1)}>{name} {marks}</button>;
});
