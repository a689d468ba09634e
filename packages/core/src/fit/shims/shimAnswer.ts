import { lengthOfNumber } from '../../measure/lengthOfNumber.js';
import { NANOMETRES_PER, type Unit } from '../../measure/unit.js';
import type { ShimPlan } from '../format/shimPlan.js';
import type { ShimRequest } from '../format/shimRequest.js';
import { placedChoice } from './placedChoice.js';
import { costOf, formValue, type Piece, placedProblem } from './placedProblem.js';
import { ringChoice, ringsOf } from './ringChoice.js';

/** The pieces of a request in whole nanometres. */
export function piecesOf({ unit, pieces }: ShimRequest): Piece[] {
  return pieces.map((piece) => ({
    ...piece,
    thickness: lengthOfNumber(piece.thickness, unit),
    stock: piece.stock ?? Number.POSITIVE_INFINITY,
  }));
}

/** Half nanometres as a number of a file. */
export function numberOfHalves(halves: number, unit: Unit): number {
  return halves === 0 ? 0 : halves / 2 / NANOMETRES_PER[unit];
}

/** Whether the feelers of the two sides share a crush that both could have; touching at one end counts as sharing. */
export function isSquare(request: ShimRequest): boolean {
  if (request.kind !== 'split-line') return true;
  const { left, right } = request.sides;
  const nm = (value: number) => lengthOfNumber(value, request.unit);
  return Math.max(nm(left.go), nm(right.go)) <= Math.min(nm(left.noGo), nm(right.noGo));
}

/** The best choice without an explanation; null when nothing is allowed. @throws TooManyStacks */
export function shimAnswer(request: ShimRequest): Omit<ShimPlan, 'status' | 'conflicts'> | null {
  const { unit, kind } = request;
  const pieces = piecesOf(request);
  const head = { format: 'fettle.shim-plan/1', unit, kind } as const;
  if (kind === 'ring-shims') {
    const { best } = ringChoice(request, pieces);
    if (!best) return null;
    const rings = ringsOf(best.stack, pieces);
    return {
      ...head,
      cost: best.cost,
      result: numberOfHalves(2 * best.result, unit),
      shift: 0,
      chosen: rings.map(({ id, count }) => ({ place: 'stack', id, count })),
    };
  }
  if (!isSquare(request)) return null;
  const problem = placedProblem(request);
  const choice = placedChoice(problem, pieces);
  if (!choice) return null;
  const { thicknesses, chosen } = choice;
  return {
    ...head,
    cost: costOf(problem, thicknesses),
    result: numberOfHalves(formValue(problem.result, thicknesses), unit),
    shift: problem.shift ? numberOfHalves(formValue(problem.shift, thicknesses), unit) : 0,
    chosen: chosen.map(({ slot, piece }) => ({ place: slot.place, id: piece.id, count: 1 })),
  };
}
