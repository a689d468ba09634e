/**
 * A plain number as it is typed, with a point or a comma before its decimals; NaN for what is none.
 *
 * @example plainNumber('12,5') // 12.5
 */
export function plainNumber(text: string): number {
  const typed = text.trim().replace(',', '.');
  return /^\d+(\.\d+)?$|^\.\d+$/u.test(typed) ? Number(typed) : Number.NaN;
}
