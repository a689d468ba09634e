import type { FitProblem, Forbid, Hold } from '../fit/model/fitProblem.js';
import { FAMILY_TABLE } from '../part/family.js';
import { mayTakePin } from '../part/rodBanks.js';
import type { MeasuredPart } from '../reading/measuredParts.js';
import type { Ready } from './readyStations.js';
import type { SelectionJob } from './selectionJob.js';

/** What is held and forbidden at the stations that take part. */
export function wishesOf(
  job: SelectionJob,
  stations: readonly Ready[],
  rods: readonly { readonly rod: MeasuredPart; readonly pin: string | null }[],
): FitProblem['wishes'] {
  const hold: Hold[] = [];
  const forbid: Forbid[] = [];
  /** A half that the job still has. */
  const known = (shell: string | null) => (shell !== null && job.shells[shell] ? shell : undefined);
  for (const { id: station, family, number } of stations) {
    if (FAMILY_TABLE[family].housingsMove) {
      for (const { rod, pin } of rods) {
        if (pin !== station && !mayTakePin(job, rod.number, number)) forbid.push({ station, housing: rod.name });
      }
    }
    const wish = job.wishes[station];
    if (!wish) continue;
    const [upper, lower] = [known(wish.upper), known(wish.lower)];
    if (upper !== undefined || lower !== undefined) {
      hold.push({ station, upper, lower });
    }
    for (const shell of wish.noShells) if (known(shell) !== undefined) forbid.push({ station, shell });
    if (wish.unmixed) forbid.push({ station, mixed: true });
  }
  return { hold, forbid };
}
