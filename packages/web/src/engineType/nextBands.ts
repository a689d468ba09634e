import { formatExactLength, INSTRUMENT_DECIMALS, type Nanometres, parseLength, type Unit } from '@fettle/core';
import { isBlank } from './readType.js';
import { type BandText, EMPTY_BAND } from './typeText.js';

/** Marks that can be filled in at once. */
const MOST_MARKS = 30;

/** True if the last two bands go down: the upper end of the last is the lower end of the one before it. */
function goDown(filled: readonly BandText[]): boolean {
  const [before, last] = filled.slice(-2);
  return filled.length > 1 && last!.high.trim() !== '' && last!.high.trim() === before!.low.trim();
}

/**
 * Where the band after some others begins: at the end of the last one, upwards or downwards as they go. Bands with gaps between, as of
 * walls, say nothing of it.
 *
 * @param bands the lines before it
 */
export function nextEdge(bands: readonly BandText[]): Partial<BandText> {
  const filled = bands.filter((band) => !isBlank(band));
  const [before, last] = filled.length > 1 ? filled.slice(-2) : [undefined, filled[0]];
  if (!last) return {};
  if (goDown(filled)) return { high: last.low };
  return before === undefined || before.high.trim() === last.low.trim() ? { low: last.high } : {};
}

/**
 * Marks as they are typed in a row: with blanks or commas between, or from one to another.
 *
 * @example marksOf('2 3 4') // ['2', '3', '4']
 * @example marksOf('B-E') // ['B', 'C', 'D', 'E']
 */
export function marksOf(text: string): readonly string[] {
  const range = /^\s*([A-Z]|\d{1,2})\s*[-–]\s*([A-Z]|\d{1,2})\s*$/iu.exec(text);
  if (range) {
    const [, from, to] = range as unknown as [string, string, string];
    const [first, last] = [from, to].map((mark) =>
      /\d/u.test(mark) ? Number(mark) : mark.toUpperCase().charCodeAt(0),
    );
    const areAlike = /\d/u.test(from) === /\d/u.test(to);
    if (!areAlike || last! < first! || last! - first! >= MOST_MARKS) return [];
    return Array.from({ length: last! - first! + 1 }, (_, at) =>
      /\d/u.test(from) ? String(first! + at) : String.fromCharCode(first! + at),
    );
  }
  return text
    .split(/[\s,;]+/u)
    .filter((mark) => mark !== '')
    .slice(0, MOST_MARKS);
}

/**
 * The bands with more marks after the last one, each as wide as it and as far from it as the last two lie apart; after a single line each
 * begins where the one before ends.
 *
 * @returns null where the last line has no mark with both ends
 */
export function withMarks(
  bands: readonly BandText[],
  marks: readonly string[],
  unit: Unit,
): readonly BandText[] | null {
  const filled = bands.filter((band) => !isBlank(band));
  const read = (text: string | undefined) => {
    const parsed = parseLength(text ?? '', { unit, signed: 'sign' });
    return parsed.ok ? parsed.nm : null;
  };
  const [low, high, before] = [read(filled.at(-1)?.low), read(filled.at(-1)?.high), read(filled.at(-2)?.low)];
  if (low === null || high === null || high <= low) return null;
  const step = before === null ? high - low : low - before;
  const text = (nm: number) => formatExactLength(nm as Nanometres, unit, INSTRUMENT_DECIMALS[unit]);
  return [
    ...filled,
    ...marks.map((mark, at) => ({
      ...EMPTY_BAND,
      mark,
      low: text(low + step * (at + 1)),
      high: text(high + step * (at + 1)),
    })),
  ];
}
