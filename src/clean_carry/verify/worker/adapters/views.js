// Shows HTML that was rendered on the server for the inputs of the moment. A change is another page.
export const version = 'HTML of views';

const HTML = '$html';

function show(place, input) {
  const holder = document.createElement('template');
  holder.innerHTML = input.inputs[HTML] ?? '';
  const [failed] = holder.content.children;
  place.textContent = '';
  if (failed?.localName === 'trial-failed') throw new Error(failed.textContent);
  // How the browser spells each style attribute once a script has set it; the comparison names the rule.
  for (const node of holder.content.querySelectorAll('[style]')) node.setAttribute('trial-style', node.style.cssText);
  place.append(document.importNode(holder.content, true));
}

export function mount(place, component, input, values, hold) {
  hold?.(null);
  show(place, input);
  return {
    update(next) { show(place, next); },
    remove() { place.textContent = ''; },
  };
}

export const fragment = (list) => list;
export const events = () => [];

export function within(setup, component) { return component; }

export const empty = '';
