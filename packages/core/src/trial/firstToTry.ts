import { lengthText } from '../measure/lengthText.js';
import type { JobStation } from '../station/jobStations.js';
import { stationVerdict } from '../station/stationVerdict.js';
import type { TrialJob } from './trialJob.js';

/** The station to put together first, and why. */
export interface FirstToTry {
  readonly station: string;
  readonly reason: string;
}

/**
 * The station whose trial tells most before an hour is spent on the rest: the one with the least room to a limit, for there a difference
 * between what is measured and what was predicted changes the choice soonest. The first of those alike. Common practice is to try one that
 * is easily reached; the fitter can take any other.
 *
 * @param stations those that are wanted, with halves accepted
 * @returns null where nothing is chosen, or nothing can be judged
 */
export function firstToTry(job: TrialJob, stations: readonly JobStation[]): FirstToTry | null {
  let least: { readonly station: string; readonly room: number; readonly side: 'low' | 'high' } | null = null;
  for (const station of stations) {
    const { judged } = stationVerdict(job, station, job.choice?.stations[station.id] ?? null);
    if (judged && (least === null || judged.margin < least.room)) {
      least = { station: station.id, room: judged.margin, side: judged.side };
    }
  }
  if (!least) return null;
  const room = lengthText(Math.abs(least.room), job.unit);
  const reason =
    least.room < 0 ? `${room} beyond its ${least.side} limit` : `the least room, ${room} to its ${least.side} limit`;
  return { station: least.station, reason };
}
