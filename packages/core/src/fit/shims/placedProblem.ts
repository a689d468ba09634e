import { lengthOfNumber } from '../../measure/lengthOfNumber.js';
import { FACES, type Face } from '../../shell/piece.js';
import type { ShimPlace } from '../format/shimPlace.js';
import type { ShimRequest } from '../format/shimRequest.js';

/** A piece in whole nanometres. */
export interface Piece {
  readonly id: string;
  /** Number of what it is made from: pieces made from one thing share its stock. */
  readonly of: number;
  readonly thickness: number;
  /** Infinity for as many as wanted. */
  readonly stock: number;
  readonly half?: 'upper' | 'lower' | 'either';
  readonly face?: Face | undefined;
}

/** A place that takes one piece. */
export interface Slot {
  readonly place: ShimPlace;
  readonly fits: (piece: Piece) => boolean;
}

/** Places whose pieces lie together: the thicker one counts, and they differ by at most `alikeWithin`. */
export interface Group {
  readonly name: 'front' | 'rear' | 'flanges' | 'left' | 'right';
  readonly slots: readonly Slot[];
}

/** What a rule is about; the conflict it ends in when it alone cannot be met. */
export type RuleKind = 'short' | 'shift' | 'not-alike';

/** A sum over the thicknesses of the groups, in half nanometres: `Σ coefficient · thickness + constant`. */
export interface Form {
  readonly coefficients: readonly number[];
  readonly constant: number;
}

export interface Rule extends Form {
  readonly kind: RuleKind;
  readonly low: number;
  readonly high: number;
}

/**
 * A choice of one piece a place, where all that counts is one thickness a group: every kind but the stack of rings. Results, shifts and
 * bounds are whole half nanometres, so that halves of a nanometre stay exact.
 */
export interface PlacedProblem {
  readonly groups: readonly Group[];
  /** How far the pieces of a group may differ, nm. */
  readonly alikeWithin: number;
  readonly result: Form;
  readonly aim: number;
  readonly tightWeight: number;
  readonly rules: readonly Rule[];
  /** What is penalised beside the deviation: a form's value in µm, squared. */
  readonly terms: readonly (Form & { readonly penalty: number })[];
  /** Twice the way the shaft moves forward; null where it does not. */
  readonly shift: Form | null;
}

/** Common practice: 0.005 mm, whatever the unit. */
const ALIKE_WITHIN = 5_000;

type Placed = Exclude<ShimRequest, { kind: 'ring-shims' }>;

/** A form's value at a thickness a group. */
export function formValue({ coefficients, constant }: Form, thicknesses: readonly number[]): number {
  let sum = constant;
  for (let at = 0; at < coefficients.length; at += 1) sum += coefficients[at]! * thicknesses[at]!;
  return sum;
}

/** States a request as groups, sums and bounds. */
export function placedProblem(request: Placed): PlacedProblem {
  const nm = (value: number): number => lengthOfNumber(value, request.unit);
  const aim = 2 * nm(request.aim);
  const low = 2 * nm(request.low);
  const high = 2 * nm(request.high);
  const { tightWeight } = request.rules;
  const alike = 'alikeWithin' in request.rules ? request.rules.alikeWithin : undefined;
  const given = alike ?? ('alikeWithin' in request ? request.alikeWithin : undefined);
  const alikeWithin = given === undefined ? ALIKE_WITHIN : nm(given);
  const base = { aim, tightWeight, alikeWithin };
  const isHalf = (half: string) => (piece: Piece) => piece.half === half || piece.half === 'either';
  const any = () => true;
  const range = (form: Form): Rule => ({ ...form, kind: 'short', low, high });

  switch (request.kind) {
    case 'thrust-washers': {
      const front = nm(request.fitted.front);
      const rear = nm(request.fitted.rear);
      const { maxShift, shiftPenalty } = request.rules;
      const result = { coefficients: [-2, -2], constant: 2 * (nm(request.reading) + front + rear) };
      const shift = { coefficients: [1, -1], constant: rear - front };
      const most = maxShift === null ? Number.POSITIVE_INFINITY : 2 * nm(maxShift);
      return {
        ...base,
        groups: FACES.map((face) => ({
          name: face,
          slots: request.halves.map((half) => ({
            place: `${face}.${half}` as const,
            fits: (piece) => isHalf(half)(piece) && (piece.face ?? face) === face,
          })),
        })),
        result,
        rules: [range(result), { ...shift, kind: 'shift', low: -most, high: most }],
        terms: [{ ...shift, penalty: shiftPenalty }],
        shift,
      };
    }
    case 'flanged-shell': {
      const result = { coefficients: [-2], constant: 2 * (nm(request.reading) + nm(request.fitted.width)) };
      return {
        ...base,
        groups: [{ name: 'flanges', slots: request.halves.map((half) => ({ place: half, fits: isHalf(half) })) }],
        result,
        rules: [range(result)],
        terms: [],
        shift: null,
      };
    }
    case 'split-line': {
      const { left, right } = request.sides;
      const [goes, stops] = [[left.go, right.go].map(nm), [left.noGo, right.noGo].map(nm)];
      const [shimLeft, shimRight] = [nm(left.shim), nm(right.shim)];
      const change = { coefficients: [2, 2], constant: -2 * (shimLeft + shimRight) };
      return {
        ...base,
        groups: (['left', 'right'] as const).map((side) => ({ name: side, slots: [{ place: side, fits: any }] })),
        result: { ...change, constant: change.constant + Math.max(...goes) + Math.min(...stops) },
        rules: [{ ...change, kind: 'short', low: low - 2 * Math.min(...goes), high: high - 2 * Math.max(...stops) }],
        terms: [{ coefficients: [2, -2], constant: 2 * (shimRight - shimLeft), penalty: request.rules.unevenPenalty }],
        shift: null,
      };
    }
    case 'saddle-shims': {
      const fitted = nm(request.fitted.left) + nm(request.fitted.right);
      const result = { coefficients: [1, 1], constant: 2 * nm(request.clearance) - fitted };
      return {
        ...base,
        groups: (['left', 'right'] as const).map((side) => ({ name: side, slots: [{ place: side, fits: any }] })),
        result,
        rules: [
          range(result),
          { coefficients: [1, -1], constant: 0, kind: 'not-alike', low: -alikeWithin, high: alikeWithin },
        ],
        terms: [],
        shift: null,
      };
    }
  }
}

/** What a thickness a group costs, µm²; rounded to 1e-6. */
export function costOf(problem: PlacedProblem, thicknesses: readonly number[]): number {
  const off = (formValue(problem.result, thicknesses) - problem.aim) / 2000;
  const own = problem.terms.reduce((sum, term) => sum + term.penalty * (formValue(term, thicknesses) / 2000) ** 2, 0);
  return roundedCost((off < 0 ? problem.tightWeight : 1) * off * off + own);
}

/** Costs are rounded to 1e-6 µm². */
export function roundedCost(cost: number): number {
  return cost > 1e9 ? cost : Math.round(cost * 1e6) / 1e6;
}
