import { numberOfLength } from '../../measure/formatLength.js';
import type { Unit } from '../../measure/unit.js';
import type { ProblemShell } from '../model/fitProblem.js';
import type { FitRequestInput } from './fitRequest.js';

/** A shell of a problem as the open format writes it, by its name. */
export function fitShellOf(
  { id: _, name, wall, wallBand, width, positions, ...shell }: ProblemShell,
  unit: Unit,
): FitRequestInput['shells'][number] {
  const length = (value: ProblemShell['wall']) => numberOfLength(value, unit);
  return {
    ...shell,
    id: name,
    wall: length(wall),
    ...(width === undefined ? {} : { width: length(width) }),
    ...(wallBand ? { wallBand: { low: length(wallBand.low), high: length(wallBand.high) } } : {}),
    ...(positions === undefined ? {} : { positions: [...positions] }),
  };
}
