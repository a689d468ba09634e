import { type FreeLines, freeOnShelf, type PieceLine } from '@fettle/core';

/** What an engine may take of the workshop's pieces: what is on hand less what others have reserved, and what is fitted in it. */
export function freeLines(lines: readonly PieceLine[] | null, job: string): FreeLines | null {
  if (lines === null) return null;
  return new Map(lines.map((line) => [line.id, freeOnShelf(line.piece.onHand, line, job)]));
}
