import { type ClearanceVerdict, clearanceVerdict } from '../clearance/clearanceVerdict.js';
import { type OilClearance, oilClearance } from '../clearance/oilClearance.js';
import { fitShellSchema } from '../fit/format/fitRequest.js';
import { fitShellOf } from '../fit/format/fitShellOf.js';
import { COST_PER_UM2, type ModelRules, type ModelShell, modelShell } from '../fit/model/fitModel.js';
import { fitsPlace, pairFault, shellPairs } from '../fit/model/shellPairs.js';
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

/** The candidate that comes nearest to the aim, the tighter of two; null without an aim or a candidate. */
export function nearestCandidate(candidates: readonly Candidate[]): Candidate | null {
  return candidates.reduce<Candidate | null>((best, next) => {
    if (next.deviation === null) return best;
    return best && Math.abs(best.deviation!) <= Math.abs(next.deviation) ? best : next;
  }, null);
}

/** Why a pair that would do is not allowed, and the rules that would allow it. */
export interface BarredPair {
  readonly upper: string;
  readonly lower: string;
  readonly clearance: Nanometres;
  readonly why: 'series' | 'mixed' | 'step' | 'thinner-side';
  readonly rules: Partial<JobDocument['rules']>;
}

/** Rules after which a pair is allowed; null where no rule would do it. */
function allowing(
  rules: JobDocument['rules'],
  fault: ReturnType<typeof pairFault>,
  step: number,
): Pick<BarredPair, 'why' | 'rules'> | null {
  const stepped = { mixedHalves: true, maxWallStep: nanometres(Math.max(rules.maxWallStep, step)) };
  switch (fault) {
    case 'series':
      return { why: fault, rules: { acrossSeries: true, ...(step === 0 ? {} : stepped) } };
    case 'mixed':
    case 'step':
      return { why: fault, rules: stepped };
    case 'thinner-side':
      return { why: fault, rules: { thinnerHalf: 'either' } };
    default:
      return null;
  }
}

/**
 * The pairs that would be inside the limits of a station and that the rules forbid, nearest to its aim first: what a fitter may want to
 * allow at that one station, with a note.
 *
 * @param most how many are told
 * @returns empty where the station is not measured, or has no limits
 */
export function barredPairs(job: JobDocument, station: JobStation, most: number): BarredPair[] {
  const { bore, journal, limits, aim } = station;
  if (!bore || !journal || !limits) return [];
  const rules = modelRulesOf(job);
  const shells = modelShellsOf(job).filter(
    (shell) => shell.family === station.family && shell.stock >= 1 && fitsPlace(shell, station.position ?? ''),
  );
  const found = shells.flatMap((upper) =>
    shells.flatMap((lower): BarredPair[] => {
      if (upper === lower && upper.stock < 2) return [];
      const allowed = allowing(job.rules, pairFault(upper, lower, rules), Math.abs(upper.wall - lower.wall));
      if (!allowed) return [];
      // A pair of two series that is mixed on the wrong side as well takes more than one permission.
      if (pairFault(upper, lower, { ...rules, ...allowed.rules } as ModelRules) !== null) return [];
      const clearance = nanometres(bore.nominal - journal.nominal - upper.wall - lower.wall);
      return clearance >= limits.low && clearance <= limits.high
        ? [{ upper: upper.id, lower: lower.id, clearance, ...allowed }]
        : [];
    }),
  );
  const off = ({ clearance }: BarredPair) => Math.abs(clearance - (aim ?? (limits.low + limits.high) / 2));
  return found.sort((one, other) => off(one) - off(other)).slice(0, most);
}
