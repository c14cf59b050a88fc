// What a trial gives the parents a component is mounted in, among what it gives the component.
const AROUND = '$around.';

/** {own, outer}: the component's own inputs, and those of the innermost parent by their names. */
export function parted(inputs) {
  const own = {};
  const outer = {};
  for (const [name, value] of Object.entries(inputs)) {
    if (name.startsWith(AROUND)) outer[name.slice(AROUND.length)] = value;
    else own[name] = value;
  }
  return { own, outer };
}

/** {shown, rest}: whether the parent shows the component or hides it (undefined: it does neither), and all else. */
export function veiled(inputs) {
  const { [`${AROUND}shown`]: shown, ...rest } = inputs;
  return { shown, rest };
}
