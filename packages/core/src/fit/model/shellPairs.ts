import type { Family } from '../../part/family.js';
import type { ModelRules, ModelShell } from './fitModel.js';

/** An upper and a lower half that may go into one station, by their positions in the list of shells. */
export interface ShellPair {
  readonly upper: number;
  readonly lower: number;
  /** Sum of both walls, nm. */
  readonly walls: number;
  readonly mixed: boolean;
  /** The series of both halves; null where they are of two. */
  readonly series: string | null;
  /** Width over its flanges, the wider half counting; null where neither has any. */
  readonly width: number | null;
  /** What the pair costs wherever it goes: mixed penalty and prices, in cost units. */
  readonly fixedCost: number;
}

/** What of a half decides with which others it may share a station. */
export type PairedHalf = Pick<ModelShell, 'family' | 'series' | 'half' | 'wall' | 'undersize'>;

/** The rules on what two halves may share a station. */
export type PairRules = Pick<ModelRules, 'mixedHalves' | 'acrossSeries' | 'maxWallStep' | 'thinnerHalf'>;

/** Why two halves may not share a station, or null when they may. */
export function pairFault(
  upper: PairedHalf,
  lower: PairedHalf,
  rules: PairRules,
): 'side' | 'undersize' | 'series' | 'mixed' | 'step' | 'thinner-side' | null {
  if (upper.half === 'lower' || lower.half === 'upper' || upper.family !== lower.family) return 'side';
  if (upper.undersize !== lower.undersize) return 'undersize';
  if (!rules.acrossSeries && upper.series !== lower.series) return 'series';
  const step = upper.wall - lower.wall;
  if (step === 0) return null;
  if (!rules.mixedHalves) return 'mixed';
  if (Math.abs(step) > rules.maxWallStep) return 'step';
  if (rules.thinnerHalf === 'upper' && step > 0) return 'thinner-side';
  if (rules.thinnerHalf === 'lower' && step < 0) return 'thinner-side';
  return null;
}

/** True if a half fits a place. */
export function fitsPlace({ positions }: Pick<ModelShell, 'positions'>, position: string): boolean {
  return positions === null || positions.includes(position);
}

/** True if a half may serve at a place of a family: of the family, on hand, made for the place. */
export function isOpenShell(shell: ModelShell, family: Family, position: string): boolean {
  return shell.family === family && shell.stock >= 1 && fitsPlace(shell, position);
}

/** An upper and a lower half, by position, as a pair with what it costs. */
export function pairOf(shells: readonly ModelShell[], upperAt: number, lowerAt: number, rules: ModelRules): ShellPair {
  const [upper, lower] = [shells[upperAt]!, shells[lowerAt]!];
  const mixed = upper.wall !== lower.wall;
  return {
    upper: upperAt,
    lower: lowerAt,
    walls: upper.wall + lower.wall,
    mixed,
    series: upper.series === lower.series ? upper.series : null,
    width: upper.width === null && lower.width === null ? null : Math.max(upper.width ?? 0, lower.width ?? 0),
    fixedCost: (mixed ? rules.mixedPenalty : 0) + upper.price + lower.price,
  };
}

/**
 * Every pair of halves of one family that the rules allow in a station of one place, in the order of the shells.
 * A half with a stock of one cannot serve on both sides.
 */
export function shellPairs(
  shells: readonly ModelShell[],
  family: Family,
  rules: ModelRules,
  position: string,
): ShellPair[] {
  const pairs: ShellPair[] = [];
  shells.forEach((upper, upperAt) => {
    if (!isOpenShell(upper, family, position) || upper.half === 'lower') return;
    shells.forEach((lower, lowerAt) => {
      if (!isOpenShell(lower, family, position)) return;
      if (upperAt === lowerAt && upper.stock < 2) return;
      if (pairFault(upper, lower, rules) !== null) return;
      pairs.push(pairOf(shells, upperAt, lowerAt, rules));
    });
  });
  return pairs;
}
