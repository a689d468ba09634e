import { numberOfLength } from '../../measure/formatLength.js';
import type { Unit } from '../../measure/unit.js';
import type { Shell } from '../../shell/half.js';
import type { FitRequestInput } from './fitRequest.js';

/**
 * The one way from a half, wherever it lies, to a shell of a fit request: family, series, side, wall, band, undersize and places go
 * with it.
 *
 * @param id its name in the request
 * @param stock halves on hand, or null for as many as wanted
 */
export function fitShellOf(
  id: string,
  { family, series, half, wall, width, band, undersize, positions }: Shell,
  unit: Unit,
  stock: number | null,
): FitRequestInput['shells'][number] {
  const length = (value: Shell['wall']) => numberOfLength(value, unit);
  return {
    id,
    family,
    series,
    half,
    wall: length(wall),
    ...(width === undefined ? {} : { width: length(width) }),
    ...(band ? { wallBand: { low: length(band.low), high: length(band.high) } } : {}),
    ...(undersize === undefined ? {} : { undersize }),
    ...(positions === undefined ? {} : { positions: [...positions] }),
    stock,
  };
}
