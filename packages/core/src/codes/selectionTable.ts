import { type ClearanceInterval, clearanceOfBands } from '../clearance/clearanceOfBands.js';
import type { ClearanceLimits } from '../clearance/clearanceVerdict.js';
import { lengthOfNumber } from '../measure/lengthOfNumber.js';
import { type Nanometres, nanometres } from '../measure/nanometres.js';
import type { MarkedBand, SizeBand } from '../measure/sizeBand.js';
import type { Unit } from '../measure/unit.js';
import type { FamilyCodes, TableCell } from './codeSheet.js';

/** One family's codes in whole nanometres. Bands and grades from the smallest up. */
export interface SelectionCodes {
  /** Oil clearance; null where the data sheet has no limits yet: then no cell can be judged. */
  readonly limits: ClearanceLimits | null;
  /** What a generated table goes for; null without limits and without a figure. */
  readonly aim: Nanometres | null;
  readonly housing: readonly MarkedBand[];
  readonly journal: readonly MarkedBand[];
  readonly grades: readonly MarkedBand[];
  readonly table: FamilyCodes['table'];
  /** The last digit that the sheet gives, nm. */
  readonly step: Nanometres;
}

/** The last digit that a sheet in this unit gives. */
export const STEP: Readonly<Record<Unit, Nanometres>> = { mm: nanometres(1000), in: nanometres(2540) };

/**
 * The order of bands: the smaller low end first, then the smaller high end; below zero where `a` comes first.
 *
 * @example smallestFirst({ low: 1000, high: 3000 }, { low: 1000, high: 2000 }) // 1000
 */
export function smallestFirst(a: SizeBand, b: SizeBand): number {
  return a.low - b.low || a.high - b.high;
}

function middleOf({ low, high }: ClearanceLimits): Nanometres {
  return nanometres(Math.round((low + high) / 2));
}

/** What a data sheet says of the marks of one family, in the order of the sheet. */
interface FamilySheet extends Pick<FamilyCodes, 'table'> {
  readonly housing: readonly MarkedBand[];
  readonly journal: readonly MarkedBand[];
  readonly grades: readonly MarkedBand[];
}

/** The codes of a family of a data sheet, with the limits that its clearance is to keep; the aim is their middle. */
export function codesOfFamily(family: FamilySheet, unit: Unit, limits: ClearanceLimits | null): SelectionCodes {
  const banded = (bands: readonly MarkedBand[]) =>
    bands.map(({ mark, low, high }) => ({ mark, low, high })).sort(smallestFirst);
  return {
    limits,
    aim: limits && middleOf(limits),
    housing: banded(family.housing),
    journal: banded(family.journal),
    grades: banded(family.grades),
    table: family.table,
    step: STEP[unit],
  };
}

/** A family's codes in whole nanometres; the aim is the middle of the limits where the sheet gives none. */
export function selectionCodes(codes: FamilyCodes, unit: Unit): SelectionCodes {
  const length = (value: number) => lengthOfNumber(value, unit);
  const limits = { low: length(codes.limits.low), high: length(codes.limits.high) };
  const banded = (bands: readonly { mark: string; low: number; high: number }[]) =>
    bands.map((band) => ({ mark: band.mark, low: length(band.low), high: length(band.high) })).sort(smallestFirst);
  return {
    limits,
    aim: codes.aim === null ? middleOf(limits) : length(codes.aim),
    housing: banded(codes.housing),
    journal: banded(codes.journal),
    grades: banded(codes.grades.map(({ id, ...band }) => ({ mark: id, ...band }))),
    table: codes.table,
    step: STEP[unit],
  };
}

/** Upper and lower grade of a cell. */
export function gradesOfCell(cell: TableCell): { upper: string; lower: string } {
  return typeof cell === 'string' ? { upper: cell, lower: cell } : cell;
}

/** The clearance that a cell's bands imply; null where a mark or a grade is not known or the table has no such cell. */
export function cellInterval(codes: SelectionCodes, housing: string, journal: string): ClearanceInterval | null {
  const cell = codes.table[housing]?.[journal];
  if (cell === undefined) return null;
  const { upper, lower } = gradesOfCell(cell);
  const find = (bands: readonly MarkedBand[], mark: string) => bands.find((band) => band.mark === mark);
  const bands = [
    find(codes.housing, housing),
    find(codes.journal, journal),
    find(codes.grades, upper),
    find(codes.grades, lower),
  ] as const;
  const [bore, shaft, above, below] = bands;
  return bore && shaft && above && below ? clearanceOfBands(bore, shaft, above, below) : null;
}

/** A cell in which two tables differ; undefined where one of them has none. */
export interface CellDifference {
  readonly housing: string;
  readonly journal: string;
  readonly one: TableCell | undefined;
  readonly other: TableCell | undefined;
}

/** The cells in which two tables differ, in the order of the first, then what only the second has. */
export function comparedTables(one: FamilyCodes['table'], other: FamilyCodes['table']): CellDifference[] {
  const places = new Map<string, [string, string]>();
  for (const table of [one, other]) {
    for (const [housing, row] of Object.entries(table)) {
      for (const journal of Object.keys(row)) places.set(JSON.stringify([housing, journal]), [housing, journal]);
    }
  }
  const said = (cell: TableCell | undefined) => (cell === undefined ? null : JSON.stringify(gradesOfCell(cell)));
  return [...places.values()].flatMap(([housing, journal]) => {
    const [first, second] = [one[housing]?.[journal], other[housing]?.[journal]];
    return said(first) === said(second) ? [] : [{ housing, journal, one: first, other: second }];
  });
}
