import type { ChoiceProblem } from '../model/choice.js';

const INFINITY = Number.POSITIVE_INFINITY;

/**
 * A plan made without looking back: stations in turn, those with the fewest options first, each its cheapest option that
 * still fits.
 *
 * @returns its cost and per station its option; null when that leads nowhere, which proves nothing
 */
export function greedyPlan({
  start,
  cost,
  deviation,
  use,
  capacity,
  group,
  spread,
}: ChoiceProblem): { readonly cost: number; readonly chosen: Int32Array } | null {
  const [first, second, third] = use;
  const remaining = capacity.slice();
  const low = new Float64Array(spread.length).fill(INFINITY);
  const high = new Float64Array(spread.length).fill(-INFINITY);
  const count = (station: number) => start[station + 1]! - start[station]!;
  const order = Array.from(group, (_, station) => station).sort((a, b) => count(a) - count(b) || a - b);
  const chosen = new Int32Array(group.length);
  let total = 0;
  for (const station of order) {
    const at = group[station]!;
    const most = low[at]! + spread[at]!;
    const least = high[at]! - spread[at]!;
    let best = INFINITY;
    let pick = -1;
    for (let option = start[station]!; option < start[station + 1]!; option += 1) {
      if (cost[option]! >= best) continue;
      const a = first[option]!;
      const b = second[option]!;
      const c = third[option]!;
      if (a >= 0 && remaining[a]! < (a === b ? 2 : 1)) continue;
      if (b >= 0 && remaining[b]! < 1) continue;
      if (c >= 0 && remaining[c]! < 1) continue;
      if (deviation[option]! > most || deviation[option]! < least) continue;
      best = cost[option]!;
      pick = option;
    }
    if (pick < 0) return null;
    chosen[station] = pick;
    for (const taken of use) if (taken[pick]! >= 0) remaining[taken[pick]!]! -= 1;
    low[at] = Math.min(low[at]!, deviation[pick]!);
    high[at] = Math.max(high[at]!, deviation[pick]!);
    total += best;
  }
  return { cost: total, chosen };
}
