import type { CrankLayout } from './crankLayout.js';

/** The two banks of an engine with two rods on a pin: the one whose rods stand in front on each pin, and the other. */
export type Bank = 'A' | 'B';

/** True if rods belong to a bank: the shaft has two rods on a pin, so that their oil holes and offsets have a side. */
export function hasBanks({ pins }: Pick<CrankLayout, 'pins'>): boolean {
  return pins.some(({ rods }) => rods === 2);
}

/**
 * The bank of a rod's place on the shaft; null where its pin carries one rod alone.
 *
 * @param number 1 at the front
 * @example pinBank(usualLayout(5, 8, 2, 5).layout, 2) // 'B'
 */
export function pinBank({ pins }: Pick<CrankLayout, 'pins'>, number: number): Bank | null {
  let before = 0;
  for (const { rods } of pins) {
    if (number <= before + rods) return rods === 1 ? null : number === before + 1 ? 'A' : 'B';
    before += rods;
  }
  return null;
}

/** The rods of an engine by number, as far as their places on the shaft go. */
interface Rods {
  readonly layout: Pick<CrankLayout, 'pins'>;
  readonly rods: Readonly<Record<string, { readonly bank?: Bank | undefined }>>;
}

/** The bank that a rod belongs to: the one the fitter gave it, else that of the place of its number; null where there are none. */
export function rodBank({ rods, layout }: Rods, number: number): Bank | null {
  return hasBanks(layout) ? (rods[String(number)]?.bank ?? pinBank(layout, number)) : null;
}

/** True if a rod may go on a pin: on its own bank, or on either where the fitter allows it. */
export function mayTakePin(
  job: Rods & { readonly rules: { readonly rodsAcrossBanks?: boolean | undefined } },
  rod: number,
  pin: number,
): boolean {
  if (job.rules.rodsAcrossBanks === true) return true;
  const [own, there] = [rodBank(job, rod), pinBank(job.layout, pin)];
  return own === null || there === null || own === there;
}
