import { limitAt } from '../engineType/limits.js';
import { chiSquareTail } from '../measure/chiSquareTail.js';
import { meanOf, squaresOf } from '../measure/mean.js';
import { evenly } from '../measure/uncertainty.js';
import type { Feature } from '../part/feature.js';
import type { MeasuredJob } from './measuredJob.js';
import { instrumentFor } from './readWith.js';

/** How the readings of a feature scatter, nm: the parts among each other, and the places of one part. */
export interface ReadingScatter {
  readonly mean: number;
  /** Standard deviation of the parts. */
  readonly parts: number;
  /** Standard deviation of one place about its part, the instrument's own scatter in it. */
  readonly places: number;
}

/** A spread that is expected counts as so many that were seen: a few readings alone tell a spread badly. */
const EXPECTED_COUNTS = 2;
/** Parts that are made to a tolerance lie within some three standard deviations of its middle; common practice. */
const SHARE_OF_TOLERANCE = 1 / 6;

/**
 * How the readings of a feature scatter, by those that there are, and by the instrument and the limits where those are few.
 *
 * @param parts sizes of the places of each part, nm; one part at least, none of them empty
 */
export function readingScatter(
  job: MeasuredJob,
  feature: Feature,
  parts: readonly (readonly number[])[],
): ReadingScatter {
  const { resolution, repeatability, operator } = instrumentFor(job, feature);
  const own = repeatability ** 2 + operator ** 2 + evenly(resolution / 2) ** 2;
  const freedom = parts.reduce((sum, sizes) => sum + sizes.length - 1, 0);
  const within = parts.reduce((sum, sizes) => sum + squaresOf(sizes), 0);
  // Where readings agree better than the instrument is said to repeat, they are believed: so alike they may well be.
  const places = (EXPECTED_COUNTS * own + within) / (EXPECTED_COUNTS + freedom);
  const means = parts.map(meanOf);
  const limit = limitAt(job, feature, null);
  const expected = limit ? ((limit.high - limit.low) * SHARE_OF_TOLERANCE) ** 2 : null;
  const seen = squaresOf(means);
  const between =
    expected === null
      ? seen / Math.max(1, means.length - 1)
      : (EXPECTED_COUNTS * expected + seen) / (EXPECTED_COUNTS + means.length - 1);
  return { mean: meanOf(means), parts: Math.sqrt(between), places: Math.sqrt(places) };
}

/**
 * The chance that two parts, each read for itself, agree in figures that are as unlikely as these or more so. For normal scatter: the density
 * of the figures, times the step they are read in, summed over all figures that are no likelier; the square of a normal density is one of half
 * the variance, so the sum is `peak × 2^(−k/2) × Q(2c, k)`, with `c` the chi-square of the figures and `Q` its tail.
 *
 * @param sizes the figures that agree, nm, place by place
 * @param step what the figures are read in, nm
 * @example agreementChance([0], 1_000, { mean: 0, parts: 4_000, places: 3_000 }).toFixed(4) // '0.0564'
 */
export function agreementChance(sizes: readonly number[], step: number, scatter: ReadingScatter): number {
  const count = sizes.length;
  const mean = meanOf(sizes);
  const places = scatter.places ** 2;
  const together = places + count * scatter.parts ** 2;
  const square = squaresOf(sizes) / places + (count * (mean - scatter.mean) ** 2) / together;
  const peak = (step / Math.sqrt(2 * Math.PI)) ** count / Math.sqrt(places ** (count - 1) * together);
  return Math.min(1, peak * 2 ** (-count / 2) * chiSquareTail(2 * square, count));
}
