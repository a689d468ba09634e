/**
 * The arithmetic mean of one value or more, in their unit.
 *
 * @example meanOf([1, 2, 6]) // 3
 */
export function meanOf(values: readonly number[]): number {
  return values.reduce((sum, value) => sum + value, 0) / values.length;
}

/**
 * Sum of the squared distances of values from their mean.
 *
 * @example squaresOf([1, 2, 6]) // 14
 */
export function squaresOf(values: readonly number[]): number {
  const mean = meanOf(values);
  return values.reduce((sum, value) => sum + (value - mean) ** 2, 0);
}
