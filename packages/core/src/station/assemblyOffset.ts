import { type Budget, budgetUncertainty, type Contribution, ownBudget, sumBudget } from '../measure/budget.js';
import { type Nanometres, nanometres } from '../measure/nanometres.js';
import { COVERAGE, weightedMean } from '../measure/uncertainty.js';

/** What one trial says of the difference between what is measured with the shells in and what was predicted. */
export interface TrialDifference {
  readonly station: string;
  /** Measured minus predicted, nm. */
  readonly difference: Nanometres;
  /** What its uncertainty comes from, nm. */
  readonly budget: Budget;
}

/** How an assembly differs from the sum of its parts, in one family, with one series of shells and one set of fasteners. */
export interface AssemblyOffset {
  readonly offset: Nanometres;
  /** Standard uncertainty of the offset, nm. */
  readonly u: number;
  /** What that comes from: sources that trials have in common do not average out. */
  readonly budget: Budget;
  /** The stations that were tried. */
  readonly stations: readonly string[];
  /** True if the trials lie further apart than their uncertainties let expect: then one of them is in doubt. */
  readonly isSpread: boolean;
}

/** A Birge ratio above this is told: trials lie twice as far apart as they should. A setting of ours, to be seen in what is said. */
const MOST_SPREAD = 2;

/**
 * The assembly offset from one trial or several: their mean, weighed by how well each is known apart from what they share; less well known where
 * they lie further apart than that. What they share (the setting of a gauge, the wall of a kind) moves all of them alike: it stays.
 *
 * @param step the mean is rounded to whole ones of it, nm: no trial tells more
 * @returns null without a trial
 */
export function assemblyOffset(trials: readonly TrialDifference[], step = 1): AssemblyOffset | null {
  if (trials.length === 0) return null;
  const owns = trials.map(({ budget }, at) =>
    budgetUncertainty(
      ownBudget(
        budget,
        trials.flatMap((other, place) => (place === at ? [] : [other.budget])),
      ),
    ),
  );
  // Trials that differ by nothing of their own are one: each counts the same.
  const results = trials.map(({ difference }, at) => ({ value: difference, u: owns[at]! > 0 ? owns[at]! : 1 }));
  const { mean, birge } = weightedMean(results);
  const whole = results.reduce((sum, { u }) => sum + 1 / u ** 2, 0);
  const isApart = birge > 1 && owns.every((u) => u > 0);
  const budget = sumBudget([
    ...trials.map((one, at) => [one.budget, 1 / results[at]!.u ** 2 / whole] as const),
    // Further apart than their own uncertainties let expect: what is behind that is not known, and counts as well.
    [isApart ? [{ ...APART, u: Math.sqrt((birge ** 2 - 1) / whole) }] : [], 1],
  ]);
  return {
    offset: nanometres(Math.round(mean / step) * step),
    u: budgetUncertainty(budget),
    budget,
    stations: trials.map(({ station }) => station),
    isSpread: birge > MOST_SPREAD,
  };
}

const APART: Omit<Contribution, 'u'> = {
  key: 'trials apart',
  words: 'trials further apart than expected',
  shape: 'normal',
  sensitivity: 1,
};

/** True if what was measured can be what was predicted: within the expanded uncertainty of their difference. */
export function isAsPredicted({ difference, u }: { readonly difference: Nanometres; readonly u: number }): boolean {
  return Math.abs(difference) <= COVERAGE * u;
}

/** What to look for before a measured clearance is believed that is not as predicted, the likeliest first. */
export const LOOK_FOR = {
  /** Less clearance than predicted. */
  tight: [
    'dirt or a burr under a shell',
    'oil behind a shell: backs and seats are dry',
    'a lug out of its notch',
    'wrong shell in the box: measure its wall',
    'cap turned round, or from another station',
  ],
  /** More clearance than predicted. */
  loose: [
    'the gauge in the oil hole, the groove, or at the parting line',
    'bolts not at their torque, or a cap not home',
    'wrong shell in the box: measure its wall',
    'cap turned round, or from another station',
  ],
} as const;

/**
 * What may be behind a difference, the likeliest first; a clearance that mirrors the predicted one about zero is a needle read with the wrong
 * sign. Common practice.
 */
export function whatToLookFor(measured: number, predicted: number, u: number): readonly string[] {
  const difference = measured - predicted;
  if (isAsPredicted({ difference: nanometres(Math.round(difference)), u })) return [];
  const isMirrored = Math.abs(measured + predicted) <= COVERAGE * u && measured < 0;
  const list = LOOK_FOR[difference < 0 ? 'tight' : 'loose'];
  return isMirrored ? ['needle sign reversed', ...list] : list;
}
