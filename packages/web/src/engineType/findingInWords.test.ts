import { type FamilyCodes, selectionCodes, tableFindings } from '@fettle/core';
import { describe, expect, it } from 'vitest';
import { findingInWords } from './findingInWords.js';

/** Two by two, whole: by hand, every cell comes out at 0.026 to 0.042 mm. */
const WHOLE: FamilyCodes = {
  limits: { low: 0.02, high: 0.05, source: 'Sedge book, p. 36' },
  aim: null,
  housing: [
    { mark: 'A', low: 64, high: 64.006 },
    { mark: 'B', low: 64.006, high: 64.012 },
  ],
  journal: [
    { mark: '1', low: 59.988, high: 59.994 },
    { mark: '2', low: 59.982, high: 59.988 },
  ],
  grades: [
    { id: 'Teal', low: 1.988, high: 1.99 },
    { id: 'Sand', low: 1.991, high: 1.993 },
    { id: 'Plum', low: 1.994, high: 1.996 },
  ],
  table: { A: { 1: 'Teal', 2: 'Sand' }, B: { 1: 'Sand', 2: 'Plum' } },
};

function words(change: Partial<FamilyCodes>): string[] {
  const codes = selectionCodes({ ...WHOLE, ...change }, 'mm');
  return tableFindings(codes).map((finding) => findingInWords(finding, 'mm'));
}

describe('findings about a table, in words', () => {
  it('are none for a table that holds together', () => {
    expect(words({})).toEqual([]);
  });

  const faulty: readonly { name: string; change: Partial<FamilyCodes>; says: string }[] = [
    {
      name: 'a cell that can leave its limits at both ends',
      change: { limits: { low: 0.027, high: 0.041, source: 'p. 1' } },
      says: 'A × 1 can come out 0.001 mm too tight and 0.001 mm too loose.',
    },
    {
      name: 'a cell left out',
      change: { table: { A: { 1: 'Teal', 2: 'Sand' }, B: { 2: 'Plum' } } },
      says: 'B × 1 has no grade.',
    },
    {
      name: 'a mark without a band',
      change: { table: { ...WHOLE.table, C: { 1: 'Plum' } } },
      says: 'The table has a housing mark C that has no band.',
    },
    {
      name: 'a grade that there is not',
      change: { table: { A: { 1: 'Teal', 2: 'Sand' }, B: { 1: 'Sand', 2: 'Rust' } } },
      says: 'B × 2 calls for Rust, which is not a grade here.',
    },
    {
      name: 'a grade that no cell leads to',
      change: { grades: [...WHOLE.grades, { id: 'Slate', low: 2, high: 2.002 }] },
      says: 'No cell uses Slate.',
    },
    {
      name: 'a gap between bands',
      change: { housing: [WHOLE.housing[0]!, { mark: 'B', low: 64.008, high: 64.012 }] },
      says: 'Between A and B (housing bands) 0.002 mm are left out: a part could fall there.',
    },
    {
      name: 'bands that overlap',
      change: { journal: [{ mark: '1', low: 59.986, high: 59.994 }, WHOLE.journal[1]!] },
      says: '2 and 1 (journal bands) share 0.002 mm.',
    },
    {
      name: 'a step the wrong way',
      change: { table: { A: { 1: 'Sand', 2: 'Sand' }, B: { 1: 'Teal', 2: 'Plum' } } },
      says: 'From A × 1 to B × 1 the housing grows and the walls get thinner: one is misread.',
    },
  ];
  it.each(faulty)('tell $name', ({ change, says }) => {
    expect(words(change)).toContain(says);
  });

  it('are in inches for a sheet in inches', () => {
    const finding = {
      kind: 'gap',
      feature: 'housing',
      between: ['A', 'B'],
      by: 2540,
    } as unknown as Parameters<typeof findingInWords>[0];
    expect(findingInWords(finding, 'in')).toContain('0.0001');
  });
});
