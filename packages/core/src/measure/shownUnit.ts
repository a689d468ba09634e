import { nanometres } from './nanometres.js';
import { NANOMETRES_PER, type Unit } from './unit.js';

/**
 * What a length is shown in: millimetres, inches, or `thou`, where small lengths (clearances, end play, differences) are thousandths of an
 * inch and sizes stay inches, as machinists say them.
 */
export type ShownUnit = Unit | 'thou';

/**
 * What counts as a small length, nm: below 0.020 in. Common practice, no source: clearances and end play stay below it, and no shell,
 * washer or shim stack worth naming by its size is so thin.
 */
export const SMALL_LENGTH = nanometres(508_000);

/**
 * The unit that one length is shown in.
 *
 * @param value nm
 */
export function unitFor(value: number, shown: ShownUnit): ShownUnit {
  return shown === 'thou' && Math.abs(value) >= SMALL_LENGTH ? 'in' : shown;
}

/** One figure in inches as it is written: with a point, a sign or none. */
const FIGURE = String.raw`[+−-]?\d*\.\d{3,}`;
/** Figures that share the unit behind the last of them. */
const WITH_UNIT = new RegExp(String.raw`(${FIGURE}(?:(?: to | ± |, | and |–)${FIGURE})*) in(?![\p{L}\d])`, 'gu');

/**
 * A written figure in inches as thousandths: its point moves by three places, nothing is rounded: `0.00234` is `2.34`, `+.0005` is `+0.5`.
 */
export function thousandths(figure: string): string {
  const [, sign = '', whole = '', part = ''] = /^([+−-]?)(\d*)\.?(\d*)$/u.exec(figure) ?? [];
  if (whole === '' && part === '') return figure;
  const digits = part.padEnd(3, '0');
  const left = `${whole}${digits.slice(0, 3)}`.replace(/^0+(?=\d)/u, '');
  return `${sign}${left}${digits.length > 3 ? `.${digits.slice(3)}` : ''}`;
}

function isSmall(figure: string): boolean {
  return Math.abs(Number(figure.replace('−', '-'))) * NANOMETRES_PER.in < SMALL_LENGTH;
}

/**
 * A sentence with its small lengths in thousandths of an inch; sizes and every other word stay. Figures that share a unit change together
 * or not at all.
 *
 * @example inThousandths('M3: 0.00120 to 0.00250 in; bore 2.4487 in') // 'M3: 1.20 to 2.50 thou; bore 2.4487 in'
 */
export function inThousandths(text: string): string {
  return text.replace(WITH_UNIT, (whole, figures: string) => {
    const each = figures.match(new RegExp(FIGURE, 'gu')) ?? [];
    return each.every(isSmall) ? `${figures.replace(new RegExp(FIGURE, 'gu'), thousandths)} thou` : whole;
  });
}
