import type { DecodedMark, StampedRow } from '@fettle/core';

/** The row as typed with one of its marks put right; the rest stays as it was read. */
export function withWord(marks: readonly DecodedMark[], row: StampedRow, station: number, word: string): string {
  const inOrder = [...marks].sort((a, b) => (row.first === 'front' ? a.station - b.station : b.station - a.station));
  const words = inOrder.map((mark) => (mark.station === station ? word : mark.typed));
  return [row.prefix, ...words].filter((part) => part !== '').join(' ');
}
