import { lengthOfNumber } from '../measure/lengthOfNumber.js';
import { type Nanometres, nanometres } from '../measure/nanometres.js';
import type { Unit } from '../measure/unit.js';
import type { FamilyCodes, TableCell } from './codeSheet.js';
import { bandFaults, type ClearanceInterval, clearanceOfBands, type MarkedBand } from './sizeBand.js';

/** One family's codes in whole nanometres. Bands and grades from the smallest up. */
export interface SelectionCodes {
  readonly low: Nanometres;
  readonly high: Nanometres;
  readonly aim: Nanometres;
  readonly housing: readonly MarkedBand[];
  readonly journal: readonly MarkedBand[];
  readonly grades: readonly MarkedBand[];
  readonly table: FamilyCodes['table'];
  /** The last digit that the sheet gives, nm. */
  readonly step: Nanometres;
}

const STEP: Readonly<Record<Unit, Nanometres>> = { mm: nanometres(1000), in: nanometres(2540) };

/** A family's codes in whole nanometres; the aim is the middle of the limits where the sheet gives none. */
export function selectionCodes(codes: FamilyCodes, unit: Unit): SelectionCodes {
  const length = (value: number) => lengthOfNumber(value, unit);
  const [low, high] = [length(codes.limits.low), length(codes.limits.high)];
  const banded = (bands: readonly { mark: string; low: number; high: number }[]) =>
    bands
      .map((band) => ({ mark: band.mark, low: length(band.low), high: length(band.high) }))
      .sort((a, b) => a.low - b.low || a.high - b.high);
  return {
    low,
    high,
    aim: codes.aim === null ? nanometres(Math.round((low + high) / 2)) : length(codes.aim),
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

/** Something about a table that its maker should look at. */
export type TableFinding =
  | {
      readonly kind: 'outside-limits';
      readonly housing: string;
      readonly journal: string;
      readonly interval: ClearanceInterval;
      /** How far below the low limit and above the high one, nm; zero where inside. */
      readonly below: Nanometres;
      readonly above: Nanometres;
    }
  | { readonly kind: 'missing-cell'; readonly housing: string; readonly journal: string }
  | { readonly kind: 'unknown-mark'; readonly feature: 'housing' | 'journal'; readonly mark: string }
  | { readonly kind: 'unknown-grade'; readonly housing: string; readonly journal: string; readonly grade: string }
  | { readonly kind: 'unreachable-grade'; readonly grade: string }
  | {
      readonly kind: 'gap' | 'overlap';
      readonly feature: 'housing' | 'journal' | 'grades';
      readonly between: readonly [string, string];
      readonly by: Nanometres;
    }
  | {
      readonly kind: 'not-monotone';
      /** What grows from the first cell to the second: a larger housing needs no thinner walls, a larger journal no thicker ones. */
      readonly along: 'housing' | 'journal';
      readonly from: { readonly housing: string; readonly journal: string };
      readonly to: { readonly housing: string; readonly journal: string };
    };

/** Sum of both walls of a cell in the middle of their bands, twice over so that it stays whole; null where it is not known. */
function doubledWalls(codes: SelectionCodes, housing: string, journal: string): number | null {
  const cell = codes.table[housing]?.[journal];
  if (cell === undefined) return null;
  const { upper, lower } = gradesOfCell(cell);
  const bands = [upper, lower].map((grade) => codes.grades.find(({ mark }) => mark === grade));
  return bands.every((band) => band !== undefined)
    ? bands.reduce((sum, band) => sum + band!.low + band!.high, 0)
    : null;
}

function stepsDown(codes: SelectionCodes): TableFinding[] {
  const findings: TableFinding[] = [];
  const look = (along: 'housing' | 'journal', from: [string, string], to: [string, string]) => {
    const [before, after] = [doubledWalls(codes, ...from), doubledWalls(codes, ...to)];
    if (before === null || after === null) return;
    if (along === 'housing' ? after >= before : after <= before) return;
    findings.push({
      kind: 'not-monotone',
      along,
      from: { housing: from[0], journal: from[1] },
      to: { housing: to[0], journal: to[1] },
    });
  };
  codes.housing.forEach(({ mark: housing }, row) => {
    codes.journal.forEach(({ mark: journal }, column) => {
      const right = codes.journal[column + 1]?.mark;
      const below = codes.housing[row + 1]?.mark;
      if (below !== undefined) look('housing', [housing, journal], [below, journal]);
      if (right !== undefined) look('journal', [housing, journal], [housing, right]);
    });
  });
  return findings;
}

/**
 * Everything about a selection table that does not hold together: cells whose bands leave the limits, missing cells, marks and
 * grades that there are not, grades that no cell leads to, gaps and overlaps of bands, and steps that go the wrong way.
 */
export function tableFindings(codes: SelectionCodes): TableFinding[] {
  const findings: TableFinding[] = [];
  for (const feature of ['housing', 'journal', 'grades'] as const) {
    const faults = bandFaults(codes[feature], codes.step);
    // Walls of two grades may leave sizes out between them: only parts that are sorted must fall into some band.
    for (const fault of faults)
      if (feature !== 'grades' || fault.kind === 'overlap') findings.push({ feature, ...fault });
  }
  const known = (bands: readonly MarkedBand[]) => new Set(bands.map(({ mark }) => mark));
  const [housings, journals, grades] = [known(codes.housing), known(codes.journal), known(codes.grades)];
  const reached = new Set<string>();
  const strangers = new Set<string>();
  for (const [housing, row] of Object.entries(codes.table)) {
    if (!housings.has(housing)) findings.push({ kind: 'unknown-mark', feature: 'housing', mark: housing });
    for (const [journal, cell] of Object.entries(row)) {
      if (!journals.has(journal)) strangers.add(journal);
      const { upper, lower } = gradesOfCell(cell);
      for (const grade of new Set([upper, lower])) {
        reached.add(grade);
        if (!grades.has(grade)) findings.push({ kind: 'unknown-grade', housing, journal, grade });
      }
    }
  }
  for (const mark of strangers) findings.push({ kind: 'unknown-mark', feature: 'journal', mark });
  for (const { mark: housing } of codes.housing) {
    for (const { mark: journal } of codes.journal) {
      if (codes.table[housing]?.[journal] === undefined) findings.push({ kind: 'missing-cell', housing, journal });
      const interval = cellInterval(codes, housing, journal);
      if (!interval) continue;
      const below = nanometres(Math.max(0, codes.low - interval.tightest));
      const above = nanometres(Math.max(0, interval.loosest - codes.high));
      if (below > 0 || above > 0) findings.push({ kind: 'outside-limits', housing, journal, interval, below, above });
    }
  }
  for (const { mark } of codes.grades)
    if (!reached.has(mark)) findings.push({ kind: 'unreachable-grade', grade: mark });
  return [...findings, ...stepsDown(codes)];
}

/**
 * The best table for given bands, walls and aim: in every cell the grades whose clearance stays nearest inside the limits, then
 * nearest to the aim in its middle; one grade for both halves before two, the thinner grade before the thicker.
 *
 * @param mixed whether a cell may call for two grades
 */
export function generatedTable(codes: SelectionCodes, { mixed }: { mixed: boolean }): FamilyCodes['table'] {
  const pairs = codes.grades.flatMap((upper, at) =>
    codes.grades.flatMap((lower, other) => (other === at || (mixed && other === at + 1) ? [{ upper, lower }] : [])),
  );
  return Object.fromEntries(
    codes.housing.map((bore) => [
      bore.mark,
      Object.fromEntries(
        codes.journal.map((journal) => {
          const rated = pairs.map(({ upper, lower }) => {
            const { tightest, loosest } = clearanceOfBands(bore, journal, upper, lower);
            return {
              cell: upper.mark === lower.mark ? upper.mark : { upper: upper.mark, lower: lower.mark },
              outside: Math.max(0, codes.low - tightest) + Math.max(0, loosest - codes.high),
              off: Math.abs(tightest + loosest - 2 * codes.aim),
              isMixed: upper.mark === lower.mark ? 0 : 1,
            };
          });
          rated.sort((a, b) => a.outside - b.outside || a.off - b.off || a.isMixed - b.isMixed);
          return [journal.mark, rated[0]!.cell];
        }),
      ),
    ]),
  );
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
