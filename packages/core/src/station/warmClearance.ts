import { clearanceChange, type Warm } from '../clearance/temperature.js';
import { type Nanometres, nanometres } from '../measure/nanometres.js';
import { FAMILY_TABLE } from '../part/family.js';
import type { Material } from '../part/material.js';
import type { JobStation } from './jobStations.js';
import type { StationJob } from './stationJob.js';

/**
 * What the oil clearance of a station is when the engine runs, all parts at one temperature, where the shells follow the housing freely: held
 * by crush they resist, so that it is the far end of what may be. Shells and shaft are of steel.
 *
 * @param clearance at 20 °C
 * @param walls of the two halves
 * @returns null where a size, or what the housing is made of, is not known
 */
export function warmClearance(
  job: Pick<StationJob, 'materials' | 'warm'>,
  { family, bore, journal }: Pick<JobStation, 'family' | 'bore' | 'journal'>,
  clearance: number,
  walls: readonly [number, number],
): Nanometres | null {
  const [upper, lower] = FAMILY_TABLE[family].heldBy.map((part) => job.materials[part]) as [Material, Material];
  const { warm } = job;
  const alpha = (material: Material) => (material === 'unknown' ? null : warm[material satisfies keyof Warm]);
  const [one, other] = [alpha(upper), alpha(lower)];
  if (!bore || !journal || one === null || other === null) return null;
  const at = { housingC: warm.celsius, shellC: warm.celsius, journalC: warm.celsius };
  const change = clearanceChange({
    bore: bore.nominal,
    wall: (walls[0] + walls[1]) / 2,
    journal: journal.nominal,
    block: one,
    cap: other,
    shell: warm.steel,
    shaft: warm.steel,
    ...at,
  });
  return nanometres(Math.round(clearance + change));
}
