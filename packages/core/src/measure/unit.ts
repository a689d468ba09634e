import { z } from 'zod';

/** The unit a job is measured in: millimetres or international inches of exactly 25.4 mm. */
export const unitSchema = z.enum(['mm', 'in']);
export type Unit = z.infer<typeof unitSchema>;

/** The units that a figure may be typed in. A thou is 0.001 in, a tenth 0.0001 in. */
export type EntryUnit = Unit | 'thou' | 'tenth' | 'um';

/**
 * Nanometres in one unit, exact. 1 in = 25.4 mm since the international yard and pound agreement of 1959 (NIST SP 447);
 * the US survey inch differs by 124 nm on 2.45 in and is not used.
 */
export const NANOMETRES_PER: Readonly<Record<EntryUnit, number>> = {
  mm: 1_000_000,
  in: 25_400_000,
  thou: 25_400,
  tenth: 2_540,
  um: 1_000,
};

/** What people write behind a figure, in lower case, and the unit it means. */
export const UNIT_SUFFIXES: Readonly<Record<string, EntryUnit>> = {
  mm: 'mm',
  in: 'in',
  inch: 'in',
  inches: 'in',
  '"': 'in',
  '″': 'in',
  thou: 'thou',
  tenth: 'tenth',
  tenths: 'tenth',
  um: 'um',
  µm: 'um',
  μm: 'um',
  micron: 'um',
  microns: 'um',
};

/** The other of the two job units, for the echo of a figure in both. */
export function otherUnit(unit: Unit): Unit {
  return unit === 'mm' ? 'in' : 'mm';
}

/** Digits behind the decimal point of an ordinary instrument: 0.001 mm and 0.0001 in. */
export const INSTRUMENT_DECIMALS: Readonly<Record<Unit | 'thou', number>> = { mm: 3, in: 4, thou: 1 };

/** Digits behind the decimal point for a clearance: 0.001 mm, and 0.00001 in so that half a tenth shows. */
export const CLEARANCE_DECIMALS: Readonly<Record<Unit | 'thou', number>> = { mm: 3, in: 5, thou: 2 };

/** Digits behind the decimal point where clearances are compared: 0.0001 mm, 0.00001 in. */
export const FINE_DECIMALS: Readonly<Record<Unit | 'thou', number>> = { mm: 4, in: 5, thou: 2 };
