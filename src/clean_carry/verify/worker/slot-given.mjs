// What a component gives the content of a slot, as content that shows it: values as text, functions as buttons.

/** {text, functions: [[name, function]]} of what is given, by name; null where nothing is. */
export function given(values) {
  const names = Object.keys(values ?? {}).filter((name) => !name.startsWith('$') && !name.startsWith('_')).sort();
  if (!names.length) return null;
  const functions = names.filter((name) => typeof values[name] === 'function').map((name) => [name, values[name]]);
  const text = names.filter((name) => typeof values[name] !== 'function').map((name) => `${name}: ${shown(values[name])}`).join(', ');
  return { text, functions };
}

function shown(value) {
  if (value === undefined) return 'undefined';
  try {
    return JSON.stringify(value, (key, inner) => (typeof inner === 'function' ? 'function' : inner)).slice(0, 300);
  } catch {
    return typeof value;
  }
}
