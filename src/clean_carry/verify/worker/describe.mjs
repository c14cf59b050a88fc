// Plain data for a value a component handed out.
import { pathOf } from './tree.mjs';

const MOST_DEPTH = 5;

/** Events become type, target and value; elements their place; everything else its plain content. */
export function describe(natives, root, value, depth = 0) {
  if (value === null || ['string', 'boolean'].includes(typeof value)) return value;
  if (value === undefined) return { $: 'undefined' };
  if (typeof value === 'number') return Number.isFinite(value) && !Object.is(value, -0) ? value : { $: Object.is(value, -0) ? '-0' : String(value) };
  if (typeof value === 'function') return { $: 'function' };
  if (typeof value === 'symbol' || typeof value === 'bigint') return { $: String(value) };
  try {
    const native = value.nativeEvent && typeof value.nativeEvent === 'object' ? value.nativeEvent : value;
    if (native instanceof natives.Event) {
      const target = native.target;
      return { $: 'event', type: value.type, target: target?.nodeType === 1 ? pathOf(natives, root, target) : '', value: target?.value ?? null };
    }
    if (value.nodeType === 1) return { $: 'element', target: pathOf(natives, root, value) };
    if (value.$$typeof || value.__v_isVNode || 'isRootInsert' in value) return { $: 'markup' };
    if (value.isReactComponent || value._isVue || (value.__v_skip && value.$?.vnode)) return { $: 'component' };
    if (value instanceof natives.window.Error) return { $: 'error', name: String(value.name), message: String(value.message) };
    if (value instanceof natives.window.Date) return { $: 'date', time: value.getTime() };
    if (typeof value.then === 'function') return { $: 'promise' };
    if (depth >= MOST_DEPTH) return { $: 'deep' };
    if (Array.isArray(value)) return value.slice(0, 200).map((part) => describe(natives, root, part, depth + 1));
    const out = Object.create(null);
    for (const key of Object.keys(value).sort().slice(0, 100)) out[key] = describe(natives, root, value[key], depth + 1);
    return out;
  } catch {
    return { $: 'unreadable' };
  }
}
