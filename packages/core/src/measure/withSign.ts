import type { Nanometres } from './nanometres.js';
import { NANOMETRES_PER, type Unit } from './unit.js';

/** What `1` is on the needle of a gauge: a thou, or a hundredth of a millimetre, nm. */
const ON_THE_NEEDLE: Readonly<Record<Unit, number>> = { in: NANOMETRES_PER.thou, mm: 10_000 };
/** Nobody reads a needle further off than this, in thou: a whole number of inches up to here is always a deviation. */
const FURTHEST_THOU = 20;

/**
 * A figure as it is kept where the gauge is zeroed on a setting size: a fitter types `2` for `+2`. A figure without sign and unit, of at
 * most one decimal, gets its sign where it can be no size: a whole number in an inch job, any other one where the size that it would be is
 * further from the setting than the deviation. Anything else stays as it is typed.
 *
 * @param setting the size that the gauge is zeroed on; null for none
 * @example withSign('2', 'mm', nanometres(64_000_000)) // '+2'
 * @example withSign('64.01', 'mm', nanometres(64_000_000)) // '64.01'
 */
export function withSign(text: string, unit: Unit, setting: Nanometres | null): string {
  const match = /^(\d+)(?:[.,](\d?))?$/u.exec(text.trim());
  if (!match || setting === null) return text;
  const [, , decimals = ''] = match;
  const figure = Number(text.trim().replace(',', '.'));
  const isWholeInches = unit === 'in' && decimals === '' && figure <= FURTHEST_THOU;
  const isNearer = figure * ON_THE_NEEDLE[unit] < Math.abs(figure * NANOMETRES_PER[unit] - setting);
  return isWholeInches || isNearer ? `+${text.trim()}` : text;
}
