import { formatExactLength, formatLength, WORKED_OUT_DECIMALS } from './formatLength.js';
import { nanometres } from './nanometres.js';
import { shownUncertainty } from './uncertainty.js';
import { CLEARANCE_DECIMALS, INSTRUMENT_DECIMALS, type Unit } from './unit.js';

/** A length that was worked out, not read, with its unit: to 0.001 mm, or half a tenth. */
export function roughText(value: number, unit: Unit): string {
  return `${formatLength(nanometres(Math.round(value)), unit, CLEARANCE_DECIMALS[unit])} ${unit}`;
}

/** What an uncertainty is told in: 0.001 mm, half a tenth. */
const SPREAD_STEP: Readonly<Record<Unit, number>> = { mm: 1_000, in: 1_270 };

/**
 * Twice a standard uncertainty as it is told beside a figure, without its unit.
 *
 * @param u standard uncertainty, nm
 * @example spreadFigure(2_100, 'mm') // '0.005'
 */
export function spreadFigure(u: number, unit: Unit): string {
  const told = nanometres(shownUncertainty(u, SPREAD_STEP[unit]));
  return formatExactLength(told, unit, INSTRUMENT_DECIMALS[unit], { most: WORKED_OUT_DECIMALS });
}

/** A length that may have been worked out, as a mean is, without its unit: to its last digit, up to the sixth. */
export function workedOutText(value: number, unit: Unit, options: { readonly plus?: boolean } = {}): string {
  const shown = { ...options, most: WORKED_OUT_DECIMALS };
  return formatExactLength(nanometres(Math.round(value)), unit, INSTRUMENT_DECIMALS[unit], shown);
}

/** A length in a message, with its unit. */
export function lengthText(value: number, unit: Unit): string {
  return `${workedOutText(value, unit)} ${unit}`;
}
