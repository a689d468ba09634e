import { combinedUncertainty } from './uncertainty.js';

/** One thing that an uncertainty comes from. What two results have of one source they have in common: it adds up, or falls out. */
export interface Source {
  /** What it is known by: results that have a key in common share its error. */
  readonly key: string;
  /** What it is called in a table: `bore gauge, setting`. */
  readonly words: string;
  /** Standard uncertainty, in the unit of what it acts on. */
  readonly u: number;
  /** What it is told in where that is no length. */
  readonly in?: '°C' | undefined;
  /** Degrees of freedom of the uncertainty; left out: it is taken as certain. */
  readonly freedom?: number | undefined;
  /** How it may lie: normally about zero, or evenly between two ends. */
  readonly shape: 'normal' | 'even';
}

/** A source with what a result moves by when it moves by one. */
export interface Contribution extends Source {
  readonly sensitivity: number;
}

/** Everything that the uncertainty of a result comes from, each source once. */
export type Budget = readonly Contribution[];

/** A result as a sum of others: each with the times that it counts. */
export type Sum = readonly (readonly [budget: Budget, times: number])[];

/**
 * The budget of a sum: sensitivities of one source add up, those that come to nothing are left out (JCGM 100:2008, 5.2: correlated inputs,
 * by their common source; cited from memory).
 *
 * @example sumBudget([[[{ key: 'a', words: 'a', u: 3, shape: 'normal', sensitivity: 1 }], 2]])[0].sensitivity // 2
 */
export function sumBudget(sum: Sum): Budget {
  const found = new Map<string, Contribution>();
  for (const [budget, times] of sum) {
    for (const one of budget) {
      const before = found.get(one.key)?.sensitivity ?? 0;
      found.set(one.key, { ...one, sensitivity: before + times * one.sensitivity });
    }
  }
  return [...found.values()].filter(({ u, sensitivity }) => u > 0 && Math.abs(sensitivity) > 1e-9);
}

/**
 * The combined standard uncertainty of a budget: `u² = Σ (c·u)²` over its sources, which do not depend on each other.
 *
 * @example budgetUncertainty([{ u: 3, sensitivity: 1 }, { u: 2, sensitivity: -2 }]) // 5
 */
export function budgetUncertainty(budget: readonly Pick<Contribution, 'u' | 'sensitivity'>[]): number {
  return Math.sqrt(budget.reduce((sum, { u, sensitivity }) => sum + (u * sensitivity) ** 2, 0));
}

/**
 * Effective degrees of freedom of a budget: `ν = u⁴ / Σ (c·u)⁴/ν`, by Welch and Satterthwaite (JCGM 100:2008, G.4.1; cited from memory); Infinity where
 * every source is certain.
 *
 * @example budgetFreedom([{ u: 1, sensitivity: 1, freedom: 4 }, { u: 1, sensitivity: 1, freedom: 4 }]) // 8
 */
export function budgetFreedom(budget: readonly Pick<Contribution, 'u' | 'sensitivity' | 'freedom'>[]): number {
  return combinedUncertainty(
    budget.map(({ u, sensitivity, freedom }) => ({ u, sensitivity, ...(freedom === undefined ? {} : { freedom }) })),
  ).freedom;
}

/** The budget without the sources of another: what is its own. */
export function ownBudget(budget: Budget, others: readonly Budget[]): Budget {
  const shared = new Set(others.flatMap((other) => other.map(({ key }) => key)));
  return budget.filter(({ key }) => !shared.has(key));
}
