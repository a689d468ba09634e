import { type Nanometres, nanometres } from '../measure/nanometres.js';
import { normalChance } from '../measure/normalChance.js';
import { type EndPlay, MOMENTS, type Moment } from './endPlaySchema.js';

/** The readings of one moment together. */
export interface EndPlayRound {
  readonly moment: Moment;
  readonly count: number;
  readonly mean: Nanometres;
  readonly least: Nanometres;
  readonly most: Nanometres;
  /** Whether repeats differ by more than they may: then the dial or its stand is in doubt, or the shaft was not levered fully. */
  readonly isDoubtful: boolean;
  /** Standard uncertainty of the mean, nm. */
  readonly uncertainty: number;
}

/**
 * The readings of one moment: their mean, and how well it is known, `√(u² + s²/n)` with u that of the dial and s the standard deviation
 * of n repeats (GUM, JCGM 100:2008, 4.2 and 5.1.2; cited from memory).
 *
 * @returns null where nothing was read then
 */
export function endPlayRound(
  { readings, repeatWithin, uncertainty }: Pick<EndPlay, 'readings' | 'repeatWithin' | 'uncertainty'>,
  moment: Moment,
): EndPlayRound | null {
  const read = Object.values(readings).flatMap((one) => (one.moment === moment && one.nm !== null ? [one.nm] : []));
  if (read.length === 0) return null;
  const mean = read.reduce((sum, one) => sum + one, 0) / read.length;
  const [least, most] = [Math.min(...read), Math.max(...read)];
  const scatter =
    read.length < 2 ? 0 : read.reduce((sum, one) => sum + (one - mean) ** 2, 0) / (read.length - 1) / read.length;
  return {
    moment,
    count: read.length,
    mean: nanometres(Math.round(mean)),
    least: nanometres(least),
    most: nanometres(most),
    isDoubtful: most - least > repeatWithin,
    uncertainty: Math.sqrt(uncertainty ** 2 + scatter),
  };
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

/** Whether a stack was read with it in at 0° and at 180°, as a shaft with a stack at its end has to be. */
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
  /** Chance that the true end play is inside its limits. */
  readonly chance: number;
  /** By how much the limit is missed; 0 inside. */
  readonly by: Nanometres;
}

/** Judges an end play by its mean. @param closeFraction part of the range next to either limit that counts as close, 0 to 0.5 */
export function endPlayVerdict(
  { mean, uncertainty }: Pick<EndPlayRound, 'mean' | 'uncertainty'>,
  limit: { readonly low: Nanometres; readonly high: Nanometres },
  closeFraction: number,
): EndPlayVerdict {
  const found = normalChance(mean, uncertainty, limit);
  // What is read is never certain, however far from a limit: arithmetic alone makes it so.
  const chance = uncertainty > 0 ? Math.min(1 - LEAST_DOUBT, Math.max(LEAST_DOUBT, found)) : found;
  if (mean < limit.low) return { state: 'tight', chance, by: nanometres(limit.low - mean) };
  if (mean > limit.high) return { state: 'loose', chance, by: nanometres(mean - limit.high) };
  const room = Math.min(mean - limit.low, limit.high - mean);
  const isClose = room < closeFraction * (limit.high - limit.low);
  return { state: isClose ? 'close' : 'inside', chance, by: nanometres(0) };
}

/**
 * How far what was read with the chosen pieces in is from what was predicted; null where either is missing. More than repeats may differ
 * puts the dial, its stand or a piece in doubt.
 */
export function predictionMissed(endPlay: EndPlay): Nanometres | null {
  const fitted = endPlayRound(endPlay, 'fitted');
  if (!fitted || !endPlay.choice) return null;
  const off = fitted.mean - endPlay.choice.predicted;
  return Math.abs(off) > endPlay.repeatWithin ? nanometres(off) : null;
}
