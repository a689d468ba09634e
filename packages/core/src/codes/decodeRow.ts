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
      /**
       * `other-row`: it starts as the row of another feature does. `count`: there are more or fewer marks than stations. `reversed`: it
       * only reads from its other end. `prefix`: it reads whole without the prefix that it should start with. `two-ways`: it reads whole
       * with its prefix taken off and with it left on.
       */
      readonly reason: 'empty' | 'prefix' | 'other-row' | 'count' | 'reversed' | 'two-ways';
      readonly message: string;
      readonly marks: readonly DecodedMark[];
      /** What it may have been meant as, each written so that it reads in one way only; offered, never taken. */
      readonly offers?: readonly string[];
    };

/** Signs that are taken for each other when stamped, scratched or half painted over; common practice. */
const ALIKE = ['1IlⅠ|', '0OQD', '2Z', '5S', '8B', '6G', 'UV', '3E', '7T', '4A', 'IIⅡ', '11Ⅱ'] as const;

/** True if two signs are taken for each other, as typed or as capitals. */
function areAlike(one: string, other: string): boolean {
  const forms = (sign: string) => [sign, sign.toUpperCase()];
  return forms(one).some((a) =>
    forms(other).some((b) => a === b || ALIKE.some((set) => set.includes(a) && set.includes(b))),
  );
}

function looksLike(one: string, other: string): boolean {
  if (one === other) return false;
  const [signs, facing] = [[...one], [...other]];
  if (signs.length === facing.length) return signs.every((sign, at) => areAlike(sign, facing[at]!));
  // Roman numbers against strokes: II, 11, ⅠⅠ.
  const strokes = (text: string) =>
    text
      .replaceAll(/[1lⅠ|]/gu, 'I')
      .replaceAll('Ⅱ', 'II')
      .replaceAll('Ⅲ', 'III');
  return strokes(one) === strokes(other);
}

/** What may stand between marks, from the least that people write to the most. Marks may have such signs in them themselves. */
const SEPARATORS = [/\s+/u, /[\s,;]+/u, /[\s,;:/=·.-]+/u] as const;

/** The ways in which what was typed can be split into marks. */
function splits(text: string, marks: readonly string[]): string[][] {
  const bySeparators = SEPARATORS.map((separator) => text.split(separator).filter((word) => word !== ''));
  const solid = bySeparators.filter(([word, another]) => {
    const isSolid = word !== undefined && another === undefined && marks.every((mark) => [...mark].length === 1);
    return isSolid && !marks.includes(word);
  });
  return [...bySeparators, ...solid.map(([word]) => [...word!])];
}

/** One way to read what was typed. */
interface Reading {
  readonly words: readonly string[];
  readonly hasPrefix: boolean;
  readonly isReversed: boolean;
}

/** Every way to read what was typed: with its prefix or without, split in each way; from its other end where it ends with the prefix. */
function readingsOf(typed: string, prefix: string, marks: readonly string[]): Reading[] {
  const upper = prefix.toUpperCase();
  const whole = splits(typed, marks).map((words) => ({ words, hasPrefix: prefix === '', isReversed: false }));
  if (prefix === '') return whole;
  const starts = typed.toUpperCase().startsWith(upper)
    ? splits(typed.slice(prefix.length).replace(/^[\s:/=.,;·-]+/u, ''), marks).map((words) => ({
        words,
        hasPrefix: true,
        isReversed: false,
      }))
    : [];
  const ends = typed.toUpperCase().endsWith(upper)
    ? splits(typed.slice(0, -prefix.length), marks).map((words) => ({
        words: words.toReversed(),
        hasPrefix: true,
        isReversed: true,
      }))
    : [];
  return [...starts, ...whole, ...ends];
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
  // Marks are stamped in capitals; a small letter stands for its capital where that is in a mark or a prefix and it is not itself.
  const letters = new Set([...marks, row.prefix, ...rows.map(({ prefix }) => prefix)].join(''));
  const typed = [...text.trim()]
    .map((sign) => (!letters.has(sign) && letters.has(sign.toUpperCase()) ? sign.toUpperCase() : sign))
    .join('');
  if (typed === '') return { ok: false, reason: 'empty', message: 'Type the row as stamped.', marks: [] };
  const unknownIn = ({ words }: Reading) => words.filter((word) => !marks.includes(word)).length;
  // First what has only marks that there are, then what has the right count, then a row that was typed as it should be.
  const faultsIn = (reading: Reading) =>
    8 * Number(unknownIn(reading) > 0) +
    4 * Number(reading.words.length !== stations) +
    2 * Number(reading.isReversed) +
    Number(!reading.hasPrefix);
  const readings = readingsOf(typed, row.prefix, marks);
  const best = readings.reduce((one, next) => {
    const by = faultsIn(next) - faultsIn(one) || unknownIn(next) - unknownIn(one);
    return by < 0 ? next : one;
  });
  const isWhole = best.words.length === stations && unknownIn(best) === 0;
  const startsWith = (prefix: string) => prefix !== '' && typed.toUpperCase().startsWith(prefix.toUpperCase());
  const other = rows.find(
    (one) =>
      one.feature !== row.feature &&
      startsWith(one.prefix) &&
      (!startsWith(row.prefix) || one.prefix.length > row.prefix.length),
  );
  // A prefix of another row may be a mark of this one: a row that reads whole is this one.
  if (other && !isWhole) {
    const message = `The row starts with ${other.prefix}: that is the row of another feature.`;
    return { ok: false, reason: 'other-row', message, marks: [] };
  }
  // Every way in which it is a whole row: one is taken, of two the fitter says which.
  const isWholeRow = (reading: Reading) => faultsIn(reading) <= 1;
  const offers = [
    ...new Set(readings.filter(isWholeRow).map(({ words }) => [row.prefix, ...words].filter(Boolean).join(' '))),
  ];
  const { words } = best;
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
  if (best.isReversed && isWhole) {
    const message = `The row ends with ${row.prefix}: it was typed from its other end. Type it again, ${row.prefix} first.`;
    return { ok: false, reason: 'reversed', message, marks: inOrder };
  }
  if (words.length !== stations) {
    const message = `${words.length} ${words.length === 1 ? 'mark is' : 'marks are'} typed for ${stations} stations.`;
    return { ok: false, reason: 'count', message, marks: inOrder };
  }
  if (isWhole && offers.length > 1) {
    const message = `The row reads in ${offers.length} ways, as ${offers.join(' or as ')}: say which.`;
    return { ok: false, reason: 'two-ways', message, marks: inOrder, offers };
  }
  if (!best.hasPrefix) {
    const message = `The row should start with ${row.prefix}; check that it is the right one.`;
    return { ok: false, reason: 'prefix', message, marks: inOrder, ...(isWhole ? { offers } : {}) };
  }
  return { ok: true, marks: inOrder };
}
