/** Digits, with or without decimals; `.5` is one, `5.` is half typed. */
const NUMBER = /^(?:\d+(?:\.\d+)?|\.\d+)$/u;

/**
 * A plain number as people type it, with a point or a comma before its decimals; NaN for what is none. Powers of ten are none.
 *
 * @param isSigned true if a sign may stand before it, a minus as a hyphen or as it is printed
 * @example plainNumber('12,5') // 12.5
 * @example plainNumber('−3', true) // -3
 */
export function plainNumber(text: string, isSigned = false): number {
  const typed = text.trim().replace(',', '.').replace('−', '-');
  const [, sign = '', digits = ''] = /^([+-]?)(.*)$/su.exec(typed)!;
  if (!NUMBER.test(digits) || (sign !== '' && !isSigned)) return Number.NaN;
  return sign === '-' ? -Number(digits) : Number(digits);
}
