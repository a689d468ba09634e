import type { KeptPlace } from '../ui/useKeptText.js';

/** The box of how many of a kind an engine has of its own. */
export function stockPlace(job: string, kind: string): KeptPlace {
  return { of: job, part: kind, field: 'stock' };
}

/** The box of the thickness of a washer or shim. */
export const thicknessPlace = (job: string, piece: string) => ({ of: job, part: piece, field: 'thickness' });

/** The box of the wall of a kind of half. */
export const wallPlace = (job: string, shell: string) => ({ of: job, part: shell, field: 'wall' });
