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

/** `tideStrip` as `tide-strip`. */
export const hyphenated = (name) => name.replace(/\B([A-Z])/g, '-$1').toLowerCase();

/** Whether a value is of a declared type: by the kind of value, else by its class. */
function isOf(value, type, older) {
  switch (type?.name) {
    case 'String': case 'Number': case 'Boolean': case 'Function': case 'Symbol': case 'BigInt':
      return typeof value === type.name.toLowerCase() || (value !== null && typeof value === 'object' && value instanceof type);
    case 'Object': return older ? Object.prototype.toString.call(value) === '[object Object]' : value !== null && typeof value === 'object';
    case 'Array': return Array.isArray(value);
    default: return type === null ? !older && value === null : typeof type === 'function' && value instanceof type;
  }
}

/** What a flag is for the component: there alone, or under its own name, it is set, unless a text comes first. */
function taken(value, name, types) {
  const text = types.indexOf(String);
  const flag = types.indexOf(Boolean);
  const set = flag >= 0 && (text < 0 || flag < text) && (value === '' || value === hyphenated(name));
  return set ? true : value;
}

/**
 * Whether version 2.7 knows the name of a type: of one written as a class it does not, and lets everything pass.
 * The page's own clock makes a class of `Date`.
 */
const isNamed = (type) => type === Date || (typeof type === 'function' && /^\s*function \w/.test(Function.prototype.toString.call(type)));

/**
 * What asks the component's own declarations of inputs it is given, as the development build of a version of the
 * runtime does: that one is missing, not of its type, or not as its validator wants it. Defaults are not asked about.
 */
export function objecting(older) {
  return (component, input, values) => {
    const given = values(input);
    const found = [];
    for (const [name, declaration] of declared(component)) {
      const full = declaration && typeof declaration === 'object' && !Array.isArray(declaration) ? declaration : { type: declaration };
      const types = full.type === undefined || full.type === null || full.type === true ? [] : [full.type].flat();
      const value = taken(given[name in given ? name : hyphenated(name)], name, types);
      if (value === undefined && full.required) found.push(`${name}: is missing`);
      if (value === undefined || (value === null && !full.required)) continue;
      const asked = older ? types.some(isNamed) : types.length > 0;
      if (asked && !types.some((type) => isOf(value, type, older))) found.push(`${name}: is of another type`);
      else if (typeof full.validator === 'function') {
        try {
          if (!full.validator(value, given)) found.push(`${name}: is not valid`);
        } catch (error) {
          found.push(`${name} throws ${error?.message ?? error}`);
        }
      }
    }
    return found;
  };
}
