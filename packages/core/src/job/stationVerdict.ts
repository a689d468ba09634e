import { type ClearanceVerdict, clearanceVerdict } from '../clearance/clearanceVerdict.js';
import { type OilClearance, oilClearance } from '../clearance/oilClearance.js';
import { nanometres } from '../measure/nanometres.js';
import type { AcceptedChoice, JobDocument } from './jobDocument.js';
import type { JobStation } from './jobStations.js';

/** The few states of a station. `checked` waits for trial readings. */
export type StationState = 'not-measured' | 'measured' | 'chosen' | 'inside' | 'close' | 'tight' | 'loose' | 'blocked';

export interface StationVerdict {
  readonly state: StationState;
  /** Predicted clearance with the chosen halves; null when nothing is chosen or a size is missing. */
  readonly clearance: OilClearance | null;
  /** How the clearance stands to its limits; null without limits or a clearance. */
  readonly judged: ClearanceVerdict | null;
}

type ChosenHalves = AcceptedChoice['stations'][string];

/**
 * The verdict on one station. A size outside the data sheet blocks it whatever the shells; without limits for the clearance it
 * is at most `chosen`, never inside.
 *
 * @param halves the halves chosen for it, or null
 */
export function stationVerdict(
  job: JobDocument,
  station: JobStation,
  halves: Pick<ChosenHalves, 'upper' | 'lower'> | null,
): StationVerdict {
  const { bore, journal, limits } = station;
  const clearance =
    bore && journal && halves
      ? oilClearance({
          bore,
          journal,
          upperWall: halves.upper.wall,
          lowerWall: halves.lower.wall,
          upperBand: halves.upper.band,
          lowerBand: halves.lower.band,
          offset: nanometres(0),
        })
      : null;
  const judged = clearance && limits && clearanceVerdict(clearance, limits, job.rules.closeFraction);
  if (station.findings.length > 0) return { state: 'blocked', clearance, judged };
  if (journal && station.family === 'rod' && station.rod === null) return { state: 'measured', clearance, judged };
  if (!bore || !journal) return { state: 'not-measured', clearance, judged };
  if (!clearance) return { state: 'measured', clearance, judged };
  return { state: judged ? judged.state : 'chosen', clearance, judged };
}
