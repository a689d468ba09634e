import { type ClearanceBands, chanceInside } from '../clearance/chanceInside.js';
import { type ClearanceVerdict, clearanceVerdict } from '../clearance/clearanceVerdict.js';
import { type OilClearance, oilClearance } from '../clearance/oilClearance.js';
import { type EffectiveSize, possibleSizes } from '../measure/effectiveSize.js';
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
  /** Chance that the clearance is inside its limits, where a size is only known by its band; null elsewhere. */
  readonly inside: number | null;
}

type ChosenHalves = AcceptedChoice['stations'][string];

/** What is known of the four sizes of a station: readings count by their mean, marks and grades by their bands. */
function bandsOfStation(
  bore: EffectiveSize,
  journal: EffectiveSize,
  { upper, lower }: Pick<ChosenHalves, 'upper' | 'lower'>,
): ClearanceBands {
  const walled = ({ band, wall }: ChosenHalves['upper']) => band ?? { low: wall, high: wall };
  return { bore: possibleSizes(bore), journal: possibleSizes(journal), upper: walled(upper), lower: walled(lower) };
}

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
  const isBanded = bore?.kind === 'marked' || journal?.kind === 'marked' || halves?.upper.band || halves?.lower.band;
  const inside =
    bore && journal && halves && limits && isBanded
      ? chanceInside(bandsOfStation(bore, journal, halves), limits)
      : null;
  const known = { clearance, judged, inside };
  if (station.findings.length > 0) return { state: 'blocked', ...known };
  const isMarked = bore?.kind === 'marked' || journal?.kind === 'marked';
  if (journal && station.family === 'rod' && station.rod === null) {
    return { state: journal.kind === 'marked' ? 'not-measured' : 'measured', ...known };
  }
  if (!bore || !journal) return { state: 'not-measured', ...known };
  if (!clearance) return { state: isMarked ? 'not-measured' : 'measured', ...known };
  if (!judged || !limits) return { state: 'chosen', ...known };
  // What bands leave open is not known to be wrong: the chance says how much of it is.
  const isMiddleInside = clearance.nominal >= limits.low && clearance.nominal <= limits.high;
  if (judged.margin < 0 && inside !== null && isMiddleInside) return { state: 'close', ...known };
  return { state: judged.state, ...known };
}
