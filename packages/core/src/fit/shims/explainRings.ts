import { lengthOfNumber } from '../../measure/lengthOfNumber.js';
import { lengthText } from '../../measure/lengthText.js';
import { NANOMETRES_PER } from '../../measure/unit.js';
import type { ShimConflict, ShimRemedy } from '../format/shimPlan.js';
import type { Piece } from './placedProblem.js';
import { type RingChoice, type RingRequest, ringChoice, ringsOf } from './ringChoice.js';
import { isRemedy } from './shimRemedies.js';

/**
 * One ring more that would do: with each number of rings allowed, beside the others on hand that leave it nearest to the thickness that
 * such rings have.
 */
function newRing(request: RingRequest, pieces: readonly Piece[], stacks: ReturnType<typeof ringChoice>['stacks']) {
  const nm = (value: number): number => lengthOfNumber(value, request.unit);
  const free = nm(request.gap) - nm(request.settle);
  const [least, most] = [free - nm(request.high), free - nm(request.low)];
  const known = pieces.map(({ thickness }) => thickness).sort((one, other) => one - other);
  const usual = known[known.length >> 1] ?? Math.max(0, free - nm(request.aim));
  return [...new Set(request.counts)].flatMap((count): ShimRemedy[] => {
    if (count === 0) return [];
    const { atMost, atLeast } = stacks.nearest(count - 1, free - nm(request.aim) - usual);
    return [atMost, atLeast].flatMap((others): ShimRemedy[] => {
      if (!others || most - others.sum <= 0) return [];
      const from = Math.max(1, least - others.sum) / NANOMETRES_PER[request.unit];
      return [{ kind: 'piece', place: 'stack', from, to: (most - others.sum) / NANOMETRES_PER[request.unit] }];
    });
  });
}

function dressing(request: RingRequest, pieces: readonly Piece[], below: RingChoice | null): ShimRemedy[] {
  if (!below) return [];
  const by = lengthOfNumber(request.aim, request.unit) - below.result;
  const rings = ringsOf(below.stack, pieces);
  const thickest = pieces
    .filter(({ id, thickness }) => thickness > by && rings.some((ring) => ring.id === id))
    .sort((one, other) => other.thickness - one.thickness);
  return thickest.map(({ id }) => ({ kind: 'dress', place: 'stack', id, by: by / NANOMETRES_PER[request.unit] }));
}

/** Why no stack of the rings on hand lands inside, and what would do it. */
export function explainRings(request: RingRequest, pieces: readonly Piece[]): ShimConflict[] {
  const { unit } = request;
  const { below, above, stacks } = ringChoice(request, pieces);
  const number = (choice: RingChoice | null) => choice && choice.result / NANOMETRES_PER[unit];
  const limits: ShimRemedy[] = [
    ...(below ? [{ kind: 'limit' as const, low: below.result / NANOMETRES_PER[unit] }] : []),
    ...(above ? [{ kind: 'limit' as const, high: above.result / NANOMETRES_PER[unit] }] : []),
  ];
  const first = (list: readonly ShimRemedy[]) => list.filter((remedy) => isRemedy(request, remedy)).slice(0, 1);
  const remedies = [
    ...first(newRing(request, pieces, stacks)),
    ...first(dressing(request, pieces, below)),
    ...limits.filter((remedy) => isRemedy(request, remedy)),
  ];
  const counts = [...new Set(request.counts)].join(' or ');
  if (!below && !above) {
    const onHand = pieces.reduce((sum, { stock }) => sum + stock, 0);
    const message = `There are ${onHand} rings on hand; a stack takes ${counts}.`;
    return [{ kind: 'none', message, remedies, places: ['stack'], below: null, above: null }];
  }
  const nearest = [
    ...(below ? [`the nearest below leaves ${lengthText(below.result, unit)}`] : []),
    ...(above ? [`the nearest above ${below ? '' : 'leaves '}${lengthText(above.result, unit)}`] : []),
  ].join(', ');
  const wanted = `${lengthText(lengthOfNumber(request.low, unit), unit)} to ${lengthText(lengthOfNumber(request.high, unit), unit)}`;
  const message = `No stack of ${counts} rings on hand leaves ${wanted}: ${nearest}.`;
  return [{ kind: 'short', message, remedies, below: number(below), above: number(above) }];
}
