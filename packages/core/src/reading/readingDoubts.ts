import { limitAt } from '../engineType/limits.js';
import { lengthText } from '../measure/lengthText.js';
import { type Nanometres, nanometres } from '../measure/nanometres.js';
import { NANOMETRES_PER, type Unit } from '../measure/unit.js';
import { familiesOf } from '../part/familiesOf.js';
import { type Feature, featuresOfFamilies, partCount, partName, type Slot } from '../part/feature.js';
import type { Reading } from '../part/reading.js';
import type { MeasuredJob } from './measuredJob.js';
import { type MeasuredPart, measuredParts } from './measuredParts.js';
import { ALONG_LINE } from './measuringSettings.js';
import { agreementChance, readingScatter } from './readingScatter.js';
import { instrumentFor } from './readWith.js';

/** Something about the readings of a feature that one of them alone does not show. A question, never a verdict. */
export type ReadingDoubt =
  /** Two neighbouring parts with the same figures in the same places. */
  | { readonly kind: 'copied'; readonly feature: Feature; readonly parts: readonly [number, number] }
  /** Two parts, each of them as the mark of the other says. */
  | { readonly kind: 'changed-over'; readonly feature: Feature; readonly parts: readonly [number, number] }
  /** A main bore that lies further from the line of its neighbours than the setting allows. */
  | {
      readonly kind: 'off-line';
      readonly feature: Feature;
      readonly part: number;
      /** The mains beside it that it is compared with. */
      readonly beside: readonly number[];
      /** How far it is above the line, nm; below zero where it is under it. */
      readonly by: Nanometres;
      /** What it may lie off, nm. */
      readonly within: Nanometres;
    }
  /** A reading that is not as the others of its part, but as those of another where that place was not read. */
  | {
      readonly kind: 'other-part';
      readonly feature: Feature;
      readonly part: number;
      readonly slot: Slot;
      readonly other: number;
    };

/**
 * Of so many good engines one may be asked about copied figures for nothing: 2 in 1,000, spread over its pairs of neighbours. A setting of
 * ours, not of a book.
 */
const FALSE_QUESTIONS = 0.002;
/** A reading so many standard deviations from the others of its part was taken elsewhere, or misread: 1 in 100,000 is so by chance. */
const FAR_FROM_OTHERS = 4.4;
/** So near, in standard deviations, to the readings of a part one of its own lies. */
const NEAR_TO_OTHERS = 2;

/**
 * How far a main bore of an engine may lie from the line of its neighbours, nm; null where it is not looked at.
 *
 * @example alongLineOf({ measuring: {} }) // 12700
 */
export function alongLineOf({ measuring }: Pick<MeasuredJob, 'measuring'>): Nanometres | null {
  return measuring.alongLine === undefined ? ALONG_LINE : measuring.alongLine;
}

/**
 * Main bores that are off the line of their neighbours: of those to either side, or of the one beside an end main. Where the sheet gives mains
 * limits of their own, what is compared is how far each lies from the middle of its limits.
 */
function offLine(job: MeasuredJob, parts: readonly MeasuredPart[]): ReadingDoubt[] {
  const within = alongLineOf(job);
  if (within === null) return [];
  const from = new Map(
    parts.flatMap(({ number, size }): [number, number][] => {
      if (size?.kind !== 'read') return [];
      const limit = limitAt(job, 'mainBore', number);
      return [[number, size.nominal - (limit ? (limit.low + limit.high) / 2 : 0)]];
    }),
  );
  return [...from].flatMap(([part, own]): ReadingDoubt[] => {
    const beside = [part - 1, part + 1].filter((number) => from.has(number));
    if (beside.length === 0) return [];
    const line = beside.reduce((sum, number) => sum + from.get(number)!, 0) / beside.length;
    const by = nanometres(Math.round(own - line));
    return Math.abs(by) > within ? [{ kind: 'off-line', feature: 'mainBore', part, beside, by, within }] : [];
  });
}

/**
 * How far a bore is off the line of its neighbours, in words.
 *
 * @example offLineWords({ part: 2, beside: [1, 3], by: 16_000 }, 'mm') // '0.016 mm above the line of M1 and M3'
 */
export function offLineWords(
  { beside, by }: Pick<Extract<ReadingDoubt, { kind: 'off-line' }>, 'part' | 'beside' | 'by'>,
  unit: Unit,
): string {
  const names = beside.map((number) => partName('mainBore', number)).join(' and ');
  return `${lengthText(nanometres(Math.abs(by)), unit)} ${by > 0 ? 'above' : 'below'} the line of ${names}`;
}

type Texts = ReadonlyMap<Slot, Reading>;

function readOf(readings: readonly Reading[], feature: Feature): Map<number, Texts> {
  const byPart = new Map<number, Map<Slot, Reading>>();
  for (const reading of readings) {
    if (reading.feature !== feature || reading.nm === null) continue;
    const own = byPart.get(reading.station) ?? new Map<Slot, Reading>();
    byPart.set(reading.station, own.set(reading.slot, reading));
  }
  return byPart;
}

/** The size of the last place of a figure as it was typed, nm; the instrument's own step where the figure has finer places. */
function stepOf({ text, unit }: Reading, resolution: number): number {
  const typed = NANOMETRES_PER[unit] / 10 ** (placesOf(text) ?? 0);
  return placesOf(text) === null ? resolution : Math.max(typed, resolution);
}

/** Neighbours with the same figures in the same places, where that is too improbable to be chance. */
function copied(job: MeasuredJob, read: ReadonlyMap<number, Texts>, feature: Feature): ReadingDoubt[] {
  const resolution = instrumentFor(job, feature).resolution;
  const pairs = featuresOfFamilies(familiesOf(job)).reduce((sum, one) => sum + partCount(job.layout, one) - 1, 0);
  const numbers = [...read.keys()].sort((one, other) => one - other);
  return numbers.flatMap((number): ReadingDoubt[] => {
    const [own, next] = [read.get(number)!, read.get(number + 1)];
    if (!next || own.size !== next.size) return [];
    if (![...own].every(([slot, { text }]) => next.get(slot)?.text === text)) return [];
    // The part that was copied tells nothing of how parts scatter.
    const parts = numbers.filter((one) => one !== number + 1).map((one) => sizesOf(read.get(one)!, null));
    const sizes = sizesOf(own, null);
    const step = Math.max(...[...own.values()].map((reading) => stepOf(reading, resolution)));
    const chance = agreementChance(sizes, step, readingScatter(job, feature, parts));
    return chance * pairs <= FALSE_QUESTIONS ? [{ kind: 'copied', feature, parts: [number, number + 1] }] : [];
  });
}

function changedOver(feature: Feature, parts: readonly MeasuredPart[]): ReadingDoubt[] {
  const off = parts.filter(({ disagreement }) => disagreement !== null);
  return off.flatMap((one, at) =>
    off
      .slice(at + 1)
      .filter(
        (other) =>
          one.mark !== other.mark &&
          one.disagreement!.fits.includes(other.mark!) &&
          other.disagreement!.fits.includes(one.mark!),
      )
      .map((other): ReadingDoubt => ({ kind: 'changed-over', feature, parts: [one.number, other.number] })),
  );
}

function sizesOf(texts: Texts, without: Slot | null): number[] {
  return [...texts].flatMap(([slot, { nm }]) => (slot === without ? [] : [nm!]));
}

/** A reading that is not as the others of its part are, by how readings scatter there, but as those of another that lacks it. */
function ofOtherPart(job: MeasuredJob, feature: Feature, read: ReadonlyMap<number, Texts>): ReadingDoubt[] {
  const from = (nm: number, sizes: readonly number[]) => {
    const mean = sizes.reduce((sum, size) => sum + size, 0) / sizes.length;
    return Math.abs(nm - mean) / Math.sqrt(1 + 1 / sizes.length);
  };
  return [...read].flatMap(([part, own]) => {
    // How much places scatter is told by the other parts: this one may hold what is not of it.
    const parts = [...read].filter(([number]) => number !== part).map(([, texts]) => sizesOf(texts, null));
    if (parts.length === 0) return [];
    const { places } = readingScatter(job, feature, parts);
    return [...own].flatMap(([slot, { nm }]): ReadingDoubt[] => {
      const beside = sizesOf(own, slot);
      if (beside.length === 0 || from(nm!, beside) <= FAR_FROM_OTHERS * places) return [];
      const others = [...read].filter(
        ([number, texts]) =>
          number !== part && !texts.has(slot) && from(nm!, sizesOf(texts, null)) <= NEAR_TO_OTHERS * places,
      );
      // Where several would do nothing is known.
      return others.length === 1 ? [{ kind: 'other-part', feature, part, slot, other: others[0]![0] }] : [];
    });
  });
}

/**
 * What is to be asked about the readings of a feature taken together: figures that were copied and not read, two parts entered the wrong
 * way round, a reading entered against the wrong part, a main bore off the line of the others. Common practice; nothing is changed.
 *
 * @param readings current readings, any order
 */
export function readingDoubts(job: MeasuredJob, readings: readonly Reading[], feature: Feature): ReadingDoubt[] {
  const read = readOf(readings, feature);
  const parts = measuredParts(job, readings, feature);
  return [
    ...copied(job, read, feature),
    ...changedOver(feature, parts),
    ...ofOtherPart(job, feature, read),
    ...(feature === 'mainBore' ? offLine(job, parts) : []),
  ];
}

/** Places behind the point of a plain figure; null for one with a sign or a unit. */
function placesOf(text: string): number | null {
  const plain = /^\d*[.,]?(\d*)$/u.exec(text.trim());
  return plain && text.trim() !== '' ? plain[1]!.length : null;
}

/**
 * True if a figure has fewer decimals than most of those beside it: half-typed, or read with less than the instrument gives.
 *
 * @param others texts of the other readings of the feature
 * @example isCoarse('62.0', ['62.003', '62.004']) // true
 */
export function isCoarse(text: string, others: readonly string[]): boolean {
  const own = placesOf(text);
  const known = others.flatMap((other) => placesOf(other) ?? []).sort((one, other) => one - other);
  const usual = known[Math.floor(known.length / 2)];
  return own !== null && usual !== undefined && own < usual;
}
