import type { SizeExtent } from '../measure/effectiveSize.js';
import { type Nanometres, nanometres } from '../measure/nanometres.js';
import { parseLength } from '../measure/parseLength.js';
import type { GaugeMode, TrialReading } from './trialSchema.js';

/**
 * What a figure read with the shells in means: a clearance where the gauge was zeroed on the journal, else the bore of the shells. With a
 * sign it is a deviation from what the gauge was zeroed on; on the journal any figure is, in thou or hundredths of a millimetre where it has
 * a sign and no unit.
 *
 * @returns null where it is no length
 * @example trialLength('+4.1', { unit: 'mm', mode: 'journal', setting: null, needle: 'bigger' }) // 41000
 */
export function trialLength(
  text: string,
  { unit, mode, setting, needle }: Pick<TrialReading, 'unit' | 'mode' | 'setting' | 'needle'>,
): Nanometres | null {
  const zero = mode === 'journal' ? nanometres(0) : mode === 'setting' ? setting : null;
  const parsed = parseLength(text, { unit, setting: zero, needle });
  return parsed.ok ? parsed.nm : null;
}

/** What was measured at a station with its shells in. */
export interface MeasuredClearance {
  readonly nominal: Nanometres;
  readonly tightest: Nanometres;
  readonly loosest: Nanometres;
  readonly count: number;
  /** How the gauge was zeroed; null where the readings differ in it. */
  readonly mode: GaugeMode | null;
}

/**
 * The clearance that was measured: readings on the journal as they are, bores of shells less the journal's mean. Nominal is the mean of
 * all; tightest the smallest reading over the largest journal, loosest the largest reading over the smallest journal. Common practice.
 *
 * @param journal the journal as it was read; needed by readings of bores
 * @returns null where nothing was read that tells a clearance
 */
export function measuredClearance(
  readings: readonly Pick<TrialReading, 'nm' | 'mode'>[],
  journal: SizeExtent | null,
): MeasuredClearance | null {
  const read = readings.flatMap(({ nm, mode }) => {
    if (nm === null) return [];
    if (mode === 'journal') return [nm as number];
    return journal ? [nm - journal.nominal] : [];
  });
  if (read.length === 0) return null;
  const modes = new Set(readings.flatMap(({ nm, mode }) => (nm === null ? [] : [mode])));
  return {
    nominal: nanometres(Math.round(read.reduce((sum, one) => sum + one, 0) / read.length)),
    tightest: nanometres(Math.min(...read) - (journal ? journal.largest - journal.nominal : 0)),
    loosest: nanometres(Math.max(...read) + (journal ? journal.nominal - journal.smallest : 0)),
    count: read.length,
    mode: modes.size === 1 ? [...modes][0]! : null,
  };
}

/**
 * What each other pair of halves would read in a station that was measured: `C_new = C_old + Δwall upper + Δwall lower`, old minus new walls,
 * without measuring again. Common practice.
 *
 * @example afterChange(38_000, [1_995_000, 1_995_000], [1_992_000, 1_995_000]) // 41000
 */
export function afterChange(
  measured: number,
  [oldUpper, oldLower]: readonly [number, number],
  [upper, lower]: readonly [number, number],
): Nanometres {
  return nanometres(measured + oldUpper - upper + oldLower - lower);
}
