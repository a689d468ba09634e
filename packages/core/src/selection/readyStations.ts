import type { ClearanceLimits } from '../clearance/clearanceVerdict.js';
import { limitsWith, type Scatter } from '../fit/model/fitModel.js';
import { acceptance } from '../measure/acceptance.js';
import { budgetUncertainty } from '../measure/budget.js';
import type { Limit } from '../measure/lengthSchema.js';
import { nanometres } from '../measure/nanometres.js';
import type { MeasuredPart } from '../reading/measuredParts.js';
import { clearanceBudget, wallUncertainty } from '../station/clearanceKnown.js';
import type { JobStation } from '../station/jobStations.js';
import type { SelectionJob } from './selectionJob.js';

/** Why a station, or a rod, does not take part in the choice. */
export interface LeftOut {
  readonly station: string;
  readonly reason:
    | 'not-measured'
    | 'blocked'
    | 'no-aim'
    | 'out-of-round'
    | 'uncertain'
    | 'no-limits'
    | 'no-shells'
    | 'no-rod'
    | 'two-rods'
    | 'rod-blocked'
    | 'rod-not-measured';
  /** The rods that are kept on the pin, where that is the reason. */
  readonly rods?: readonly string[];
}

/** How far a part's single readings lie from its size. A band is no scatter: it says what the size may be, and the plan then gives a chance. */
export function scatterOf({ size }: Pick<MeasuredPart, 'size'>): Scatter {
  return size?.kind === 'read'
    ? { below: size.nominal - size.smallest, above: size.largest - size.nominal }
    : { below: 0, above: 0 };
}

/** True if the limits leave a clearance that the tightest and the loosest of two parts both keep. */
export function hasRoom(limits: ClearanceLimits, bore: Scatter, journal: Scatter): boolean {
  const { low, high } = limitsWith({ ...limits, scatter: journal }, { scatter: bore });
  return low <= high;
}

/** Stands for a kind of half that is not selected yet. */
const WORST = 'any';

/**
 * The limits of a station's clearance: the data sheet's; where the fitter asks for a chance, only as far as every pair of halves is inside
 * with it, by the worst known of the halves and housings that may come there. Null where nothing is known well enough for that.
 */
function acceptedLimits(
  job: SelectionJob,
  station: JobStation,
  housings: readonly Pick<MeasuredPart, 'size' | 'name'>[],
): ClearanceLimits | null {
  const { limits, journal, family } = station;
  const { leastChance } = job.rules;
  if (!limits || !journal || leastChance === null) return limits;
  const halves = Object.values(job.shells).filter((shell) => shell.family === family);
  const [worst] = halves
    .map((shell) => ({ shell, u: wallUncertainty(job, shell) }))
    .sort((one, other) => other.u - one.u);
  // Two halves of the kind that is known worst: where it was measured, its error counts twice.
  const half = { shell: WORST, label: '', band: worst?.shell.band };
  const parts = { station: station.id, family, journal, upper: half, lower: half };
  const known = housings.flatMap(({ size, name }) =>
    size
      ? [null, ...station.offsets].map((offset) =>
          budgetUncertainty(clearanceBudget(job, { ...parts, housing: name, bore: size, offset })),
        )
      : [],
  );
  const inner = acceptance(limits, Math.max(0, ...known), leastChance);
  if (!inner || Math.ceil(inner.low) > Math.floor(inner.high)) return null;
  return { low: nanometres(Math.ceil(inner.low)), high: nanometres(Math.floor(inner.high)) };
}

export type Ready = JobStation & { readonly limits: Limit };

/** Sorts the stations of one family into those that can be chosen for and those that cannot. */
export function sortOut(
  job: SelectionJob,
  stations: readonly JobStation[],
  /** The housings that could go to a station. */
  housingsOf: (station: JobStation) => readonly Pick<MeasuredPart, 'size' | 'name'>[],
): { ready: Ready[]; leftOut: LeftOut[] } {
  const ready: Ready[] = [];
  const leftOut: LeftOut[] = [];
  for (const station of stations) {
    const leave = (reason: LeftOut['reason']) => leftOut.push({ station: station.id, reason });
    const { journal, limits } = station;
    const housings = housingsOf(station).filter(({ size }) => size !== null);
    const accepted = acceptedLimits(job, station, housings);
    if (station.findings.length > 0) leave('blocked');
    else if (!journal || housings.length === 0) leave('not-measured');
    else if (!limits) leave('no-limits');
    else if (!Object.values(job.shells).some(({ family }) => family === station.family)) leave('no-shells');
    else if (station.aim === null) leave('no-aim');
    else if (!accepted) leave('uncertain');
    else if (!housings.some((housing) => hasRoom(accepted, scatterOf(housing), scatterOf({ size: journal })))) {
      leave('out-of-round');
    } else ready.push({ ...station, limits: { ...limits, ...accepted } });
  }
  return { ready, leftOut };
}
