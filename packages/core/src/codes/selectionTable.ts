import { type ClearanceInterval, clearanceOfBands } from '../clearance/clearanceOfBands.js';
import type { ClearanceLimits } from '../clearance/clearanceVerdict.js';
import { lengthOfNumber } from '../measure/lengthOfNumber.js';
import { type Nanometres, nanometres } from '../measure/nanometres.js';
import { bandFaults, type MarkedBand, type SizeBand } from '../measure/sizeBand.js';
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
      if (!interval || !codes.limits) continue;
      const below = nanometres(Math.max(0, codes.limits.low - interval.tightest));
      const above = nanometres(Math.max(0, interval.loosest - codes.limits.high));
      if (below > 0 || above > 0) findings.push({ kind: 'outside-limits', housing, journal, interval, below, above });
    }
  }
  for (const { mark } of codes.grades)
    if (!reached.has(mark)) findings.push({ kind: 'unreachable-grade', grade: mark });
  return [...findings, ...stepsDown(codes)];
}

/** Two grades with the clearance they give, and how it stands to limits and aim. */
export interface RatedPair {
  readonly upper: string;
  readonly lower: string;
  readonly interval: ClearanceInterval;
  /** How far the interval leaves the limits, both ends together, nm. */
  readonly outside: number;
  /** How far its middle is off the aim, in half nanometres. */
  readonly off: number;
}

/**
 * Pairs of grades for a bore and a journal, the best first: nearest inside the limits, then nearest to the aim in the middle; one
 * grade for both halves before two, the thinner grade before the thicker.
 *
 * @param grades from the thinnest up; a mixed pair takes two neighbours
 * @param thinner the side of the thinner half of a mixed pair; `either` puts it above
 */
export function ratedPairs(
  bore: SizeBand,
  journal: SizeBand,
  grades: readonly MarkedBand[],
  {
    limits,
    aim,
    mixed,
    thinner = 'either',
  }: {
    readonly limits: ClearanceLimits;
    readonly aim: Nanometres;
    readonly mixed: boolean;
    readonly thinner?: 'either' | 'upper' | 'lower';
  },
): RatedPair[] {
  const isMixed = ({ upper, lower }: RatedPair) => Number(upper !== lower);
  return grades
    .flatMap((thin, at) => [thin, ...(mixed ? grades.slice(at + 1, at + 2) : [])].map((thick) => ({ thin, thick })))
    .map(({ thin, thick }) => (thinner === 'lower' ? { upper: thick, lower: thin } : { upper: thin, lower: thick }))
    .map(({ upper, lower }): RatedPair => {
      const interval = clearanceOfBands(bore, journal, upper, lower);
      return {
        upper: upper.mark,
        lower: lower.mark,
        interval,
        outside: Math.max(0, limits.low - interval.tightest) + Math.max(0, interval.loosest - limits.high),
        off: Math.abs(interval.tightest + interval.loosest - 2 * aim),
      };
    })
    .sort((a, b) => a.outside - b.outside || a.off - b.off || isMixed(a) - isMixed(b));
}

/**
 * The best table for given bands, walls and aim: in every cell the best pair of grades (see `ratedPairs`).
 *
 * @param mixed whether a cell may call for two grades
 * @param thinner the side that the rules give the thinner half
 * @returns null where limits or grades are missing: then nothing can be called best
 */
export function generatedTable(
  codes: SelectionCodes,
  { mixed, thinner = 'either' }: { mixed: boolean; thinner?: 'either' | 'upper' | 'lower' },
): FamilyCodes['table'] | null {
  const { limits, aim, grades } = codes;
  if (!limits || aim === null || grades.length === 0) return null;
  const best = (bore: MarkedBand, journal: MarkedBand): TableCell => {
    const { upper, lower } = ratedPairs(bore, journal, grades, { limits, aim, mixed, thinner })[0]!;
    return upper === lower ? upper : { upper, lower };
  };
  return Object.fromEntries(
    codes.housing.map((bore) => [
      bore.mark,
      Object.fromEntries(codes.journal.map((journal) => [journal.mark, best(bore, journal)])),
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
