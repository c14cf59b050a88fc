export const sailings = [
  { id: 'gm1', to: 'North Skerry', leaves: '08:10', free: 12, late: 0 },
  { id: 'gm2', to: 'Gull Island', leaves: '09:40', free: 0, late: 15 },
  { id: 'gm3', to: 'Lantern Rock', leaves: '11:25', free: 4, late: 0 },
];

export const berths = [
  { id: 'b1', name: 'East quay', depth: 4.5, ship: 'Tern' },
  { id: 'b2', name: 'West quay', depth: 2.5, ship: '' },
];
