import type { FitSolution } from '../fit/model/fitSolution.js';
import type { AcceptedChoice } from '../shell/acceptedChoice.js';
import { shellLabel } from '../shell/half.js';
import type { JobFit } from './jobFit.js';
import type { SelectionJob } from './selectionJob.js';

/** The halves, and at a pin the rod, that a plan gives each station, ready to be accepted into the job. */
export function plannedHalves(
  job: SelectionJob,
  asked: JobFit & { ok: true },
  { stations }: Pick<FitSolution, 'stations'>,
): AcceptedChoice['stations'] {
  const half = (shell: string) => {
    const { wall, band } = job.shells[shell]!;
    return { shell, label: shellLabel(job.shells[shell]!), wall, ...(band ? { band } : {}) };
  };
  return Object.fromEntries(
    stations.map(({ id, housing, upper, lower, clearance }) => [
      id,
      { upper: half(upper), lower: half(lower), predicted: clearance, rod: asked.rodNumbers.get(housing) ?? null },
    ]),
  );
}
