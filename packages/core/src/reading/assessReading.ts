import { limitAt } from '../engineType/limits.js';
import type { Limit } from '../measure/lengthSchema.js';
import { lengthText } from '../measure/lengthText.js';
import { judgedReading, type LikelyReading } from '../measure/misreading.js';
import type { Nanometres } from '../measure/nanometres.js';
import { type Needle, parseLength } from '../measure/parseLength.js';
import { SizesSeen } from '../measure/sizesSeen.js';
import { FEATURE_TABLE, type Feature } from '../part/feature.js';
import type { Reading } from '../part/reading.js';
import { farFrom, type Place, type TypedHow } from './farFrom.js';
import type { MeasuredJob } from './measuredJob.js';
import { instrumentFor } from './readWith.js';

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

/** How a reading that stands was typed. */
export function typedHow({ unit, taken, slot, at }: Pick<Reading, 'unit' | 'taken' | 'slot' | 'at'>): TypedHow {
  return { unit, needle: taken === undefined ? 'bigger' : taken.needle, slot, at, isConfirmed: taken?.confirmed };
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

/** The sizes of a feature that were read. */
export function sizesOf(readings: readonly Reading[], feature: Feature): SizesSeen {
  return new SizesSeen(readings.flatMap((one) => (one.feature === feature && one.nm !== null ? [one.nm] : [])));
}

/**
 * What is to be said about one figure, by itself and beside the others of its part.
 *
 * @param seen sizes of the same feature
 * @param without the size that this very reading has among those seen; null for none
 */
export function assess(
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
