import type { StampedRow } from './codeSheet.js';

/** One mark of a stamped row, as it was typed. */
export interface DecodedMark {
  /** Station it belongs to, 1 at the front. */
  readonly station: number;
  readonly typed: string;
  /** The mark it is; null when there is no such mark. */
  readonly mark: string | null;
  /** Marks that look like it: offered, never guessed. */
  readonly lookalikes: readonly string[];
}

export type DecodedRow =
  | { readonly ok: true; readonly marks: readonly DecodedMark[] }
  | {
      readonly ok: false;
      /** `other-row`: it starts as the row of another feature does. `count`: there are more or fewer marks than stations. */
      readonly reason: 'empty' | 'prefix' | 'other-row' | 'count';
      readonly message: string;
      readonly marks: readonly DecodedMark[];
    };

/** Signs that are taken for each other when stamped, scratched or half painted over; common practice. */
const ALIKE = ['1IlⅠ|', '0OQD', '2Z', '5S', '8B', '6G', 'UV', '3E', '7T', '4A', 'IIⅡ', '11Ⅱ'] as const;

function looksLike(one: string, other: string): boolean {
  if (one === other) return false;
  if (one.toUpperCase() === other.toUpperCase()) return true;
  if (one.length === other.length) {
    return [...one].every((sign, at) => {
      const facing = other[at]!;
      return (
        sign.toUpperCase() === facing.toUpperCase() ||
        ALIKE.some((set) => set.includes(sign.toUpperCase()) && set.includes(facing.toUpperCase()))
      );
    });
  }
  // Roman numbers against strokes: II, 11, ⅠⅠ.
  const strokes = (text: string) =>
    text
      .replaceAll(/[1lⅠ|]/gu, 'I')
      .replaceAll('Ⅱ', 'II')
      .replaceAll('Ⅲ', 'III');
  return strokes(one) === strokes(other);
}

/** Splits what was typed into marks: at blanks, commas and dashes; with none of them, sign by sign where all marks have one. */
function split(text: string, marks: readonly string[]): string[] {
  const words = text.split(/[\s,;·-]+/u).filter((word) => word !== '');
  const isSolid = words.length === 1 && marks.every((mark) => [...mark].length === 1) && !marks.includes(words[0]!);
  return isSolid ? [...words[0]!] : words;
}

/**
 * Decodes a stamped row typed as it was read, such as `J 1 1 2 1 1`, and puts its marks to the stations, front first.
 *
 * @param text as typed
 * @param row how this row is laid out
 * @param rows all rows of the sheet, to tell when another one was typed
 * @param marks the marks that there are
 * @param stations how many stations the row is for
 *
 * @example decodeRow('J 112', { feature: 'mainJournal', prefix: 'J', first: 'rear' }, [], ['1', '2'], 3).marks.map(({ mark }) => mark) // ['2', '1', '1']
 */
export function decodeRow(
  text: string,
  row: StampedRow,
  rows: readonly StampedRow[],
  marks: readonly string[],
  stations: number,
): DecodedRow {
  const typed = text.trim();
  if (typed === '') return { ok: false, reason: 'empty', message: 'Type the row as it is stamped.', marks: [] };
  const startsWith = (prefix: string) => prefix !== '' && typed.toUpperCase().startsWith(prefix.toUpperCase());
  const other = rows.find((one) => one.feature !== row.feature && startsWith(one.prefix) && !startsWith(row.prefix));
  if (other) {
    const message = `The row starts with ${other.prefix}: that is the row of another feature.`;
    return { ok: false, reason: 'other-row', message, marks: [] };
  }
  const hasPrefix = startsWith(row.prefix);
  const words = split(hasPrefix ? typed.slice(row.prefix.length) : typed, marks);
  const decoded = words.map((word, at): DecodedMark => {
    const mark = marks.find((one) => one === word) ?? null;
    return {
      station: row.first === 'front' ? at + 1 : words.length - at,
      typed: word,
      mark,
      lookalikes: marks.filter((one) => looksLike(word, one)),
    };
  });
  const inOrder = decoded.sort((a, b) => a.station - b.station);
  if (words.length !== stations) {
    const message = `${words.length} marks are typed for ${stations} stations.`;
    return { ok: false, reason: 'count', message, marks: inOrder };
  }
  if (row.prefix !== '' && !hasPrefix) {
    const message = `The row should start with ${row.prefix}; check that it is the right one.`;
    return { ok: false, reason: 'prefix', message, marks: inOrder };
  }
  return { ok: true, marks: inOrder };
}
