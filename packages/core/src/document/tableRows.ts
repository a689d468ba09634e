import { formatExactLength } from '../measure/formatLength.js';
import type { Nanometres } from '../measure/nanometres.js';
import { parseLength } from '../measure/parseLength.js';
import { plainNumber } from '../measure/plainNumber.js';
import { INSTRUMENT_DECIMALS, type Unit } from '../measure/unit.js';
import type { DocumentFault } from './fault.js';

/** What is wrong with a cell, and in which column. */
export interface CellFault {
  readonly column: string;
  readonly message: string;
}

/** One row of a file on its way into the drawer. */
export type TableRow<Item, Line> =
  | {
      readonly ok: true;
      /** Row of the file, the head being 1. */
      readonly row: number;
      readonly item: Item;
      /** The line of the drawer that it replaces; null for a new one. */
      readonly line: Line | null;
      /** True if anything changes. */
      readonly isChange: boolean;
    }
  | {
      readonly ok: false;
      readonly row: number;
      readonly cells: readonly string[];
      /** What is wrong, each with its column. */
      readonly faults: readonly CellFault[];
    };

/** A length in a cell, with its unit; empty where there is none. */
export function lengthCell(value: Nanometres | undefined, unit: Unit): string {
  return value === undefined ? '' : `${formatExactLength(value, unit, INSTRUMENT_DECIMALS[unit])} ${unit}`;
}

/** The cells of one row, read by the names of their columns; what cannot be read is kept as a fault. */
export class RowReader<Column extends string> {
  readonly faults: CellFault[] = [];
  private readonly cells: readonly string[];
  private readonly places: ReadonlyMap<Column, number>;
  private unit: Unit;

  /** @param unit of lengths that carry none */
  constructor(cells: readonly string[], places: ReadonlyMap<Column, number>, unit: Unit) {
    this.cells = cells;
    this.places = places;
    this.unit = unit;
  }

  /** The same row with another unit for lengths that carry none. */
  in(unit: Unit): this {
    this.unit = unit;
    return this;
  }

  fault(column: string, message: string): void {
    this.faults.push({ column, message });
  }

  text(column: Column): string {
    return this.cells[this.places.get(column) ?? -1]?.trim() ?? '';
  }

  length(column: Column): Nanometres | undefined {
    if (this.text(column) === '') return undefined;
    const parsed = parseLength(this.text(column), { unit: this.unit, signed: 'sign' });
    if (parsed.ok) return parsed.nm;
    this.fault(column, parsed.message);
    return undefined;
  }

  number(column: Column): number | undefined {
    if (this.text(column) === '') return undefined;
    const read = plainNumber(this.text(column));
    if (!Number.isNaN(read)) return read;
    this.fault(column, `“${this.text(column)}” is not a number`);
    return undefined;
  }

  oneOf<Value extends string>(column: Column, values: readonly Value[]): Value | undefined {
    const typed = this.text(column).toLowerCase();
    const found = values.find((value) => value === typed);
    if (found === undefined && typed !== '') {
      this.fault(column, `“${this.text(column)}” is not one of ${values.join(', ')}`);
    }
    return found;
  }

  /** What everything on the shelf has beside what it is. */
  shelf(this: RowReader<Column | 'Number' | 'On hand' | 'Bin' | 'Supplier' | 'Price' | 'Least' | 'Findings'>) {
    return {
      ...(this.text('Number') === '' ? {} : { number: this.text('Number') }),
      onHand: this.number('On hand'),
      bin: this.text('Bin'),
      supplier: this.text('Supplier'),
      price: this.number('Price') ?? null,
      least: this.number('Least') ?? 0,
      findings: this.text('Findings'),
    };
  }

  /** Takes the faults of a schema, by the columns that its fields stand in. */
  take(faults: readonly DocumentFault[], columns: Readonly<Record<string, string>>): void {
    for (const { path, message } of faults) {
      const field = path.split('/')[1] ?? '';
      this.fault(columns[field] ?? field.replace(/^./u, (letter) => letter.toUpperCase()), message);
    }
  }
}

/** What a table holds of items of one kind. */
interface TableOf<Column extends string, Item, Line> {
  readonly columns: readonly Column[];
  /** Heads that earlier versions wrote, with the column that each is now. */
  readonly formerHeads?: Readonly<Record<string, Column>>;
  /** Columns without which nothing can be read. */
  readonly needed: readonly Column[];
  readonly read: (row: RowReader<Column>) => Item | null;
  readonly isSame: (one: Item, other: Item) => boolean;
  readonly itemOf: (line: Line) => Item;
  /** Column that is named where two rows are of one kind. */
  readonly name: Column;
}

/** The fields of a record in one order, those left out passed over, to compare. */
function sameFields(one: object, other: object): boolean {
  const keys = new Set([...Object.keys(one), ...Object.keys(other)]);
  const at = (record: object, key: string): unknown => (record as Record<string, unknown>)[key];
  return [...keys].every((key) => {
    const [mine, theirs] = [at(one, key), at(other, key)];
    const areRecords = typeof mine === 'object' && typeof theirs === 'object' && mine !== null && theirs !== null;
    return areRecords ? sameFields(mine, theirs) : mine === theirs;
  });
}

/**
 * Reads the rows of a file with a head. Rows that cannot be read are kept with what is wrong in which column; empty rows are passed over.
 * A row whose kind is in the drawer replaces what stands there.
 *
 * @param unit of lengths that carry none
 * @returns the rows in the order of the file, or the columns that its head lacks
 */
export function readTable<Column extends string, Item extends object, Line>(
  table: readonly (readonly string[])[],
  unit: Unit,
  lines: readonly Line[],
  { columns, formerHeads = {}, needed, read, isSame, itemOf, name }: TableOf<Column, Item, Line>,
): { ok: true; rows: TableRow<Item, Line>[] } | { ok: false; missing: readonly string[] } {
  const head = (table[0] ?? []).map((cell) => cell.trim().toLowerCase());
  const places = new Map<Column, number>();
  for (const column of columns) {
    const at = head.indexOf(column.toLowerCase());
    if (at !== -1) places.set(column, at);
  }
  for (const [former, column] of Object.entries<Column>(formerHeads)) {
    const at = head.indexOf(former.toLowerCase());
    if (at !== -1 && !places.has(column)) places.set(column, at);
  }
  const missing = needed.filter((column) => !places.has(column));
  if (missing.length > 0) return { ok: false, missing };
  const taken: { item: Item; row: number }[] = [];
  const rows = table.slice(1).flatMap((cells, at): TableRow<Item, Line>[] => {
    const row = at + 2;
    if (cells.every((cell) => cell.trim() === '')) return [];
    const reader = new RowReader(cells, places, unit);
    for (const column of needed) if (reader.text(column) === '') reader.fault(column, 'missing');
    const item = read(reader);
    const twin = item && taken.find((other) => isSame(other.item, item));
    if (twin) reader.fault(name, `same kind as row ${twin.row}; use one row per kind`);
    if (!item || twin) return [{ ok: false, row, cells, faults: reader.faults }];
    taken.push({ item, row });
    const line = lines.find((one) => isSame(itemOf(one), item)) ?? null;
    return [{ ok: true, row, item, line, isChange: line === null || !sameFields(itemOf(line), item) }];
  });
  return { ok: true, rows };
}
