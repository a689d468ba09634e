import type { Unit } from '../measure/unit.js';
import type { CrankLayout } from '../part/crankLayout.js';
import { type EngineType, engineTypeSchema } from './engineType.js';

/** A data sheet with its name and layout and nothing else. */
export function newEngineType(name: string, unit: Unit, layout: CrankLayout): EngineType {
  return engineTypeSchema.parse({
    format: 'fettle.engine-type/1',
    name,
    unit,
    layout,
    materials: { block: 'unknown', caps: 'unknown', rods: 'unknown' },
  });
}
