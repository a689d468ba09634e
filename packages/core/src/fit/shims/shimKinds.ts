import { lengthOfNumber } from '../../measure/lengthOfNumber.js';
import { FACES } from '../../shell/piece.js';
import type { ShimKind, ShimRequest } from '../format/shimRequest.js';
import type { Form, Group, Piece, PlacedProblem, Rule } from './placedProblem.js';

/** A request of one kind. */
export type RequestOf<Kind extends ShimKind> = Extract<ShimRequest, { readonly kind: Kind }>;

/** The kinds whose pieces have a place each; rings lie in one stack, in any number, and are solved for apart. */
export type PlacedKind = Exclude<ShimKind, 'ring-shims'>;
export type PlacedRequest = RequestOf<PlacedKind>;

/** A request in whole half nanometres, as far as it is alike for every kind. */
interface Common {
  /** A length of the request, nm. */
  readonly nm: (value: number) => number;
  readonly low: number;
  readonly high: number;
  readonly alikeWithin: number;
}

/** What a kind makes of a request beside what is alike for all. */
type Own = Pick<PlacedProblem, 'groups' | 'result' | 'rules'> & Partial<Pick<PlacedProblem, 'terms' | 'shift'>>;

/** One kind of washer or shim whose pieces have a place each. A new one is a row here and its schema. */
interface PlacedRow<Kind extends PlacedKind> {
  /** States a request as groups, sums and bounds. */
  readonly problem: (request: RequestOf<Kind>, common: Common) => Own;
  /** The member that is one length, as it was read; null where two sides are read. */
  readonly reading: ((request: RequestOf<Kind>) => number) | null;
  /** Pieces that a choice takes. */
  readonly count: (request: RequestOf<Kind>) => number;
  /** What a place asks of a piece. */
  readonly madeFor: (place: string) => object;
}

const isHalf = (half: string) => (piece: Piece) => piece.half === half || piece.half === 'either';
const short = (form: Form, { low, high }: Common): Rule => ({ ...form, kind: 'short', low, high });
const SIDES: readonly Group[] = (['left', 'right'] as const).map((side) => ({
  name: side,
  slots: [{ place: side, fits: () => true }],
}));

const ROWS: { readonly [Kind in PlacedKind]: PlacedRow<Kind> } = {
  'thrust-washers': {
    problem: ({ reading, fitted, halves, rules: { maxShift, shiftPenalty } }, common) => {
      const { nm } = common;
      const [front, rear] = [nm(fitted.front), nm(fitted.rear)];
      const result = { coefficients: [-2, -2], constant: 2 * (nm(reading) + front + rear) };
      const shift = { coefficients: [1, -1], constant: rear - front };
      const most = maxShift === null ? Number.POSITIVE_INFINITY : 2 * nm(maxShift);
      return {
        groups: FACES.map((face) => ({
          name: face,
          slots: halves.map((half) => ({
            place: `${face}.${half}` as const,
            fits: (piece) => isHalf(half)(piece) && (piece.face ?? face) === face,
          })),
        })),
        result,
        rules: [short(result, common), { ...shift, kind: 'shift', low: -most, high: most }],
        terms: [{ ...shift, penalty: shiftPenalty }],
        shift,
      };
    },
    reading: ({ reading }) => reading,
    count: ({ halves }) => 2 * halves.length,
    madeFor: (place) => {
      const [face, half] = place.split('.');
      return { face, half };
    },
  },
  'flanged-shell': {
    problem: ({ reading, fitted, halves }, common) => {
      const result = { coefficients: [-2], constant: 2 * (common.nm(reading) + common.nm(fitted.width)) };
      return {
        groups: [{ name: 'flanges', slots: halves.map((half) => ({ place: half, fits: isHalf(half) })) }],
        result,
        rules: [short(result, common)],
      };
    },
    reading: ({ reading }) => reading,
    count: ({ halves }) => halves.length,
    madeFor: (place) => ({ half: place }),
  },
  'split-line': {
    problem: ({ sides: { left, right }, rules }, { nm, low, high }) => {
      const [goes, stops] = [[left.go, right.go].map(nm), [left.noGo, right.noGo].map(nm)];
      const [shimLeft, shimRight] = [nm(left.shim), nm(right.shim)];
      const change = { coefficients: [2, 2], constant: -2 * (shimLeft + shimRight) };
      return {
        groups: SIDES,
        result: { ...change, constant: change.constant + Math.max(...goes) + Math.min(...stops) },
        rules: [{ ...change, kind: 'short', low: low - 2 * Math.min(...goes), high: high - 2 * Math.max(...stops) }],
        terms: [{ coefficients: [2, -2], constant: 2 * (shimRight - shimLeft), penalty: rules.unevenPenalty }],
      };
    },
    reading: null,
    count: () => 2,
    madeFor: () => ({}),
  },
  'saddle-shims': {
    problem: ({ clearance, fitted }, common) => {
      const { nm, alikeWithin } = common;
      const result = { coefficients: [1, 1], constant: 2 * nm(clearance) - nm(fitted.left) - nm(fitted.right) };
      const apart: Rule = {
        coefficients: [1, -1],
        constant: 0,
        kind: 'not-alike',
        low: -alikeWithin,
        high: alikeWithin,
      };
      return { groups: SIDES, result, rules: [short(result, common), apart] };
    },
    reading: ({ clearance }) => clearance,
    count: () => 2,
    madeFor: () => ({}),
  },
};

/** The row of a request's kind, to be asked with that request alone. */
function rowOf(request: PlacedRequest): PlacedRow<PlacedKind> {
  return ROWS[request.kind] as unknown as PlacedRow<PlacedKind>;
}

/** True if the pieces of a request have a place each. */
export function isPlaced(request: ShimRequest): request is PlacedRequest {
  return request.kind in ROWS;
}

/** Common practice: 0.005 mm, whatever the unit. */
const ALIKE_WITHIN = 5_000;

/** States a request as groups, sums and bounds. */
export function placedProblem(request: PlacedRequest): PlacedProblem {
  const nm = (value: number): number => lengthOfNumber(value, request.unit);
  const { tightWeight } = request.rules;
  const alike = 'alikeWithin' in request.rules ? request.rules.alikeWithin : undefined;
  const given = alike ?? ('alikeWithin' in request ? request.alikeWithin : undefined);
  const alikeWithin = given === undefined ? ALIKE_WITHIN : nm(given);
  const common = { nm, low: 2 * nm(request.low), high: 2 * nm(request.high), alikeWithin };
  const own = rowOf(request).problem(request, common);
  return { aim: 2 * nm(request.aim), tightWeight, alikeWithin, terms: [], shift: null, ...own };
}

/** The half and the face that a place asks for, where its kind has them. */
export function madeFor(request: ShimRequest, place: string): object {
  return isPlaced(request) ? rowOf(request).madeFor(place) : {};
}

/**
 * What was read, in the request's unit.
 *
 * @throws TypeError for a kind that is read at two sides
 * @example readingOfRequest({ kind: 'saddle-shims', clearance: 0.08 }) // 0.08
 */
export function readingOfRequest(request: PlacedRequest): number {
  const { reading } = rowOf(request);
  if (reading === null) throw new TypeError(`${request.kind} is no single reading`);
  return reading(request);
}

/**
 * Pieces that a choice takes at the most.
 *
 * @example mostPieces({ kind: 'ring-shims', counts: [3, 2] }) // 3
 */
export function mostPieces(request: ShimRequest): number {
  return isPlaced(request) ? rowOf(request).count(request) : Math.max(...request.counts);
}
