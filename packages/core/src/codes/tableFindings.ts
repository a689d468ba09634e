import type { ClearanceInterval } from '../clearance/clearanceOfBands.js';
import { type Nanometres, nanometres } from '../measure/nanometres.js';
import { bandFaults, type MarkedBand } from '../measure/sizeBand.js';
import { cellInterval, gradesOfCell, type SelectionCodes } from './selectionTable.js';

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
