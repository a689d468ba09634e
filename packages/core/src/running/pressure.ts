/** Units that oil pressure is read in. */
export const PRESSURE_UNITS = ['bar', 'kPa', 'psi'] as const;
export type PressureUnit = (typeof PRESSURE_UNITS)[number];

/** A pressure above that of the air, as a gauge shows it. */
export interface Pressure {
  readonly value: number;
  readonly unit: PressureUnit;
}

/**
 * Pascals in one of each, exact: the pound of 0.45359237 kg at 9.80665 m/s² on a square inch of 0.0254 m × 0.0254 m. Source: the foot and the
 * pound are exact by the agreement of 1959, standard gravity by the CGPM of 1901; 6 894.757 Pa for 1 psi as in NIST SP 811 (2008), appendix B.8.
 */
const PASCALS: Readonly<Record<PressureUnit, number>> = {
  bar: 100_000,
  kPa: 1000,
  psi: (0.45359237 * 9.80665) / (0.0254 * 0.0254),
};

/** Decimals that a workshop's gauge tells apart. */
const DECIMALS: Readonly<Record<PressureUnit, number>> = { bar: 1, kPa: 0, psi: 0 };

/**
 * A pressure in another unit.
 *
 * @example Math.round(1000 * pressureIn({ value: 30, unit: 'psi' }, 'kPa')) // 206843
 */
export function pressureIn({ value, unit }: Pressure, to: PressureUnit): number {
  return unit === to ? value : (value * PASCALS[unit]) / PASCALS[to];
}

/**
 * A pressure as it was typed, with its unit.
 *
 * @example pressureText({ value: 4.2, unit: 'bar' }) // '4.2 bar'
 */
export function pressureText({ value, unit }: Pressure): string {
  return `${Number(value.toPrecision(12))} ${unit}`;
}

/** The unit in which a pressure is told beside its own: psi beside bar and kPa, bar beside psi. */
export function otherPressureUnit(unit: PressureUnit): PressureUnit {
  return unit === 'psi' ? 'bar' : 'psi';
}

/**
 * A pressure in another unit, rounded to what a gauge tells apart.
 *
 * @example pressureEcho({ value: 4.2, unit: 'bar' }, 'psi') // '61 psi'
 */
export function pressureEcho(pressure: Pressure, to: PressureUnit): string {
  return `${pressureIn(pressure, to).toFixed(DECIMALS[to])} ${to}`;
}
