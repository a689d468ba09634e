import { type ClearanceVerdict, clearanceVerdict } from '../clearance/clearanceVerdict.js';
import type { OilClearance } from '../clearance/oilClearance.js';
import { type Nanometres, nanometres } from '../measure/nanometres.js';
import type { JobStation } from '../station/jobStations.js';
import { clearanceOf, evenPairs, hasHalves, isMeasured, type PairStock, pairsOf } from './alikePairs.js';

/** What one pair of available halves would give at one station. */
export interface Candidate {
  readonly upper: string;
  readonly lower: string;
  readonly upperWall: Nanometres;
  readonly lowerWall: Nanometres;
  readonly mixed: boolean;
  readonly clearance: OilClearance;
  /** Nominal clearance minus aim; null without an aim. */
  readonly deviation: Nanometres | null;
  /** Null without limits on the data sheet. */
  readonly verdict: ClearanceVerdict | null;
}

/**
 * The clearance that allowed pairs of halves with stock would give at a station, tightest first, of two alike in the order of the shells.
 *
 * @param most so many at most, those nearest to the aim; without an aim the tightest
 * @param chosen a pair that is told as well, however far off, where the rules allow it
 * @returns empty when the station is not measured: a clearance needs both a bore and a journal
 */
export function stationCandidates(
  job: PairStock,
  station: JobStation,
  most: number = Number.POSITIVE_INFINITY,
  chosen: Pick<Candidate, 'upper' | 'lower'> | null = null,
): Candidate[] {
  if (!isMeasured(station)) return [];
  const { aim, limits } = station;
  const ways = evenPairs(job, station.family, station.position ?? '').map(({ first, groups }) => {
    const clearance = clearanceOf(station, first);
    return { groups, clearance, off: aim === null ? clearance.nominal : Math.abs(clearance.nominal - aim) };
  });
  ways.sort((a, b) => a.off - b.off || a.clearance.nominal - b.clearance.nominal);
  const isChosen = ({ upper, lower }: { upper: { id: string }; lower: { id: string } }) =>
    upper.id === chosen?.upper && lower.id === chosen.lower;
  let lacksChosen = chosen !== null;
  const found: (Candidate & { readonly at: readonly [number, number] })[] = [];
  for (const { groups, clearance } of ways) {
    const deviation = aim === null ? null : nanometres(clearance.nominal - aim);
    const verdict = limits && clearanceVerdict(clearance, limits, job.rules.closeFraction);
    for (const group of groups) {
      if (found.length >= most && !hasHalves(group, chosen)) continue;
      const [upperWall, lowerWall] = [group.upper.shell.wall, group.lower.shell.wall];
      for (const pair of pairsOf(group)) {
        if (found.length >= most && !isChosen(pair)) continue;
        const { upper, lower } = pair;
        lacksChosen &&= !isChosen(pair);
        found.push({
          at: [upper.at, lower.at],
          upper: upper.id,
          lower: lower.id,
          upperWall,
          lowerWall,
          mixed: upperWall !== lowerWall,
          clearance,
          deviation,
          verdict,
        });
      }
    }
    if (found.length >= most && !lacksChosen) break;
  }
  return found
    .sort((a, b) => a.clearance.nominal - b.clearance.nominal || a.at[0] - b.at[0] || a.at[1] - b.at[1])
    .map(({ at: _, ...candidate }) => candidate);
}

/** The candidate that comes nearest to the aim, the tighter of two; null without an aim or a candidate. */
export function nearestCandidate(job: PairStock, station: JobStation): Candidate | null {
  return station.aim === null ? null : (stationCandidates(job, station, 1)[0] ?? null);
}
