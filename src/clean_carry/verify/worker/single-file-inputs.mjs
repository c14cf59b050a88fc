// The inputs a single file declares, and what its declarations say of those it is given.

/** The declared inputs of a component by name, those of what it mixes in with them; null where it says no more. */
export function declared(component, found = new Map()) {
  const options = (typeof component === 'function' ? component.options : component) ?? {};
  for (const other of [...(options.extends ? [options.extends] : []), ...(options.mixins ?? [])]) declared(other, found);
  const props = options.props ?? {};
  if (Array.isArray(props)) for (const name of props) found.set(name, null);
  else for (const name of Object.keys(props)) found.set(name, props[name]);
  return found;
}

const hyphenated = (name) => name.replace(/\B([A-Z])/g, '-$1').toLowerCase();

/** Whether a value is of a declared type, as the runtime asks it: by the kind of value, else by its class. */
function isOf(value, type) {
  switch (type?.name) {
    case 'String': case 'Number': case 'Boolean': case 'Function': case 'Symbol': case 'BigInt':
      return typeof value === type.name.toLowerCase() || (typeof value === 'object' && value instanceof type);
    case 'Object': return typeof value === 'object';
    case 'Array': return Array.isArray(value);
    default: return type === null ? value === null : value instanceof type || Object.prototype.toString.call(value) === `[object ${type.name}]`;
  }
}

/**
 * What the component's own declarations say of inputs it is given, as the development build of the runtime asks
 * them: that one is missing, not of its type, or not as its validator wants it.
 */
export function objections(component, input, values) {
  const given = values(input);
  const found = [];
  for (const [name, declaration] of declared(component)) {
    const full = declaration && typeof declaration === 'object' && !Array.isArray(declaration) ? declaration : { type: declaration };
    const value = given[name in given ? name : hyphenated(name)];
    if (value === undefined) {
      if (full.required) found.push(`${name}: is missing`);
      continue;
    }
    if (value === null && !full.required) continue;
    const types = full.type === undefined || full.type === null || full.type === true ? [] : [full.type].flat();
    const flag = types.includes(Boolean) && (value === '' || value === hyphenated(name));
    if (types.length && !flag && !(value !== null && types.some((type) => isOf(value, type)))) found.push(`${name}: is of another type`);
    else if (typeof full.validator === 'function') {
      try {
        if (!full.validator(value, given)) found.push(`${name}: is not valid`);
      } catch (error) {
        found.push(`${name} throws ${error?.message ?? error}`);
      }
    }
  }
  return found;
}
