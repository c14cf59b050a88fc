// Mounts a component of the versions that have roots (18 and later).
import * as React from 'react';
import { createRoot } from 'react-dom/client';
import { element } from './react-content.js';

export { events, fragment, handlers, made, objections, provide, within } from './react-content.js';

export const version = React.version;

let strict = false;

/** Whether what is mounted next is mounted in the mode that mounts all twice; only the development build does. */
export function strictly(wanted) { strict = wanted; }

const inMode = (made) => (strict ? React.createElement(React.StrictMode, null, made) : made);

export function mount(place, component, input, values, hold) {
  const root = createRoot(place);
  root.render(inMode(element(component, input, values, hold)));
  return {
    update: (next) => root.render(inMode(element(component, next, values, hold))),
    remove: () => root.unmount(),
  };
}

export const empty = () => null;
