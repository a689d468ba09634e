import type { Face } from '../../shell/piece.js';
import type { ShimPlace } from '../format/shimPlace.js';

/** A piece in whole nanometres. */
export interface Piece {
  readonly id: string;
  /** Number of what it is made from: pieces made from one thing share its stock. */
  readonly of: number;
  readonly thickness: number;
  /** Infinity for as many as wanted. */
  readonly stock: number;
  readonly half?: 'upper' | 'lower' | 'either';
  readonly face?: Face | undefined;
}

/** A place that takes one piece. */
export interface Slot {
  readonly place: ShimPlace;
  readonly fits: (piece: Piece) => boolean;
}

/** Places whose pieces lie together: the thicker one counts, and they differ by at most `alikeWithin`. */
export interface Group {
  readonly name: 'front' | 'rear' | 'flanges' | 'left' | 'right';
  readonly slots: readonly Slot[];
}

/** What a rule is about; the conflict it ends in when it alone cannot be met. */
export type RuleKind = 'short' | 'shift' | 'not-alike';

/** A sum over the thicknesses of the groups, in half nanometres: `Σ coefficient · thickness + constant`. */
export interface Form {
  readonly coefficients: readonly number[];
  readonly constant: number;
}

export interface Rule extends Form {
  readonly kind: RuleKind;
  readonly low: number;
  readonly high: number;
}

/**
 * A choice of one piece a place, where all that counts is one thickness a group: every kind but the stack of rings. Results, shifts and
 * bounds are whole half nanometres, so that halves of a nanometre stay exact.
 */
export interface PlacedProblem {
  readonly groups: readonly Group[];
  /** How far the pieces of a group may differ, nm. */
  readonly alikeWithin: number;
  readonly result: Form;
  readonly aim: number;
  readonly tightWeight: number;
  readonly rules: readonly Rule[];
  /** What is penalised beside the deviation: a form's value in µm, squared. */
  readonly terms: readonly (Form & { readonly penalty: number })[];
  /** Twice the way the shaft moves forward; null where it does not. */
  readonly shift: Form | null;
}

/**
 * A form's value at a thickness a group.
 *
 * @example formValue({ coefficients: [-2, -2], constant: 100 }, [10, 20]) // 40
 */
export function formValue({ coefficients, constant }: Form, thicknesses: readonly number[]): number {
  let sum = constant;
  for (let at = 0; at < coefficients.length; at += 1) sum += coefficients[at]! * thicknesses[at]!;
  return sum;
}

/**
 * What a thickness a group costs, µm²; rounded to 1e-6.
 *
 * @example costOf({ result: { coefficients: [-2], constant: 200_000 }, aim: 100_000, tightWeight: 2, terms: [] }, [52_000]) // 8
 */
export function costOf(problem: PlacedProblem, thicknesses: readonly number[]): number {
  const off = (formValue(problem.result, thicknesses) - problem.aim) / 2000;
  const own = problem.terms.reduce((sum, term) => sum + term.penalty * (formValue(term, thicknesses) / 2000) ** 2, 0);
  return roundedCost((off < 0 ? problem.tightWeight : 1) * off * off + own);
}

/**
 * Costs are rounded to 1e-6 µm².
 *
 * @example roundedCost(1 / 3) // 0.333333
 */
export function roundedCost(cost: number): number {
  return cost > 1e9 ? cost : Math.round(cost * 1e6) / 1e6;
}
