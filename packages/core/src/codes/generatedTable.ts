import { type ClearanceInterval, clearanceOfBands } from '../clearance/clearanceOfBands.js';
import type { ClearanceLimits } from '../clearance/clearanceVerdict.js';
import type { Nanometres } from '../measure/nanometres.js';
import type { MarkedBand, SizeBand } from '../measure/sizeBand.js';
import type { FamilyCodes, TableCell } from './codeSheet.js';
import type { SelectionCodes } from './selectionTable.js';

/** Two grades with the clearance they give, and how it stands to limits and aim. */
export interface RatedPair {
  readonly upper: string;
  readonly lower: string;
  readonly interval: ClearanceInterval;
  /** How far the interval leaves the limits, both ends together, nm. */
  readonly outside: number;
  /** How far its middle is off the aim, in half nanometres. */
  readonly off: number;
}

/**
 * Pairs of grades for a bore and a journal, the best first: nearest inside the limits, then nearest to the aim in the middle; one
 * grade for both halves before two, the thinner grade before the thicker.
 *
 * @param grades from the thinnest up; a mixed pair takes two neighbours
 * @param thinner the side of the thinner half of a mixed pair; `either` puts it above
 */
export function ratedPairs(
  bore: SizeBand,
  journal: SizeBand,
  grades: readonly MarkedBand[],
  {
    limits,
    aim,
    mixed,
    thinner = 'either',
  }: {
    readonly limits: ClearanceLimits;
    readonly aim: Nanometres;
    readonly mixed: boolean;
    readonly thinner?: 'either' | 'upper' | 'lower';
  },
): RatedPair[] {
  const isMixed = ({ upper, lower }: RatedPair) => Number(upper !== lower);
  return grades
    .flatMap((thin, at) => [thin, ...(mixed ? grades.slice(at + 1, at + 2) : [])].map((thick) => ({ thin, thick })))
    .map(({ thin, thick }) => (thinner === 'lower' ? { upper: thick, lower: thin } : { upper: thin, lower: thick }))
    .map(({ upper, lower }): RatedPair => {
      const interval = clearanceOfBands(bore, journal, upper, lower);
      return {
        upper: upper.mark,
        lower: lower.mark,
        interval,
        outside: Math.max(0, limits.low - interval.tightest) + Math.max(0, interval.loosest - limits.high),
        off: Math.abs(interval.tightest + interval.loosest - 2 * aim),
      };
    })
    .sort((a, b) => a.outside - b.outside || a.off - b.off || isMixed(a) - isMixed(b));
}

/**
 * The best table for given bands, walls and aim: in every cell the best pair of grades (see `ratedPairs`).
 *
 * @param mixed whether a cell may call for two grades
 * @param thinner the side that the rules give the thinner half
 * @returns null where limits or grades are missing: then nothing can be called best
 */
export function generatedTable(
  codes: SelectionCodes,
  { mixed, thinner = 'either' }: { mixed: boolean; thinner?: 'either' | 'upper' | 'lower' },
): FamilyCodes['table'] | null {
  const { limits, aim, grades } = codes;
  if (!limits || aim === null || grades.length === 0) return null;
  const best = (bore: MarkedBand, journal: MarkedBand): TableCell => {
    const { upper, lower } = ratedPairs(bore, journal, grades, { limits, aim, mixed, thinner })[0]!;
    return upper === lower ? upper : { upper, lower };
  };
  return Object.fromEntries(
    codes.housing.map((bore) => [
      bore.mark,
      Object.fromEntries(codes.journal.map((journal) => [journal.mark, best(bore, journal)])),
    ]),
  );
}
