import { divideRounded, type Nanometres, nanometres } from './nanometres.js';
import type { SizeBand } from './sizeBand.js';

/** Mean, smallest and largest of a size. */
export interface SizeExtent {
  /** Of readings their mean, to the nearest nanometre, halves away from zero; of a band its middle. */
  readonly nominal: Nanometres;
  readonly smallest: Nanometres;
  readonly largest: Nanometres;
}

/** Readings of one size that were taken with one instrument. */
export interface ReadBy {
  /** What the instrument is known by. */
  readonly instrument: string;
  /** What it was set on, where that was an instrument: whose setting and calibration are then the errors that all these readings share. */
  readonly setOn?: string | undefined;
  readonly count: number;
  /** What the part grows by, 1e-6/K, where its size was told at 20 °C by a temperature that was taken; left out: it was not. */
  readonly alpha?: number | undefined;
  /** Standard uncertainty of its calibration there, nm; 0 where it has none. */
  readonly scale: number;
}

/** A size with readings behind it. */
export interface MeasuredSize extends SizeExtent {
  readonly kind: 'read';
  /** How many readings stand behind it: one at least. */
  readonly count: number;
  /** What they were taken with; left out: the engine's own instrument of the kind. */
  readonly by?: readonly ReadBy[] | undefined;
}

/** A size that is only known by the band of its mark: from the smallest to the largest that the mark stands for. */
export interface MarkedSize extends SizeExtent {
  readonly kind: 'marked';
}

/** The size of one part that counts for its clearance, and how it is known. */
export type EffectiveSize = MeasuredSize | MarkedSize;

/**
 * The effective size of a bore (its readings in the bolt direction) or a journal (all its readings): the aim is judged
 * on the mean, tightest and loosest clearance on the extremes. Common practice.
 *
 * @param readings the readings, in nanometres, any order
 * @param by what they were taken with
 * @returns null when there is no reading: a missing size never becomes a zero
 * @example readSize([nanometres(59_980_000), nanometres(59_982_000)])?.nominal // 59981000
 */
export function readSize(readings: readonly Nanometres[], by?: readonly ReadBy[]): MeasuredSize | null {
  if (readings.length === 0) return null;
  const total = readings.reduce((sum, reading) => sum + BigInt(reading), 0n);
  return {
    kind: 'read',
    nominal: nanometres(Number(divideRounded(total, BigInt(readings.length)))),
    smallest: nanometres(Math.min(...readings)),
    largest: nanometres(Math.max(...readings)),
    count: readings.length,
    ...(by ? { by } : {}),
  };
}

/**
 * The size that a mark's band stands for while nothing is measured: its middle, and its ends.
 *
 * @example markedSize({ low: nanometres(64_000_000), high: nanometres(64_006_000) }).nominal // 64003000
 */
export function markedSize({ low, high }: SizeBand): MarkedSize {
  return { kind: 'marked', nominal: middleOf({ low, high }), smallest: low, largest: high };
}

/**
 * The middle of an interval, nm, rounded to the nearest.
 *
 * @example middleOf({ low: nanometres(2), high: nanometres(5) }) // 4
 */
export function middleOf({ low, high }: SizeBand): Nanometres {
  return nanometres(Math.round((low + high) / 2));
}

/** What a size may be: one value where it was read, all of its band where it is only marked. */
export function possibleSizes(size: EffectiveSize): SizeBand {
  return size.kind === 'read' ? { low: size.nominal, high: size.nominal } : { low: size.smallest, high: size.largest };
}

/** Smallest and largest reading of a size that was read, where they differ; null elsewhere. */
export function readingsSpread(size: EffectiveSize): SizeBand | null {
  return size.kind === 'read' && size.smallest < size.largest ? { low: size.smallest, high: size.largest } : null;
}
