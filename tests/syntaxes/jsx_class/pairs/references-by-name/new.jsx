import React, { useLayoutEffect, useRef, useState } from 'react';

export default function YearList({ onShow, years }) {
  const [yearState, setYear] = useState(2026);
  const chosen = useRef(null);
  const field = useRef(null);
  const list = useRef(null);
  const shut = useRef(null);

  useLayoutEffect(() => {
    show('displayed');
  }, []);

  const previousState = useRef(null);
  useLayoutEffect(() => {
    const prevState = previousState.current;
    previousState.current = { year: yearState };
    if (prevState === null) return;
    if (prevState.year !== yearState) show('updated');
  });

  function show(when) {
    onShow(when, chosen.current ? chosen.current.textContent : 'none', list.current.tagName);
    if (field.current) onShow(when, field.current.type, shut.current.textContent);
  }

  const pick = (year) => setYear(year);

  const props = { type: 'text', ref: field, defaultValue: yearState };
  return (
    <div>
      <ul ref={list}>
        {years.map((year) => (
          <li
            key={year}
            ref={year === yearState ? chosen : undefined}
            onClick={pick.bind(null, year)}
          >
            {year}
          </li>
        ))}
      </ul>
      {yearState > 2026 && <input {...props} />}
      {React.createElement('button', { ref: shut, onClick: () => pick(0) }, 'Shut')}
    </div>
  );
}
