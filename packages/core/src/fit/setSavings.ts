import type { Nanometres } from '../measure/nanometres.js';
import { type FitOptions, fit } from './fit.js';
import type { FitProblem, ProblemShell } from './model/fitProblem.js';
import { hasEnded, within } from './search/choiceLimits.js';

/** What one more set of a grade, an upper and a lower half, would save. */
export interface SetSaving {
  /** The shells of the set; one alone where it fits either side. */
  readonly shells: readonly string[];
  /** µm², above zero. */
  readonly saving: number;
  /** The stations whose clearance would be another: their deviations from the target before and after. */
  readonly changes: readonly { readonly station: string; readonly before: Nanometres; readonly after: Nanometres }[];
  /** The stations that would have two halves of one wall, and are mixed without it. */
  readonly unmixed: readonly string[];
}

export interface SetSavings {
  /** The greatest saving first; nothing for sets that would save nothing. */
  readonly sets: readonly SetSaving[];
  /** False where the time was too short for every set. */
  readonly isComplete: boolean;
}

/** What it may take where there is a clock, ms. */
const LONGEST_MS = 1_800;

/**
 * What is bought together: an upper and a lower of one wall, or two halves that fit either side. Of one family, series and undersize,
 * for the same places.
 */
function setsOf(shells: readonly ProblemShell[]): ProblemShell[][] {
  const sets = new Map<string, ProblemShell[]>();
  for (const shell of shells) {
    if (shell.stock === null) continue;
    const { family, series, wall, undersize, positions = null, half } = shell;
    const key = JSON.stringify([family, series, wall, undersize, positions, half === 'either' ? shell.id : '']);
    const alike = sets.get(key) ?? [];
    // Of two kinds that cannot be told apart one is enough.
    if (!alike.some((other) => other.half === half)) sets.set(key, [...alike, shell]);
  }
  return [...sets.values()];
}

/**
 * What one more set of each grade would save. A single half more often saves nothing, because a station takes two; this is what is
 * bought. Solves once for each grade.
 *
 * @param cost of the best plan as it is, µm²
 */
export function setSavings(problem: FitProblem, cost: number, options: FitOptions = {}): SetSavings {
  const limits = within(options, LONGEST_MS);
  let isComplete = true;
  const now = hasEnded(limits) ? null : fit(problem, { ...limits, explain: false });
  const known = new Map(now?.stations.map((station) => [station.id, station]));
  const found = setsOf(problem.shells).flatMap((set): SetSaving[] => {
    const more = (shell: ProblemShell) => (shell.half === 'either' ? 2 : 1);
    const shells = problem.shells.map((shell) =>
      set.includes(shell) ? { ...shell, stock: shell.stock! + more(shell) } : shell,
    );
    const plan = hasEnded(limits) ? null : fit({ ...problem, shells }, { ...limits, explain: false });
    if (plan?.status !== 'optimal') {
      isComplete = false;
      return [];
    }
    const saving = cost - plan.cost!;
    const changes = plan.stations.flatMap(({ id, deviation }) => {
      const before = known.get(id)?.deviation;
      return before === undefined || before === deviation ? [] : [{ station: id, before, after: deviation }];
    });
    const unmixed = plan.stations.flatMap(({ id, mixed }) => (!mixed && known.get(id)?.mixed ? [id] : []));
    return saving > 0 ? [{ shells: set.map(({ id }) => id), saving, changes, unmixed }] : [];
  });
  return { sets: found.sort((a, b) => b.saving - a.saving), isComplete };
}
