import type { Remedy } from '../fit/model/fitSolution.js';
import type { Nanometres } from '../measure/nanometres.js';
import type { Reading } from '../part/reading.js';
import { mainStations, pinnedRods, placedRods, rodStations } from '../station/jobStations.js';
import { pairVerdict } from '../station/stationVerdict.js';
import { codedStations } from './codedStations.js';
import type { SelectionJob } from './selectionJob.js';
import { nearestCandidate } from './stationCandidates.js';

/** What the best pair at a station comes to. */
export interface StationOutcome {
  readonly station: string;
  readonly clearance: Nanometres;
  /** Chance that it is inside its limits; null where there are none. */
  readonly chance: number | null;
}

/**
 * What the best pair of halves comes to at some stations: the one nearest to the aim, of those that the job's rules allow.
 *
 * @param job as a remedy has left it
 * @param stations ids; those without sizes or without a pair are left out
 */
export function stationOutcomes(
  job: SelectionJob,
  readings: readonly Reading[],
  stations: readonly string[],
): StationOutcome[] {
  const placed = { ...pinnedRods(job), ...placedRods(job.choice?.stations ?? {}) };
  const all = new Map(
    [...mainStations(job, readings), ...rodStations(job, readings, placed)].map((station) => [station.id, station]),
  );
  return stations.flatMap((id): StationOutcome[] => {
    const station = all.get(id);
    if (!station) return [];
    const best = nearestCandidate(job, station);
    if (!best) return [];
    const { inside, chance } = pairVerdict(job, station, best);
    return [{ station: id, clearance: best.clearance.nominal, chance: inside ?? chance }];
  });
}

/**
 * True if a remedy gets what the data sheet's table calls for: that is what a fitter looks for first.
 *
 * @param stations those of the conflict that it is for
 */
export function isByTable(job: SelectionJob, remedy: Remedy, stations: readonly string[]): boolean {
  const coded = codedStations(job, { ...pinnedRods(job), ...placedRods(job.choice?.stations ?? {}) });
  const grades = stations.flatMap((id) => {
    const called = coded.get(id)?.grades;
    return called ? [called.upper, called.lower] : [];
  });
  const got = remedy.shells.flatMap(({ id }) => job.shells[id]?.grade ?? []);
  return got.length > 0 && got.every((grade) => grades.includes(grade));
}
