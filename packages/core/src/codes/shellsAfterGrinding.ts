import type { ClearanceInterval } from '../clearance/clearanceOfBands.js';
import type { ClearanceLimits } from '../clearance/clearanceVerdict.js';
import type { Nanometres } from '../measure/nanometres.js';
import type { SizeBand } from '../measure/sizeBand.js';
import type { Grade } from '../shell/grade.js';
import { ratedPairs } from './generatedTable.js';

/** Halves that suit a size, and the clearance they would give. */
export interface SuitedHalves {
  readonly upper: string;
  readonly lower: string;
  readonly interval: ClearanceInterval;
}

/** The halves that would suit a bore once the journal is ground to an undersize: the grades whose clearance keeps its limits best. */
export function shellsAfterGrinding(
  bore: SizeBand,
  { journal, grades }: { readonly journal: SizeBand; readonly grades: readonly Grade[] },
  limits: ClearanceLimits,
  aim: Nanometres,
): SuitedHalves | null {
  const sorted = [...grades].sort((a, b) => a.low - b.low || a.high - b.high);
  const best = ratedPairs(bore, journal, sorted, { limits, aim, mixed: true })[0];
  return best ? { upper: best.upper, lower: best.lower, interval: best.interval } : null;
}
