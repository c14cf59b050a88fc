// Shows the body of a page as a browser reads it, without its scripts. It has no inputs and never changes.
export const version = 'HTML';

/** The content of a page, what only loads something left out. A template has no body that would listen for the window. */
function parsed(text) {
  const holder = document.createElement('template');
  holder.innerHTML = text;
  for (const node of holder.content.querySelectorAll('script, link, meta, base, title')) {
    // The title of an SVG image is another element, which shows.
    if (node.namespaceURI === 'http://www.w3.org/1999/xhtml') node.remove();
  }
  // Its inline handlers are scripts as well: they are left to a person, and run on neither side.
  for (const node of holder.content.querySelectorAll('*')) {
    for (const { name } of [...node.attributes]) if (/^on[a-z]+$/.test(name)) node.removeAttribute(name);
  }
  return holder.content;
}

export function mount(place, component, input, values, hold) {
  hold?.(null);
  const content = parsed(component);
  // How the browser spells each style attribute once a script has set it; the comparison names the rule.
  for (const node of content.querySelectorAll('[style]')) {
    if (node.style?.cssText) node.setAttribute('trial-style', node.style.cssText);
  }
  const styles = [...content.querySelectorAll('style')];
  for (const style of styles) document.head.appendChild(style);
  place.append(document.importNode(content, true));
  return {
    update() {},
    remove() {
      place.textContent = '';
      for (const style of styles) style.remove();
    },
  };
}

export const fragment = (list) => list;
export const events = () => [];

export function within(setup, component) { return component; }

export const empty = '';
