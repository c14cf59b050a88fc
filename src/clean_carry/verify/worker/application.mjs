// What an application commonly provides to every component: a router, translations, a store. All of it only records.

const ROUTE = { path: '#holm', fullPath: '#holm', name: 'holm', hash: '', params: {}, query: {}, meta: {}, matched: [] };

/** {name: value} of what every instance has; `record` makes a function that records its calls under a name. */
export function application(record) {
  const promised = (name) => (...given) => { record(name)(...given); return Promise.resolve(); };
  const said = (key) => String(key);
  return {
    $route: ROUTE,
    $router: { currentRoute: ROUTE, ...recorded(record, 'router', ['push', 'replace', 'back', 'forward', 'go']), resolve: (to) => ({ href: reference(to), route: ROUTE }) },
    $t: said, $tc: said, $d: said, $n: said,
    $i18n: { locale: 'en', t: said },
    $store: { state: {}, getters: {}, commit: record('store.commit'), dispatch: promised('store.dispatch') },
  };
}

function recorded(record, owner, names) {
  return Object.fromEntries(names.map((name) => [name, record(`${owner}.${name}`)]));
}

/** Where a link leads, as text. */
export const reference = (to) => (typeof to === 'string' ? to : JSON.stringify(to) ?? '');

/** What a link gives its content: it is active where it leads to the current place. */
export function link(to, record) {
  const href = reference(to);
  const isActive = href === ROUTE.path;
  const navigate = (event) => { event?.preventDefault?.(); record('router.push')(to); };
  return { href, route: ROUTE, navigate, isActive, isExactActive: isActive };
}
