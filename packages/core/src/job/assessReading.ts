import { limitAt } from '../engineType/limits.js';
import type { Limit } from '../measure/lengthSchema.js';
import { lengthText } from '../measure/lengthText.js';
import { judgedReading, type LikelyReading } from '../measure/misreading.js';
import type { Nanometres } from '../measure/nanometres.js';
import { type Needle, parseLength } from '../measure/parseLength.js';
import { SizesSeen } from '../measure/sizesSeen.js';
import { eachFeature, FEATURE_TABLE, type Feature } from '../part/feature.js';
import type { Reading } from '../part/reading.js';
import type { JobDocument } from './jobDocument.js';

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
/** So many likely figures are offered. */
const MOST_OFFERED = 3;

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
  job: JobDocument,
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
 */
export function assessReading(
  text: string,
  setting: Nanometres | null,
  feature: Feature,
  job: JobDocument,
  others: readonly Reading[],
  station: number | null = null,
): ReadingAssessment {
  const found = assess(
    { text, setting, feature, station },
    needleOf(job, feature),
    job,
    sizesOf(others, feature),
    null,
  );
  if (found.kind !== 'outside' || found.likely.length > 0) return found;
  const limit = limitAt(job, feature, station);
  const beside = others.filter((one) => one.feature === feature && one.station === station && one.nm !== null);
  const isAlone =
    limit !== null && beside.length > 0 && beside.every(({ nm }) => nm! >= limit.low && nm! <= limit.high);
  if (!isAlone) return found;
  return { ...found, message: `${found.message} ${aloneOutside(feature, found.nm > limit.high)}` };
}

/** What may be behind one reading of a part that is outside while the others are inside. Common practice. */
function aloneOutside(feature: Feature, isOver: boolean): string {
  const isHousing = FEATURE_TABLE[feature].role === 'housing';
  if (isHousing && isOver) {
    return 'The others here are inside: was the gauge in the oil hole, the groove, or at the parting line?';
  }
  if (!isHousing && !isOver) return 'The others here are inside: was the micrometer on the edge of the oil hole?';
  return 'The others here are inside: is it of this part, and at this place?';
}

/** What a + means on the gauge that a feature is read with: bores with a bore gauge, journals with a micrometer. */
export function needleOf({ instruments }: Pick<JobDocument, 'instruments'>, feature: Feature): Needle {
  return FEATURE_TABLE[feature].role === 'housing' ? instruments.boreGauge.needle : 'bigger';
}

function sizesOf(readings: readonly Reading[], feature: Feature): SizesSeen {
  return new SizesSeen(readings.flatMap((one) => (one.feature === feature && one.nm !== null ? [one.nm] : [])));
}

/**
 * The readings of a job that cannot be right, or cannot be read, in the order they are given; each is compared with all others of its
 * feature. Grows with the readings, not with their square.
 */
export function doubtfulReadings(job: JobDocument, readings: readonly Reading[]): Reading[] {
  const seen = eachFeature((feature) => sizesOf(readings, feature));
  return readings.filter((reading) => {
    const { kind } = assess(reading, reading.taken?.needle ?? 'bigger', job, seen[reading.feature], reading.nm);
    return kind === 'doubtful' || kind === 'unreadable';
  });
}

/** @param without the size that this very reading has among those seen */
function assess(
  { text, setting, feature, station }: Pick<Reading, 'text' | 'setting'> & Place,
  needle: Needle,
  job: JobDocument,
  seen: SizesSeen,
  without: Nanometres | null,
): ReadingAssessment {
  const { unit } = job;
  const strict = parseLength(text, { unit, setting, needle });
  const isTooLong = !strict.ok && strict.code === 'too-large';
  const parsed = isTooLong ? parseLength(text, { unit, setting, needle, longest: LONGEST_EXPLAINED }) : strict;
  if (!parsed.ok) return parsed.code === 'empty' ? { kind: 'empty' } : { kind: 'unreadable', message: parsed.message };
  const { nm } = parsed;
  const length = (value: number) => lengthText(value, unit);
  const limit = nearestLimit(job, { feature, station }, nm, seen, without);
  const range = limit ?? seen.extent(without);
  const unreadable = (): ReadingAssessment => ({ kind: 'unreadable', message: strict.ok ? '' : strict.message });
  if (!range) return isTooLong ? unreadable() : { kind: 'fine', nm };

  const what = limit ? `what this ${FEATURE_TABLE[feature].word} can be` : `the other ${FEATURE_TABLE[feature].words}`;
  const { verdict, outsideBy, likely } = judgedReading(nm, {
    ...range,
    unit,
    digits: parsed.digits,
    perOne: parsed.perOne,
    setting: parsed.deviation === null ? null : setting,
  });
  // One figure is offered once, whatever the slip; the first few will do.
  const offered = likely
    .filter((one, at) => likely.findIndex((other) => other.nm === one.nm) === at)
    .slice(0, MOST_OFFERED);
  if (isTooLong && offered.length === 0) return unreadable();
  const side = outsideBy < 0 ? 'under' : 'over';
  const away = isTooLong ? 'Far' : length(Math.abs(outsideBy));
  if (verdict === 'implausible') {
    const question = offered[0]?.question ?? 'Read it again.';
    return { kind: 'doubtful', nm, message: `${away} ${side} ${what}. ${question}`, likely: offered };
  }
  if (limit && verdict === 'outside') {
    const question = offered[0] ? ` ${offered[0].question}` : '';
    return {
      kind: 'outside',
      nm,
      message: `${away} ${side} the data sheet (${length(limit.low)} to ${length(limit.high)}).${question}`,
      likely: offered,
    };
  }
  return { kind: 'fine', nm };
}
