import { clearanceChange, REFERENCE_C, type Warm, type WarmStation } from '../clearance/temperature.js';
import { type Nanometres, nanometres } from '../measure/nanometres.js';
import { FAMILY_TABLE, type Family } from '../part/family.js';
import type { Material } from '../part/material.js';
import type { StationJob } from './stationJob.js';
import type { GaugeMode } from './trialSchema.js';

type MaterialsJob = Pick<StationJob, 'materials' | 'warm'>;

/** What a station is made of, shells that follow the housing freely; without its temperatures. */
export type WarmParts = Omit<WarmStation, 'housingC' | 'shellC' | 'journalC'>;

/**
 * What a station is made of. Shells and shaft are of steel.
 *
 * @param walls of the two halves
 * @returns null where a size, or what the housing is made of, is not known
 */
export function warmParts(
  { materials, warm }: MaterialsJob,
  family: Family,
  { bore, journal }: { readonly bore: number | null; readonly journal: number | null },
  walls: readonly [number, number],
): WarmParts | null {
  const alpha = (material: Material) => (material === 'unknown' ? null : warm[material satisfies keyof Warm]);
  const [block, cap] = FAMILY_TABLE[family].heldBy.map((part) => alpha(materials[part])) as [
    number | null,
    number | null,
  ];
  if (bore === null || journal === null || block === null || cap === null) return null;
  const wall = (walls[0] + walls[1]) / 2;
  return { bore, wall, journal, block, cap, shell: warm.steel, shaft: warm.steel };
}

/** What the oil clearance changes by from 20 °C to a temperature of all parts, nm. */
export function changeTo(parts: WarmParts, celsius: number): number {
  return clearanceChange({ ...parts, housingC: celsius, shellC: celsius, journalC: celsius });
}

/**
 * What a reading with the shells in tells at 20 °C. A gauge that was zeroed on the journal shows the clearance of warm or cold parts, whatever its
 * own temperature; the bore of the shells is read with a gauge that has grown itself, and is then less the journal at 20 °C. Shells are taken
 * to follow the housing freely, as in the running clearance. Common practice.
 *
 * @param nm as it was read
 * @returns as it was read where no temperature was taken, or something that it takes is not known
 */
export function trialAt20(
  nm: Nanometres,
  mode: GaugeMode,
  parts: WarmParts | null,
  { celsius, gaugeCelsius }: { readonly celsius: number | null; readonly gaugeCelsius: number },
  steel: number,
): Nanometres {
  if (celsius === null || parts === null) return nm;
  if (mode === 'journal') return nanometres(Math.round(nm - changeTo(parts, celsius)));
  const gauge = nm * steel * 1e-6 * (gaugeCelsius - REFERENCE_C);
  // The bore of the shells alone: the journal is told at 20 °C already.
  const shells = clearanceChange({ ...parts, housingC: celsius, shellC: celsius, journalC: REFERENCE_C });
  return nanometres(Math.round(nm + gauge - shells));
}

/** What a reading with the shells in, told at 20 °C, moves by: nm a degree that the parts, and that the gauge, are warmer than was taken. */
export function trialPerDegree(
  nm: Nanometres,
  mode: GaugeMode,
  parts: WarmParts,
  steel: number,
): { readonly parts: number; readonly gauge: number } {
  const warmer = REFERENCE_C + 1;
  if (mode === 'journal') return { parts: -changeTo(parts, warmer), gauge: 0 };
  const shells = clearanceChange({ ...parts, housingC: warmer, shellC: warmer, journalC: REFERENCE_C });
  return { parts: -shells, gauge: nm * steel * 1e-6 };
}
