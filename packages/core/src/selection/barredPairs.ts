import { type PairRules, pairFault } from '../fit/model/shellPairs.js';
import { type Nanometres, nanometres } from '../measure/nanometres.js';
import type { JobStation } from '../station/jobStations.js';
import {
  type AlikePairs,
  alikeHalves,
  ByWall,
  clearanceOf,
  countPairs,
  isMeasured,
  type PairStock,
  pairsOf,
} from './alikePairs.js';
import type { SelectionJob } from './selectionJob.js';

/** Why a pair that would do is not allowed, and the rules that would allow it. */
export interface BarredPair {
  readonly upper: string;
  readonly lower: string;
  readonly clearance: Nanometres;
  readonly why: 'series' | 'mixed' | 'step' | 'thinner-side';
  readonly rules: Partial<SelectionJob['rules']>;
}

/** Rules after which a pair is allowed; null where no rule would do it. */
function allowing(
  rules: SelectionJob['rules'],
  fault: ReturnType<typeof pairFault>,
  step: number,
): Pick<BarredPair, 'why' | 'rules'> | null {
  const stepped = { mixedHalves: true, maxWallStep: nanometres(Math.max(rules.maxWallStep, step)) };
  switch (fault) {
    case 'series':
      return { why: fault, rules: { acrossSeries: true, ...(step === 0 ? {} : stepped) } };
    case 'mixed':
    case 'step':
      return { why: fault, rules: stepped };
    case 'thinner-side':
      return { why: fault, rules: { thinnerHalf: 'either' } };
    default:
      return null;
  }
}

/**
 * The pairs that would be inside the limits of a station and that the rules forbid, nearest to its aim first: what a fitter may want to
 * allow at that one station, with a note.
 *
 * @param most how many are told
 * @returns empty where the station is not measured, or has no limits
 */
export function barredPairs(job: PairStock, station: JobStation, most: number): BarredPair[] {
  const { limits, aim, offsets } = station;
  if (!isMeasured(station) || !limits || most < 1) return [];
  const { rules } = job;
  const halves = alikeHalves(job, station.family, station.position ?? '');
  const lowers = new ByWall(halves.filter(({ shell }) => shell.half !== 'upper'));
  const wanted = aim ?? (limits.low + limits.high) / 2;
  const off = ({ clearance }: { clearance: Nanometres }) => Math.abs(clearance - wanted);
  // What a trial has shown is added to some pairs and not to others.
  const added = [0, ...offsets.map(({ offset }) => offset)];
  const room = station.bore.nominal - station.journal.nominal;
  const nearest: (AlikePairs & Pick<BarredPair, 'clearance' | 'why' | 'rules'>)[] = [];
  for (const upper of halves) {
    // Only the nearest are told: what is further off than as many as that is not looked into.
    const furthest = nearest.length < most ? Number.POSITIVE_INFINITY : off(nearest[most - 1]!);
    const from = Math.max(limits.low, wanted - furthest) - Math.max(...added);
    const to = Math.min(limits.high, wanted + furthest) - Math.min(...added);
    const wall = room - upper.shell.wall;
    for (const lower of lowers.between(wall - to, wall - from)) {
      const [one, other] = [upper.shell, lower.shell];
      const allowed = allowing(rules, pairFault(one, other, rules), Math.abs(one.wall - other.wall));
      if (!allowed || countPairs({ upper, lower }) === 0) continue;
      const { nominal, tightest, loosest } = clearanceOf(station, { upper, lower });
      if (tightest < limits.low || loosest > limits.high) continue;
      const pair = { upper, lower, clearance: nominal, ...allowed };
      const last = nearest[most - 1];
      if (last !== undefined && off(pair) >= off(last)) continue;
      // A pair of two series that is mixed on the wrong side as well takes more than one permission.
      if (pairFault(one, other, { ...rules, ...allowed.rules } as PairRules) !== null) continue;
      const at = nearest.findIndex((near) => off(pair) < off(near));
      nearest.splice(at < 0 ? nearest.length : at, 0, pair);
      if (nearest.length > most) nearest.pop();
    }
  }
  const told: BarredPair[] = [];
  for (const { upper, lower, ...pair } of nearest) {
    for (const ids of pairsOf({ upper, lower })) {
      if (told.length >= most) return told;
      told.push({ upper: ids.upper.id, lower: ids.lower.id, ...pair });
    }
  }
  return told;
}
