import { type ClearanceBands, chanceInside } from '../clearance/chanceInside.js';
import { type ClearanceVerdict, clearanceVerdict } from '../clearance/clearanceVerdict.js';
import { type OilClearance, oilClearance } from '../clearance/oilClearance.js';
import { type Budget, budgetUncertainty } from '../measure/budget.js';
import { type EffectiveSize, possibleSizes } from '../measure/effectiveSize.js';
import { nanometres } from '../measure/nanometres.js';
import { normalChance } from '../measure/normalChance.js';
import { FAMILY_TABLE } from '../part/family.js';
import { featureOf, partName } from '../part/feature.js';
import type { InstrumentsJob } from '../reading/readWith.js';
import type { AcceptedChoice } from '../shell/acceptedChoice.js';
import type { StationState } from '../stage/stationState.js';
import { clearanceBudget } from './clearanceKnown.js';
import { type JobStation, offsetAt, seriesOfHalves } from './jobStations.js';
import type { StationJob } from './stationJob.js';
import type { StationOffset } from './stationOffset.js';
import { isTelling } from './stationOffsets.js';
import type { StationTrial } from './stationTrial.js';

/**
 * The few states of a station. `checked` was measured with its shells in and is inside; one that may be tight or loose is not known well
 * enough to say.
 */

export interface StationVerdict {
  readonly state: StationState;
  /**
   * Clearance with the chosen halves: as measured with them in, else predicted; null when nothing is chosen or a size is missing.
   */
  readonly clearance: OilClearance | null;
  /** True if the clearance was measured with these very halves in. */
  readonly isMeasured: boolean;
  /** Standard uncertainty of the clearance, nm; null without one. */
  readonly u: number | null;
  /** What that comes from, source by source; null without a clearance. */
  readonly budget: Budget | null;
  /** What the assembly adds to the sum of the parts, where trials say so and nothing was measured here with these halves. */
  readonly offset: StationOffset | null;
  /** Chance that the true clearance is inside its limits by how well it is known; null without limits or a clearance. */
  readonly chance: number | null;
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

/** What was measured with these very halves and parts in, where it is not void and is as predicted or confirmed; null where not. */
function measuredWith(
  { tried }: JobStation,
  { upper, lower }: Pick<ChosenHalves, 'upper' | 'lower'>,
): (StationTrial & { readonly measured: OilClearance }) | null {
  if (!isTelling(tried) || tried.measured === null) return null;
  // Halves of one kind that changed places are other halves: what was read was read with the ones before.
  if (tried.changed !== null && tried.changed !== 'halves') return null;
  const isSame = tried.trial.upper.shell === upper.shell && tried.trial.lower.shell === lower.shell;
  return isSame ? { ...tried, measured: tried.measured } : null;
}

/**
 * Everything that the uncertainty of the predicted clearance of a station comes from, with two halves of the job's; null where a size is
 * missing.
 */
export function predictedBudget(
  job: Pick<StationJob, keyof InstrumentsJob | 'shells'>,
  station: JobStation,
  { upper, lower }: Pick<ChosenHalves, 'upper' | 'lower'>,
): Budget | null {
  const { id, bore, journal, family, rod } = station;
  if (!bore || !journal) return null;
  const housing = rod === null ? id : partName(featureOf(family, 'housing'), rod);
  const offset = offsetAt(station, seriesOfHalves(job, { upper, lower }));
  return clearanceBudget(job, { station: id, family, housing, bore, journal, upper, lower, offset });
}

/**
 * The verdict on one station. A size outside the data sheet blocks it whatever the shells; without limits for the clearance it
 * is at most `chosen`, never inside.
 *
 * @param halves the halves chosen for it, or null
 */
export function stationVerdict(
  job: StationJob,
  station: JobStation,
  halves: Pick<ChosenHalves, 'upper' | 'lower'> | null,
): StationVerdict {
  const { bore, journal, limits } = station;
  const tried = halves && measuredWith(station, halves);
  const offset = tried || !halves ? null : offsetAt(station, seriesOfHalves(job, halves));
  const clearance: OilClearance | null =
    tried?.measured ??
    (bore && journal && halves
      ? oilClearance({
          bore,
          journal,
          upperWall: halves.upper.wall,
          lowerWall: halves.lower.wall,
          upperBand: halves.upper.band,
          lowerBand: halves.lower.band,
          offset: offset?.offset ?? nanometres(0),
        })
      : null);
  const judged = clearance && limits && clearanceVerdict(clearance, limits, job.rules.closeFraction);
  const isBanded = bore?.kind === 'marked' || journal?.kind === 'marked' || halves?.upper.band || halves?.lower.band;
  const inside =
    bore && journal && halves && limits && isBanded && !tried
      ? chanceInside(bandsOfStation(bore, journal, halves), limits, offset?.offset)
      : null;
  const budget = tried?.measuredBudget ?? (halves && predictedBudget(job, station, halves));
  const u = budget && budgetUncertainty(budget);
  const chance = clearance && limits && u !== null ? normalChance(clearance.nominal, u, limits) : null;
  const known = { clearance, judged, inside, offset, u, budget, chance, isMeasured: tried !== null };
  if (station.findings.length > 0) return { state: 'blocked', ...known };
  const isMarked = bore?.kind === 'marked' || journal?.kind === 'marked';
  if (journal && FAMILY_TABLE[station.family].housingsMove && station.rod === null) {
    return { state: journal.kind === 'marked' ? 'not-measured' : 'measured', ...known };
  }
  if (!bore || !journal) return { state: 'not-measured', ...known };
  if (!clearance) return { state: isMarked ? 'not-measured' : 'measured', ...known };
  if (!judged || !limits) return { state: 'chosen', ...known };
  // What bands leave open is not known to be wrong: the chance says how much of it is.
  const isMiddleInside = clearance.nominal >= limits.low && clearance.nominal <= limits.high;
  const mayBe = judged.side === 'low' ? 'may-be-tight' : 'may-be-loose';
  if (judged.margin < 0 && inside !== null && isMiddleInside) return { state: mayBe, ...known };
  // Inside as it is known, but not known well enough for the chance that is asked for.
  const { leastChance } = job.rules;
  if (leastChance !== null && chance !== null && judged.margin >= 0 && chance < leastChance) {
    return { state: mayBe, ...known };
  }
  return { state: tried && judged.state === 'inside' ? 'checked' : judged.state, ...known };
}

/** The verdict on one station with two halves of the job's, by their ids. @throws TypeError for a half that the job does not have */
export function pairVerdict(
  job: StationJob,
  station: JobStation,
  { upper, lower }: { readonly upper: string; readonly lower: string },
): StationVerdict {
  const half = (id: string): ChosenHalves['upper'] => {
    const { grade, wall, band } = job.shells[id]!;
    return { shell: id, label: grade, wall, ...(band ? { band } : {}) };
  };
  return stationVerdict(job, station, { upper: half(upper), lower: half(lower) });
}
