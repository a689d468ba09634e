import type { DrawerItem, Json } from '@fettle/core';
import { changesBetween, drawerItemLabel, drawerItemSchema } from '@fettle/core';
import { ProblemError } from '../problem/problem.js';
import type { DrawerRow } from '../stock/drawerEntity.js';

/**
 * What a line becomes when a movement is taken back: counts go back by their difference, anything else must be as the movement left it.
 *
 * @param row as it is now; null: it is not there
 * @param before as it was before the movement, and `after` it; null: it was not there
 * @throws ProblemError `stale-version`, `drawer-short`
 */
export function takenBack(
  row: DrawerRow | null,
  before: DrawerItem | null,
  after: DrawerItem | null,
): DrawerItem | null {
  if ((row === null) !== (after === null)) {
    throw new ProblemError('stale-version', 'It was removed from stock, or added to it, since.');
  }
  if (row === null || after === null) return before;
  if (before === null) {
    if (row.item.onHand === after.onHand) return null;
    const message = `${drawerItemLabel(row.item)} was added with ${after.onHand}; there are ${row.item.onHand} now`;
    throw new ProblemError('stale-version', `${message}. Undo later changes first, or remove it by hand.`);
  }
  const moved = changesBetween(before as Json, after as Json).map(({ path }) => path[0]!);
  const since = changesBetween(after as Json, row.item as unknown as Json).map(({ path }) => path[0]!);
  const clash = moved.find((field) => field !== 'onHand' && since.includes(field));
  if (clash !== undefined) {
    throw new ProblemError('stale-version', `${row.updatedBy} has changed its ${clash} since; change that by hand.`);
  }
  const onHand = row.item.onHand + before.onHand - after.onHand;
  const kept = Object.fromEntries(moved.map((field) => [field, before[field as keyof DrawerItem]]));
  const back = { ...row.item, ...kept, onHand };
  if (onHand < 0) throw new ProblemError('drawer-short', `${drawerItemLabel(back)} would drop below zero.`);
  return drawerItemSchema.parse(JSON.parse(JSON.stringify(back)));
}
