import type { JobShell } from '../shell/jobShell.js';
import type { SelectionJob } from './selectionJob.js';

/** Words in the order of a list. */
const inOrder = new Intl.Collator('en').compare;
const SIDE_ORDER = { upper: 0, lower: 1, either: 2 } as const;

type NamedShell = { readonly id: string; readonly shell: JobShell };

const orderedOf = new WeakMap<SelectionJob['shells'], readonly NamedShell[]>();

/** The shells of a job in a fixed order: family, series, half, wall, grade, id. Worked out once for its shells. */
export function shellsInOrder({ shells }: Pick<SelectionJob, 'shells'>): readonly NamedShell[] {
  const known = orderedOf.get(shells);
  if (known) return known;
  const ordered = Object.entries(shells)
    .map(([id, shell]) => ({ id, shell }))
    .sort(
      (a, b) =>
        inOrder(a.shell.family, b.shell.family) ||
        inOrder(a.shell.series, b.shell.series) ||
        SIDE_ORDER[a.shell.half] - SIDE_ORDER[b.shell.half] ||
        a.shell.wall - b.shell.wall ||
        inOrder(a.shell.grade, b.shell.grade) ||
        (a.id < b.id ? -1 : 1),
    );
  orderedOf.set(shells, ordered);
  return ordered;
}
