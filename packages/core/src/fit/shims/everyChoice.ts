import { lengthOfNumber } from '../../measure/lengthOfNumber.js';
import { NANOMETRES_PER } from '../../measure/unit.js';
import type { ShimRequest } from '../format/shimRequest.js';
import { costOf, formValue, type Piece, type PlacedProblem, roundedCost } from './placedProblem.js';
import type { RingRequest } from './ringChoice.js';
import { isSquare, numberOfHalves, piecesOf, type ShimChoice } from './shimAnswer.js';
import { isPlaced, placedProblem } from './shimKinds.js';

/** Maximum choices of one request that are tried one by one. */
const MOST_CHOICES = 50_000;

/** The choices of a request are too many to be shared out among several. */
export class TooManyChoices extends Error {
  override readonly name = 'TooManyChoices';
}

function everyStack(request: RingRequest, pieces: readonly Piece[]): ShimChoice[] {
  const nm = (value: number): number => lengthOfNumber(value, request.unit);
  const [low, high, aim] = [nm(request.low), nm(request.high), nm(request.aim)];
  const free = nm(request.gap) - nm(request.settle);
  const { tightWeight, countPenalty } = request.rules;
  const rising = pieces.filter(({ stock }) => stock > 0).sort((one, other) => one.thickness - other.thickness);
  const found: ShimChoice[] = [];
  const taken: { id: string; count: number }[] = [];
  const deal = (at: number, left: number, sum: number, place: number): void => {
    if (left === 0) {
      const result = free - sum;
      if (result < low || result > high) return;
      const off = (result - aim) / 1000;
      const cost = roundedCost((off < 0 ? tightWeight : 1) * off * off + countPenalty * place);
      const chosen = taken.map(({ id, count }) => ({ place: 'stack' as const, id, count }));
      found.push({ cost, result: result / NANOMETRES_PER[request.unit], shift: 0, chosen });
      if (found.length > MOST_CHOICES) throw new TooManyChoices('too many stacks to be shared out');
      return;
    }
    // Thicker ones follow: what is too much already stays too much, what the thickest cannot fill stays too little.
    if (at === rising.length || sum + left * rising[at]!.thickness > free - low) return;
    if (sum + left * rising.at(-1)!.thickness < free - high) return;
    const { id, thickness, stock } = rising[at]!;
    for (let count = Math.min(stock, left); count >= 1; count -= 1) {
      taken.push({ id, count });
      deal(at + 1, left - count, sum + count * thickness, place);
      taken.pop();
    }
    deal(at + 1, left, sum, place);
  };
  for (const count of new Set(request.counts)) deal(0, count, 0, request.counts.indexOf(count));
  return found;
}

function everyPlacing(request: ShimRequest, problem: PlacedProblem, pieces: readonly Piece[]): ShimChoice[] {
  const slots = problem.groups.flatMap((group, at) => group.slots.map((slot) => ({ slot, at })));
  const found: ShimChoice[] = [];
  const taken: Piece[] = [];
  let tried = 0;
  const place = (at: number): void => {
    tried += 1;
    if (tried > 20 * MOST_CHOICES) throw new TooManyChoices('too many combinations to share out');
    if (at === slots.length) {
      const thicknesses = problem.groups.map((_, group) =>
        Math.max(...taken.filter((_piece, other) => slots[other]!.at === group).map(({ thickness }) => thickness)),
      );
      const isAllowed = problem.rules.every((rule) => {
        const value = formValue(rule, thicknesses);
        return value >= rule.low && value <= rule.high;
      });
      if (!isAllowed) return;
      found.push({
        cost: costOf(problem, thicknesses),
        result: numberOfHalves(formValue(problem.result, thicknesses), request.unit),
        shift: problem.shift ? numberOfHalves(formValue(problem.shift, thicknesses), request.unit) : 0,
        chosen: taken.map(({ id }, other) => ({ place: slots[other]!.slot.place, id, count: 1 })),
      });
      if (found.length > MOST_CHOICES) throw new TooManyChoices('too many combinations to share out');
      return;
    }
    const { slot, at: group } = slots[at]!;
    const beside = taken.find((_piece, other) => slots[other]!.at === group);
    for (const piece of pieces) {
      if (!slot.fits(piece) || taken.filter(({ of }) => of === piece.of).length >= piece.stock) continue;
      if (beside && Math.abs(beside.thickness - piece.thickness) > problem.alikeWithin) continue;
      taken.push(piece);
      place(at + 1);
      taken.pop();
    }
  };
  place(0);
  return found;
}

/**
 * Every allowed choice of a request, piece by piece, the least cost first: for sharing pieces out among several requests, where another
 * piece of the same thickness makes a difference.
 *
 * @throws TooManyChoices
 */
export function everyChoice(request: ShimRequest): ShimChoice[] {
  const pieces = piecesOf(request);
  const found = !isPlaced(request)
    ? everyStack(request, pieces)
    : isSquare(request)
      ? everyPlacing(request, placedProblem(request), pieces)
      : [];
  return found.sort((one, other) => one.cost - other.cost);
}
