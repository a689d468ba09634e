import { type Nanometres, nanometres } from './nanometres.js';

/** A closed interval of sizes, nm: what a part was sorted into at manufacture, or what a wall may be. */
export interface SizeBand {
  readonly low: Nanometres;
  readonly high: Nanometres;
}

/** A band with the mark that stands for it. */
export interface MarkedBand extends SizeBand {
  readonly mark: string;
}

/** Two bands that leave sizes out between them, or claim the same ones. */
export interface BandFault {
  readonly kind: 'gap' | 'overlap';
  /** The marks of the smaller and of the larger band. */
  readonly between: readonly [string, string];
  /** How wide the gap or the overlap is, nm. */
  readonly by: Nanometres;
}

/**
 * Gaps and overlaps between bands, from the smallest sizes up. Bands that touch in one size are neighbours; so are bands written
 * a step of the last digit apart, as books do.
 *
 * @param step the last digit that the book gives, nm
 */
export function bandFaults(bands: readonly MarkedBand[], step: Nanometres): BandFault[] {
  const sorted = [...bands].sort((a, b) => a.low - b.low || a.high - b.high);
  return sorted.slice(1).flatMap((band, at): BandFault[] => {
    const before = sorted.slice(0, at + 1);
    const overlaps = before
      // Bands of one size alone share it without a width.
      .filter((one) => band.low < one.high || (band.low === one.low && band.high === one.high))
      .map((one): BandFault => {
        const by = nanometres(Math.min(one.high, band.high) - band.low);
        return { kind: 'overlap', between: [one.mark, band.mark], by };
      });
    // What reaches furthest of all before it decides whether sizes are left out.
    const furthest = before.reduce((most, one) => (one.high > most.high ? one : most));
    const gap = band.low - furthest.high;
    const gaps: BandFault[] =
      gap > step ? [{ kind: 'gap', between: [furthest.mark, band.mark], by: nanometres(gap) }] : [];
    return [...overlaps, ...gaps];
  });
}

/** The marks whose band holds a size: one, none in a gap, several where bands touch or overlap. */
export function marksOf(bands: readonly MarkedBand[], size: Nanometres): string[] {
  return bands.filter(({ low, high }) => size >= low && size <= high).map(({ mark }) => mark);
}
