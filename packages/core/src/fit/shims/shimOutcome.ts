import { lengthOfNumber } from '../../measure/lengthOfNumber.js';
import type { ShimPlan } from '../format/shimPlan.js';
import type { ShimRequest } from '../format/shimRequest.js';
import { formValue, type RuleKind } from './placedProblem.js';
import { numberOfHalves, piecesOf } from './shimAnswer.js';
import { isPlaced, placedProblem } from './shimKinds.js';

/** What a choice that somebody made by hand leads to. */
export interface ShimOutcome {
  readonly result: number;
  readonly shift: number;
  /** What it breaks: `low` or `high` limits, `shift`, `not-alike`, `stock` where a piece is taken more often than it is there. */
  readonly broken: readonly ('low' | 'high' | 'stock' | Exclude<RuleKind, 'short'>)[];
}

/**
 * What a choice of pieces leads to, whether it is allowed or not.
 *
 * @param chosen a piece at every place, or the rings of a stack
 * @returns null where a place has no piece, or a piece is not in the request
 */
export function shimOutcome(request: ShimRequest, chosen: ShimPlan['chosen']): ShimOutcome | null {
  const pieces = new Map(piecesOf(request).map((piece) => [piece.id, piece]));
  if (chosen.some(({ id }) => !pieces.has(id))) return null;
  const counts = new Map<number, number>();
  const stocks = new Map([...pieces.values()].map(({ of, stock }) => [of, stock]));
  for (const { id, count } of chosen) {
    const { of } = pieces.get(id)!;
    counts.set(of, (counts.get(of) ?? 0) + count);
  }
  const isShort = [...counts].some(([of, count]) => count > stocks.get(of)!);
  const short = isShort ? (['stock'] as const) : [];
  const nm = (value: number) => 2 * lengthOfNumber(value, request.unit);
  const limits = (value: number, low: number, high: number) =>
    value < low ? (['low'] as const) : value > high ? (['high'] as const) : [];
  if (!isPlaced(request)) {
    const sum = chosen.reduce((total, { id, count }) => total + 2 * count * pieces.get(id)!.thickness, 0);
    const result = nm(request.gap) - nm(request.settle) - sum;
    const broken = [...limits(result, nm(request.low), nm(request.high)), ...short];
    return { result: numberOfHalves(result, request.unit), shift: 0, broken };
  }
  const problem = placedProblem(request);
  const sizes = problem.groups.map(({ slots }) =>
    slots.map(({ place }) => {
      const taken = chosen.find((one) => one.place === place);
      return taken ? pieces.get(taken.id)!.thickness : null;
    }),
  );
  if (sizes.flat().includes(null)) return null;
  const thicknesses = sizes.map((group) => Math.max(...(group as number[])));
  const isAlike = sizes.every(
    (group, at) => thicknesses[at]! - Math.min(...(group as number[])) <= problem.alikeWithin,
  );
  const broken = problem.rules.flatMap((rule): ShimOutcome['broken'] => {
    const value = formValue(rule, thicknesses);
    if (rule.kind === 'short') return limits(value, rule.low, rule.high);
    return value < rule.low || value > rule.high ? [rule.kind] : [];
  });
  return {
    result: numberOfHalves(formValue(problem.result, thicknesses), request.unit),
    shift: problem.shift ? numberOfHalves(formValue(problem.shift, thicknesses), request.unit) : 0,
    broken: [...new Set([...broken, ...(isAlike ? [] : (['not-alike'] as const)), ...short])],
  };
}
