import type { BuildSheet } from './buildSheetSchema.js';

/** One thing in which two sheets differ. */
export interface BuildSheetDifference {
  /** The table, or the sheet itself, and the row: `Mains, millimetres, M2`. */
  readonly where: string;
  /** The column, or the name of the fact. */
  readonly what: string;
  /** What stood there, and what stands there now; null where it is not there. */
  readonly before: string | null;
  readonly now: string | null;
}

type Cell = BuildSheet['tables'][number]['rows'][number][number];

function cellText({ text, small, state, at }: Cell): string {
  return [state, text, at, small].filter((part) => part !== undefined && part !== '').join(' ');
}

/** Rows by their first cell; of several that begin alike each has its number. */
function rowsOf(table: BuildSheet['tables'][number] | undefined): Map<string, readonly Cell[]> {
  const rows = new Map<string, readonly Cell[]>();
  for (const row of table?.rows ?? []) {
    const name = row[0] ? cellText({ text: row[0].text }) : '';
    let key = name;
    for (let copy = 2; rows.has(key); copy += 1) key = `${name} (${copy})`;
    rows.set(key, row);
  }
  return rows;
}

/**
 * In what a sheet differs from an earlier one of the same engine: facts, then tables row by row, cell by cell; when and by whom it was made
 * is passed over.
 */
export function comparedSheets(before: BuildSheet, now: BuildSheet): BuildSheetDifference[] {
  const facts = new Map([...before.facts, ...now.facts].map(({ label }) => [label, label]));
  const factOf = ({ facts: all }: BuildSheet, label: string) => {
    const found = all.find((one) => one.label === label);
    return found ? [found.text, found.at].filter((part) => part !== undefined && part !== '').join(', ') : null;
  };
  const differing = [...facts.keys()].flatMap((what): BuildSheetDifference[] => {
    const [old, fresh] = [factOf(before, what), factOf(now, what)];
    return old === fresh ? [] : [{ where: 'The sheet', what, before: old, now: fresh }];
  });
  const titles = [...new Set([...before.tables, ...now.tables].map(({ title }) => title))];
  const tables = titles.flatMap((title) => {
    const [old, fresh] = [before, now].map(({ tables: all }) => all.find((one) => one.title === title));
    const [oldRows, freshRows] = [rowsOf(old), rowsOf(fresh)];
    const head = fresh?.head ?? old?.head ?? [];
    return [...new Set([...oldRows.keys(), ...freshRows.keys()])].flatMap((row): BuildSheetDifference[] => {
      const where = `${title}, ${row}`;
      const [was, is] = [oldRows.get(row), freshRows.get(row)];
      if (!was || !is) {
        const told = (cells: readonly Cell[] | undefined) =>
          cells?.slice(1).map(cellText).filter(Boolean).join(', ') ?? null;
        return [{ where, what: 'row', before: told(was), now: told(is) }];
      }
      return head.flatMap((what, at) => {
        const [one, other] = [was[at] ? cellText(was[at]) : '', is[at] ? cellText(is[at]) : ''];
        return one === other ? [] : [{ where, what, before: one, now: other }];
      });
    });
  });
  return [...differing, ...tables];
}
