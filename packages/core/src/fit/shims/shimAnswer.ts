import { lengthOfNumber } from '../../measure/lengthOfNumber.js';
import { NANOMETRES_PER, type Unit } from '../../measure/unit.js';
import type { ShimPlan } from '../format/shimPlan.js';
import type { ShimRequest } from '../format/shimRequest.js';
import { type PlacedChoice, placedChoices } from './placedChoice.js';
import { costOf, formValue, type Piece, type PlacedProblem } from './placedProblem.js';
import { type RingChoice, type RingRequest, ringChoice, ringsOf, stacksAround, tidiestStack } from './ringChoice.js';
import { isPlaced, placedProblem } from './shimKinds.js';

/** The pieces of a request in whole nanometres. */
export function piecesOf({ unit, pieces }: ShimRequest): Piece[] {
  const shared = new Map<string, number>();
  return pieces.map((piece, at) => {
    const made = 'of' in piece ? piece.of : undefined;
    // The first that is made of something stands for it.
    const of = made === undefined ? at : (shared.get(made) ?? at);
    if (made !== undefined) shared.set(made, of);
    return {
      ...piece,
      of,
      thickness: lengthOfNumber(piece.thickness, unit),
      stock: piece.stock ?? Number.POSITIVE_INFINITY,
    };
  });
}

/**
 * Half nanometres as a number of a file.
 *
 * @example numberOfHalves(25_400, 'mm') // 0.0127
 */
export function numberOfHalves(halves: number, unit: Unit): number {
  return halves === 0 ? 0 : halves / 2 / NANOMETRES_PER[unit];
}

/** True if the feelers of the two sides share a crush that both could have; touching at one end counts as sharing. */
export function isSquare(request: ShimRequest): boolean {
  if (request.kind !== 'split-line') return true;
  const { left, right } = request.sides;
  const nm = (value: number) => lengthOfNumber(value, request.unit);
  return Math.max(nm(left.go), nm(right.go)) <= Math.min(nm(left.noGo), nm(right.noGo));
}

/** One choice, as a plan tells it. */
export type ShimChoice = Pick<ShimPlan, 'shift' | 'chosen'> & { readonly cost: number; readonly result: number };

function ringAnswer({ unit }: RingRequest, { stack, cost, result }: RingChoice, pieces: readonly Piece[]): ShimChoice {
  const chosen = ringsOf(tidiestStack(stack, pieces), pieces).map(({ id, count }) => ({
    place: 'stack' as const,
    id,
    count,
  }));
  return { cost, result: numberOfHalves(2 * result, unit), shift: 0, chosen };
}

function placedAnswer(unit: Unit, problem: PlacedProblem, { thicknesses, chosen }: PlacedChoice): ShimChoice {
  return {
    cost: costOf(problem, thicknesses),
    result: numberOfHalves(formValue(problem.result, thicknesses), unit),
    shift: problem.shift ? numberOfHalves(formValue(problem.shift, thicknesses), unit) : 0,
    chosen: chosen.map(({ slot, piece }) => ({ place: slot.place, id: piece.id, count: 1 })),
  };
}

/** The best choice without an explanation; null when nothing is allowed. @throws TooManyStacks */
export function shimAnswer(request: ShimRequest): ShimChoice | null {
  const pieces = piecesOf(request);
  if (!isPlaced(request)) {
    const { best } = ringChoice(request, pieces);
    return best && ringAnswer(request, best, pieces);
  }
  if (!isSquare(request)) return null;
  const problem = placedProblem(request);
  const [choice] = placedChoices(problem, pieces, 1);
  return choice ? placedAnswer(request.unit, problem, choice) : null;
}

/**
 * What else the pieces on hand would give, the least cost first: choices that keep every rule but the limits, of different results.
 *
 * @param most so many at the most
 * @throws TooManyStacks
 */
export function shimChoices(request: ShimRequest, most: number): ShimChoice[] {
  const pieces = piecesOf(request);
  if (!isPlaced(request)) {
    const stacks = stacksAround(request, pieces, most * request.counts.length);
    // Stacks of two and of three rings can come to the same end play: the better one stands for both.
    const firsts = new Map(stacks.toReversed().map((choice) => [choice.result, choice]));
    return stacks
      .filter((choice) => firsts.get(choice.result) === choice)
      .slice(0, most)
      .map((choice) => ringAnswer(request, choice, pieces));
  }
  if (!isSquare(request)) return [];
  const problem = placedProblem(request);
  const kindOf = (thicknesses: readonly number[]) => formValue(problem.result, thicknesses);
  return placedChoices(problem, pieces, most, { without: ['short'], kindOf }).map((choice) =>
    placedAnswer(request.unit, problem, choice),
  );
}
