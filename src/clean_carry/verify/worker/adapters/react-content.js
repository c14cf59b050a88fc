// Neutral content and inputs as elements.
import * as React from 'react';
import { given as shownBy } from '../slot-given.mjs';

const RENAMED = { class: 'className', for: 'htmlFor', tabindex: 'tabIndex', colspan: 'colSpan', readonly: 'readOnly' };

let uses = [];

/** Take the contents of the project's own uses: a list of functions. */
export function provide(list) { uses = list; }

/** Neutral slot content (text, {tag, attributes, content}, or {use}: the content of a use) as children. */
export function content(list) {
  return (list ?? []).flatMap((part, key) => {
    if (typeof part === 'string') return part;
    if (part.use) return uses[part.use - 1]?.() ?? [];
    const attributes = { key };
    for (const name of Object.keys(part.attributes ?? {})) attributes[RENAMED[name] ?? name] = part.attributes[name];
    return React.createElement(part.tag, attributes, ...content(part.content));
  });
}

// Inputs of this prefix are what a parent gives by the old context.
const CONTEXT = '$context.';
const givers = new Map();

/** A parent that gives a context of these names, always the same one. */
function giver(names) {
  const key = names.join(' ');
  if (!givers.has(key)) {
    class Given extends React.Component {
      getChildContext() { return this.props.context; }
      render() { return this.props.children; }
    }
    Given.childContextTypes = Object.fromEntries(names.map((name) => [name, () => null]));
    givers.set(key, Given);
  }
  return givers.get(key);
}

/** The element that mounts `component` with an input made of neutral values; `hold` gets a reference to it. */
export function element(component, input, values, hold) {
  const mounted = plain(component, input, values, hold);
  const names = Object.keys((component?.trialSubject ?? component)?.contextTypes ?? {});
  if (!names.length || Number.parseInt(React.version, 10) >= 19) return mounted;
  const given = values(input);
  const context = Object.fromEntries(names.map((name) => [name, given[`${CONTEXT}${name}`]]));
  return React.createElement(giver(names), { context }, mounted);
}

function plain(component, input, values, hold) {
  const { props, children } = given(input, values, hold);
  return React.createElement(component, props, ...children);
}

/** Content that also shows what the component gives it. */
function telling(list, values) {
  const told = shownBy(values);
  if (!told) return fragment(list);
  const buttons = told.functions.map(([name, call]) => React.createElement('button', { key: name, type: 'button', onClick: () => call() }, name));
  return React.createElement(React.Fragment, null, ...content(list), React.createElement('output', null, told.text, ...buttons));
}

function given(input, values, hold) {
  const props = { ...values(input) };
  for (const name of Object.keys(props)) if (name.startsWith(CONTEXT)) delete props[name];
  if (hold) props.ref = hold;
  let children = [];
  for (const name of Object.keys(input.slots ?? {})) {
    // Content that is given values is a function of them.
    if (name.endsWith('()')) {
      const own = input.slots[name];
      props[name.slice(0, -2)] = (told) => telling(own, told);
      continue;
    }
    const made = content(input.slots[name]);
    if (name === '' || name === 'default' || name === 'children') children = made;
    else if (!name.startsWith(CONTEXT)) props[name] = fragment(input.slots[name]);
  }
  return { props, children };
}

// What the makers of input types take as a sign that the runtime calls them, not the application.
const BY_RUNTIME = 'SECRET_DO_NOT_PASS_THIS_OR_YOU_WILL_BE_FIRED';

/**
 * What the component's own declared types say of inputs it is given, as the development build of the runtime
 * asks them: `name: message` for each that objects. Versions from 19 on ask no more.
 */
export function objections(component, input, values) {
  const types = component?.propTypes;
  if (!types || Number.parseInt(React.version, 10) >= 19) return [];
  const found = [];
  const { props, children } = given(input, values);
  if (children.length) props.children = children.length > 1 ? children : children[0];
  for (const name of Object.keys(types)) {
    if (typeof types[name] !== 'function') continue;
    try {
      const said = types[name](props, name, 'Component', 'prop', null, BY_RUNTIME);
      if (said) found.push(`${name}: ${said.message ?? said}`);
    } catch (error) {
      found.push(`${name} throws ${error?.message ?? error}`);
    }
  }
  return found;
}

/** Neutral content as one value that can be given as an input; no content is null. */
export function fragment(list) {
  const made = content(list);
  if (made.length === 0) return null;
  return made.length === 1 ? made[0] : React.createElement(React.Fragment, null, ...made);
}

/** The events an element of the page handles, read off what the runtime keeps at it. */
export function events(node) {
  for (const key of Object.keys(node)) {
    if (!key.startsWith('__reactProps$') && !key.startsWith('__reactEventHandlers$')) continue;
    const props = node[key];
    return Object.keys(props ?? {}).filter((name) => /^on[A-Z]/.test(name) && typeof props[name] === 'function')
      .map((name) => name.slice(2).replace(/Capture$/, '').toLowerCase());
  }
  return [];
}

/** The root of what the runtime keeps of a place: versions from 17 on leave it at the element, 16 at its old root. */
function kept(place) {
  const key = Object.keys(place).find((name) => name.startsWith('__reactContainer$'));
  return key ? place[key].stateNode.current : place._reactRootContainer?._internalRoot?.current;
}

/** What the components below the mounted one are given to call: [name, function], in the order of the page. */
export function handlers(place, component) {
  const found = [];
  const visit = (fiber, inside) => {
    for (let here = fiber; here; here = here.sibling) {
      const type = here.elementType ?? here.type;
      // Inside a memoised component with defaults or a comparison stands the component again, with the same props.
      const again = here.return?.type?.type === here.type;
      if (inside && type && typeof type !== 'string' && !again) {
        for (const [name, value] of Object.entries(here.memoizedProps ?? {})) if (typeof value === 'function' && name !== 'children') found.push([name, value]);
      }
      visit(here.child, inside || type === component || here.type === component);
    }
  };
  visit(kept(place)?.child, false);
  return found;
}

/** The component inside what the project's set-up module provides around its children. */
export function within(Setup, component) {
  const all = React.forwardRef((props, ref) => {
    const own = ref ? { ...props, ref } : props;
    return React.createElement(Setup, null, React.createElement(component, own));
  });
  all.trialSubject = component;
  return all;
}

/** What a function that makes components gives for as many as it takes, which show what they are given. */
export function made(maker, count) {
  return maker(...Array(count).fill(Shown));
}

/** Its inputs as attributes, a button for each function among them, and its content. */
function Shown({ children, ...given }) {
  const attributes = {};
  const buttons = [];
  for (const name of Object.keys(given)) {
    if (typeof given[name] !== 'function') attributes[`given-${name.toLowerCase()}`] = shown(given[name]);
    else buttons.push(React.createElement('button', { key: name, type: 'button', onClick: () => given[name](name) }, name));
  }
  return React.createElement('trial-inner', attributes, ...buttons, children);
}

function shown(value) {
  if (typeof value !== 'object' || value === null) return String(value);
  try { return JSON.stringify(value) ?? ''; } catch { return 'an object'; }
}
