export { default as BerthCard } from './BerthCard';
export { default as DelayBadge } from './DelayBadge';
export { default as SailingRow } from './SailingRow';
export { default as SailingTable } from './SailingTable';
