/** What an endpoint reads, or changes: whatever was read of it is then read anew. */
export const TOPICS = [
  'benches',
  'engine',
  'history',
  'drawer',
  'movements',
  'kits',
  'types',
  'instruments',
  'sheets',
  'session',
  'people',
  'devices',
  'audit',
  'known',
  'unsent',
] as const;
export type Topic = (typeof TOPICS)[number];
