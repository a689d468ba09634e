import type { Shell } from '@fettle/core';

type Named = Shell & { readonly number?: string | undefined };

/** What tells halves of one grade and side apart, in the order in which it is said. */
const MORE: readonly ((half: Named) => string)[] = [
  ({ family }) => family,
  ({ series }) => series,
  ({ undersize }) => (undersize === undefined ? '' : `${undersize} under`),
  ({ number }) => (number === undefined ? '' : `no. ${number}`),
  ({ positions }) => positions?.join('/') ?? '',
];

/**
 * A short name for each of some halves: its grade and side, and as much more as it takes to tell it from the others of the list.
 *
 * @returns by id
 */
export function shortLabels(halves: readonly { readonly id: string; readonly half: Named }[]): Map<string, string> {
  const byName = new Map<string, { readonly id: string; readonly half: Named }[]>();
  for (const one of halves) {
    const name = `${one.half.grade} ${one.half.half}`;
    const alike = byName.get(name);
    if (alike) alike.push(one);
    else byName.set(name, [one]);
  }
  const labels = new Map<string, string>();
  for (const [name, alike] of byName) {
    const telling = MORE.filter((word) => new Set(alike.map(({ half }) => word(half))).size > 1);
    for (const { id, half } of alike) {
      labels.set(id, [name, ...telling.map((word) => word(half)).filter((word) => word !== '')].join(' '));
    }
  }
  return labels;
}
