/**
 * A plain number as people write it, with a point or a comma, and a sign; NaN for what is none.
 *
 * @param text without spaces around it
 */
export function signedNumber(text: string): number {
  const typed = text.replace(',', '.').replace('−', '-');
  return /^-?\d+(\.\d+)?$/u.test(typed) ? Number(typed) : Number.NaN;
}
