import type { DrawerLine, PieceLine } from '@fettle/core';
import type { Middleware } from '@reduxjs/toolkit';
import { api, drawerMoved } from '../wire/api.js';

/** A line as both lists have it. */
type AnyLine = Pick<DrawerLine | PieceLine, 'id' | 'fittedHere'>;

/**
 * A list with what was changed laid into it, by the ids that it is sorted by. What was fitted into the engine that the list was asked for is
 * not touched by a movement: it stays as it is here.
 */
export function withMoved<Line extends AnyLine>(
  list: readonly Line[],
  changed: readonly Line[],
  gone: readonly string[],
): Line[] {
  const lines = new Map(list.map((line) => [line.id, line]));
  for (const id of gone) lines.delete(id);
  for (const line of changed) {
    lines.set(line.id, { ...line, fittedHere: lines.get(line.id)?.fittedHere ?? line.fittedHere });
  }
  return [...lines.values()].sort((one, other) => (one.id < other.id ? -1 : one.id > other.id ? 1 : 0));
}

/** Lays what was done to the drawer from here into the lists that this page has. */
export const layMoved: Middleware =
  ({ dispatch, getState }) =>
  (next) =>
  (action) => {
    const result = next(action);
    if (!drawerMoved.match(action)) return result;
    const { lines, pieces, gone } = action.payload;
    for (const { endpointName, originalArgs } of api.util.selectInvalidatedBy(getState() as never, ['drawer'])) {
      if (endpointName === 'listDrawer') {
        dispatch(api.util.updateQueryData('listDrawer', originalArgs, (list) => withMoved(list, lines, gone)) as never);
      } else if (endpointName === 'listPieces') {
        dispatch(
          api.util.updateQueryData('listPieces', originalArgs, (list) => withMoved(list, pieces, gone)) as never,
        );
      }
    }
    return result;
  };
