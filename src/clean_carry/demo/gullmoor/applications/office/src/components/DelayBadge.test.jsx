import React from 'react';
import { createRoot } from 'react-dom/client';
import { act } from 'react-dom/test-utils';
import DelayBadge from './DelayBadge';

test('says how late a sailing is', () => {
  const place = document.createElement('div');
  act(() => createRoot(place).render(<DelayBadge minutes={15} />));
  expect(place.textContent).toBe('15 min late');
});
