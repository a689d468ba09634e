import { nanometres } from '../measure/nanometres.js';
import { FEATURE_TABLE, type Feature, type Slot } from '../part/feature.js';
import type { Reading } from '../part/reading.js';
import type { JobDocument } from './jobDocument.js';
import { type MeasuredPart, measuredParts } from './jobStations.js';

/** Something about the readings of a feature that one of them alone does not show. A question, never a verdict. */
export type ReadingDoubt =
  /** Two neighbouring parts with the same figures in the same places. */
  | { readonly kind: 'copied'; readonly feature: Feature; readonly parts: readonly [number, number] }
  /** Two parts, each of them as the mark of the other says. */
  | { readonly kind: 'changed-over'; readonly feature: Feature; readonly parts: readonly [number, number] }
  /** A reading that is not as the others of its part, but as those of another where that place was not read. */
  | {
      readonly kind: 'other-part';
      readonly feature: Feature;
      readonly part: number;
      readonly slot: Slot;
      readonly other: number;
    };

/** So many different figures among those of a part: fewer are alike by chance. */
const DIFFERENT_FIGURES = 3;
/** No part is so far out of round that nobody sees it: a reading further from the others is of another part, or misread. Common practice. */
const FAR_FROM_OTHERS = nanometres(15_000);
/** So near to the readings of a part one of its own lies. */
const NEAR_TO_OTHERS = nanometres(4_000);

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

function isCopy(one: Texts | undefined, next: Texts | undefined): boolean {
  if (!one || !next || one.size !== next.size) return false;
  const texts = [...one].map(([slot, { text }]) => [text, next.get(slot)?.text] as const);
  return (
    texts.every(([text, other]) => text === other) && new Set(texts.map(([text]) => text)).size >= DIFFERENT_FIGURES
  );
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

function spanOf(texts: Texts, without: Slot | null): { readonly low: number; readonly high: number } | null {
  const sizes = [...texts].flatMap(([slot, { nm }]) => (slot === without ? [] : [nm!]));
  return sizes.length === 0 ? null : { low: Math.min(...sizes), high: Math.max(...sizes) };
}

function ofOtherPart(feature: Feature, read: ReadonlyMap<number, Texts>, slots: readonly Slot[]): ReadingDoubt[] {
  const isWithin = (nm: number, span: ReturnType<typeof spanOf>, by: number) =>
    span !== null && nm >= span.low - by && nm <= span.high + by;
  return [...read].flatMap(([part, own]) =>
    [...own].flatMap(([slot, { nm }]): ReadingDoubt[] => {
      const beside = spanOf(own, slot);
      if (beside === null || isWithin(nm!, beside, FAR_FROM_OTHERS)) return [];
      const others = [...read].filter(
        ([number, texts]) =>
          number !== part &&
          slots.includes(slot) &&
          !texts.has(slot) &&
          isWithin(nm!, spanOf(texts, null), NEAR_TO_OTHERS),
      );
      // Where several would do nothing is known.
      return others.length === 1 ? [{ kind: 'other-part', feature, part, slot, other: others[0]![0] }] : [];
    }),
  );
}

/**
 * What is to be asked about the readings of a feature taken together: figures that were copied and not read, two parts entered the wrong
 * way round, a reading entered against the wrong part. Common practice; nothing is changed.
 *
 * @param readings current readings, any order
 */
export function readingDoubts(job: JobDocument, readings: readonly Reading[], feature: Feature): ReadingDoubt[] {
  const read = readOf(readings, feature);
  const numbers = [...read.keys()].sort((one, other) => one - other);
  const copied = numbers.flatMap((number): ReadingDoubt[] =>
    isCopy(read.get(number), read.get(number + 1)) ? [{ kind: 'copied', feature, parts: [number, number + 1] }] : [],
  );
  const parts = measuredParts(job, readings, feature);
  return [...copied, ...changedOver(feature, parts), ...ofOtherPart(feature, read, FEATURE_TABLE[feature].slots)];
}

/** Places behind the point of a plain figure; null for one with a sign or a unit. */
function placesOf(text: string): number | null {
  const plain = /^\d*[.,]?(\d*)$/u.exec(text.trim());
  return plain && text.trim() !== '' ? plain[1]!.length : null;
}

/**
 * Whether a figure has fewer decimals than most of those beside it: half-typed, or read with less than the instrument gives.
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
