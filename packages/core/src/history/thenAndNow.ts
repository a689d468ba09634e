import type { EarlierBuild } from '../build/buildPart.js';
import type { JobDocument } from '../job/jobDocument.js';
import type { JobFacts } from '../job/jobFacts.js';
import { budgetUncertainty } from '../measure/budget.js';
import { type Nanometres, nanometres } from '../measure/nanometres.js';
import { COVERAGE } from '../measure/uncertainty.js';
import { FEATURE_TABLE, type Feature } from '../part/feature.js';
import { sizeBudget } from '../station/sources.js';

/** A part then and now. */
export interface PartThenNow {
  readonly feature: Feature;
  readonly number: number;
  /** `M3`, `P2`, `R1`. */
  readonly name: string;
  readonly was: Nanometres;
  /** Null until it is read again. */
  readonly now: Nanometres | null;
  /** What it has worn, nm: a journal gets smaller, a housing larger; below zero it went the other way. Null without a size now, or where it was machined. */
  readonly worn: Nanometres | null;
  /** What the difference of the two is known to, nm, with the usual factor of 2; null without one. */
  readonly known: Nanometres | null;
  /** True if it has worn by more than is known of the difference. */
  readonly isWorn: boolean;
  /** True if it was machined since: then the difference is no wear. */
  readonly isMachined: boolean;
}

/** A journal on an undersize that is smaller by more than this was ground since, and not worn, nm. A setting of ours. */
const LEAST_GROUND = 100_000;

/** What parts of an engine were when it was built before, and are now. Readings of two builds share no instrument's setting. */
export function thenAndNow({ job, parts, features }: JobFacts): PartThenNow[] {
  const { before } = job;
  if (before === null) return [];
  return features.flatMap((feature) => {
    const sizes = before.sizes[feature] ?? {};
    return parts[feature].flatMap((part): PartThenNow[] => {
      const then = sizes[String(part.number)];
      if (!then) return [];
      const size = part.size?.kind === 'read' ? part.size : null;
      const grown = size && size.nominal - then.nominal;
      const isGround = part.undersize !== null && grown !== null && -grown > LEAST_GROUND;
      const isMachined = size !== null && (isGround || part.machinedAt !== null);
      const worn = grown === null || isMachined ? null : FEATURE_TABLE[feature].role === 'housing' ? grown : -grown;
      const u = size ? Math.hypot(then.u, budgetUncertainty(sizeBudget(job, feature, part.name, size))) : null;
      return [
        {
          feature,
          number: part.number,
          name: part.name,
          was: then.nominal,
          now: size?.nominal ?? null,
          worn: worn === null ? null : nanometres(worn),
          known: u === null ? null : nanometres(Math.round(COVERAGE * u)),
          isWorn: worn !== null && u !== null && worn > COVERAGE * u,
          isMachined,
        },
      ];
    });
  });
}

/** The part of a kind that has worn most, of those that have worn by more than is known of it; null where none has. */
export function wornMost(all: readonly PartThenNow[], role: 'housing' | 'journal'): PartThenNow | null {
  return all
    .filter(({ feature, isWorn }) => isWorn && FEATURE_TABLE[feature].role === role)
    .reduce<PartThenNow | null>((most, one) => (most === null || one.worn! > most.worn! ? one : most), null);
}

/**
 * What an old shell has worn: the wall that it was fitted with less the one read as it came out, nm; null where one is missing.
 *
 * @example shellWorn({ fitted: { M1: { upper: { wall: 1_995_000 } } } }, { cameApart: { stations: { M1: { upper: { wall: { nm: 1_989_000 } } } } } }, 'M1', 'upper') // 6000
 */
export function shellWorn(
  before: Pick<EarlierBuild, 'fitted'> | null,
  { cameApart }: Pick<JobDocument, 'cameApart'>,
  station: string,
  side: 'upper' | 'lower',
): Nanometres | null {
  const then = before?.fitted[station]?.[side].wall;
  const now = cameApart.stations[station]?.[side].wall?.nm;
  return then === undefined || now == null ? null : nanometres(then - now);
}

/** Hours, kilometres or miles for which wear is told. */
export const WEAR_PER = { h: 1000, km: 100_000, mi: 100_000 } as const;

/**
 * Wear for a run of 1,000 h, or of 100,000 km or miles: a proportion, no forecast.
 *
 * @param worn nm
 * @example wearRate(6_000, { value: 2_000, unit: 'h' }) // 3000
 */
export function wearRate(worn: number, run: NonNullable<EarlierBuild['run']>): Nanometres {
  return nanometres(Math.round((worn * WEAR_PER[run.unit]) / run.value));
}
