import type { Shell } from '../../shell/half.js';
import type { ProblemShell } from './fitProblem.js';

/**
 * The one way from a half, wherever it lies, to a shell of a problem: family, series, side, wall, band, undersize and places go
 * with it.
 *
 * @param id what it is known by
 * @param name what sentences call it
 * @param stock halves on hand, or null for as many as wanted
 */
export function problemShellOf(
  id: string,
  name: string,
  { family, series, half, wall, width, band, undersize = '', positions }: Shell,
  stock: number | null,
): ProblemShell {
  return { id, name, family, series, half, wall, wallBand: band, width, positions, undersize, stock, price: 0 };
}
