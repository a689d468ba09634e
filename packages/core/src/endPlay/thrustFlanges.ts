import type { EngineMembers } from '../engineType/enginePart.js';
import { thrustKindOf } from '../engineType/thrustKind.js';
import { type Nanometres, nanometres } from '../measure/nanometres.js';
import { FAMILY_TABLE } from '../part/family.js';
import { partName } from '../part/feature.js';
import type { AcceptedChoice } from '../shell/acceptedChoice.js';
import type { JobShell } from '../shell/jobShell.js';
import { endPlayAim } from './endPlayAim.js';
import type { EndPlayMembers } from './endPlayPart.js';
import { endPlayBefore, limitsForMean } from './endPlayRounds.js';

/** What the flanges of an engine's halves are worked out from. */
export type FlangedJob = EndPlayMembers &
  Pick<EngineMembers, 'layout' | 'limits' | 'sheet'> & {
    readonly shells: Readonly<Record<string, JobShell>>;
    readonly rules: { readonly closeFraction: number };
  };

/** What the flanges of the thrust main's halves have to do. */
export interface ThrustFlanges {
  /** The station that they are at. */
  readonly station: string;
  readonly reading: Nanometres;
  readonly fitted: Nanometres;
  /** What the limits leave for the mean: the smallest angle keeps the low one, the largest the high one. */
  readonly limit: { readonly low: Nanometres; readonly high: Nanometres };
  readonly aim: Nanometres;
  readonly weight: number;
}

/**
 * What is asked of the flanges at the thrust main, where its halves carry them and so the choice of the halves and the end play are one:
 * null where they do not, while the end play, the width that was fitted then or the limits are not known, and where the angles of the shaft are
 * further apart than the limits.
 */
export function thrustFlanges(job: FlangedJob): ThrustFlanges | null {
  const { thrustMain } = job.layout;
  const limit = job.limits.endPlay;
  const before = endPlayBefore(job.endPlay, false);
  const fitted = job.endPlay.fitted.width;
  const areFlanged = Object.values(job.shells).some(
    ({ family, width }) => FAMILY_TABLE[family].isInLine && width !== undefined,
  );
  if (thrustMain === null || thrustKindOf(job) !== 'flanged' || !areFlanged) return null;
  if (limit === null || before === null || fitted === null) return null;
  const open = limitsForMean(before, limit);
  if (open === null) return null;
  return {
    station: partName('mainBore', thrustMain),
    reading: before.mean,
    fitted,
    limit: open,
    aim: nanometres(Math.min(open.high, Math.max(open.low, endPlayAim(job.endPlay, limit)))),
    weight: job.endPlay.weight,
  };
}

/** The end play that two halves leave at the thrust main; null where they carry no flanges, or nothing is asked of them. */
export function endPlayOfHalves(
  job: FlangedJob,
  { upper, lower }: Pick<AcceptedChoice['stations'][string], 'upper' | 'lower'>,
): Nanometres | null {
  const flanges = thrustFlanges(job);
  const widths = [upper, lower].flatMap(({ shell }) => job.shells[shell]?.width ?? []);
  if (!flanges || widths.length === 0) return null;
  return nanometres(flanges.reading + flanges.fitted - Math.max(...widths));
}
