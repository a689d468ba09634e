import type { EffectiveSize } from '../measure/effectiveSize.js';
import { type Instrument, type InstrumentRole, readingUncertainty } from '../measure/instrument.js';
import type { SizeBand } from '../measure/sizeBand.js';
import { combinedUncertainty, evenly } from '../measure/uncertainty.js';

export type Instruments = Readonly<Record<InstrumentRole, Instrument>>;

/** A wall as it is known: measured, or by the band of its grade. */
export interface KnownWall {
  readonly band?: SizeBand | undefined;
}

/**
 * Standard uncertainty of a size, nm: of one that was read that of its instrument and of how many readings; of one that is only marked,
 * evenly over its band.
 *
 * @example Math.round(sizeUncertainty({}, { kind: 'marked', nominal: 5000, smallest: 0, largest: 10_000, count: 0 })) // 2887
 */
export function sizeUncertainty(instrument: Instrument, size: EffectiveSize): number {
  return size.kind === 'read' ? readingUncertainty(instrument, size.count) : evenly((size.largest - size.smallest) / 2);
}

/**
 * Standard uncertainty of a wall, nm: measured once over a ball, or evenly over the band of its grade.
 *
 * @example Math.round(wallUncertainty({}, { band: { low: 1_995_000, high: 2_005_000 } })) // 2887
 */
export function wallUncertainty(instruments: Instruments, { band }: KnownWall): number {
  return band ? evenly((band.high - band.low) / 2) : readingUncertainty(instruments.ballMicrometer, 1);
}

/** Standard uncertainty of a clearance that is predicted from its parts, and from an assembly offset with one of its own, nm. */
export function clearanceUncertainty(
  instruments: Instruments,
  parts: { readonly bore: EffectiveSize; readonly journal: EffectiveSize; readonly walls: readonly KnownWall[] },
  offset = 0,
): number {
  return combinedUncertainty([
    { u: sizeUncertainty(instruments.boreGauge, parts.bore) },
    { u: sizeUncertainty(instruments.micrometer, parts.journal) },
    ...parts.walls.map((wall) => ({ u: wallUncertainty(instruments, wall) })),
    { u: offset },
  ]).u;
}
