// Mounts a component of the versions that have roots (18 and later).
import * as React from 'react';
import { createRoot } from 'react-dom/client';
import { element } from './react-content.js';

export { events, fragment, made, objections, provide, within } from './react-content.js';

export const version = React.version;

export function mount(place, component, input, values, hold) {
  const root = createRoot(place);
  root.render(element(component, input, values, hold));
  return {
    update: (next) => root.render(element(component, next, values, hold)),
    remove: () => root.unmount(),
  };
}

export const empty = () => null;
