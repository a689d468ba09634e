import type { Fasteners } from './fasteners.js';

type Named = Omit<Fasteners, 'since'>;

/** True if nothing was said of a field yet. */
function isBlank(value: Named[keyof Named]): boolean {
  return value === '' || value === 'unknown' || (Array.isArray(value) && value.length === 0);
}

function isSame(one: unknown, other: unknown): boolean {
  return Array.isArray(one) ? JSON.stringify(one) === JSON.stringify(other) : one === other;
}

/**
 * Fasteners with something more, or something else, said of them. What is named for the first time is no change: it is what was there all
 * the time. What was named and is another now moves the housings: what was read before holds for the others only.
 *
 * @param at now
 * @returns the same object where nothing is another
 */
export function namedFasteners(before: Fasteners, part: Partial<Named>, at: string): Fasteners {
  const fields = Object.keys(part) as (keyof Named)[];
  const others = fields.filter((field) => !isSame(before[field], part[field]));
  if (others.length === 0) return before;
  const isChanged = others.some((field) => !isBlank(before[field]));
  return { ...before, ...part, since: isChanged ? at : before.since };
}
