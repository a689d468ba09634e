import type { AimRule } from '../clearance/clearanceAim.js';
import type { Nanometres } from '../measure/nanometres.js';
import type { MeasuredJob } from '../reading/measuredJob.js';
import type { AcceptedChoice } from '../shell/acceptedChoice.js';
import type { JobShell } from '../shell/jobShell.js';
import type { ExpectedOffset } from './expectedOffsetSchema.js';
import type { Trial, TrialSchool } from './trialSchema.js';

/** The rules of a selection that say how a station is judged. */
export interface StationRules {
  readonly aim: AimRule;
  readonly rodAim: AimRule;
  /** Added to the target of single stations. */
  readonly extras: Readonly<Record<string, Nanometres>>;
  readonly closeFraction: number;
  /** Least chance of being inside the limits; null where none is asked for. */
  readonly leastChance: number | null;
}

/** What the stations of an engine are worked out from: what is read of it, its shells and what was selected, its trials. */
export type StationJob = MeasuredJob & {
  readonly rules: StationRules;
  readonly shells: Readonly<Record<string, JobShell>>;
  readonly choice: AcceptedChoice | null;
  readonly trials: Readonly<Record<string, Trial>>;
  readonly trialSchool: TrialSchool;
  /** What other engines let expect that assembly adds, where the fitter took it over: by family and series, `main Marsh`. */
  readonly expected: Readonly<Record<string, ExpectedOffset>>;
};
