import type { Nanometres } from '@fettle/core';

/** Pixels there are for the thicker washer, for one that was not measured, and for the gap. */
const WASHER_PX = 30;
const UNKNOWN_PX = 18;
const GAP_PX = 70;
/** How many times wider than the washers a gap may be drawn, the widest that has room first. */
const TIMES = [50, 20, 10, 5, 2, 1] as const;

export interface ThrustScale {
  /** Pixels of a washer; of one that was not measured a thickness that says nothing. */
  readonly thick: (thickness: Nanometres | null) => number;
  /** Pixels of a gap. */
  readonly wide: (gap: Nanometres) => number;
  /** How many times wider than the washers the gap is drawn. */
  readonly wider: number;
}

/**
 * The scale of a thrust bearing in section: its washers to one scale, the gap between them, which nobody would see so, wider by a whole
 * number that is told.
 *
 * @param washers thickness at each face; null where it was not measured
 * @param gap the end play; null where nothing was read
 */
export function thrustScale(washers: readonly (Nanometres | null)[], gap: Nanometres | null): ThrustScale {
  const thickest = Math.max(0, ...washers.map((one) => one ?? 0));
  // Without washers, as if they were of 2 mm.
  const perNm = WASHER_PX / (thickest > 0 ? thickest : 2_000_000);
  const wider = TIMES.find((times) => (gap ?? 0) * perNm * times <= GAP_PX) ?? 1;
  return {
    thick: (thickness) => (thickness === null ? UNKNOWN_PX : thickness * perNm),
    wide: (open) => Math.max(0, open * perNm * wider),
    wider,
  };
}
