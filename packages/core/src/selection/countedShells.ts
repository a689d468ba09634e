import type { Family } from '../part/family.js';
import type { JobShell } from '../shell/jobShell.js';
import type { SelectionJob } from './selectionJob.js';

/** True if nobody has counted a half: a grade as a data sheet or a catalogue lists it, of which any number could be ordered. */
export function isUncounted({ stock, line }: Pick<JobShell, 'stock' | 'line'>): boolean {
  return stock === null && line === null;
}

/**
 * The families of which some halves are counted. In those a half that nobody counted is not on hand: it takes part only in what could be
 * ordered.
 */
export function countedFamilies({ shells }: Pick<SelectionJob, 'shells'>): ReadonlySet<Family> {
  return new Set(Object.values(shells).flatMap((shell) => (isUncounted(shell) ? [] : [shell.family])));
}

/**
 * The halves of an engine with others drawn from the workshop's stock: these take the place of those of their family and series that
 * nobody counted, which stand for the same shells.
 *
 * @param drawn by id
 */
export function withDrawn(
  shells: SelectionJob['shells'],
  drawn: Readonly<Record<string, JobShell>>,
): SelectionJob['shells'] {
  const series = new Set(Object.values(drawn).map((shell) => JSON.stringify([shell.family, shell.series])));
  const kept = Object.entries(shells).filter(
    ([, shell]) => !(isUncounted(shell) && series.has(JSON.stringify([shell.family, shell.series]))),
  );
  return { ...Object.fromEntries(kept), ...drawn };
}
