import type { CameApartMembers } from '../cameApart/cameApartPart.js';
import { foundApart } from '../cameApart/foundApart.js';
import type { EngineMembers } from '../engineType/enginePart.js';
import { type ThrustKind, thrustKindOf } from '../engineType/thrustKind.js';
import { familiesOf } from '../part/familiesOf.js';
import { FAMILY_TABLE, type Family } from '../part/family.js';
import { partName } from '../part/feature.js';
import type { Swap } from '../part/swap.js';
import { ALL_PARTS, isSwappedSince } from '../part/swappedSince.js';
import { capsFromMiddle } from '../torque/boltOrder.js';
import { type AssemblyCheck, assemblyChecks, checkPlace } from './assemblyChecks.js';
import type { AssemblyMembers } from './assemblyPart.js';
import type { Check, FaceSchool, HandTurn } from './assemblySchema.js';

/** A station as far as it is put together. */
export interface AssembledStation {
  readonly id: string;
  readonly family: Family;
  readonly number: number;
  /** The rod on a pin; null at a main, or where none is placed. */
  readonly rod: number | null;
}

/** What the assembly of an engine is worked out from. */
export type AssemblyJob = AssemblyMembers &
  CameApartMembers &
  Pick<EngineMembers, 'layout' | 'sheet' | 'withRods'> & { readonly endPlay: { readonly kind: ThrustKind | null } };

/** What each lubricant of running faces is called, and when one takes it. */
export const FACE_WORDS: Readonly<Record<FaceSchool, { readonly name: string; readonly why: string }>> = {
  oil: { name: 'oil', why: 'it runs within days' },
  assembly: { name: 'assembly lubricant', why: 'it will stand before its first run' },
};

/** One check of a station, with what was found. */
export interface StationCheck extends AssemblyCheck {
  readonly station: string;
  /** Where it is kept: station and check. */
  readonly place: string;
  readonly made: Check | null;
  /** True if parts changed places since it was made: then it is to be made again. */
  readonly isOutdated: boolean;
  /** True if it is to be made: not yet, or again; or a finding waits for a decision. */
  readonly isOpen: boolean;
}

/** Everything that is seen to at one station, in the working order. */
export interface StationAssembly {
  /** `M3`, `P2`. */
  readonly station: string;
  /** The rod on it; null at a main, or where none is placed. */
  readonly rod: number | null;
  readonly before: readonly StationCheck[];
  readonly turn: HandTurn | null;
  /** True if the shaft is to be turned again: never yet, or parts changed places since. */
  readonly isTurnOpen: boolean;
  readonly after: readonly StationCheck[];
}

/** The names that parts of a station go by: its own, and that of the rod on it. */
export function partPlaces({ id, rod }: Pick<AssembledStation, 'id' | 'rod'>): string[] {
  return rod === null ? [id] : [id, partName('bigEnd', rod)];
}

/** The stations of a job as they are put together: mains from the middle out, then pins from the front on. */
function inWorkingOrder(job: AssemblyJob, stations: readonly AssembledStation[]): AssembledStation[] {
  return familiesOf(job).flatMap((name) => {
    const { isInLine, count } = FAMILY_TABLE[name];
    const own = stations.filter(({ family }) => family === name);
    return isInLine
      ? capsFromMiddle(count(job.layout)).flatMap((number) => own.find((one) => one.number === number) ?? [])
      : own;
  });
}

/** The lubricant of the running faces, in words; empty where nobody said. */
export function faceText({ face: { school, name } }: AssemblyJob['assembly']): string {
  return [school === null ? '' : FACE_WORDS[school].name, name].filter((word) => word !== '').join(', ');
}

/**
 * Every station with its checks, in the working order.
 *
 * @param stations of the job, any order
 */
export function jobAssembly(job: AssemblyJob, stations: readonly AssembledStation[]): StationAssembly[] {
  const { assembly, layout } = job;
  const face = faceText(assembly);
  return inWorkingOrder(job, stations).map((station): StationAssembly => {
    const places = partPlaces(station);
    const isOld = (at: string) => isSwappedSince(assembly, places, ALL_PARTS, at);
    const checks = assemblyChecks({
      family: station.family,
      isThrust: FAMILY_TABLE[station.family].isInLine && station.number === layout.thrustMain,
      thrust: thrustKindOf(job),
      built: assembly.built,
      face,
    });
    const made = (check: AssemblyCheck): StationCheck => {
      const place = checkPlace(station.id, check.key);
      const one = assembly.checks[place] ?? null;
      const isOutdated = one !== null && isOld(one.at);
      const isUndecided = one?.state === 'found' && one.decision === null;
      return {
        ...check,
        station: station.id,
        place,
        made: one,
        isOutdated,
        isOpen: one === null || isOutdated || isUndecided,
      };
    };
    const turn = assembly.turns[station.id] ?? null;
    return {
      station: station.id,
      rod: station.rod,
      // What was found as it came apart comes first: its cause is put right before a new shell goes in.
      before: [...foundApart(job, station.id), ...checks.before].map(made),
      turn,
      isTurnOpen: turn === null || isOld(turn.at),
      after: checks.after.map(made),
    };
  });
}

/** What a part that changes places is called in a sentence. */
export const SWAP_PARTS: Readonly<Record<Swap['part'], string>> = {
  cap: 'caps',
  upper: 'upper shells',
  lower: 'lower shells',
  rod: 'rods',
};

/** A swap in words: `caps of M2 and M3`. */
export function swapText({ part, one, other }: Pick<Swap, 'part' | 'one' | 'other'>): string {
  return `${SWAP_PARTS[part]} of ${one} and ${other}`;
}
