import type { EngineStart } from '../engineType/enginePart.js';
import type { Unit } from '../measure/unit.js';
import type { CrankLayout } from '../part/crankLayout.js';
import { JOB_FORMAT, type JobDocument } from './jobDocument.js';
import { blankParts } from './jobParts.js';

/** A job with nothing measured: no limits, no shells, and the usual rules, each of which the fitter can change. */
export function newJob(
  name: string,
  unit: Unit,
  layout: CrankLayout,
  materials: EngineStart['materials'],
  withRods = false,
): JobDocument {
  return { format: JOB_FORMAT, ...blankParts({ name, unit, layout, materials, withRods, isByMarks: false }) };
}
