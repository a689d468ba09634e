/**
 * A chance as it is told at the bench: whole per cents, never 0 or 100 where it is not certain.
 *
 * @param chance 0 to 1
 */
export function chanceText(chance: number): string {
  if (chance === 0) return '0 %';
  if (chance === 1) return '100 %';
  const percent = Math.round(chance * 100);
  if (percent < 1) return 'below 1 %';
  return percent > 99 ? 'over 99 %' : `${percent} %`;
}
