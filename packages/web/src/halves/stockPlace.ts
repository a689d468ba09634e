import type { KeptPlace } from '../look/useKeptText.js';

/** The box of how many of a kind an engine has of its own. */
export function stockPlace(job: string, kind: string): KeptPlace {
  return { of: job, part: kind, field: 'stock' };
}
