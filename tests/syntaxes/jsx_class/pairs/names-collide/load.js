export const load = (what) => `loaded ${what}`;
