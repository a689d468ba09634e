/** How a part comes to the temperature of what is around it: two temperatures of it, some time apart. */
export interface Soaking {
  /** °C then, and now. */
  readonly before: number;
  readonly now: number;
  /** Minutes between the two, above 0. */
  readonly minutes: number;
  /** What it comes to: the room, or the part that it is measured with, °C. */
  readonly around: number;
}

/** How long a part takes, in minutes. */
export type SoakAdvice =
  | { readonly kind: 'wait'; readonly minutes: number; readonly timeConstant: number }
  /** It is near enough already. */
  | { readonly kind: 'ready' }
  /** It does not come nearer: two temperatures of it that tell nothing, or one of another part. */
  | { readonly kind: 'unknown' };

/**
 * How long until a part differs from what is around it by less than what matters: lumped cooling, `T(t) − Ta = (T0 − Ta) e^(−t/τ)`, with the time
 * constant τ from two temperatures of it (Newton’s law of cooling, for a part that is as warm inside as outside: metal in still air).
 *
 * @param matters °C, above 0
 * @example soakAdvice({ before: 60, now: 40, minutes: 30, around: 20 }, 1).minutes.toFixed(1) // '129.7'
 */
export function soakAdvice({ before, now, minutes, around }: Soaking, matters: number): SoakAdvice {
  if (Math.abs(now - around) < matters) return { kind: 'ready' };
  const share = (now - around) / (before - around);
  // Past its surroundings, away from them, or as it was.
  if (!(share > 0 && share < 1) || !(minutes > 0)) return { kind: 'unknown' };
  const timeConstant = -minutes / Math.log(share);
  return { kind: 'wait', minutes: timeConstant * Math.log(Math.abs(now - around) / matters), timeConstant };
}

/**
 * The difference of temperature that changes a size by so much, °C.
 *
 * @param length what may change, nm
 * @param size nm
 * @param alpha coefficient of linear expansion, 1e-6/K, above 0
 * @example mattersAt(500, 62_000_000, 11.5).toFixed(2) // '0.70'
 */
export function mattersAt(length: number, size: number, alpha: number): number {
  return length / (size * alpha * 1e-6);
}
