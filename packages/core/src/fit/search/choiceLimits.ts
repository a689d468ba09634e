import type { IntegerAnswer, IntegerProgramme } from './integerProgramme.js';

/** How far a search has come. */
export interface FitProgress {
  readonly doing: 'sharing shells' | 'combining' | 'proving' | 'searching';
  /** Cost of the best plan so far and what is proven, of the part in work, µm²; null while there is none. */
  readonly cost: number | null;
  readonly bound: number | null;
}

/** Solves integer programmes: what the search hands over when its own budget of work is spent. */
export type IntegerSolver = (programme: IntegerProgramme, limits?: ChoiceLimits) => IntegerAnswer;

/**
 * Work that a search may still do, in steps of about a nanosecond. It ends a search at the same place on every machine, however busy
 * that is.
 */
export interface WorkMeter {
  left: number;
}

/** What bounds a search. The core has no clock of its own: who wants an answer in time hands one in. */
export interface ChoiceLimits {
  readonly onProgress?: (progress: FitProgress) => void;
  /** Asked now and then; once it says yes, what was found so far is the answer, with its bound. */
  readonly isStopped?: () => boolean;
  /** The caller's clock, ms, and when on it the answer is due. */
  readonly clock?: () => number;
  readonly until?: number;
  /** Work left; left out: as much as it takes. */
  readonly work?: WorkMeter;
  /** Settles what the own search cannot within its budget of work; without one such a part may stay unproven or unanswered. */
  readonly solver?: IntegerSolver | null;
}

/** True if the caller wants what there is now. */
export function hasEnded({ isStopped, clock, until, work }: ChoiceLimits): boolean {
  if (work !== undefined && work.left <= 0) return true;
  return isStopped?.() === true || (clock !== undefined && until !== undefined && clock() >= until);
}

/** Takes steps of work off the meter, where there is one. */
export function spend({ work }: ChoiceLimits, steps: number): void {
  if (work !== undefined) work.left -= steps;
}

/**
 * Time left to the answer, seconds; Infinity where no time is set.
 *
 * @example secondsLeft({ clock: () => 2000, until: 5000 }) // 3
 */
export function secondsLeft({ clock, until }: ChoiceLimits): number {
  return clock === undefined || until === undefined ? Number.POSITIVE_INFINITY : Math.max(0, (until - clock()) / 1000);
}

/** The same limits with at most so much time from now on, ms; unchanged where there is no clock. */
export function within<Limits extends ChoiceLimits>(limits: Limits, ms: number): Limits {
  if (limits.clock === undefined) return limits;
  return { ...limits, until: Math.min(limits.until ?? Number.POSITIVE_INFINITY, limits.clock() + ms) };
}
