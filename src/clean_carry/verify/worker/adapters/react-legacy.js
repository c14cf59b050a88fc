// Mounts a component of the versions before roots (16 and 17).
import * as React from 'react';
import * as ReactDOM from 'react-dom';
import { element } from './react-content.js';

export { events, fragment, handlers, made, objections, provide, within } from './react-content.js';

export const version = React.version;

export function mount(place, component, input, values, hold) {
  ReactDOM.render(element(component, input, values, hold), place);
  return {
    update: (next) => ReactDOM.render(element(component, next, values, hold), place),
    remove: () => ReactDOM.unmountComponentAtNode(place),
  };
}

export const empty = () => null;
