import { formatExactLength } from './formatLength.js';
import { nanometres } from './nanometres.js';
import { INSTRUMENT_DECIMALS, type Unit } from './unit.js';

/** A length in a message, with its unit. */
export function lengthText(value: number, unit: Unit): string {
  return `${formatExactLength(nanometres(Math.round(value)), unit, INSTRUMENT_DECIMALS[unit])} ${unit}`;
}
