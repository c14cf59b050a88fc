// The page's own functions, taken before component code can replace them.
export function natives(w) {
  const get = (proto, name) => {
    const read = Object.getOwnPropertyDescriptor(proto, name)?.get;
    return (node) => Reflect.apply(read, node, []);
  };
  const call = (proto, name) => {
    const method = proto[name];
    return (node, ...rest) => Reflect.apply(method, node, rest);
  };
  return {
    nodeType: get(w.Node.prototype, 'nodeType'),
    nodeValue: get(w.Node.prototype, 'nodeValue'),
    firstChild: get(w.Node.prototype, 'firstChild'),
    nextSibling: get(w.Node.prototype, 'nextSibling'),
    parentNode: get(w.Node.prototype, 'parentNode'),
    localName: get(w.Element.prototype, 'localName'),
    namespace: get(w.Element.prototype, 'namespaceURI'),
    attributeNames: call(w.Element.prototype, 'getAttributeNames'),
    attribute: call(w.Element.prototype, 'getAttribute'),
    all: call(w.Element.prototype, 'querySelectorAll'),
    closest: call(w.Element.prototype, 'closest'),
    matches: call(w.Element.prototype, 'matches'),
    prevented: get(w.Event.prototype, 'defaultPrevented'),
    dispatch: call(w.EventTarget.prototype, 'dispatchEvent'),
    focus: call(w.HTMLElement.prototype, 'focus'),
    active: get(w.Document.prototype, 'activeElement'),
    inputValue: get(w.HTMLInputElement.prototype, 'value'),
    checked: get(w.HTMLInputElement.prototype, 'checked'),
    indeterminate: get(w.HTMLInputElement.prototype, 'indeterminate'),
    areaValue: get(w.HTMLTextAreaElement.prototype, 'value'),
    selectValue: get(w.HTMLSelectElement.prototype, 'value'),
    scrollTop: get(w.Element.prototype, 'scrollTop'),
    scrollLeft: get(w.Element.prototype, 'scrollLeft'),
    optionSelected: get(w.HTMLOptionElement.prototype, 'selected'),
    children: get(w.Element.prototype, 'children'),
    hasAttribute: call(w.Element.prototype, 'hasAttribute'),
    removeAttribute: call(w.Element.prototype, 'removeAttribute'),
    clone: call(w.Node.prototype, 'cloneNode'),
    insert: call(w.Node.prototype, 'insertBefore'),
    take: call(w.Element.prototype, 'remove'),
    rects: call(w.Element.prototype, 'getClientRects'),
    tabIndex: get(w.HTMLElement.prototype, 'tabIndex'),
    svgTabIndex: get(w.SVGElement.prototype, 'tabIndex'),
    create: call(w.Document.prototype, 'createElement'),
    setMarkup: Object.getOwnPropertyDescriptor(w.Element.prototype, 'innerHTML').set,
    setScrollTop: Object.getOwnPropertyDescriptor(w.Element.prototype, 'scrollTop').set,
    setScrollLeft: Object.getOwnPropertyDescriptor(w.Element.prototype, 'scrollLeft').set,
    setInput: Object.getOwnPropertyDescriptor(w.HTMLInputElement.prototype, 'value').set,
    setArea: Object.getOwnPropertyDescriptor(w.HTMLTextAreaElement.prototype, 'value').set,
    setSelect: Object.getOwnPropertyDescriptor(w.HTMLSelectElement.prototype, 'value').set,
    Event: w.Event, MouseEvent: w.MouseEvent, KeyboardEvent: w.KeyboardEvent, InputEvent: w.InputEvent, FocusEvent: w.FocusEvent, PointerEvent: w.PointerEvent, File: w.File,
  };
}
