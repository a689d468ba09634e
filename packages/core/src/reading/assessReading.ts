import { limitAt } from '../engineType/limits.js';
import { readingUncertainty } from '../measure/instrument.js';
import type { Limit } from '../measure/lengthSchema.js';
import { lengthText } from '../measure/lengthText.js';
import { judgedReading, type LikelyReading } from '../measure/misreading.js';
import { type Nanometres, nanometres } from '../measure/nanometres.js';
import { type Needle, parseLength } from '../measure/parseLength.js';
import { SizesSeen } from '../measure/sizesSeen.js';
import type { Unit } from '../measure/unit.js';
import { eachFeature, FEATURE_TABLE, type Feature, type Slot, tellsSize } from '../part/feature.js';
import type { Reading } from '../part/reading.js';
import { type Plane, placeOfSlot, slotAt } from '../part/slot.js';
import type { MeasuredJob } from './measuredJob.js';
import { instrumentFor, instrumentThen, isAdrift } from './readWith.js';

/** What is to be said about one figure, as typed. */
export type ReadingAssessment =
  | { readonly kind: 'empty' }
  /** No size at all. */
  | { readonly kind: 'unreadable'; readonly message: string }
  /** A size that cannot be right; `likely` holds what it may have been. */
  | {
      readonly kind: 'doubtful';
      readonly nm: Nanometres;
      readonly message: string;
      readonly likely: readonly LikelyReading[];
    }
  /** Believable, but outside the data sheet; `likely` holds what may have been misread all the same. */
  | {
      readonly kind: 'outside';
      readonly nm: Nanometres;
      readonly message: string;
      readonly likely: readonly LikelyReading[];
    }
  | { readonly kind: 'fine'; readonly nm: Nanometres };

/** A figure without its point can be hundreds of metres long: `24486` in for 2.4486. */
const LONGEST_EXPLAINED = 1e15 as Nanometres;
/** Maximum likely figures offered. */
const MOST_OFFERED = 3;

/** How a figure was typed, where it stands already: in the unit and with the needle of then. Left out, as it is typed now. */
export interface TypedHow {
  readonly unit?: Unit | undefined;
  readonly needle?: Needle | null | undefined;
  readonly slot?: Slot | undefined;
  /** When it was read; null or left out: now. */
  readonly at?: string | null | undefined;
  /** True if the reader was asked about it and says that it is right. */
  readonly isConfirmed?: boolean | undefined;
}

/** How a reading that stands was typed. */
export function typedHow({ unit, taken, slot, at }: Pick<Reading, 'unit' | 'taken' | 'slot' | 'at'>): TypedHow {
  return { unit, needle: taken === undefined ? 'bigger' : taken.needle, slot, at, isConfirmed: taken?.confirmed };
}

/**
 * Readings of one part further apart than this many standard uncertainties of their difference are asked about. Five: by chance once in
 * a million. A setting of ours, to be seen in what is said.
 */
const FAR = 5;

/** How far two readings of one bore may be apart by how its gauge repeats, nm. */
function farApart(job: MeasuredJob, feature: Feature): number {
  return FAR * Math.SQRT2 * readingUncertainty({ ...instrumentFor(job, feature), setting: nanometres(0) }, 1);
}

/**
 * How far a reading in the middle plane of a journal lies beyond those at both ends, in its direction; null where it lies between them, or one of them
 * is missing. Taper and wear from end to end do not do that; the edge of an oil hole does, and a barrel.
 */
function offBothEnds(beside: readonly Reading[], slot: Slot, nm: Nanometres): number | null {
  const { plane, angle } = placeOfSlot(slot);
  const at = (end: Plane) => beside.find((one) => one.slot === slotAt('journal', end, angle))?.nm ?? null;
  const [front, rear] = [at('front'), at('rear')];
  if (plane !== 'middle' || front === null || rear === null) return null;
  const isBeyond = nm > Math.max(front, rear) || nm < Math.min(front, rear);
  return isBeyond ? Math.min(Math.abs(nm - front), Math.abs(nm - rear)) : null;
}

/** True if a size can be that of its part: one that cannot accuses no other. */
function isBelievable(job: MeasuredJob, { feature, station }: Place, nm: Nanometres): boolean {
  const limit = limitAt(job, feature, station);
  return limit === null || judgedReading(nm, { ...limit, unit: job.unit }).verdict !== 'implausible';
}

/**
 * How far the nearest of the other readings of a bore in the bolt direction is from a figure; of a journal, which may be out of round and tapered, how
 * far its middle lies beyond both ends. Null where that is little, or they do not tell.
 */
function farFrom(
  job: MeasuredJob,
  { feature, station }: Place,
  nm: Nanometres,
  { slot, at }: TypedHow,
  others: readonly Reading[],
): number | null {
  if (slot === undefined || !tellsSize(feature, slot)) return null;
  const beside = others.filter(
    (one) =>
      one.feature === feature &&
      one.station === station &&
      one.slot !== slot &&
      one.nm !== null &&
      tellsSize(feature, one.slot) &&
      isBelievable(job, { feature, station }, one.nm),
  );
  if (FEATURE_TABLE[feature].role === 'journal') {
    const off = offBothEnds(beside, slot, nm);
    return off !== null && off > farApart(job, feature) ? off : null;
  }
  // Of two that differ the later one is asked about: nothing says which of them is right.
  const [only] = beside;
  if (beside.length === 1 && at != null && (only!.at > at || (only!.at === at && only!.slot > slot))) return null;
  const nearest = Math.min(...beside.map((one) => Math.abs(nm - one.nm!)));
  return beside.length > 0 && nearest > farApart(job, feature) ? nearest : null;
}

/** The part that a figure is of; without a number what holds for every one is asked. */
interface Place {
  readonly feature: Feature;
  readonly station: number | null;
}

/**
 * The limits that a size is judged by: the data sheet's, or those of the undersize that it is nearer to. A shaft is ground alike: once
 * other journals are known only what they were ground to is believed, so that a thimble turn is no undersize.
 */
function nearestLimit(
  job: MeasuredJob,
  { feature, station }: Place,
  nm: Nanometres,
  seenSizes: SizesSeen,
  without: Nanometres | null,
): Limit | null {
  const limit = limitAt(job, feature, station);
  const { family, role } = FEATURE_TABLE[feature];
  if (!limit || role === 'housing') return limit;
  const away = ({ low, high }: Limit, size: number) => Math.max(0, low - size, size - high);
  const all = [limit, ...(job.sheet?.[family].undersizes ?? []).map(({ journal }) => journal)];
  const seen = all.filter(({ low, high }) => seenSizes.hasWithin(low, high, without));
  const believed = seen.length > 0 ? seen : all;
  return believed.reduce((nearest, next) => (away(next, nm) < away(nearest, nm) ? next : nearest));
}

/**
 * Assesses a figure typed for a bore or a journal: can it be read, can it be right, is it inside the data sheet? Where the
 * data sheet has no limits yet it is compared with the other readings of the same feature. Nothing is changed.
 *
 * @param others the other current readings of the job
 * @param station number of the part; left out, the figure is not compared with the others of its part
 * @param how how it was typed, where it stands already
 */
export function assessReading(
  text: string,
  setting: Nanometres | null,
  feature: Feature,
  job: MeasuredJob,
  others: readonly Reading[],
  station: number | null = null,
  how: TypedHow = {},
): ReadingAssessment {
  const found = assess(
    { text, setting, feature, station },
    { needle: needleOf(job, feature), ...how },
    job,
    sizesOf(others, feature),
    null,
    others,
  );
  if (found.kind !== 'outside' || found.likely.length > 0) return found;
  const limit = limitAt(job, feature, station);
  const beside = others.filter((one) => one.feature === feature && one.station === station && one.nm !== null);
  const isAlone =
    limit !== null && beside.length > 0 && beside.every(({ nm }) => nm! >= limit.low && nm! <= limit.high);
  if (!isAlone) return found;
  return { ...found, message: `${found.message} ${aloneOutside(feature, found.nm > limit.high)}` };
}

/** What to look at where one reading of a bore is far from the others. Common practice. */
const AWAY_FROM_OTHERS = 'Gauge in the oil hole, the groove or at the parting line? Read again, or confirm it.';

/** What to look at where the middle of a journal is unlike both ends. Common practice. */
const UNLIKE_OTHERS = 'Micrometer on the edge of the oil hole? Read again, or confirm it: it may be a barrel.';

/** What may be behind one reading of a part that is outside while the others are inside. Common practice. */
function aloneOutside(feature: Feature, isOver: boolean): string {
  const isHousing = FEATURE_TABLE[feature].role === 'housing';
  if (isHousing && isOver) {
    return 'The others here are inside: was the gauge in the oil hole, the groove, or at the parting line?';
  }
  if (!isHousing && !isOver) return 'The others here are inside: was the micrometer on the edge of the oil hole?';
  return 'The others here are inside: is it of this part, and at this place?';
}

/** What a + means on the gauge that a feature is read with, null where nobody has said: bores with a bore gauge, journals with a micrometer. */
export function needleOf(
  job: Pick<MeasuredJob, 'instruments' | 'registered' | 'using'>,
  feature: Feature,
): Needle | null {
  return FEATURE_TABLE[feature].role === 'housing' ? instrumentFor(job, feature).needle : 'bigger';
}

function sizesOf(readings: readonly Reading[], feature: Feature): SizesSeen {
  return new SizesSeen(readings.flatMap((one) => (one.feature === feature && one.nm !== null ? [one.nm] : [])));
}

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

/** @param without the size that this very reading has among those seen */
function assess(
  { text, setting, feature, station }: Pick<Reading, 'text' | 'setting'> & Place,
  how: TypedHow,
  job: MeasuredJob,
  seen: SizesSeen,
  without: Nanometres | null,
  others: readonly Reading[],
): ReadingAssessment {
  const { needle } = how;
  // A figure is read in the unit it was typed in, and told of in that of the engine.
  const unit = how.unit ?? job.unit;
  const strict = parseLength(text, { unit, setting, needle });
  const isTooLong = !strict.ok && strict.code === 'too-large';
  const parsed = isTooLong ? parseLength(text, { unit, setting, needle, longest: LONGEST_EXPLAINED }) : strict;
  if (!parsed.ok) return parsed.code === 'empty' ? { kind: 'empty' } : { kind: 'unreadable', message: parsed.message };
  const { nm } = parsed;
  const length = (value: number) => lengthText(value, job.unit);
  const limit = nearestLimit(job, { feature, station }, nm, seen, without);
  const far = how.isConfirmed ? null : farFrom(job, { feature, station }, nm, how, others);
  const range = limit ?? seen.extent(without);
  const unreadable = (): ReadingAssessment => ({ kind: 'unreadable', message: strict.ok ? '' : strict.message });
  const isFar = (): ReadingAssessment => ({
    kind: 'doubtful',
    nm,
    message:
      FEATURE_TABLE[feature].role === 'journal'
        ? `${length(far!)} from the front and the rear plane of this ${FEATURE_TABLE[feature].word}. ${UNLIKE_OTHERS}`
        : `${length(far!)} from the nearest other reading of this ${FEATURE_TABLE[feature].word}. ${AWAY_FROM_OTHERS}`,
    likely: [],
  });
  if (!range) return isTooLong ? unreadable() : far === null ? { kind: 'fine', nm } : isFar();

  const what = limit ? `what this ${FEATURE_TABLE[feature].word} can be` : `the other ${FEATURE_TABLE[feature].words}`;
  const { verdict, outsideBy, likely } = judgedReading(nm, {
    ...range,
    unit,
    digits: parsed.digits,
    perOne: parsed.perOne,
    setting: parsed.deviation === null ? null : setting,
    zeroedOn: parsed.deviation === null ? setting : null,
  });
  // One figure is offered once, whatever the slip; the first few will do.
  const offered = likely
    .filter((one, at) => likely.findIndex((other) => other.nm === one.nm) === at)
    .slice(0, MOST_OFFERED);
  if (isTooLong && offered.length === 0) return unreadable();
  const side = outsideBy < 0 ? 'under' : 'over';
  const away = isTooLong ? 'Far' : length(Math.abs(outsideBy));
  if (verdict === 'implausible' && !how.isConfirmed) {
    const question = offered[0]?.question ?? 'Read it again.';
    return { kind: 'doubtful', nm, message: `${away} ${side} ${what}. ${question}`, likely: offered };
  }
  if (limit && verdict !== 'inside') {
    const question = offered[0] ? ` ${offered[0].question}` : '';
    return {
      kind: 'outside',
      nm,
      message: `${away} ${side} the data sheet (${length(limit.low)} to ${length(limit.high)}).${question}`,
      likely: offered,
    };
  }
  return far === null ? { kind: 'fine', nm } : isFar();
}
