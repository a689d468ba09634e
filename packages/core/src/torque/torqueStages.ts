/** Maximum tightening stages. */
export const MOST_STAGES = 20;

/** A final figure below this is rounded to whole ones of its unit, from it on to whole fives. */
const FINE_BELOW = 20;
/** What a quotient may be off before it is rounded up: far less than any wrench tells apart. */
const ROUNDING = 1e-9;

/**
 * The stages in which a fastener is tightened: so many equal ones, each rounded up to the next 5 (to the next 1 where the final figure is below
 * 20), the last exact. Common practice. No stage is above the final figure; where many stages share a small one, neighbours may be alike.
 *
 * @param final the data sheet's figure, above zero, in any unit of torque
 * @param stages how many, 1 to 20
 * @returns the figures in the same unit, rising
 * @throws RangeError where there is nothing to divide
 * @example torqueStages(100, 3) // [35, 70, 100]
 */
export function torqueStages(final: number, stages: number): number[] {
  if (!(final > 0 && Number.isFinite(final))) throw new RangeError(`the final torque is ${final}; enter one above 0`);
  if (!(Number.isInteger(stages) && stages >= 1 && stages <= MOST_STAGES)) {
    throw new RangeError(`${stages} stages; a whole number from 1 to ${MOST_STAGES}`);
  }
  const step = final < FINE_BELOW ? 1 : 5;
  return Array.from({ length: stages }, (_, at) => {
    if (at === stages - 1) return final;
    const equal = (final * (at + 1)) / stages;
    return Math.min(final, Math.ceil(equal / step - ROUNDING) * step);
  });
}
