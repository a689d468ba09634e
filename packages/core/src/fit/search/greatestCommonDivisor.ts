/**
 * The largest whole number that divides both; `greatestCommonDivisor(0, n)` is n (Euclid).
 *
 * @example greatestCommonDivisor(12_700, 2_540) // 2540
 */
export function greatestCommonDivisor(a: number, b: number): number {
  let [x, y] = [Math.abs(a), Math.abs(b)];
  while (y > 0) [x, y] = [y, x % y];
  return x;
}
