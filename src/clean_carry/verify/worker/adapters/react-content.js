// Neutral content and inputs as elements.
import * as React from 'react';

const RENAMED = { class: 'className', for: 'htmlFor', tabindex: 'tabIndex', colspan: 'colSpan', readonly: 'readOnly' };

/** Neutral slot content (text, or {tag, attributes, content}) as children. */
export function content(list) {
  return (list ?? []).map((part, key) => {
    if (typeof part === 'string') return part;
    const attributes = { key };
    for (const name of Object.keys(part.attributes ?? {})) attributes[RENAMED[name] ?? name] = part.attributes[name];
    return React.createElement(part.tag, attributes, ...content(part.content));
  });
}

/** The element that mounts `component` with an input made of neutral values. */
export function element(component, input, values) {
  const props = { ...values(input) };
  let children = [];
  for (const name of Object.keys(input.slots ?? {})) {
    const made = content(input.slots[name]);
    if (name === '' || name === 'default' || name === 'children') children = made;
    else props[name] = made.length === 1 ? made[0] : React.createElement(React.Fragment, null, ...made);
  }
  return React.createElement(component, props, ...children);
}
