import { commonDecimals, formatExactLength, formatLength, WORKED_OUT_DECIMALS } from './formatLength.js';
import { nanometres } from './nanometres.js';
import { type ShownUnit, unitFor } from './shownUnit.js';
import { shownUncertainty } from './uncertainty.js';
import { CLEARANCE_DECIMALS, INSTRUMENT_DECIMALS } from './unit.js';

/** A length that was worked out, not read, with its unit: to 0.001 mm, or half a tenth. */
export function roughText(value: number, unit: ShownUnit): string {
  const own = unitFor(value, unit);
  return `${formatLength(nanometres(Math.round(value)), own, CLEARANCE_DECIMALS[own])} ${own}`;
}

/** What an uncertainty is told in: 0.001 mm, half a tenth. */
const SPREAD_STEP: Readonly<Record<ShownUnit, number>> = { mm: 1_000, in: 1_270, thou: 1_270 };

/**
 * Twice a standard uncertainty as it is told beside a figure, without its unit.
 *
 * @param u standard uncertainty, nm
 * @example spreadFigure(2_100, 'mm') // '0.005'
 */
export function spreadFigure(u: number, unit: ShownUnit): string {
  const told = nanometres(shownUncertainty(u, SPREAD_STEP[unit]));
  return formatExactLength(told, unit, INSTRUMENT_DECIMALS[unit], { most: WORKED_OUT_DECIMALS[unit] });
}

/** A length that may have been worked out, as a mean is, without its unit: to its last digit, up to the sixth of mm and inches. */
export function workedOutText(value: number, unit: ShownUnit, options: { readonly plus?: boolean } = {}): string {
  const shown = { ...options, most: WORKED_OUT_DECIMALS[unit] };
  return formatExactLength(nanometres(Math.round(value)), unit, INSTRUMENT_DECIMALS[unit], shown);
}

/** A length in a message, with its unit. */
export function lengthText(value: number, unit: ShownUnit): string {
  const own = unitFor(value, unit);
  return `${workedOutText(value, own)} ${own}`;
}

/**
 * Writes the figures of one column, or of one sum, all with as many decimals as the one that needs most, up to the sixth of mm and inches;
 * without their unit.
 *
 * @param values every figure of the column, nm; what is not known is left out
 * @example columnText([35_000, 35_500], 'mm')(35_000) // '0.0350'
 */
export function columnText(
  values: readonly (number | null | undefined)[],
  unit: ShownUnit,
): (value: number, options?: { readonly plus?: boolean }) => string {
  const known = values.flatMap((value) => (value == null ? [] : [nanometres(Math.round(value))]));
  const decimals = commonDecimals(known, unit, INSTRUMENT_DECIMALS[unit], WORKED_OUT_DECIMALS[unit]);
  return (value, options) => formatLength(nanometres(Math.round(value)), unit, decimals, options);
}
