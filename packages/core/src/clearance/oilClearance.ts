import type { SizeExtent } from '../measure/effectiveSize.js';
import { type Nanometres, nanometres } from '../measure/nanometres.js';
import type { SizeBand } from '../measure/sizeBand.js';

export interface ClearanceParts {
  readonly bore: SizeExtent;
  readonly journal: SizeExtent;
  readonly upperWall: Nanometres;
  readonly lowerWall: Nanometres;
  /** What a wall may be, where it is only known by its grade. */
  readonly upperBand?: SizeBand | undefined;
  readonly lowerBand?: SizeBand | undefined;
  /** Assembly offset from a trial assembly, measured minus predicted; zero until there is one. */
  readonly offset: Nanometres;
}

export interface OilClearance {
  /** From the mean sizes: what the aim is judged on. */
  readonly nominal: Nanometres;
  /** From the smallest bore and the largest journal reading: what the low limit is judged on. */
  readonly tightest: Nanometres;
  /** From the largest bore and the smallest journal reading: what the high limit is judged on. */
  readonly loosest: Nanometres;
}

/**
 * Diametral oil clearance of a station in the bolt direction: `C = bore − journal − wall upper − wall lower + offset`, all
 * sizes at 20 °C. Common practice.
 *
 * @returns nominal, tightest and loosest clearance in nanometres; negative means that the shaft would be clamped
 * @example oilClearance({ bore: readSize([64_012_000]), journal: readSize([59_981_000]), upperWall: 1_992_000, lowerWall: 1_998_000, offset: 0 }).nominal // 41000
 */
export function oilClearance(parts: ClearanceParts): OilClearance {
  const { bore, journal, upperWall, lowerWall, upperBand, lowerBand, offset } = parts;
  const thickest = (upperBand?.high ?? upperWall) + (lowerBand?.high ?? lowerWall);
  const thinnest = (upperBand?.low ?? upperWall) + (lowerBand?.low ?? lowerWall);
  return {
    nominal: nanometres(bore.nominal - journal.nominal - upperWall - lowerWall + offset),
    tightest: nanometres(bore.smallest - journal.largest - thickest + offset),
    loosest: nanometres(bore.largest - journal.smallest - thinnest + offset),
  };
}
