import type { TypedLength } from '../document/typedLength.js';
import { endPlayNow } from '../endPlay/endPlayRounds.js';
import type { EndPlay } from '../endPlay/endPlaySchema.js';
import { type Nanometres, nanometres } from '../measure/nanometres.js';
import { COVERAGE } from '../measure/uncertainty.js';
import { type Pressure, pressureIn, pressureText } from './pressure.js';
import {
  PRESSURE_MOMENTS,
  type PressureLimit,
  type PressureMoment,
  type PressureRead,
  type Recheck,
  type RunEntry,
  type Running,
  START_CHECKS,
  type StartCheck,
  type StartCheckMade,
} from './runningPart.js';

/** When a pressure is read, in words. */
export const PRESSURE_WORDS: Readonly<Record<PressureMoment, string>> = {
  cold: 'cold',
  idle: 'hot at idle',
  speed: 'hot at speed',
};

/** What is looked at when an engine is started for the first time, and why. Common practice of the trade; the engine maker’s book decides. */
export const START_WORDS: Readonly<Record<StartCheck, { readonly what: string; readonly why: string }>> = {
  oil: { what: 'Oil filled to the mark, filter new', why: 'the oil that the engine maker names' },
  primed: {
    what: 'Oil pumped through before the start, until the gauge shows pressure',
    why: 'on dry shells the first turns do the damage',
  },
  pressure: {
    what: 'Oil pressure came up at the start',
    why: 'stop at once if none shows in the time that the engine maker gives',
  },
  leaks: { what: 'No leak at seals, filter and plugs', why: 'look again when it is hot' },
  noise: { what: 'No knock or rumble, cold and hot', why: 'a knock that grows is a shell: stop' },
  level: { what: 'Oil level and coolant checked after the run', why: 'filter and galleries have filled' },
};

/** How a pressure stands to its limit. */
export type PressureState = 'under' | 'inside' | 'over' | 'no-limit';

/** A pressure that was read. */
export interface PressureVerdict {
  readonly entry: string;
  readonly moment: PressureMoment;
  readonly read: PressureRead;
  readonly state: PressureState;
  readonly limit: PressureLimit | null;
  /** How much less than the first of its kind, in its own unit: below zero it is more. Null for the first. */
  readonly fell: number | null;
}

/** The entries of an engine with their keys, in the order of their days. */
export function entriesInOrder({ entries }: Running): (RunEntry & { readonly key: string })[] {
  return Object.entries(entries)
    .map(([key, entry]) => ({ key, ...entry }))
    .sort((one, other) => (one.on + one.at < other.on + other.at ? -1 : 1));
}

/** A comparison in binary fractions: figures that differ by less than this part of them are the same. */
const SAME = 1e-9;

function stateOf(read: Pressure, limit: PressureLimit | undefined): PressureState {
  if (!limit) return 'no-limit';
  const value = pressureIn(read, limit.unit);
  if (limit.least !== null && value < limit.least * (1 - SAME)) return 'under';
  if (limit.most !== null && value > limit.most * (1 + SAME)) return 'over';
  return 'inside';
}

/** All pressures that were read, each against its limit and against the first of its kind, in the order of their days. */
export function pressureVerdicts(running: Running): PressureVerdict[] {
  const first = new Map<PressureMoment, PressureRead>();
  return entriesInOrder(running).flatMap(({ key, pressures }) =>
    PRESSURE_MOMENTS.flatMap((moment): PressureVerdict[] => {
      const read = pressures[moment];
      if (!read) return [];
      const before = first.get(moment);
      if (!before) first.set(moment, read);
      const limit = running.limits[moment];
      const fell = before ? pressureIn(before, read.unit) - read.value : null;
      return [{ entry: key, moment, read, state: stateOf(read, limit), limit: limit ?? null, fell }];
    }),
  );
}

/** The last pressure of each kind: what the engine runs with now. */
export function pressuresNow(running: Running): PressureVerdict[] {
  const last = new Map(pressureVerdicts(running).map((one) => [one.moment, one]));
  return PRESSURE_MOMENTS.flatMap((moment) => last.get(moment) ?? []);
}

/** A limit in words: `1 to 5 bar`, `at least 1 bar`, `at most 5 bar`. */
export function pressureLimitText({ least, most, unit }: PressureLimit): string {
  if (least === null) return `at most ${pressureText({ value: most!, unit })}`;
  if (most === null) return `at least ${pressureText({ value: least, unit })}`;
  return `${Number(least.toPrecision(12))} to ${pressureText({ value: most, unit })}`;
}

/**
 * The furthest that the engine is known to have run since the build, in the unit of its part; null where nobody noted it.
 *
 * @example ranSoFar({ entries: { a: { run: 20 }, b: { run: null }, c: { run: 5 } } }) // 20
 */
export function ranSoFar({
  entries,
}: {
  readonly entries: Readonly<Record<string, { readonly run: number | null }>>;
}): number | null {
  const runs = Object.values(entries).flatMap(({ run }) => (run === null ? [] : [run]));
  return runs.length === 0 ? null : Math.max(...runs);
}

/** Re-check, with how it stands. */
export interface RecheckState extends Recheck {
  readonly key: string;
  /** True if the engine has run as far as it was to be done at. */
  readonly isRunDue: boolean;
}

/** What is to be done again: what is open first, by day and run. */
export function recheckStates(running: Running): RecheckState[] {
  const ran = ranSoFar(running);
  const all = Object.entries(running.rechecks).map(
    ([key, one]): RecheckState => ({ key, ...one, isRunDue: one.run !== null && ran !== null && ran >= one.run }),
  );
  const rank = ({ done, on, run, at }: RecheckState) =>
    [done === null ? '0' : '1', on ?? '9', String(run ?? 0).padStart(12, '0'), at].join(' ');
  return all.sort((one, other) => (rank(one) < rank(other) ? -1 : 1));
}

/** When something is to be done again, in words: `on 2026-12-10 or at 20 h`. */
export function recheckDueText({ on, run }: Pick<Recheck, 'on' | 'run'>, unit: Running['unit']): string {
  return [...(on === null ? [] : [`on ${on}`]), ...(run === null ? [] : [`at ${run} ${unit}`])].join(' or ');
}

/** The checks of the first start, in their order; null where one was not made. */
export function startChecks({ start }: Running): readonly (readonly [StartCheck, StartCheckMade | null])[] {
  return START_CHECKS.map((check) => [check, start[check] ?? null] as const);
}

/** True if anything was said of the engine after its build. */
export function isRunningBegun({ start, entries, rechecks }: Running): boolean {
  return [start, entries, rechecks].some((one) => Object.keys(one).length > 0);
}

/** End play read after the build, against what it was then. */
export interface EndPlaySince {
  readonly read: TypedLength & { readonly nm: Nanometres };
  readonly on: string;
  readonly built: Nanometres;
  readonly grown: Nanometres;
  /** What the difference is known to, nm, with the usual factor of 2: both were read with a dial of the same uncertainty. */
  readonly known: Nanometres;
  /** True if it has grown by more than is known of the difference. */
  readonly isGrown: boolean;
}

/** The last end play that was read after the build, against the one that it was built with; null where one of the two is missing. */
export function endPlaySince(running: Running, endPlay: EndPlay): EndPlaySince | null {
  const round = endPlayNow(endPlay);
  const last = entriesInOrder(running)
    .reverse()
    .find((one) => one.endPlay?.nm != null);
  if (!round || !last) return null;
  const read = last.endPlay as EndPlaySince['read'];
  const grown = read.nm - round.mean;
  const known = COVERAGE * Math.hypot(round.uncertainty, endPlay.uncertainty);
  return {
    read,
    on: last.on,
    built: nanometres(Math.round(round.mean)),
    grown: nanometres(Math.round(grown)),
    known: nanometres(Math.round(known)),
    isGrown: grown > known,
  };
}
