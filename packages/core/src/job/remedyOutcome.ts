import type { FitRemedy } from '../fit/format/fitPlan.js';
import type { Nanometres } from '../measure/nanometres.js';
import type { Reading } from '../part/reading.js';
import { codedStations } from './codedStations.js';
import type { JobDocument } from './jobDocument.js';
import type { JobFit } from './jobFit.js';
import { type JobStation, mainStations, pinnedRods, placedRods, rodStations } from './jobStations.js';
import { type Candidate, stationCandidates } from './stationCandidates.js';
import { stationVerdict } from './stationVerdict.js';

/** What the best pair at a station comes to. */
export interface StationOutcome {
  readonly station: string;
  readonly clearance: Nanometres;
  /** Chance that it is inside its limits; null where there are none. */
  readonly chance: number | null;
}

function chanceOf(job: JobDocument, station: JobStation, { upper, lower }: Candidate): number | null {
  const half = (id: string) => {
    const shell = job.shells[id]!;
    return { shell: id, label: shell.grade, wall: shell.wall, ...(shell.band ? { band: shell.band } : {}) };
  };
  const { inside, chance } = stationVerdict(job, station, { upper: half(upper), lower: half(lower) });
  return inside ?? chance;
}

/**
 * What the best pair of halves comes to at some stations: the one nearest to the aim, of those that the job's rules allow.
 *
 * @param job as a remedy has left it
 * @param stations ids; those without sizes or without a pair are left out
 */
export function stationOutcomes(
  job: JobDocument,
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
    const [first, ...others] = stationCandidates(job, station).filter(({ deviation }) => deviation !== null);
    if (!first) return [];
    const best = others.reduce(
      (near, next) => (Math.abs(next.deviation!) < Math.abs(near.deviation!) ? next : near),
      first,
    );
    return [{ station: id, clearance: best.clearance.nominal, chance: chanceOf(job, station, best) }];
  });
}

/**
 * Whether a remedy gets what the data sheet's table calls for: that is what a fitter looks for first.
 *
 * @param stations those of the conflict that it is for
 */
export function isByTable(
  job: JobDocument,
  asked: JobFit & { ok: true },
  remedy: FitRemedy,
  stations: readonly string[],
): boolean {
  const coded = codedStations(job, { ...pinnedRods(job), ...placedRods(job.choice?.stations ?? {}) });
  const grades = stations.flatMap((id) => {
    const called = coded.get(id)?.grades;
    return called ? [called.upper, called.lower] : [];
  });
  const got = remedy.shells.flatMap(({ id }) => job.shells[asked.shellIds.get(id) ?? '']?.grade ?? []);
  return got.length > 0 && got.every((grade) => grades.includes(grade));
}
