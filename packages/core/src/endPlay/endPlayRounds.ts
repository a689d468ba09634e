import { type Budget, budgetFreedom, budgetUncertainty } from '../measure/budget.js';
import { toldFactor } from '../measure/coverageFactor.js';
import { meanOf, squaresOf } from '../measure/mean.js';
import { type Nanometres, nanometres } from '../measure/nanometres.js';
import { chanceByFreedom } from '../measure/normalChance.js';
import { type EndPlay, MOMENTS, type Moment } from './endPlaySchema.js';

/** The readings of one moment together. */
export interface EndPlayRound {
  readonly moment: Moment;
  readonly count: number;
  /** Mean of the angles of the shaft: what the aim is judged on. */
  readonly mean: Nanometres;
  /** Mean at the angle where it is smallest: what the low limit is judged on. */
  readonly smallest: Nanometres;
  /** Mean at the angle where it is largest: what the high limit is judged on. */
  readonly largest: Nanometres;
  /** Mean at each angle that was read, the smaller angle first. */
  readonly angles: readonly { readonly angle: 0 | 180; readonly mean: Nanometres }[];
  /** How far repeats at one angle are apart at most. */
  readonly apart: Nanometres;
  /** True if repeats differ by more than they may: then the dial or its stand is in doubt, or the shaft was not levered fully. */
  readonly isDoubtful: boolean;
  /** Standard uncertainty of the mean, nm, with its effective degrees of freedom, and what it comes from. */
  readonly uncertainty: number;
  readonly freedom: number;
  readonly budget: Budget;
  /** The ± of the mean that is told: twice its uncertainty, more where it rests on few repeats; nm. */
  readonly expanded: number;
}

/** Variance of the mean of some repeats, nm²; 0 for one reading, which tells none. */
function meanVariance(values: readonly number[]): number {
  if (values.length < 2) return 0;
  return squaresOf(values) / (values.length - 1) / values.length;
}

/**
 * The readings of one moment: their mean at each angle of the shaft, the mean of the angles, and how well it is known, `√(u² + Σ s²/n / k²)`
 * with u that of the dial and s the standard deviation of n repeats at each of k angles (GUM, JCGM 100:2008, 4.2 and 5.1.2; cited from
 * memory). Readings at two angles differ because a face is not square, readings at one angle because of the dial.
 *
 * @returns null where nothing was read then
 */
export function endPlayRound(
  { readings, repeatWithin, uncertainty }: Pick<EndPlay, 'readings' | 'repeatWithin' | 'uncertainty'>,
  moment: Moment,
): EndPlayRound | null {
  const at = (angle: 0 | 180) =>
    Object.values(readings).flatMap((one) =>
      one.moment === moment && one.angle === angle && one.nm !== null ? [one.nm as number] : [],
    );
  const read = ([0, 180] as const)
    .map((angle) => ({ angle, values: at(angle) }))
    .filter(({ values }) => values.length > 0);
  if (read.length === 0) return null;
  const angles = read.map(({ angle, values }) => ({ angle, mean: nanometres(Math.round(meanOf(values))) }));
  const apart = Math.max(...read.map(({ values }) => Math.max(...values) - Math.min(...values)));
  const budget: Budget = [
    { key: 'dial', words: 'dial, one reading', u: uncertainty, shape: 'normal', sensitivity: 1 },
    ...read.flatMap(({ angle, values }): Budget => {
      const u = Math.sqrt(meanVariance(values));
      const words = `mean of ${values.length} repeats at ${angle}°`;
      const freedom = values.length - 1;
      return u > 0
        ? [{ key: `repeats ${angle}`, words, u, shape: 'normal', sensitivity: 1 / read.length, freedom }]
        : [];
    }),
  ];
  const [u, freedom] = [budgetUncertainty(budget), budgetFreedom(budget)];
  return {
    moment,
    count: read.reduce((sum, { values }) => sum + values.length, 0),
    mean: nanometres(Math.round(meanOf(read.map(({ values }) => meanOf(values))))),
    smallest: nanometres(Math.min(...angles.map(({ mean }) => mean))),
    largest: nanometres(Math.max(...angles.map(({ mean }) => mean))),
    angles,
    apart: nanometres(apart),
    isDoubtful: apart > repeatWithin,
    uncertainty: u,
    freedom,
    budget,
    expanded: toldFactor(freedom) * u,
  };
}

type Spread = Pick<EndPlayRound, 'mean' | 'smallest' | 'largest'>;
interface Range {
  readonly low: Nanometres;
  readonly high: Nanometres;
}

/**
 * What the limits leave for the mean, so that the smallest angle keeps the low limit and the largest the high one; null where the angles
 * are further apart than the limits.
 */
export function limitsForMean({ mean, smallest, largest }: Spread, { low, high }: Range): Range | null {
  const [least, most] = [low + mean - smallest, high - (largest - mean)];
  return least > most ? null : { low: nanometres(least), high: nanometres(most) };
}

/** The last round there is: what the end play is now. */
export function endPlayNow(endPlay: EndPlay): EndPlayRound | null {
  for (const moment of MOMENTS.filter((one) => one !== 'past').reverse()) {
    const round = endPlayRound(endPlay, moment);
    if (round) return round;
  }
  return null;
}

/** The round that new pieces are chosen from: the gap for rings; else as seated, or as found. */
export function endPlayBefore(endPlay: EndPlay, isStack: boolean): EndPlayRound | null {
  if (isStack) return endPlayRound(endPlay, 'without');
  return endPlayRound(endPlay, 'seated') ?? endPlayRound(endPlay, 'found');
}

/** True if a stack was read with it in at 0° and at 180°, as a shaft with a stack at its end has to be. */
export function isReadAtBoth({ readings }: Pick<EndPlay, 'readings'>): boolean {
  const angles = Object.values(readings).flatMap(({ moment, nm, angle }) =>
    moment === 'fitted' && nm !== null ? [angle] : [],
  );
  return angles.includes(0) && angles.includes(180);
}

/** A chance comes no nearer to certainty than this. */
const LEAST_DOUBT = 1e-9;

export interface EndPlayVerdict {
  readonly state: 'inside' | 'close' | 'tight' | 'loose';
  /** Chance that the true end play is inside its limits at every angle. */
  readonly chance: number;
  /** By how much the limit is missed; 0 inside. */
  readonly by: Nanometres;
  /** True if the angles are further apart than the limits: no piece brings both inside. */
  readonly isUneven: boolean;
}

/**
 * Judges an end play: its low limit by the smallest angle, its high limit by the largest. The error of the dial is the same at all angles.
 *
 * @param closeFraction part of the range next to either limit that counts as close, 0 to 0.5
 */
export function endPlayVerdict(
  round: Spread & Pick<EndPlayRound, 'uncertainty'> & Partial<Pick<EndPlayRound, 'freedom'>>,
  limit: Range,
  closeFraction: number,
): EndPlayVerdict {
  const { mean, smallest, largest, uncertainty, freedom = Number.POSITIVE_INFINITY } = round;
  const open = limitsForMean(round, limit);
  const found = open === null ? 0 : chanceByFreedom(mean, uncertainty, freedom, open);
  // What is read is never certain, however far from a limit: arithmetic alone makes it so.
  const chance = uncertainty > 0 ? Math.min(1 - LEAST_DOUBT, Math.max(LEAST_DOUBT, found)) : found;
  const isUneven = open === null;
  if (smallest < limit.low) return { state: 'tight', chance, by: nanometres(limit.low - smallest), isUneven };
  if (largest > limit.high) return { state: 'loose', chance, by: nanometres(largest - limit.high), isUneven };
  const room = Math.min(smallest - limit.low, limit.high - largest);
  const isClose = room < closeFraction * (limit.high - limit.low);
  return { state: isClose ? 'close' : 'inside', chance, by: nanometres(0), isUneven };
}

/**
 * How far what was read with the chosen pieces in is from what was predicted, nm, where that is more than repeats may differ: the dial, its
 * stand or a piece is in doubt then. Null where it is not, or where one of the two is missing.
 */
export function predictionMissed(endPlay: EndPlay): Nanometres | null {
  const fitted = endPlayRound(endPlay, 'fitted');
  if (!fitted || !endPlay.choice) return null;
  const off = fitted.mean - endPlay.choice.predicted;
  return Math.abs(off) > endPlay.repeatWithin ? nanometres(off) : null;
}
