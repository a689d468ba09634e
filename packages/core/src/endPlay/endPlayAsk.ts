import { THRUST_TABLE, type ThrustKind } from '../engineType/thrustKind.js';
import type { ShimPlan } from '../fit/format/shimPlan.js';
import type { ShimRequestInput } from '../fit/format/shimRequest.js';
import { numberOfLength } from '../measure/formatLength.js';
import { lengthOfNumber } from '../measure/lengthOfNumber.js';
import { type Nanometres, nanometres } from '../measure/nanometres.js';
import type { Unit } from '../measure/unit.js';
import { type Piece, type PieceKind, pieceLabel } from '../shell/piece.js';
import { endPlayAim } from './endPlayAim.js';
import { endPlayBefore, limitsForMean } from './endPlayRounds.js';
import type { EndPlay, PieceChoice } from './endPlaySchema.js';

/** Pieces that an engine may take, with how many of each are free for it; null for as many as wanted. */
export type FreePieces = Readonly<Record<string, Piece & { readonly free: number | null }>>;

/** What keeps pieces from being chosen. */
export type NoPieceChoice = 'no-kind' | 'no-limits' | 'not-read' | 'no-fitted' | 'no-pieces' | 'no-shims' | 'uneven';

export type PieceAsk =
  | {
      readonly ok: true;
      readonly request: ShimRequestInput;
      /** From the names used in the request to the ids of the pieces. */
      readonly ids: ReadonlyMap<string, string>;
    }
  | { readonly ok: false; readonly reason: NoPieceChoice };

/** Names for pieces that a person can read in a message, unique in a request. */
export function namedPieces(pieces: FreePieces, kind: PieceKind): Map<string, string> {
  const names = new Map<string, string>();
  const own = Object.entries(pieces).filter(([, piece]) => piece.kind === kind);
  own.sort(([oneId, one], [otherId, other]) => one.thickness - other.thickness || (oneId < otherId ? -1 : 1));
  for (const [id, piece] of own) {
    const label = pieceLabel(piece);
    let name = label;
    for (let copy = 2; names.has(name); copy += 1) name = `${label} #${copy}`;
    names.set(name, id);
  }
  return names;
}

/**
 * The shim request for the end play of an engine: which pieces on hand bring it to its aim.
 *
 * @param expected asks as if so much had been read; null for what was read
 */
export function endPlayAsk(
  endPlay: EndPlay,
  kind: ThrustKind | null,
  limit: { readonly low: Nanometres; readonly high: Nanometres } | null,
  unit: Unit,
  pieces: FreePieces,
  expected: Nanometres | null = null,
): PieceAsk {
  if (kind === null) return { ok: false, reason: 'no-kind' };
  if (limit === null) return { ok: false, reason: 'no-limits' };
  const before = endPlayBefore(endPlay, kind === 'rings');
  const mean = expected ?? before?.mean ?? null;
  if (mean === null) return { ok: false, reason: 'not-read' };
  const open = expected === null && before !== null ? limitsForMean(before, limit) : limit;
  if (open === null) return { ok: false, reason: 'uneven' };
  const { front, rear, width } = endPlay.fitted;
  if (kind === 'washers' ? front === null || rear === null : kind === 'flanged' && width === null) {
    return { ok: false, reason: 'no-fitted' };
  }
  const ids = namedPieces(pieces, THRUST_TABLE[kind].piece);
  if (ids.size === 0) return { ok: false, reason: 'no-pieces' };
  const length = (value: Nanometres) => numberOfLength(value, unit);
  const common = {
    format: 'fettle.shim-request/1' as const,
    unit,
    low: length(open.low),
    high: length(open.high),
    aim: length(nanometres(Math.min(open.high, Math.max(open.low, endPlayAim(endPlay, limit))))),
  };
  const on = [...ids].map(([name, id]) => ({ name, piece: pieces[id]! }));
  const plain = on.map(({ name, piece }) => ({ id: name, thickness: length(piece.thickness), stock: piece.free }));
  const halves = [...endPlay.halves];
  const alikeWithin = length(endPlay.alikeWithin);
  if (kind === 'rings') {
    const { counts, settle } = endPlay;
    const rings = { kind: 'ring-shims' as const, gap: length(mean), settle: length(settle), counts: [...counts] };
    return { ok: true, ids, request: { ...common, ...rings, pieces: plain } };
  }
  const halved = plain.map((one, at) => ({ ...one, half: on[at]!.piece.half ?? ('either' as const) }));
  const reading = length(mean);
  if (kind === 'flanged') {
    const request = { ...common, kind: 'flanged-shell' as const, reading, fitted: { width: length(width!) }, halves };
    return { ok: true, ids, request: { ...request, rules: { alikeWithin }, pieces: halved } };
  }
  const faced = halved.map((one, at) => {
    const { face } = on[at]!.piece;
    return { ...one, ...(face === undefined ? {} : { face }) };
  });
  const maxShift = endPlay.maxShift === null ? null : length(endPlay.maxShift);
  return {
    ok: true,
    ids,
    request: {
      ...common,
      kind: 'thrust-washers',
      reading,
      fitted: { front: length(front!), rear: length(rear!) },
      halves,
      rules: { alikeWithin, maxShift },
      pieces: faced,
    },
  };
}

/** What a plan, or another choice, takes, ready to be accepted. */
export function acceptedPieces(
  asked: PieceAsk & { ok: true },
  choice: { readonly chosen: ShimPlan['chosen']; readonly result: number; readonly shift: number },
  pieces: FreePieces,
  { at, by }: Pick<PieceChoice, 'at' | 'by'>,
): PieceChoice {
  const { unit } = asked.request;
  return {
    at,
    by,
    chosen: choice.chosen.map(({ place, id, count }) => {
      const piece = asked.ids.get(id)!;
      const { thickness } = asked.request.pieces.find((one) => one.id === id)!;
      return { place, piece, label: pieceLabel(pieces[piece]!), thickness: lengthOfNumber(thickness, unit), count };
    }),
    predicted: lengthOfNumber(choice.result, unit),
    shift: lengthOfNumber(choice.shift, unit),
  };
}
