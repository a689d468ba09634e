import { type ClearanceVerdict, clearanceVerdict } from '../clearance/clearanceVerdict.js';
import type { OilClearance } from '../clearance/oilClearance.js';
import { nanometres } from '../measure/nanometres.js';
import type { StationState } from '../stage/stationState.js';
import type { JobStation } from '../station/jobStations.js';
import { stationVerdict } from '../station/stationVerdict.js';
import { STRIP_TELLS, stripClearance, stripRead } from '../strip/stripClearance.js';
import type { TrialJob } from './trialJob.js';

/** How a station stands by a gauging strip where that is all that is known of its clearance. */
export interface StripVerdict {
  /** By the mean of the ends that were read; tightest and loosest by the ends. */
  readonly clearance: OilClearance;
  /** How that stands to the limits. */
  readonly judged: ClearanceVerdict;
  /** Inside or not; a clearance that is nearer to a limit than a strip tells may be beyond it. */
  readonly state: Extract<StationState, 'inside' | 'tight' | 'loose' | 'may-be-tight' | 'may-be-loose'>;
}

/**
 * The verdict of a gauging strip as the only method, against the limits of the data sheet; null where no strip was read, where the sheet has no
 * limits, or where the clearance is known from sizes, which tell it better.
 */
export function stripVerdict(job: TrialJob, station: JobStation): StripVerdict | null {
  const strip = job.strips[station.id];
  const read = strip && stripRead(strip);
  if (!read || !station.limits) return null;
  if (stationVerdict(job, station, job.choice?.stations[station.id] ?? null).clearance) return null;
  const ends = [strip.widths.front, strip.widths.rear].flatMap((width) =>
    width?.nm == null ? [] : [stripClearance(strip.diameter, width.nm)],
  );
  const clearance: OilClearance = {
    nominal: read.clearance,
    tightest: nanometres(Math.min(...ends)),
    loosest: nanometres(Math.max(...ends)),
  };
  const judged = clearanceVerdict(clearance, station.limits, job.rules.closeFraction);
  const isLow = judged.side === 'low';
  if (Math.abs(judged.margin) < STRIP_TELLS) {
    return { clearance, judged, state: isLow ? 'may-be-tight' : 'may-be-loose' };
  }
  return { clearance, judged, state: judged.margin > 0 ? 'inside' : isLow ? 'tight' : 'loose' };
}
