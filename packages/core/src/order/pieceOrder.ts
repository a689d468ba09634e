import type { ShimRequest } from '../fit/format/shimRequest.js';
import { placedChoices } from '../fit/shims/placedChoice.js';
import { formValue, type Piece } from '../fit/shims/placedProblem.js';
import type { RingRequest } from '../fit/shims/ringChoice.js';
import { RingStacks } from '../fit/shims/ringStacks.js';
import { piecesOf } from '../fit/shims/shimAnswer.js';
import { isPlaced, mostPieces, placedProblem, readingOfRequest } from '../fit/shims/shimKinds.js';
import { lengthOfNumber } from '../measure/lengthOfNumber.js';
import { normalChance } from '../measure/normalChance.js';

/** What is known of a reading that is not taken yet, nm: anywhere between two figures, or a mean with its standard uncertainty. */
export type ExpectedReading =
  | { readonly kind: 'band'; readonly low: number; readonly high: number }
  | { readonly kind: 'normal'; readonly mean: number; readonly uncertainty: number };

/** The kinds of request whose reading is one length: the gap of a stack, an end play, the clearance of white metal. */
export type OneLengthRequest = Exclude<ShimRequest, { kind: 'split-line' }>;

/** A closed stretch of readings, nm. */
export interface Stretch {
  readonly low: number;
  readonly high: number;
}

function joined(stretches: readonly Stretch[]): Stretch[] {
  const sorted = [...stretches].sort((one, other) => one.low - other.low);
  const whole: { low: number; high: number }[] = [];
  for (const { low, high } of sorted) {
    const last = whole.at(-1);
    if (last && low <= last.high) last.high = Math.max(last.high, high);
    else whole.push({ low, high });
  }
  return whole;
}

/** Stretches for a stack: from one end to the other, always with the stack that reaches furthest. */
function coveredByRings(request: RingRequest, pieces: readonly Piece[], within: Stretch): Stretch[] {
  const nm = (value: number): number => lengthOfNumber(value, request.unit);
  const [low, high, settle] = [nm(request.low), nm(request.high), nm(request.settle)];
  const counts = [...new Set(request.counts)];
  const stacks = new RingStacks(pieces, Math.max(...counts));
  const covered: Stretch[] = [];
  let at = within.low;
  while (at <= within.high) {
    const tried = counts.map((count) => stacks.nearest(count, at - settle - low));
    const under = Math.max(...tried.map(({ atMost }) => atMost?.sum ?? Number.NEGATIVE_INFINITY));
    if (under >= at - settle - high) {
      covered.push({ low: at, high: under + settle + high });
      at = under + settle + high + 1;
      continue;
    }
    const over = Math.min(...tried.map(({ atLeast }) => atLeast?.sum ?? Number.POSITIVE_INFINITY));
    if (!Number.isFinite(over)) break;
    at = over + settle + low;
  }
  return covered;
}

/**
 * The readings for which the pieces on hand have a plan, each choice covering a stretch as long as the limits are apart. Exact, for
 * whatever the request says was read.
 *
 * @param within where to look, nm
 * @returns stretches in rising order, none touching another
 */
export function coveredReadings(request: OneLengthRequest, within: Stretch, pieces = piecesOf(request)): Stretch[] {
  const clip = (list: readonly Stretch[]) =>
    joined(
      list.flatMap(({ low, high }) => {
        const cut = { low: Math.max(low, within.low), high: Math.min(high, within.high) };
        return cut.low <= cut.high ? [cut] : [];
      }),
    );
  if (!isPlaced(request)) {
    // Neighbouring whole nanometres are one stretch.
    const spaced = coveredByRings(request, pieces, within).map(({ low, high }) => ({ low, high: high + 1 }));
    return clip(joined(spaced).map(({ low, high }) => ({ low, high: high - 1 })));
  }
  const problem = placedProblem(request);
  const read = lengthOfNumber(readingOfRequest(request), request.unit);
  const range = problem.rules.find(({ kind }) => kind === 'short')!;
  const choices = placedChoices(problem, pieces, Number.POSITIVE_INFINITY, { without: ['short'], rank: () => 0 });
  return clip(
    choices.map(({ thicknesses }) => {
      // What the pieces add to the reading, in half nanometres.
      const added = formValue(range, thicknesses) - 2 * read;
      return { low: (range.low - added) / 2, high: (range.high - added) / 2 };
    }),
  );
}

/** The chance that a reading falls into one of the stretches. */
function chanceIn(stretches: readonly Stretch[], expected: ExpectedReading): number {
  if (expected.kind === 'normal') {
    const { mean, uncertainty } = expected;
    return stretches.reduce((sum, stretch) => sum + normalChance(mean, uncertainty, stretch), 0);
  }
  const width = expected.high - expected.low;
  if (width === 0) return stretches.some(({ low, high }) => low <= expected.low && expected.low <= high) ? 1 : 0;
  return Math.min(1, stretches.reduce((sum, { low, high }) => sum + high - low, 0) / width);
}

/** Beyond five standard uncertainties nothing is counted: 6 in 10 million. */
const FAR = 5;

function withinOf(expected: ExpectedReading): Stretch {
  if (expected.kind === 'band') return expected;
  const reach = Math.max(1, FAR * expected.uncertainty);
  return { low: Math.floor(expected.mean - reach), high: Math.ceil(expected.mean + reach) };
}

/**
 * The chance that the pieces on hand bring a reading that is not taken yet inside its limits. Exact for what is expected; no engines are
 * drawn.
 *
 * @returns 0 to 1
 */
export function pieceChance(request: OneLengthRequest, expected: ExpectedReading, pieces = piecesOf(request)): number {
  return chanceIn(coveredReadings(request, withinOf(expected), pieces), expected);
}

export interface PieceOrder {
  /** With what is on the shelf. */
  readonly now: number;
  /** With as many of every kind as wanted: no shelf of these kinds can do better. */
  readonly ceiling: number;
  /** With what is to be ordered as well. */
  readonly chance: number;
  readonly isReached: boolean;
  readonly order: readonly { readonly id: string; readonly count: number }[];
}

/**
 * Which pieces should be on the shelf, of the kinds in the request, so that a reading that is not taken yet can be brought inside with a
 * chance of at least `target`: from as many of each as can be used, whatever can be left out is left out, the dearest first. None of what
 * remains can be left out alone.
 *
 * @param prices by id; what has none counts as 1
 */
export function pieceOrder(
  request: OneLengthRequest,
  expected: ExpectedReading,
  target: number,
  prices: Readonly<Record<string, number>> = {},
): PieceOrder {
  const pieces = piecesOf(request);
  const most = mostPieces(request);
  const chanceOf = (extra: readonly number[]) =>
    pieceChance(
      request,
      expected,
      pieces.map((piece, at) => ({ ...piece, stock: piece.stock + extra[at]! })),
    );
  const extra = pieces.map(({ stock }) => Math.max(0, most - stock));
  const now = chanceOf(pieces.map(() => 0));
  const ceiling = chanceOf(extra);
  const wanted = Math.min(target, ceiling);
  const dearest = pieces
    .map(({ id }, at) => ({ at, price: prices[id] ?? 1 }))
    .sort((one, other) => other.price - one.price || other.at - one.at);
  if (now >= wanted) extra.fill(0);
  for (const { at } of dearest) {
    while (extra[at]! > 0) {
      extra[at]! -= 1;
      if (chanceOf(extra) >= wanted - 1e-12) continue;
      extra[at]! += 1;
      break;
    }
  }
  return {
    now,
    ceiling,
    chance: chanceOf(extra),
    isReached: ceiling >= target,
    order: pieces.flatMap(({ id }, at) => (extra[at]! > 0 ? [{ id, count: extra[at]! }] : [])),
  };
}
