import { type Nanometres, nanometres } from '../measure/nanometres.js';
import type { Strip } from './stripSchema.js';

/**
 * The clearance that a strip was pressed to: its cross-section is kept, `w · c = π d² / 4`, the pressed one taken as a rectangle. A model: the
 * card that comes with the strip rules. A width read 5 % too wide gives a clearance some 4.8 % too small.
 *
 * @param diameter of the round strip, above zero
 * @param width of the pressed one, above zero
 * @example stripClearance(100_000, 314_159) // 25000
 */
export function stripClearance(diameter: number, width: number): Nanometres {
  return nanometres(Math.round((Math.PI * diameter * diameter) / 4 / width));
}

/** A strip tells no better than this: 0.0003 in, some 0.008 mm. Common practice. */
export const STRIP_TELLS = nanometres(7_620);

export interface StripRead {
  /** By the mean of the two ends, or by the one that was read. */
  readonly clearance: Nanometres;
  /** Clearance at the front less that at the rear; null where one end was read only. */
  readonly taper: Nanometres | null;
}

/** What a pressed strip says; null while no width was read. */
export function stripRead({ diameter, widths }: Pick<Strip, 'diameter' | 'widths'>): StripRead | null {
  const at = (width: Strip['widths']['front']) => (width?.nm == null ? null : stripClearance(diameter, width.nm));
  const [front, rear] = [at(widths.front), at(widths.rear)];
  if (front === null && rear === null) return null;
  if (front === null || rear === null) return { clearance: (front ?? rear)!, taper: null };
  return { clearance: nanometres(Math.round((front + rear) / 2)), taper: nanometres(front - rear) };
}

/** Kinds of strip and the clearances that each tells. Common practice; what stands on the packet decides. */
export const STRIP_RANGES = [
  { kind: 'fine', low: nanometres(25_000), high: nanometres(75_000) },
  { kind: 'medium', low: nanometres(50_000), high: nanometres(150_000) },
  { kind: 'coarse', low: nanometres(100_000), high: nanometres(230_000) },
] as const;
export type StripKind = (typeof STRIP_RANGES)[number]['kind'];

/**
 * The strip for a clearance that is expected: of those whose range holds it the one in whose middle it lies best; null where none does.
 *
 * @example stripFor(60_000) // 'fine'
 */
export function stripFor(expected: number): StripKind | null {
  const held = STRIP_RANGES.filter(({ low, high }) => expected >= low && expected <= high);
  const off = ({ low, high }: (typeof STRIP_RANGES)[number]) => Math.abs(expected - (low + high) / 2) / (high - low);
  const [best] = [...held].sort((one, other) => off(one) - off(other));
  return best?.kind ?? null;
}
