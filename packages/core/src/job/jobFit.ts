import type { FitPlan } from '../fit/fitPlan.js';
import type { FitRequestInput } from '../fit/fitRequest.js';
import { numberOfLength } from '../measure/formatLength.js';
import { lengthOfNumber } from '../measure/lengthOfNumber.js';
import { nanometres } from '../measure/nanometres.js';
import type { AcceptedChoice, JobDocument } from './jobDocument.js';
import { modelShellsOf, shellLabel } from './mainCandidates.js';
import { type MainStation, mainStations } from './mainStations.js';
import type { Reading } from './reading.js';

/** Why a main does not take part in the choice. */
export interface LeftOut {
  readonly station: string;
  readonly reason: 'not-measured' | 'blocked' | 'no-aim' | 'out-of-round';
}

/** What keeps the whole choice from being asked. */
export type NoChoice = 'no-limits' | 'no-shells' | 'nothing-measured';

export type JobFit =
  | {
      readonly ok: true;
      readonly request: FitRequestInput;
      readonly leftOut: readonly LeftOut[];
      /** From the names used in the request to the job's shell ids. */
      readonly shellIds: ReadonlyMap<string, string>;
    }
  | { readonly ok: false; readonly reason: NoChoice; readonly leftOut: readonly LeftOut[] };

/** Names for the shells that a person can read in a message, unique in the request. */
function requestNames(job: JobDocument): Map<string, string> {
  const names = new Map<string, string>();
  for (const { id } of modelShellsOf(job)) {
    const label = shellLabel(job.shells[id]!);
    let name = label;
    for (let copy = 2; names.has(name); copy += 1) name = `${label} #${copy}`;
    names.set(name, id);
  }
  return names;
}

function leftOutReason(station: MainStation): LeftOut['reason'] | null {
  if (station.findings.length > 0) return 'blocked';
  if (!station.bore || !station.journal) return 'not-measured';
  if (station.aim === null) return 'no-aim';
  return null;
}

/**
 * The fit request for the mains of a job. The aim is judged on the mean sizes; each station's limits are narrowed by its
 * own scatter, so that the tightest clearance keeps the low limit and the loosest the high one. Mains that are not
 * measured, or blocked by a size outside the data sheet, are left out and named.
 */
export function jobFit(job: JobDocument, readings: readonly Reading[]): JobFit {
  const { unit } = job;
  const stations = mainStations(job, readings);
  const limits = job.limits.mainClearance;
  const names = requestNames(job);
  const leftOut: LeftOut[] = [];
  const ready: (MainStation & { low: number; high: number })[] = [];
  for (const station of stations) {
    const reason = leftOutReason(station);
    if (reason) {
      leftOut.push({ station: station.id, reason });
      continue;
    }
    if (!limits) continue;
    const { bore, journal } = station;
    const low = limits.low + (bore!.nominal - bore!.smallest) + (journal!.largest - journal!.nominal);
    const high = limits.high - (bore!.largest - bore!.nominal) - (journal!.nominal - journal!.smallest);
    if (low > high) leftOut.push({ station: station.id, reason: 'out-of-round' });
    else ready.push({ ...station, low, high });
  }
  if (!limits) return { ok: false, reason: 'no-limits', leftOut };
  if (names.size === 0) return { ok: false, reason: 'no-shells', leftOut };
  if (ready.length === 0) return { ok: false, reason: 'nothing-measured', leftOut };

  const length = (value: number) => numberOfLength(nanometres(value), unit);
  const { rules } = job;
  return {
    ok: true,
    leftOut,
    shellIds: names,
    request: {
      format: 'fettle.fit-request/1',
      unit,
      stations: ready.map((station) => ({
        id: station.id,
        family: 'main',
        journal: length(station.journal!.nominal),
        aim: length(station.aim!),
        low: length(station.low),
        high: length(station.high),
      })),
      housings: ready.map((station) => ({
        id: `bore ${station.id}`,
        family: 'main',
        bore: length(station.bore!.nominal),
        station: station.id,
      })),
      shells: [...names].map(([name, id]) => {
        const shell = job.shells[id]!;
        return {
          id: name,
          family: 'main',
          series: shell.series,
          half: shell.half,
          wall: length(shell.wall),
          stock: shell.stock,
        };
      }),
      rules: {
        mixedHalves: rules.mixedHalves,
        acrossSeries: rules.acrossSeries,
        maxWallStep: numberOfLength(rules.maxWallStep, 'mm'),
        thinnerHalf: rules.thinnerHalf,
        maxSpread: { main: rules.maxSpread === null ? null : numberOfLength(rules.maxSpread, 'mm'), rod: null },
        tightWeight: rules.tightWeight,
        mixedPenalty: rules.mixedPenalty,
      },
    },
  };
}

/** The halves that a plan gives each main, by the job's own shell ids, ready to be accepted into the job. */
export function plannedHalves(
  job: JobDocument,
  asked: JobFit & { ok: true },
  plan: FitPlan,
): AcceptedChoice['stations'] {
  const half = (name: string) => {
    const shell = asked.shellIds.get(name)!;
    return { shell, label: shellLabel(job.shells[shell]!), wall: job.shells[shell]!.wall };
  };
  return Object.fromEntries(
    plan.stations.map(({ id, upper, lower, clearance }) => [
      id,
      { upper: half(upper), lower: half(lower), predicted: lengthOfNumber(clearance, plan.unit) },
    ]),
  );
}
