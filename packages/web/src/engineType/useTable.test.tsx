// @vitest-environment jsdom
import { nanometres, type SelectionCodes } from '@fettle/core';
import { act, renderHook } from '@testing-library/react';
import { useState } from 'react';
import { expect, it } from 'vitest';
import type { BandText, FamilyText } from './typeText.js';
import { useTable } from './useTable.js';

const um = (value: number) => nanometres(value * 1000);
const band = (mark: string, low: number): BandText => ({ mark, low: String(low), high: String(low + 6), paint: '' });
const typed = {
  housing: [band('1', 64_000), band('', 0), band('2', 64_006)],
  journal: [band('A', 59_980), band('B', 59_986)],
  grades: [band('Thin', 1_994), band('Thick', 1_997)],
  cells: [],
} as unknown as FamilyText;
const marked = (mark: string, low: number, width: number) => ({ mark, low: um(low), high: um(low + width) });
const codes = {
  unit: 'mm',
  housing: [marked('1', 64_000, 6), marked('2', 64_006, 6)],
  journal: [marked('A', 59_980, 6), marked('B', 59_986, 6)],
  grades: [marked('Thin', 1_994, 3), marked('Thick', 1_997, 3)],
  table: {},
  limits: { low: um(20), high: um(50) },
} as unknown as SelectionCodes;

function opened(known: SelectionCodes | null = null) {
  const { result } = renderHook(() => {
    const [text, setText] = useState(typed);
    const set = (part: Partial<FamilyText>) => setText((old) => ({ ...old, ...part }));
    return {
      text,
      ...useTable({ family: 'main', text, unit: 'mm', faults: {}, codes: known, thinner: 'either', set }),
    };
  });
  return result;
}

it('has a cell for every mark that is typed; a line without one keeps its place', () => {
  const seen = opened();
  expect([seen.current.rows, seen.current.columns, seen.current.rowAt]).toEqual([
    ['1', '2'],
    ['A', 'B'],
    [0, 2],
  ]);
  act(() => seen.current.typeAt(1, 0, 'Thin'));
  expect(seen.current.cells).toEqual([
    ['', ''],
    ['Thin', ''],
  ]);
  // The line of the mark that is still to come stays between them.
  expect(seen.current.text.cells[2]).toEqual(['Thin', '']);
  expect(seen.current.csv()).toBe(',A,B\r\n1,,\r\n2,Thin,\r\n');
});

it('takes a block by its marks, in whatever order, and says what found no place', () => {
  const seen = opened();
  act(() =>
    seen.current.fill([
      ['', 'B', 'A'],
      ['2', 'Thick', 'Thin'],
    ]),
  );
  expect(seen.current.cells[1]).toEqual(['Thin', 'Thick']);
  act(() => seen.current.fill([['Thin', 'Thick', 'beyond']], { row: 0, column: 0 }));
  expect(seen.current.left.length).toBeGreaterThan(0);
  act(() => seen.current.seen());
  expect(seen.current.left).toEqual([]);
});

it('fills what is empty with what bands and walls call for, and leaves what is typed', () => {
  const seen = opened(codes);
  act(() => seen.current.typeAt(0, 0, 'Thick'));
  act(() => seen.current.fillEmpty!());
  // By hand, µm, with a target of 35: gaps of 4 020, 4 014, 4 026 and 4 020 leave 29, 23, 35 and 29 with two Thin, 6 less with two Thick.
  expect(seen.current.cells).toEqual([
    ['Thick', 'Thin'],
    ['Thin', 'Thin'],
  ]);
  expect(seen.current.fillEmpty).toBeNull();
});
