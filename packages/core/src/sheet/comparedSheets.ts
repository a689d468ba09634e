import { NANOMETRES_PER, type Unit } from '../measure/unit.js';
import { STATE_WORDS, type StationState } from '../stage/stationState.js';
import type { BuildSheet } from './buildSheetSchema.js';

/** One thing in which two sheets differ: a fact, a reading, or a line of a table. */
export interface BuildSheetDifference {
  /** The table, or the sheet itself, and the line: `Mains, M2`. */
  readonly where: string;
  /** The name of the fact, or the columns that differ: `Journal, Clearance`. */
  readonly what: string;
  /** What stood there, and what stands there now, column by column; null where it is not there. */
  readonly before: string | null;
  readonly now: string | null;
}

type Table = BuildSheet['tables'][number];
type Cell = Table['rows'][number][number];

const UNIT_WORDS: Readonly<Record<Unit, string>> = { mm: 'millimetres', in: 'inches' };

/** Figures without a unit have the sheet's; a length that names its unit has that one. */
const FIGURE = /([+−-]?\d+\.\d+)(?: (mm|in)\b)?/gu;

/**
 * True if two texts mean the same: the same words, and lengths that are one length in the last place that both are printed to. So a sheet in
 * millimetres and one in inches differ only in what was changed.
 */
function meansSame(one: string, other: string, unit: Unit, otherUnit: Unit): boolean {
  if (one === other) return true;
  if (unit === otherUnit) return false;
  const words = (text: string) => text.replace(FIGURE, '#');
  if (words(one) !== words(other)) return false;
  const figures = (text: string, own: Unit) =>
    [...text.matchAll(FIGURE)].map(([, figure = '', named]) => {
      const nmPer = NANOMETRES_PER[(named as Unit | undefined) ?? own];
      const places = figure.split('.')[1]?.length ?? 0;
      return { nm: Number(figure.replace('−', '-')) * nmPer, half: (nmPer * 10 ** -places) / 2 };
    });
  const [old, fresh] = [figures(one, unit), figures(other, otherUnit)];
  return old.every(({ nm, half }, at) => Math.abs(nm - fresh[at]!.nm) <= half + fresh[at]!.half);
}

/** The title of a table without the unit that it is printed in. */
function plainTitle(title: string): string {
  return title.replace(/, (?:millimetres|inches)$/u, '');
}

/** Rows by what they are about; of several that begin alike each has its number. A reading is about a part and a place on it. */
function rowsOf(table: Table | undefined): Map<string, readonly Cell[]> {
  const rows = new Map<string, readonly Cell[]>();
  for (const row of table?.rows ?? []) {
    const name = row
      .slice(0, table!.part === 'readings' ? 2 : 1)
      .map(({ text }) => text)
      .join(', ');
    let key = name;
    for (let copy = 2; rows.has(key); copy += 1) key = `${name} (${copy})`;
    rows.set(key, row);
  }
  return rows;
}

/**
 * In what a sheet differs from an earlier one of the same engine: facts, then tables line by line. What is meant is compared, not how it is
 * printed: a line that differs is one difference, whatever number of its columns changed; a reading is its figure, not when it was sent; and
 * another unit is one difference by itself. When and by whom the sheet was made is passed over.
 *
 * @param timeText how a moment is told, an ISO 8601 date and time
 */
export function comparedSheets(
  before: BuildSheet,
  now: BuildSheet,
  timeText: (at: string) => string,
): BuildSheetDifference[] {
  const cellText = ({ text, small, state, at }: Cell): string => {
    const word = state === undefined ? '' : state in STATE_WORDS ? STATE_WORDS[state as StationState] : state;
    return [word, text, at === undefined ? '' : timeText(at), small ?? ''].filter((part) => part !== '').join(' ');
  };
  const isSame = (one: string, other: string) => meansSame(one, other, before.unit, now.unit);
  const unit: BuildSheetDifference[] =
    before.unit === now.unit
      ? []
      : [
          {
            where: 'The sheet',
            what: 'Unit',
            before: UNIT_WORDS[before.unit],
            now: UNIT_WORDS[now.unit],
          },
        ];
  const factOf = ({ facts: all }: BuildSheet, label: string) => {
    const found = all.find((one) => one.label === label);
    return found ? [found.text, found.at === undefined ? '' : timeText(found.at)].filter(Boolean).join(', ') : null;
  };
  const labels = [...new Set([...before.facts, ...now.facts].map(({ label }) => label))];
  const facts = labels.flatMap((what): BuildSheetDifference[] => {
    const [old, fresh] = [factOf(before, what), factOf(now, what)];
    const differs = old === null || fresh === null ? old !== fresh : !isSame(old, fresh);
    return differs ? [{ where: 'The sheet', what, before: old, now: fresh }] : [];
  });
  const titles = [...new Set([...before.tables, ...now.tables].map(({ title }) => plainTitle(title)))];
  const tables = titles.flatMap((title) => {
    const [old, fresh] = [before, now].map(({ tables: all }) => all.find((one) => plainTitle(one.title) === title));
    const [oldRows, freshRows] = [rowsOf(old), rowsOf(fresh)];
    const table = (fresh ?? old)!;
    const isReadings = table.part === 'readings';
    // Columns by their heads: a column more moves no other one.
    const columns = [...new Set([...(old?.head ?? []), ...(fresh?.head ?? [])])];
    const inColumn = (own: Table | undefined, row: readonly Cell[], head: string) => {
      const at = own?.head.indexOf(head) ?? -1;
      return row[at] ? cellText(row[at]) : '';
    };
    return [...new Set([...oldRows.keys(), ...freshRows.keys()])].flatMap((line): BuildSheetDifference[] => {
      const where = `${title}, ${line}`;
      const [was, is] = [oldRows.get(line), freshRows.get(line)];
      if (!was || !is) {
        const told = (cells: readonly Cell[] | undefined) =>
          cells
            ?.slice(isReadings ? 2 : 1)
            .map(cellText)
            .filter(Boolean)
            .join(', ') ?? null;
        return [{ where, what: isReadings ? 'reading' : 'line', before: told(was), now: told(is) }];
      }
      const differing = columns
        .map((head) => ({ head, one: inColumn(old, was, head), other: inColumn(fresh, is, head) }))
        .filter(({ one, other }) => !isSame(one, other))
        // The size of a reading follows from what was typed; sent again, it is the same reading.
        .filter(
          ({ head }, _, all) => !isReadings || (head !== 'When' && !(head === 'Size' && all[0]!.head !== 'Size')),
        );
      if (differing.length === 0) return [];
      const told = (texts: readonly string[]) => texts.map((text) => text || 'nothing').join('; ');
      return [
        {
          where,
          what: differing.map(({ head }) => head).join(', '),
          before: told(differing.map(({ one }) => one)),
          now: told(differing.map(({ other }) => other)),
        },
      ];
    });
  });
  const engine: BuildSheetDifference[] =
    before.engine === now.engine
      ? []
      : [{ where: 'The sheet', what: 'Engine', before: before.engine, now: now.engine }];
  return [...engine, ...unit, ...facts, ...tables];
}

/** What a sheet as it is now says of the one that was signed last: whether it is still what was signed. */
export function sinceSigned({ revision, sheet }: { revision: number; sheet: BuildSheet }, now: BuildSheet): string {
  const count = comparedSheets(sheet, now, (at) => at).length;
  if (count === 0) return `as signed in revision ${revision}`;
  return `not as signed: differs from signed revision ${revision} in ${count} ${count === 1 ? 'line' : 'lines'}`;
}
