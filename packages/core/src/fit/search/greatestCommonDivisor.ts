/** The largest whole number that divides both; `greatestCommonDivisor(0, n)` is n (Euclid). */
export function greatestCommonDivisor(a: number, b: number): number {
  let [x, y] = [Math.abs(a), Math.abs(b)];
  while (y > 0) [x, y] = [y, x % y];
  return x;
}
