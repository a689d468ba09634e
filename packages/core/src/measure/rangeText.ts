import type { Nanometres } from './nanometres.js';
import { parseLength } from './parseLength.js';
import type { Unit } from './unit.js';

/** What people and books write between the ends of a range: a dash of any length, `to`, two or three points. */
const BETWEEN = /^(.*?\d[^\d–—…]*?)\s*(?:–|—|…|\.{2,3}|\bto\b|(?<=[\da-zµ"″ ])[-−])\s*(.*\d.*)$/iu;

/**
 * A range as it is written, split into its two ends as they are typed; null for what is no range. A unit that stands only behind the
 * second end holds for both.
 *
 * @example splitRange('31.994 – 32.000 mm') // ['31.994 mm', '32.000 mm']
 */
export function splitRange(text: string): readonly [string, string] | null {
  const match = BETWEEN.exec(text.trim());
  if (!match) return null;
  const [low, high] = [match[1]!.trim(), match[2]!.trim()];
  const suffix = /[\d.,]\s*([^\d.,\s]+\.?)$/u.exec(high)?.[1];
  return [suffix !== undefined && /[\d.,]$/u.test(low) ? `${low} ${suffix}` : low, high];
}

/** A range that was read, the smaller end first; or what is wrong with it. */
export type TypedRange =
  | { readonly ok: true; readonly low: Nanometres; readonly high: Nanometres }
  | { readonly ok: false; readonly message: string };

/**
 * Reads a range of sizes, such as `50 – 75`.
 *
 * @param unit of ends without a unit of their own
 * @example rangeOf('2 – 3', 'in') // { ok: true, low: 50800000, high: 76200000 }
 */
export function rangeOf(text: string, unit: Unit): TypedRange {
  const ends = splitRange(text);
  if (!ends) return { ok: false, message: 'Write both ends, like 50 – 75.' };
  const [low, high] = ends.map((end) => parseLength(end, { unit, signed: 'sign' }));
  if (!low!.ok) return { ok: false, message: low!.message };
  if (!high!.ok) return { ok: false, message: high!.message };
  return low!.nm < high!.nm
    ? { ok: true, low: low!.nm, high: high!.nm }
    : { ok: false, message: 'The smaller end first.' };
}
