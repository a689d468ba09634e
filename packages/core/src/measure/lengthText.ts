import { formatExactLength, formatLength } from './formatLength.js';
import { nanometres } from './nanometres.js';
import { CLEARANCE_DECIMALS, INSTRUMENT_DECIMALS, type Unit } from './unit.js';

/** A length that was worked out, not read, with its unit: to 0.001 mm, or half a tenth. */
export function roughText(value: number, unit: Unit): string {
  return `${formatLength(nanometres(Math.round(value)), unit, CLEARANCE_DECIMALS[unit])} ${unit}`;
}

/** A length in a message, with its unit. */
export function lengthText(value: number, unit: Unit): string {
  return `${formatExactLength(nanometres(Math.round(value)), unit, INSTRUMENT_DECIMALS[unit])} ${unit}`;
}
