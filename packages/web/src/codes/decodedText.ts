import {
  bandsOf,
  type DecodedRow,
  decodeRow,
  type Feature,
  type JobDocument,
  partCount,
  rowLayout,
} from '@fettle/core';

/** A row as it is being typed, decoded; null while it is empty. */
export function decodedText(
  document: JobDocument,
  feature: Feature,
  text: string,
  first: 'front' | 'rear',
): DecodedRow | null {
  if (text.trim() === '') return null;
  const marks = bandsOf(document.sheet, feature).map(({ mark }) => mark);
  const layout = { ...rowLayout(document, feature), first };
  return decodeRow(text, layout, document.sheet?.rows ?? [], marks, partCount(document.layout, feature));
}
