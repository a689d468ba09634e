import { type ClearanceVerdict, clearanceVerdict } from '../clearance/clearanceVerdict.js';
import { type OilClearance, oilClearance } from '../clearance/oilClearance.js';
import { fitShellSchema } from '../fit/format/fitRequest.js';
import { fitShellOf } from '../fit/format/fitShellOf.js';
import { COST_PER_UM2, type ModelRules, type ModelShell, modelShell } from '../fit/model/fitModel.js';
import { shellPairs } from '../fit/model/shellPairs.js';
import { type Nanometres, nanometres } from '../measure/nanometres.js';
import type { JobDocument, JobShell } from './jobDocument.js';
import { type JobStation, offsetAt } from './jobStations.js';

/** The shells of a job in a fixed order: family, series, half, wall, grade, id. */
export function shellsInOrder(job: JobDocument): { id: string; shell: JobShell }[] {
  const side = { upper: 0, lower: 1, either: 2 };
  return Object.entries(job.shells)
    .map(([id, shell]) => ({ id, shell }))
    .sort(
      (a, b) =>
        a.shell.family.localeCompare(b.shell.family, 'en') ||
        a.shell.series.localeCompare(b.shell.series, 'en') ||
        side[a.shell.half] - side[b.shell.half] ||
        a.shell.wall - b.shell.wall ||
        a.shell.grade.localeCompare(b.shell.grade, 'en') ||
        (a.id < b.id ? -1 : 1),
    );
}

/** The shells of a job as the selection core takes them; their ids are the job's. */
function modelShellsOf(job: JobDocument): ModelShell[] {
  return shellsInOrder(job).map(({ id, shell }) =>
    // What is free in the workshop's drawer is not known here: such a half counts as there.
    modelShell(
      fitShellSchema.parse(fitShellOf(id, shell, job.unit, shell.line === null ? shell.stock : null)),
      job.unit,
      0,
    ),
  );
}

/** The pairing rules of a job as the selection core takes them. */
function modelRulesOf(job: JobDocument): ModelRules {
  const { rules } = job;
  return {
    mixedHalves: rules.mixedHalves,
    acrossSeries: rules.acrossSeries,
    maxWallStep: rules.maxWallStep,
    thinnerHalf: rules.thinnerHalf,
    maxSpread: { main: rules.maxSpread, rod: rules.maxRodSpread },
    tightWeight: rules.tightWeight,
    mixedPenalty: Math.round(rules.mixedPenalty * COST_PER_UM2),
  };
}

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
 * The clearance that every allowed pair of halves with stock would give at a station, tightest first.
 *
 * @returns empty when the station is not measured: a clearance needs both a bore and a journal
 */
export function stationCandidates(job: JobDocument, station: JobStation): Candidate[] {
  const { bore, journal } = station;
  if (!bore || !journal) return [];
  const shells = modelShellsOf(job);
  return shellPairs(shells, station.family, modelRulesOf(job), station.position ?? '')
    .map((pair): Candidate => {
      const upper = shells[pair.upper]!;
      const lower = shells[pair.lower]!;
      const clearance = oilClearance({
        bore,
        journal,
        upperWall: upper.wall,
        lowerWall: lower.wall,
        upperBand: job.shells[upper.id]!.band,
        lowerBand: job.shells[lower.id]!.band,
        offset: offsetAt(station, job.shells[upper.id]!.series)?.offset ?? nanometres(0),
      });
      return {
        upper: upper.id,
        lower: lower.id,
        upperWall: upper.wall,
        lowerWall: lower.wall,
        mixed: pair.mixed,
        clearance,
        deviation: station.aim === null ? null : nanometres(clearance.nominal - station.aim),
        verdict: station.limits && clearanceVerdict(clearance, station.limits, job.rules.closeFraction),
      };
    })
    .sort((a, b) => a.clearance.nominal - b.clearance.nominal);
}
