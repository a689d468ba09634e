import { type Nanometres, nanometres } from '../measure/nanometres.js';
import type { DrawerHalf } from './workshopDrawer.js';

/**
 * The wall of a half that was read over a ball: the micrometer's reading less the ball. Common practice: the ball lies in the
 * shell's bore, where a flat anvil would bridge the curve.
 *
 * @param reading over ball and wall, nm
 * @param ball its diameter, nm
 * @returns null when the ball is as large as the reading or larger
 * @example wallOverBall(8_995_000, 7_000_000) // 1995000
 */
export function wallOverBall(reading: Nanometres, ball: Nanometres): Nanometres | null {
  return ball > 0 && reading > ball ? nanometres(reading - ball) : null;
}

/** How a measured wall stands to what its grade says. */
export interface WallFinding {
  readonly side: 'thin' | 'thick';
  /** How far outside the grade, nm, above zero. */
  readonly by: Nanometres;
}

/**
 * True if a half's own wall is what its grade says: inside the grade's band, or as near to its wall as it can be read.
 *
 * @param uncertainty of the reading, nm
 * @returns null when it is
 */
export function wallFinding(
  { wall, band }: Pick<DrawerHalf, 'wall' | 'band'>,
  measured: Nanometres,
  uncertainty: Nanometres,
): WallFinding | null {
  const thin = (band?.low ?? wall) - measured;
  const thick = measured - (band?.high ?? wall);
  if (Math.max(thin, thick) <= uncertainty) return null;
  return thin > thick ? { side: 'thin', by: nanometres(thin) } : { side: 'thick', by: nanometres(thick) };
}
