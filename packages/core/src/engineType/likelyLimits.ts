import { type LikelyFigure, likelyFigures, type Span } from '../measure/likelyFigures.js';
import { type Nanometres, nanometres } from '../measure/nanometres.js';
import type { Unit } from '../measure/unit.js';
import type { Family } from '../part/family.js';
import { featureOf } from '../part/feature.js';
import { clearanceKey, type LimitKey, type LimitSheet } from './limits.js';

/** Up to what a limit that is no size can be: far beyond what engines of this kind have. Common practice, to ask by and never to judge by. */
const MOST: Readonly<Partial<Record<LimitKey, number>>> = {
  mainClearance: 500_000,
  rodClearance: 500_000,
  outOfRound: 250_000,
  taper: 250_000,
  boreOutOfRound: 250_000,
  boreTaper: 250_000,
  endPlay: 1_500_000,
  crush: 500_000,
  mainLine: 500_000,
  mainNeighbours: 500_000,
  runout: 1_000_000,
  flangeRunout: 1_000_000,
};
/** What a bore or a journal can be. */
const SIZE: Span = { low: 5_000_000, high: 1_500_000_000 };

/**
 * What an end of a limit may have been meant as, where it cannot be right: 3 mm of oil clearance. Nothing is changed.
 *
 * @returns null where it can be right
 */
export function likelyLimit(key: LimitKey, nm: Nanometres, unit: Unit): readonly LikelyFigure[] | null {
  const most = MOST[key];
  return likelyFigures(nm, unit, most === undefined ? SIZE : { low: 0, high: most });
}

/** What the wall of any shell can be, where no sheet says more: 0.3 to 15 mm. Common practice, to ask by and never to judge by. */
export const ANY_WALL: Span = { low: 300_000, high: 15_000_000 };
/** What the step between two grades can be: up to 0.1 mm. Common practice, to ask by. */
export const ANY_GRADE_STEP: Span = { low: -100_000, high: 100_000 };

/** A wall for a journal that was ground under by so much is thicker by half of it: nobody grinds by more than 2 mm. */
const MOST_GROUND = 2_000_000;
/** A wall is made to the sheet within this part of it. */
const ABOUT = 0.15;

/**
 * The wall that brings a part in the middle of its limits to the middle of the clearance limits: half of what bore, journal and clearance
 * leave. A sheet without clearance limits counts it as 0.
 *
 * @returns nm, rounded; null where the sheet has no limits of bore or journal, or they leave nothing
 * @example middleWall({ limits: { mainBore: { low: 64_000_000, high: 64_020_000 }, mainJournal: { low: 59_980_000, high: 60_000_000 }, mainClearance: { low: 20_000, high: 60_000 } } }, 'main') // 1990000
 */
export function middleWall({ limits }: Pick<LimitSheet, 'limits'>, family: Family): Nanometres | null {
  const middle = (limit: { low: number; high: number } | null) => (limit ? (limit.low + limit.high) / 2 : null);
  const bore = middle(limits[featureOf(family, 'housing')]);
  const journal = middle(limits[featureOf(family, 'journal')]);
  const clearance = middle(limits[clearanceKey(family)]) ?? 0;
  if (bore === null || journal === null) return null;
  const wall = (bore - journal - clearance) / 2;
  return wall <= 0 ? null : nanometres(Math.round(wall));
}

/** What the wall of a shell can be by the sheet: about `middleWall`, and more for an undersize; null where the sheet does not say. */
export function wallSpan(sheet: Pick<LimitSheet, 'limits'>, family: Family): Span | null {
  const wall = middleWall(sheet, family);
  return wall === null ? null : { low: wall * (1 - ABOUT), high: wall * (1 + ABOUT) + MOST_GROUND / 2 };
}
