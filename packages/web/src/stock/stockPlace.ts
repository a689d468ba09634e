import type { KeptPlace } from '../ui/useKeptText.js';

/** The box of how many of a kind an engine has of its own. */
export function stockPlace(job: string, kind: string): KeptPlace {
  return { of: job, part: kind, field: 'stock' };
}
