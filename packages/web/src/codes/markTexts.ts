import type { Feature } from '@fettle/core';
import { cutText, FEATURE_TABLE, type JobDocument, rodCount } from '@fettle/core';
import { decodedText } from './decodedText.js';

/** Rows of marks as they are typed, each with the end that its first mark belongs to. */
export type MarkTexts = Partial<Record<Feature, { text: string; first: 'front' | 'rear' }>>;

/** The rods' marks as one row, by number; empty while no rod has one. */
export function rodRow({ rods, layout }: JobDocument): string {
  const marks = Array.from({ length: rodCount(layout) }, (_, at) => rods[String(at + 1)]?.mark ?? '');
  return marks.every((mark) => mark === '') ? '' : marks.map((mark) => mark || '?').join(' ');
}

/** The document as it would be with what is being typed: the shaft fills in key by key. */
export function withTexts(document: JobDocument, texts: MarkTexts): JobDocument {
  const marks = { ...document.marks };
  const rods = { ...document.rods };
  for (const [name, typed] of Object.entries(texts)) {
    const feature = name as Feature;
    if (FEATURE_TABLE[feature].marked !== 'each') marks[feature] = typed;
    else {
      const decoded = decodedText(document, feature, typed.text, typed.first);
      if (!decoded?.ok) continue;
      for (const { station, mark, typed: word } of decoded.marks) {
        rods[String(station)] = { pin: rods[String(station)]?.pin ?? null, mark: cutText(mark ?? word, 20) };
      }
    }
  }
  return { ...document, marks, rods };
}
