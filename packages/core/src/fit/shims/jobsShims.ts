import type { ShimRequest } from '../format/shimRequest.js';
import { everyChoice } from './everyChoice.js';
import type { ShimChoice } from './shimAnswer.js';

/** One request among several that draw on one shelf. */
export interface JobsShimPart {
  readonly key: string;
  readonly request: ShimRequest;
  /** By the id of a piece in the request: the line of the shelf that it is of; a piece of its own has none. */
  readonly lines: ReadonlyMap<string, string>;
}

export interface JobsShimPlan {
  /** `feasible`: the bound on the work came before the proof. */
  readonly status: 'optimal' | 'feasible' | 'infeasible';
  /** Sum of the costs of all, µm²; null where there is no plan. */
  readonly cost: number | null;
  /** Nothing costs less, µm². */
  readonly bound: number;
  readonly choices: ReadonlyMap<string, ShimChoice>;
  /** Parts that cannot be served even with all of the shelf for themselves; the plan is for the others. */
  readonly alone: readonly string[];
  /** Where the others cannot all be served: a smallest group of them that cannot, and that could without any one of its parts. */
  readonly competing: readonly string[];
  /** True if all others can be served once any one of the competing is left out; false: more than one has to go, or it is not known. */
  readonly isOneEnough: boolean;
}

/** Maximum partial plans; past it the best one so far is the answer. */
const MOST_LOOKED_AT = 400_000;

/** What a choice takes of the shelf, by line. */
type Taken = ReadonlyMap<string, number>;

interface Way {
  readonly choice: ShimChoice;
  readonly taken: Taken;
}

/** The cheapest choice for each way of taking from the shelf, the least cost first. */
function waysOf({ request, lines }: JobsShimPart, stock: ReadonlyMap<string, number>): Way[] {
  const seen = new Set<string>();
  return everyChoice(request).flatMap((choice): Way[] => {
    const taken = new Map<string, number>();
    for (const { id, count } of choice.chosen) {
      const line = lines.get(id);
      if (line !== undefined) taken.set(line, (taken.get(line) ?? 0) + count);
    }
    if ([...taken].some(([line, count]) => count > (stock.get(line) ?? 0))) return [];
    const key = [...taken].sort(([one], [other]) => (one < other ? -1 : 1)).join(';');
    if (seen.has(key)) return [];
    seen.add(key);
    return [{ choice, taken }];
  });
}

interface Found {
  readonly cost: number;
  readonly ways: readonly Way[];
}

/** Depth first, each part's cheapest way first; cut where what is left cannot do better even with the whole shelf. */
function search(
  ways: readonly (readonly Way[])[],
  stock: ReadonlyMap<string, number>,
): { best: Found | null; isWhole: boolean } {
  const least = ways.map((list) => list[0]?.choice.cost ?? Number.POSITIVE_INFINITY);
  const rest = least.map((_, at) => least.slice(at).reduce((sum, cost) => sum + cost, 0));
  const left = new Map(stock);
  const taken: Way[] = [];
  let best: Found | null = null;
  let looked = 0;
  const go = (at: number, cost: number): void => {
    if (at === ways.length) {
      if (best === null || cost < best.cost) best = { cost, ways: [...taken] };
      return;
    }
    for (const way of ways[at]!) {
      looked += 1;
      if (looked > MOST_LOOKED_AT) return;
      if (best !== null && cost + way.choice.cost + (rest[at + 1] ?? 0) >= best.cost) return;
      if ([...way.taken].some(([line, count]) => count > (left.get(line) ?? 0))) continue;
      for (const [line, count] of way.taken) left.set(line, left.get(line)! - count);
      taken.push(way);
      go(at + 1, cost + way.choice.cost);
      taken.pop();
      for (const [line, count] of way.taken) left.set(line, left.get(line)! + count);
    }
  };
  go(0, 0);
  return { best, isWhole: looked <= MOST_LOOKED_AT };
}

/**
 * Shares the pieces of one shelf out among several requests at least cost in all: branch and bound over the choices of each, the
 * narrowest first, bounded below by what the others would cost with the whole shelf to themselves.
 *
 * @param parts in any order; their own pieces are bounded by their requests
 * @param stock what there is of each line of the shelf for all of them
 * @returns the same plan for the same parts; who cannot be served at all, and where the others cannot all be, who competes
 * @throws TooManyChoices where the choices of one of them are too many to be gone through
 */
export function jobsShims(parts: readonly JobsShimPart[], stock: ReadonlyMap<string, number>): JobsShimPlan {
  const listed = parts.map((part) => ({ part, ways: waysOf(part, stock) }));
  const alone = listed.filter(({ ways }) => ways.length === 0).map(({ part }) => part.key);
  const narrow = listed.filter(({ ways }) => ways.length > 0).sort((one, other) => one.ways.length - other.ways.length);
  const bound = narrow.reduce((sum, { ways }) => sum + ways[0]!.choice.cost, 0);
  const none = { cost: null, bound, choices: new Map<string, ShimChoice>(), alone, isOneEnough: false };
  if (narrow.length === 0) return { status: 'infeasible', ...none, competing: [] };
  const { best, isWhole } = search(
    narrow.map(({ ways }) => ways),
    stock,
  );
  if (best !== null) {
    const choices = new Map(narrow.map(({ part }, at) => [part.key, best.ways[at]!.choice]));
    return {
      status: isWhole ? 'optimal' : 'feasible',
      cost: best.cost,
      bound: isWhole ? best.cost : bound,
      choices,
      alone,
      competing: [],
      isOneEnough: false,
    };
  }
  const waysOfGroup = (parts: typeof narrow) => parts.map(({ ways }) => ways);
  // Left out one by one while the others still cannot be served: what stays needs every one of its parts.
  let group = narrow;
  for (const one of narrow) {
    const others = group.filter((other) => other !== one);
    const rest = search(waysOfGroup(others), stock);
    if (rest.best === null && rest.isWhole) group = others;
  }
  const isOneEnough = group.every(
    (one) => search(waysOfGroup(narrow.filter((other) => other !== one)), stock).best !== null,
  );
  return { status: 'infeasible', ...none, competing: group.map(({ part }) => part.key), isOneEnough };
}
