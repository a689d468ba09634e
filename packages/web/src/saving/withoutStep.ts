import type { Change, Json } from '@fettle/core';
import { changesBetween, type JobDocument, valueAt, withValueAt } from '@fettle/core';
import { asJson } from './knownEngine.js';

/**
 * Takes back what a step changed, place by place: where somebody changed the same place since, theirs stays.
 *
 * @returns the document, and whether anything was left as it is now
 */
export function withoutStep(
  document: JobDocument,
  changes: readonly Change[],
): { document: JobDocument; isPartial: boolean } {
  let isPartial = false;
  const back = changes.reduce<Json>((result, { path, from, to }) => {
    const isOurs = changesBetween(valueAt(result, path), to).length === 0;
    const isThere = path.length === 1 || valueAt(result, path.slice(0, -1)) !== undefined;
    if (!isOurs || !isThere) {
      isPartial = true;
      return result;
    }
    return withValueAt(result, path, from) ?? null;
  }, asJson(document));
  return { document: back as unknown as JobDocument, isPartial };
}
