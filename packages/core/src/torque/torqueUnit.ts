/** Units that torque is written in: pound-foot, pound-inch, newton metre. */
export const TORQUE_UNITS = ['ft-lb', 'in-lb', 'Nm'] as const;
export type TorqueUnit = (typeof TORQUE_UNITS)[number];

/** What each is called on screen and on the sheet. */
const WORDS: Readonly<Record<TorqueUnit, string>> = { 'ft-lb': 'ft·lb', 'in-lb': 'in·lb', Nm: 'N·m' };

/**
 * N·m in one of each, exact: 0.3048 m × 0.45359237 kg × 9.80665 m/s², and a twelfth of that. Source: the foot and the pound are exact by the
 * agreement of 1959, standard gravity by the CGPM of 1901; as in the definitions of GNU units 2.22.
 */
const FT_LB = 0.3048 * 0.45359237 * 9.80665;
const NEWTON_METRES: Readonly<Record<TorqueUnit, number>> = { 'ft-lb': FT_LB, 'in-lb': FT_LB / 12, Nm: 1 };

/**
 * A torque in another unit. Between ft·lb and in·lb it is a whole factor, so that what was typed comes back to the last digit.
 *
 * @param value in `from`
 * @returns the same torque in `to`
 * @example torqueIn(70, 'ft-lb', 'in-lb') // 840
 */
export function torqueIn(value: number, from: TorqueUnit, to: TorqueUnit): number {
  if (from === to) return value;
  if (from === 'ft-lb' && to === 'in-lb') return value * 12;
  if (from === 'in-lb' && to === 'ft-lb') return value / 12;
  return (value * NEWTON_METRES[from]) / NEWTON_METRES[to];
}

/** Decimals that a torque wrench tells apart in a unit; a converted figure is told to them. */
const DECIMALS: Readonly<Record<TorqueUnit, number>> = { 'ft-lb': 1, 'in-lb': 0, Nm: 1 };

/**
 * A torque as it was typed, with its unit.
 *
 * @example torqueText(70, 'ft-lb') // '70 ft·lb'
 */
export function torqueText(value: number, unit: TorqueUnit): string {
  return `${Number(value.toPrecision(12))} ${WORDS[unit]}`;
}

/** What a unit of torque is called. */
export function torqueUnitWord(unit: TorqueUnit): string {
  return WORDS[unit];
}

/** The unit in which a torque is told beside its own: N·m beside pounds, ft·lb beside N·m. */
export function otherTorqueUnit(unit: TorqueUnit): TorqueUnit {
  return unit === 'Nm' ? 'ft-lb' : 'Nm';
}

/**
 * A torque in the other unit, rounded to what a wrench tells apart.
 *
 * @example torqueEcho(70, 'ft-lb') // '94.9 N·m'
 */
export function torqueEcho(value: number, unit: TorqueUnit): string {
  const other = otherTorqueUnit(unit);
  return `${torqueIn(value, unit, other).toFixed(DECIMALS[other])} ${WORDS[other]}`;
}
