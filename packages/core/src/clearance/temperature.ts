import { z } from 'zod';
import { type Nanometres, nanometres } from '../measure/nanometres.js';

/** Sizes are those at this temperature, °C (ISO 1). */
export const REFERENCE_C = 20;

const alphaSchema = z.number().min(0).max(50).describe('1e-6/K');

/**
 * Coefficients of linear expansion, 1e-6/K, about 20 to 100 °C: figures to start from, each of which the fitter can change.
 * Engineering handbooks, from memory and not verified: grey cast iron 9.5 to 12, aluminium casting alloys 19 to 23, carbon steel 11 to 12.5.
 */
export const EXPANSION_PER_MK = { iron: 10.5, aluminium: 21.5, steel: 11.5 } as const;

/** Coefficients of linear expansion by material, 1e-6/K, and where they come from; and how warm an engine runs, °C. */
export const warmSchema = z.strictObject({
  celsius: z.number().min(-60).max(300).describe('Temperature of all parts when it runs, °C.'),
  iron: alphaSchema,
  aluminium: alphaSchema,
  steel: alphaSchema,
  source: z.string().trim().max(200).describe('Where the coefficients come from.'),
  u: z
    .number()
    .min(0)
    .max(20)
    .optional()
    .describe('Standard uncertainty of a temperature that was taken, °C; omitted: 0.5.'),
});
export type Warm = z.output<typeof warmSchema>;

/** Standard uncertainty of a temperature, °C, until somebody says better: a thermometer in the room, or held to a part; common practice. */
export const USUAL_CELSIUS_U = 0.5;

/** Figures to start from, each of which the fitter can change. */
export const USUAL_WARM: Warm = {
  celsius: 90,
  ...EXPANSION_PER_MK,
  source: 'engineering handbooks, from memory; not verified',
};

/** A part or an instrument: what it grows by, 1e-6/K, and how warm it is, °C. */
export interface WarmBody {
  readonly alpha: number;
  readonly celsius: number;
}

/**
 * The size at 20 °C of a part that was read warm or cold, with an instrument that may be as warm or as cold itself:
 * `L20 = L (1 + α_gauge (T_gauge − 20)) / (1 + α (T − 20))` (ISO 1; the coefficients from the table). An instrument at 20 °C adds nothing.
 *
 * @example sizeAt20(62_230_000, { alpha: 11.5, celsius: 35 }, { alpha: 11.5, celsius: 20 }) // 62219267
 */
export function sizeAt20(read: Nanometres, part: WarmBody, gauge: WarmBody): Nanometres {
  const grown = ({ alpha, celsius }: WarmBody) => 1 + alpha * 1e-6 * (celsius - REFERENCE_C);
  return nanometres(Math.round((read * grown(gauge)) / grown(part)));
}

/** What a station is made of, and how warm each is, for the running clearance. */
export interface WarmStation {
  /** Housing bore at 20 °C; the block half and the cap may be of two metals, and share it in the bolt direction. */
  readonly bore: number;
  readonly wall: number;
  readonly journal: number;
  /** Coefficients, 1e-6/K. */
  readonly block: number;
  readonly cap: number;
  readonly shell: number;
  readonly shaft: number;
  /** Temperatures, °C. */
  readonly housingC: number;
  readonly shellC: number;
  readonly journalC: number;
}

/**
 * What the oil clearance changes by when an engine is warm or cold, nm: `ΔC = H·α_housing·ΔT − 2·t·α_shell·ΔT − J·α_journal·ΔT`, each part
 * at its own temperature; the housing's coefficient multiplies the bore, not the journal. For shells that follow the housing freely: held by
 * crush they resist, so that this is the larger end of what may be. Common practice; a model of two half rings that grow from the joint.
 *
 * @example Math.round(clearanceChange({ bore: 64e6, wall: 1.9725e6, journal: 60e6, block: 21.5, cap: 21.5, shell: 11.5, shaft: 11.5, housingC: 100, shellC: 100, journalC: 100 })) // 51251
 */
export function clearanceChange(station: WarmStation): number {
  const { bore, wall, journal, block, cap, shell, shaft, housingC, shellC, journalC } = station;
  const grown = (length: number, alpha: number, celsius: number) => length * alpha * 1e-6 * (celsius - REFERENCE_C);
  return grown(bore, (block + cap) / 2, housingC) - 2 * grown(wall, shell, shellC) - grown(journal, shaft, journalC);
}
