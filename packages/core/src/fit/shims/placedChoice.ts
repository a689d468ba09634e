import {
  costOf,
  formValue,
  type Group,
  type Piece,
  type PlacedProblem,
  type Rule,
  type RuleKind,
  type Slot,
} from './placedProblem.js';

/** A piece at every place. */
export interface PlacedChoice {
  readonly thicknesses: readonly number[];
  readonly chosen: readonly { readonly slot: Slot; readonly piece: Piece }[];
}

type Ranked = { readonly thicknesses: readonly number[]; readonly rank: number };

function combinations(lists: readonly (readonly number[])[]): number[][] {
  return lists.reduce<number[][]>((all, list) => all.flatMap((one) => list.map((value) => [...one, value])), [[]]);
}

/**
 * Gives each place a piece of those allowed there, none more often than there are of it: augmenting paths in a bipartite graph with
 * capacities (Kuhn's algorithm; Kuhn 1955, cited from memory). At most four places.
 *
 * @param allowed by place, the preferred ones first
 * @returns a piece a place; null when there are too few
 */
function matched(allowed: readonly (readonly Piece[])[]): Piece[] | null {
  const taken: (Piece | null)[] = allowed.map(() => null);
  const place = (at: number, tried: Set<number>): boolean => {
    for (const piece of allowed[at]!) {
      if (tried.has(piece.of)) continue;
      tried.add(piece.of);
      const holders = taken.flatMap((one, holder) => (one?.of === piece.of && holder !== at ? [holder] : []));
      if (holders.length < piece.stock || holders.some((holder) => place(holder, tried))) {
        taken[at] = piece;
        return true;
      }
    }
    return false;
  };
  for (let at = 0; at < allowed.length; at += 1) if (!place(at, new Set())) return null;
  return taken as Piece[];
}

/** Every way to say which place of each group has the group's thickness; the others may be thinner. */
function thickestPlaces(groups: readonly Group[]): number[][] {
  return combinations(groups.map(({ slots }) => slots.map((_, at) => at)));
}

/** How many there are on hand; 0 for what would be ordered. */
function onHand({ stock }: Piece): number {
  return stock === Number.POSITIVE_INFINITY ? 0 : stock;
}

/** Pieces for a thickness a group, those alike in thickness preferred; null when the pieces do not suffice. */
function piecesFor(
  { groups, alikeWithin }: Pick<PlacedProblem, 'groups' | 'alikeWithin'>,
  pieces: readonly Piece[],
  thicknesses: readonly number[],
): PlacedChoice | null {
  const slots = groups.flatMap((group, at) => group.slots.map((slot, place) => ({ slot, at, place })));
  for (const thickest of thickestPlaces(groups)) {
    const allowed = slots.map(({ slot, at, place }) => {
      const whole = thicknesses[at]!;
      const least = thickest[at] === place ? whole : whole - alikeWithin;
      return (
        pieces
          .filter(
            (piece) => piece.thickness <= whole && piece.thickness >= least && piece.stock > 0 && slot.fits(piece),
          )
          // Of one thickness those on hand first, most of them first: places that can then share a part number.
          .sort((one, other) => other.thickness - one.thickness || onHand(other) - onHand(one))
      );
    });
    const taken = matched(allowed);
    if (taken) return { thicknesses, chosen: slots.map(({ slot }, at) => ({ slot, piece: taken[at]! })) };
  }
  return null;
}

/** The thicknesses that a group can have with the pieces on hand, were there no other group; in rising order. */
function thicknessesOf(group: Group, alikeWithin: number, pieces: readonly Piece[]): number[] {
  const own = pieces.filter((piece) => piece.stock > 0 && group.slots.some(({ fits }) => fits(piece)));
  return [...new Set(own.map(({ thickness }) => thickness))]
    .filter((thickness) => piecesFor({ groups: [group], alikeWithin }, own, [thickness]) !== null)
    .sort((one, other) => one - other);
}

/** Where in a rising list a value would stand. */
function placeIn(list: readonly number[], value: number): number {
  let [low, high] = [0, list.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (list[middle]! < value) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** Every thickness a group that keeps the rules: of the last group only those between what the rules leave are gone through. */
function* allowedThicknesses(lists: readonly (readonly number[])[], rules: readonly Rule[]): Generator<number[]> {
  const last = lists.at(-1)!;
  const firsts: readonly (number | null)[] = lists.length === 1 ? [null] : lists[0]!;
  for (const first of firsts) {
    const others = first === null ? [0] : [first, 0];
    let [from, to] = [Number.NEGATIVE_INFINITY, Number.POSITIVE_INFINITY];
    for (const rule of rules) {
      const rest = formValue(rule, others);
      const coefficient = rule.coefficients.at(-1)!;
      const ends = [(rule.low - rest) / coefficient, (rule.high - rest) / coefficient] as const;
      // Bounds that leave nothing between them stay crossed.
      const [least, most] = coefficient > 0 ? ends : [ends[1], ends[0]];
      from = Math.max(from, least);
      to = Math.min(to, most);
    }
    for (let at = placeIn(last, from); at < last.length && last[at]! <= to; at += 1) {
      yield first === null ? [last[at]!] : [first, last[at]!];
    }
  }
}

export interface ChoiceOrder {
  /** Rules that need not be kept. */
  readonly without?: readonly RuleKind[];
  /** Less is better; left out, the cost. Null leaves a choice out. */
  readonly rank?: (thicknesses: readonly number[]) => number | null;
  /** What tells choices apart: of those that are alike in it only the best is listed. Left out: their thicknesses. */
  readonly kindOf?: (thicknesses: readonly number[]) => number;
}

/**
 * Choices of one piece a place, the best first: every thickness a group, in the order of their rank, wherever the pieces suffice. Exact:
 * of n pieces there are at most n² pairs of thicknesses.
 *
 * @param most so many at the most
 */
export function placedChoices(
  problem: PlacedProblem,
  pieces: readonly Piece[],
  most: number,
  { without = [], rank = (thicknesses) => costOf(problem, thicknesses), kindOf }: ChoiceOrder = {},
): PlacedChoice[] {
  const rules = problem.rules.filter(({ kind }) => !without.includes(kind));
  const groups = without.includes('not-alike') ? { ...problem, alikeWithin: Number.POSITIVE_INFINITY } : problem;
  const lists = problem.groups.map((group) => thicknessesOf(group, groups.alikeWithin, pieces));
  const ranked: Ranked[] = [];
  for (const thicknesses of allowedThicknesses(lists, rules)) {
    const at = rank(thicknesses);
    if (at !== null) ranked.push({ thicknesses, rank: at });
  }
  ranked.sort((one, other) => one.rank - other.rank);
  const choices: PlacedChoice[] = [];
  const kinds = new Set<number>();
  for (const { thicknesses } of ranked) {
    if (choices.length === most) break;
    const kind = kindOf?.(thicknesses);
    if (kind !== undefined && kinds.has(kind)) continue;
    const choice = piecesFor(groups, pieces, thicknesses);
    if (!choice) continue;
    choices.push(choice);
    if (kind !== undefined) kinds.add(kind);
  }
  return choices;
}

/** The best choice of one piece a place; null when nothing is allowed. */
export function placedChoice(
  problem: PlacedProblem,
  pieces: readonly Piece[],
  order: ChoiceOrder = {},
): PlacedChoice | null {
  return placedChoices(problem, pieces, 1, order)[0] ?? null;
}
