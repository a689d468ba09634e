import { cutText } from '../document/storableText.js';
import type { EngineType } from '../engineType/engineType.js';
import type { LimitKey, MainLimits } from '../engineType/limits.js';
import { LIMIT_KEYS, PLACED_LIMITS } from '../engineType/limits.js';
import { type Nanometres, nanometres } from '../measure/nanometres.js';
import type { Family } from '../part/family.js';
import { usualThinnerHalf } from '../selection/ruleTable.js';
import type { JobShell } from '../shell/jobShell.js';
import type { JobDocument } from './jobDocument.js';
import { newJob } from './newJob.js';

/** A job with a copy of an engine type's data sheet, which remembers where it comes from. */
export function jobOfType(
  name: string,
  type: EngineType,
  origin: NonNullable<JobDocument['origin']>,
  withRods: boolean,
): JobDocument {
  const job = newJob(name, type.unit, type.layout, type.materials, withRods);
  const { joints, rodJoints, endPlayAim, crushAim, crushAimAluminium, settle } = type;
  return {
    ...job,
    origin,
    sheet: type,
    limits: type.limits,
    mainLimits: type.mainLimits,
    places: type.places,
    crush: { ...job.crush, kind: joints, bigEnds: rodJoints, aim: crushAim, aimAluminium: crushAimAluminium },
    endPlay: { ...job.endPlay, aim: endPlayAim, settle: settle ?? job.endPlay.settle },
  };
}

function isSameLimit(one: JobDocument['limits'][LimitKey], other: JobDocument['limits'][LimitKey]): boolean {
  return one?.low === other?.low && one?.high === other?.high && one?.source === other?.source;
}

/** A limit that both the later revision and the fitter have changed since the sheet was copied. */
export interface LimitClash {
  readonly key: LimitKey;
  readonly ours: JobDocument['limits'][LimitKey];
  readonly theirs: JobDocument['limits'][LimitKey];
}

/** The limits that would clash when a job takes a later revision of its data sheet. */
export function limitClashes(job: Pick<JobDocument, 'limits' | 'sheet'>, later: EngineType): LimitClash[] {
  return LIMIT_KEYS.flatMap((key) => {
    const [base, ours, theirs] = [job.sheet?.limits[key] ?? null, job.limits[key], later.limits[key]];
    const isClash = !isSameLimit(base, theirs) && !isSameLimit(base, ours) && !isSameLimit(ours, theirs);
    return isClash ? [{ key, ours, theirs }] : [];
  });
}

/** Limits of single mains: those that the fitter has changed here stay, the others are those of the later sheet. */
function mainLimitsWith(job: JobDocument, { mainLimits: later }: EngineType, isSameShape: boolean): MainLimits {
  const before = job.sheet?.mainLimits ?? {};
  const numbers = new Set([...Object.keys(job.mainLimits), ...(isSameShape ? Object.keys(later) : [])]);
  const of = (number: string): [string, MainLimits[string]] => {
    const kept = PLACED_LIMITS.flatMap((key) => {
      const [base, ours, theirs] = [before, job.mainLimits, later].map((all) => all[number]?.[key] ?? null);
      const limit = isSameLimit(base!, ours!) ? theirs : ours;
      return limit ? [[key, limit] as const] : [];
    });
    return [number, Object.fromEntries(kept)];
  };
  return Object.fromEntries([...numbers].map(of).filter(([, own]) => Object.keys(own).length > 0));
}

/**
 * The job with another revision, or another type's sheet, in place of the one it has. Limits that the fitter has changed in the job
 * stay, except those in `take`; a layout of another number of mains or pins is not taken, for readings belong to stations.
 */
export function withSheet(
  job: JobDocument,
  type: EngineType,
  origin: NonNullable<JobDocument['origin']>,
  take: readonly LimitKey[],
): JobDocument {
  const limits = Object.fromEntries(
    LIMIT_KEYS.map((key) => {
      const isOurs = !isSameLimit(job.sheet?.limits[key] ?? null, job.limits[key]) && job.limits[key] !== null;
      return [key, isOurs && !take.includes(key) ? job.limits[key] : type.limits[key]];
    }),
  ) as JobDocument['limits'];
  const isSameShape = type.layout.mains === job.layout.mains && type.layout.pins.length === job.layout.pins.length;
  return {
    ...job,
    origin,
    sheet: type,
    limits,
    mainLimits: mainLimitsWith(job, type, isSameShape),
    places: { ...(isSameShape ? type.places : {}), ...job.places },
    materials: type.materials,
    rules: { ...job.rules, thinnerHalf: usualThinnerHalf(type.materials.block, type.materials.caps) },
    layout: isSameShape ? type.layout : job.layout,
  };
}

function middle({ low, high }: { low: Nanometres; high: Nanometres }): Nanometres {
  return nanometres(Math.round((low + high) / 2));
}

/**
 * The grades of the data sheet as halves that can be ordered: as many as wanted, walls by their bands.
 *
 * @param undersize name of an undersize of the sheet, or null for standard
 */
export function shellsOfSheet(sheet: EngineType, family: Family, undersize: string | null): JobShell[] {
  const codes = sheet[family];
  const grades =
    undersize === null ? codes.grades : (codes.undersizes.find(({ name }) => name === undersize)?.grades ?? []);
  return grades.flatMap(({ mark, low, high, positions }) =>
    (['upper', 'lower'] as const).map((half) => ({
      family,
      series: codes.series === '' ? cutText(sheet.name, 60) : codes.series,
      grade: mark,
      half,
      wall: middle({ low, high }),
      ...(low === high ? {} : { band: { low, high } }),
      ...(undersize === null ? {} : { undersize }),
      ...(positions === undefined ? {} : { positions }),
      stock: null,
      line: null,
    })),
  );
}
