import { type Nanometres, nanometres } from '../measure/nanometres.js';
import type { SizeBand } from '../measure/sizeBand.js';

/** The clearance that bands imply, nm: every value between the two is possible and none beyond. */
export interface ClearanceInterval {
  readonly tightest: Nanometres;
  readonly loosest: Nanometres;
}

/**
 * `bore − journal − upper wall − lower wall` over bands, exact: tightest with the smallest bore and everything else largest,
 * loosest the other way round (interval arithmetic; Moore 1966, cited from memory).
 *
 * @example clearanceOfBands({ low: 64000000, high: 64006000 }, { low: 59980000, high: 59986000 }, { low: 1990000, high: 1993000 }, { low: 1990000, high: 1993000 }).tightest // 28000
 */
export function clearanceOfBands(
  bore: SizeBand,
  journal: SizeBand,
  upper: SizeBand,
  lower: SizeBand,
): ClearanceInterval {
  return {
    tightest: nanometres(bore.low - journal.high - upper.high - lower.high),
    loosest: nanometres(bore.high - journal.low - upper.low - lower.low),
  };
}
