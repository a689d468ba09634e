import type { Nanometres } from '../measure/nanometres.js';

/** A journal or pin as it is. */
export interface WornJournal {
  readonly id: string;
  /** Its smallest and largest reading, nm. */
  readonly smallest: Nanometres;
  readonly largest: Nanometres;
  /** True if its shape is outside its limits: then it is ground whatever its size. */
  readonly isOutOfShape: boolean;
}

/** A size that journals may have: standard, or an undersize; with the shells for it. */
export interface JournalSize {
  /** Empty: standard. */
  readonly name: string;
  /** Limits of the journal at this size, nm. */
  readonly low: number;
  readonly high: number;
  /** Pairs of shells on the shelf, whose price is paid already. */
  readonly onShelf: number;
  /** Price of one more pair, any currency; null: none can be had. */
  readonly price: number | null;
}

/** What is asked of a grinding plan, for the mains or for the pins. */
export interface GrindingQuestion {
  readonly journals: readonly WornJournal[];
  readonly sizes: readonly JournalSize[];
  /** True if all journals are to have one size, as most makers ask. */
  readonly areAlike: boolean;
  /** Price of grinding one journal; and, once, of setting up for each size that is ground to. */
  readonly perJournal: number;
  readonly setUp: number;
  /** Least metal that comes off so that a journal cleans up, nm on the diameter. */
  readonly cleanUp: number;
  /** Depth of the hardened layer, nm on the radius, from the largest standard size; null: not given, and not looked at. */
  readonly hardened: number | null;
}

/** Why a journal cannot have a size. */
export type NoSize =
  /** Too small already, by so much, nm on the diameter. */
  | { readonly kind: 'too-small'; readonly by: number }
  /** It would have to be ground through the hardened layer, by so much, nm on the radius. */
  | { readonly kind: 'through-hardened'; readonly by: number };

/** What a journal becomes. */
export interface JournalPlan {
  readonly id: string;
  /** Name of its size; empty: standard. */
  readonly size: string;
  readonly isGround: boolean;
}

export interface GrindingPlan {
  readonly journals: readonly JournalPlan[];
  readonly cost: number;
  /** What the cost is made of. */
  readonly grinding: number;
  readonly shells: number;
  /** Pairs that are to be bought, by size. */
  readonly toBuy: readonly { readonly size: string; readonly pairs: number }[];
}

/** What stands in the way of giving all journals one size. */
export interface SizeRefused {
  readonly size: string;
  /** The journals that cannot have it, with the reason of each; empty where shells are short. */
  readonly journals: readonly { readonly id: string; readonly why: NoSize }[];
  /** Pairs that cannot be had; 0: enough. */
  readonly shortOf: number;
}

export interface GrindingAnswer {
  /** The plan that costs least; null where no size suits. */
  readonly best: GrindingPlan | null;
  /** The others that give all journals one size, the cheapest first. */
  readonly alternatives: readonly GrindingPlan[];
  readonly refused: readonly SizeRefused[];
}

/** Sizes that are planned at most: every set of them is looked at. */
export const MOST_SIZES = 16;

/** True if a journal has a size as it is. */
function isAsItIs({ smallest, largest, isOutOfShape }: WornJournal, { low, high }: JournalSize): boolean {
  return !isOutOfShape && smallest >= low && largest <= high;
}

/** Whether a journal can have a size, and whether it is ground for it. */
function fate(
  { cleanUp, hardened, sizes }: Pick<GrindingQuestion, 'cleanUp' | 'hardened' | 'sizes'>,
  journal: WornJournal,
  size: JournalSize,
): { readonly isGround: boolean } | NoSize {
  if (isAsItIs(journal, size)) return { isGround: false };
  const reach = journal.smallest - cleanUp;
  if (reach < size.low) return { kind: 'too-small', by: size.low - reach };
  if (hardened !== null) {
    const whole = Math.max(...sizes.map(({ high }) => high));
    const depth = (whole - Math.min(reach, size.high)) / 2;
    if (depth > hardened) return { kind: 'through-hardened', by: depth - hardened };
  }
  return { isGround: true };
}

/** What so many pairs of a size cost; null where they cannot be had. */
function shellCost({ onShelf, price }: JournalSize, pairs: number): number | null {
  const short = Math.max(0, pairs - onShelf);
  return short === 0 ? 0 : price === null ? null : short * price;
}

/** A plan of what each journal becomes; null where shells cannot be had. @param chosen place of a size, for each journal */
function planOf(question: GrindingQuestion, chosen: readonly number[]): GrindingPlan | null {
  const { journals, sizes, perJournal, setUp } = question;
  const plans = journals.map((journal, at): JournalPlan => {
    const size = sizes[chosen[at]!]!;
    return { id: journal.id, size: size.name, isGround: !isAsItIs(journal, size) };
  });
  let shells = 0;
  const toBuy: { size: string; pairs: number }[] = [];
  for (const [at, size] of sizes.entries()) {
    const pairs = chosen.filter((one) => one === at).length;
    const cost = shellCost(size, pairs);
    if (cost === null) return null;
    shells += cost;
    if (pairs > size.onShelf) toBuy.push({ size: size.name, pairs: pairs - size.onShelf });
  }
  const ground = plans.filter(({ isGround }) => isGround);
  const grinding = ground.length * perJournal + new Set(ground.map(({ size }) => size)).size * setUp;
  return { journals: plans, cost: grinding + shells, grinding, shells, toBuy };
}

/**
 * Sizes for journals that may differ, at least cost of grinding single journals and of shells, where they may be ground to some sizes only: by cheapest
 * augmenting paths, a journal at a time (successive shortest paths; Ahuja, Magnanti and Orlin, Network Flows, 9.7, cited from memory). A
 * pair more never costs less than the one before, so that each step is the cheapest there is.
 *
 * @param cost of each journal at each size, without shells; Infinity where it cannot have it
 * @returns the place of a size for each journal; null where there is none
 */
function leastAssignment(cost: readonly (readonly number[])[], sizes: readonly JournalSize[]): number[] | null {
  const chosen: number[] = [];
  const counts = sizes.map(() => 0);
  const nextPair = (at: number) =>
    counts[at]! < sizes[at]!.onShelf ? 0 : (sizes[at]!.price ?? Number.POSITIVE_INFINITY);
  for (const own of cost) {
    // What it takes to bring one journal more to each size, and the journal that makes room on the way.
    const distance = [...own];
    const by: ({ readonly journal: number; readonly from: number } | null)[] = sizes.map(() => null);
    for (let round = 0; round < sizes.length; round += 1) {
      for (const [journal, from] of chosen.entries()) {
        for (let to = 0; to < sizes.length; to += 1) {
          const through = distance[from]! + cost[journal]![to]! - cost[journal]![from]!;
          if (through < distance[to]! - 1e-9) {
            distance[to] = through;
            by[to] = { journal, from };
          }
        }
      }
    }
    let at = -1;
    for (let one = 0; one < sizes.length; one += 1) {
      if (at < 0 || distance[one]! + nextPair(one) < distance[at]! + nextPair(at)) at = one;
    }
    if (at < 0 || !Number.isFinite(distance[at]! + nextPair(at))) return null;
    counts[at]! += 1;
    for (let step = by[at]; step; step = by[at]) {
      chosen[step.journal] = at;
      at = step.from;
    }
    chosen.push(at);
  }
  return chosen;
}

/** The sizes for journals that may differ, at least cost: exact, for every set of sizes that is ground to. */
function leastApart(question: GrindingQuestion): GrindingPlan | null {
  const { journals, sizes, perJournal, setUp } = question;
  const fates = journals.map((journal) => sizes.map((size) => fate(question, journal, size)));
  const groundTo = sizes.flatMap((_, at) => {
    const isAny = fates.some((own) => 'isGround' in own[at]! && (own[at] as { isGround: boolean }).isGround);
    return isAny ? [at] : [];
  });
  let best: GrindingPlan | null = null;
  for (let set = 0; set < 1 << groundTo.length; set += 1) {
    const isIn = sizes.map((_, at) => ((set >> groundTo.indexOf(at)) & 1) === 1 && groundTo.includes(at));
    const cost = fates.map((own) =>
      own.map((found, at) => {
        if (!('isGround' in found)) return Number.POSITIVE_INFINITY;
        if (!found.isGround) return 0;
        return isIn[at] ? perJournal : Number.POSITIVE_INFINITY;
      }),
    );
    const setUps = isIn.filter(Boolean).length * setUp;
    if (best !== null && setUps >= best.cost) continue;
    const chosen = leastAssignment(cost, sizes);
    const plan = chosen && planOf(question, chosen);
    if (plan && (best === null || plan.cost < best.cost)) best = plan;
  }
  return best;
}

/**
 * Which size each journal of the mains, or each pin, is to have, at least cost of grinding and shells: one size for all, or one for each where the type
 * allows it. A journal that has a size as it is need not be ground for it; one that is ground must clean up, and must not go through the
 * hardened layer. Exact: every size is tried for all; journals that may differ, for every set of sizes that is ground to.
 *
 * @param question up to 16 sizes; prices 0 or above
 * @throws RangeError for more sizes
 * @example grindingPlan({ journals: [], sizes: [], areAlike: true, perJournal: 1, setUp: 1, cleanUp: 0, hardened: null }).best // null
 */
export function grindingPlan(question: GrindingQuestion): GrindingAnswer {
  const { journals, sizes, areAlike } = question;
  if (sizes.length > MOST_SIZES)
    throw new RangeError(`There are ${sizes.length} sizes: at most ${MOST_SIZES} are planned.`);
  const alike: GrindingPlan[] = [];
  const refused: SizeRefused[] = [];
  if (journals.length === 0) return { best: null, alternatives: [], refused: [] };
  for (const [at, size] of sizes.entries()) {
    const whyNot = journals.flatMap((journal) => {
      const found = fate(question, journal, size);
      return 'isGround' in found ? [] : [{ id: journal.id, why: found }];
    });
    const plan = whyNot.length > 0 ? null : planOf(question, Array<number>(journals.length).fill(at));
    if (plan) alike.push(plan);
    else {
      const shortOf = whyNot.length > 0 ? 0 : journals.length - size.onShelf;
      refused.push({ size: size.name, journals: whyNot, shortOf });
    }
  }
  alike.sort((one, other) => one.cost - other.cost);
  const apart = areAlike ? null : leastApart(question);
  const isApart = apart !== null && (alike.length === 0 || apart.cost < alike[0]!.cost);
  const best = isApart ? apart : (alike[0] ?? null);
  return { best, alternatives: alike.filter((plan) => plan !== best), refused };
}
