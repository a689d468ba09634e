import { eachFeature } from '../part/feature.js';
import type { Reading } from '../part/reading.js';
import { assess, sizesOf, typedHow } from './assessReading.js';
import { isBelievable } from './farFrom.js';
import type { MeasuredJob } from './measuredJob.js';
import { instrumentThen, isAdrift } from './readWith.js';

interface Doubts {
  readonly suspect: readonly Reading[];
  /** Those of the suspect ones that could be right by themselves, and are far from the others of their bore. */
  readonly far: ReadonlySet<Reading>;
  /** Those that were taken while their instrument moved between two zero checks, about which nothing was decided. */
  readonly adrift: ReadonlySet<Reading>;
  readonly unreadable: readonly Reading[];
}

const doubtsOf = new WeakMap<readonly Reading[], WeakMap<MeasuredJob, Doubts>>();

/** Worked out once for a document and its readings. Grows with the readings, not with their square. */
function doubts(job: MeasuredJob, readings: readonly Reading[]): Doubts {
  const byJob = doubtsOf.get(readings) ?? new WeakMap<MeasuredJob, Doubts>();
  doubtsOf.set(readings, byJob);
  const known = byJob.get(job);
  if (known) return known;
  const seen = eachFeature((feature) => sizesOf(readings, feature));
  const byPart = new Map<string, Reading[]>();
  for (const reading of readings) {
    const key = `${reading.feature} ${reading.station}`;
    const own = byPart.get(key);
    if (own) own.push(reading);
    else byPart.set(key, [reading]);
  }
  const found = {
    suspect: [] as Reading[],
    far: new Set<Reading>(),
    adrift: new Set<Reading>(),
    unreadable: [] as Reading[],
  };
  for (const reading of readings) {
    if (reading.text === '') continue;
    const others = byPart.get(`${reading.feature} ${reading.station}`)!.filter((one) => one !== reading);
    const { kind } = assess(reading, typedHow(reading), job, seen[reading.feature], reading.nm, others);
    const isMoved = reading.nm !== null && reading.taken?.confirmed !== true && isAdrift(instrumentThen(job, reading));
    if (isMoved) found.adrift.add(reading);
    if (kind === 'doubtful' || isMoved) {
      found.suspect.push(reading);
      if (kind === 'doubtful' && isBelievable(job, reading, reading.nm!)) found.far.add(reading);
    }
    if (kind === 'unreadable') found.unreadable.push(reading);
  }
  byJob.set(job, found);
  return found;
}

/**
 * The suspect readings of a job, which count nowhere: those that cannot be right, or are far from the others of their part, and were not
 * confirmed. In the order they are given.
 */
export function suspectReadings(job: MeasuredJob, readings: readonly Reading[]): readonly Reading[] {
  return doubts(job, readings).suspect;
}

/** True if a suspect reading could be right by itself, and is far from the others of its bore. */
export function isFarReading(job: MeasuredJob, readings: readonly Reading[], reading: Reading): boolean {
  return doubts(job, readings).far.has(reading);
}

/** The readings that were taken while their instrument moved between two zero checks, about which nothing was decided yet. */
export function adriftReadings(job: MeasuredJob, readings: readonly Reading[]): ReadonlySet<Reading> {
  return doubts(job, readings).adrift;
}

/** The readings of a job to look at again: suspect ones, and those that cannot be read. In the order they are given. */
export function doubtfulReadings(job: MeasuredJob, readings: readonly Reading[]): readonly Reading[] {
  const { suspect, unreadable } = doubts(job, readings);
  if (unreadable.length === 0) return suspect;
  const all = new Set([...suspect, ...unreadable]);
  return readings.filter((reading) => all.has(reading));
}
