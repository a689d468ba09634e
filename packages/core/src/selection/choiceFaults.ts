import type { DocumentFault } from '../document/fault.js';
import { rodCount } from '../part/rodCount.js';
import type { SelectionJob } from './selectionJob.js';

/**
 * What keeps a choice from being accepted into its job: a half that is not in the drawer, on the wrong side, with another
 * wall than the drawer says, used more often than it is on hand, or paired with one of another undersize.
 *
 * @returns faults with JSON Pointers into the job document; empty when the choice can be accepted
 */
export function choiceFaults(job: SelectionJob): DocumentFault[] {
  const faults: DocumentFault[] = [];
  const used = new Map<string, number>();
  const pins = new Map<number, string>();
  for (const [station, halves] of Object.entries(job.choice?.stations ?? {})) {
    const { rod } = halves;
    if (rod !== null) {
      const path = `/choice/stations/${station}/rod`;
      const other = pins.get(rod);
      if (other !== undefined) faults.push({ path, message: `rod R${rod} is already on ${other}` });
      if (rod > rodCount(job.layout))
        faults.push({ path, message: `the engine has only ${rodCount(job.layout)} rods` });
      pins.set(rod, station);
    }
    const [above, below] = [job.shells[halves.upper.shell], job.shells[halves.lower.shell]];
    if (above && below && above.undersize !== below.undersize) {
      const path = `/choice/stations/${station}/lower/shell`;
      faults.push({ path, message: `${station} would have shells of two undersizes; select both of one` });
    }
    for (const side of ['upper', 'lower'] as const) {
      const { shell: id, label, wall } = halves[side];
      const path = `/choice/stations/${station}/${side}`;
      const shell = job.shells[id];
      if (!shell) {
        faults.push({ path: `${path}/shell`, message: `${label} is no longer in stock; select again` });
        continue;
      }
      if (shell.half !== side && shell.half !== 'either') {
        faults.push({ path: `${path}/shell`, message: `${label} is not a ${side} shell` });
      }
      if (shell.wall !== wall) {
        faults.push({ path: `${path}/wall`, message: `stock now lists ${label} with another wall; select again` });
      }
      const count = (used.get(id) ?? 0) + 1;
      used.set(id, count);
      // Halves of the workshop are counted where they are reserved.
      if (shell.line === null && shell.stock !== null && count === shell.stock + 1) {
        faults.push({ path: `${path}/shell`, message: `only ${shell.stock} of ${label} are on hand; select again` });
      }
    }
  }
  return faults;
}
