import type { IntegerSolver } from './integerSolver.js';

/** How far a search has come. */
export interface FitProgress {
  readonly doing: 'pricing halves' | 'combining' | 'proving' | 'searching';
  /** Cost of the best plan so far and what is proven, of the part in work, µm²; null while there is none. */
  readonly cost: number | null;
  readonly bound: number | null;
}

export interface ChoiceLimits {
  readonly onProgress?: (progress: FitProgress) => void;
  /** Asked now and then; once it says yes, the best choice so far is the answer, with its bound. */
  readonly isStopped?: () => boolean;
  /** Finishes large parts; without one their plan may stay unproven, with its bound. */
  readonly solver?: IntegerSolver | null;
}
