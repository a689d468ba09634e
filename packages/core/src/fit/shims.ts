import { lengthOfNumber } from '../measure/lengthOfNumber.js';
import { lengthText } from '../measure/lengthText.js';
import type { ShimConflict, ShimPlan } from './format/shimPlan.js';
import type { ShimRequest } from './format/shimRequest.js';
import { explainPlaced } from './shims/explainPlaced.js';
import { explainRings } from './shims/explainRings.js';
import { isSquare, piecesOf, shimAnswer } from './shims/shimAnswer.js';
import { isPlaced } from './shims/shimKinds.js';

function notSquare(request: Extract<ShimRequest, { kind: 'split-line' }>): ShimConflict {
  const { unit, sides } = request;
  const nm = (value: number) => lengthOfNumber(value, unit);
  const said = (name: 'left' | 'right') =>
    `${lengthText(nm(sides[name].go), unit)} to ${lengthText(nm(sides[name].noGo), unit)} on the ${name}`;
  const message = `The joint is not square: ${said('left')}, ${said('right')}. Seat the cap and the shells again, then re-read both sides.`;
  return { kind: 'not-square', message, remedies: [], places: ['left', 'right'] };
}

function conflictsOf(request: ShimRequest): ShimConflict[] {
  if (!isPlaced(request)) return explainRings(request, piecesOf(request));
  if (request.kind === 'split-line' && !isSquare(request)) return [notSquare(request)];
  return explainPlaced(request, piecesOf(request));
}

/**
 * Which pieces on hand bring a measured gap to its aim: the choice of least cost, `w·d² + the kind's own terms` in µm², with `d` the
 * deviation of the result from the aim and `w` the weight of a shortfall. Exact: every choice that could be the least is gone through, on
 * whole half nanometres.
 *
 * @param request as read by `readShimRequest`
 * @returns the plan; infeasible with why, and with changes that were each checked to lead to one. The same request always gives the same
 *   plan
 * @throws TooManyStacks where stacks of many rings from many odd thicknesses cannot be gone through
 */
export function shims(request: ShimRequest): ShimPlan {
  const answer = shimAnswer(request);
  const head = { format: 'fettle.shim-plan/1', unit: request.unit, kind: request.kind } as const;
  if (answer) return { ...head, status: 'optimal', ...answer, conflicts: [] };
  return {
    ...head,
    status: 'infeasible',
    cost: null,
    result: null,
    shift: 0,
    chosen: [],
    conflicts: conflictsOf(request),
  };
}
