import { lengthOfNumber } from '../../measure/lengthOfNumber.js';
import { NANOMETRES_PER } from '../../measure/unit.js';
import type { ShimRemedy } from '../format/shimPlan.js';
import type { ShimRequest } from '../format/shimRequest.js';
import { shimAnswer } from './shimAnswer.js';
import { madeFor } from './shimKinds.js';

type PieceInput = ShimRequest['pieces'][number];

/** An id that no piece of the request has. */
function freshId({ pieces }: ShimRequest, wanted: string): string {
  let id = wanted;
  while (pieces.some((piece) => piece.id === id)) id += '′';
  return id;
}

function withPieces(request: ShimRequest, pieces: readonly object[]): ShimRequest {
  return { ...request, pieces: [...request.pieces, ...pieces] as never };
}

/** The request with one piece more at each of the places, all of one thickness. */
export function withNewPieces(request: ShimRequest, places: readonly string[], thickness: number): ShimRequest {
  return places.reduce(
    (sum, place) => withPieces(sum, [{ id: freshId(sum, 'new'), thickness, stock: 1, ...madeFor(request, place) }]),
    request,
  );
}

/** The request after something was taken off pieces on hand, a count of each; null where a piece is not thick enough. */
export function withDressed(request: ShimRequest, ids: readonly string[], by: number): ShimRequest | null {
  const nm = (value: number) => lengthOfNumber(value, request.unit);
  let changed = request;
  for (const id of ids) {
    const piece = changed.pieces.find((one) => one.id === id);
    if (!piece || (piece.stock !== null && piece.stock < 1) || nm(piece.thickness) <= nm(by)) return null;
    const thickness = (nm(piece.thickness) - nm(by)) / NANOMETRES_PER[request.unit];
    const { of, ...own } = { of: undefined, ...piece };
    // One fewer of it, and of whatever else is made from the same.
    const isOfIt = (one: PieceInput) => one === piece || (of !== undefined && 'of' in one && one.of === of);
    const stock = piece.stock === null ? null : piece.stock - 1;
    const left = changed.pieces.map((one) => (isOfIt(one) ? { ...one, stock } : one));
    const dressed = { ...own, id: freshId(changed, `${id} dressed`), thickness, stock: 1 };
    changed = withPieces({ ...changed, pieces: left as never }, [dressed]);
  }
  return changed;
}

/**
 * The request as it would be after a remedy was followed; what a remedy promises is checked by answering it, and what a fitter takes up
 * is applied by the same.
 *
 * @param thickness of the new piece, from `from` to `to`; left out, the middle
 * @returns null where it cannot be followed
 */
export function withShimRemedy(request: ShimRequest, remedy: ShimRemedy, thickness?: number): ShimRequest | null {
  switch (remedy.kind) {
    case 'piece':
      return withNewPieces(request, [remedy.place], thickness ?? (remedy.from + remedy.to) / 2);
    case 'dress':
      return withDressed(request, [remedy.id], remedy.by);
    case 'limit':
      return 'low' in remedy ? { ...request, low: remedy.low } : { ...request, high: remedy.high };
  }
}

/** True if a request has a plan; null has none. */
export function isAnswered(request: ShimRequest | null): boolean {
  return request !== null && shimAnswer(request) !== null;
}

/** True if a remedy keeps its promise: at both ends and in the middle of what it says. */
export function isRemedy(request: ShimRequest, remedy: ShimRemedy): boolean {
  if (remedy.kind !== 'piece') return isAnswered(withShimRemedy(request, remedy));
  return [remedy.from, (remedy.from + remedy.to) / 2, remedy.to].every((thickness) =>
    isAnswered(withShimRemedy(request, remedy, thickness)),
  );
}
