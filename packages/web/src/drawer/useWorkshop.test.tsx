// @vitest-environment jsdom
import { type DrawerHalf, type DrawerLine, drawerHalfSchema, nanometres } from '@fettle/core';
import { act, renderHook, waitFor } from '@testing-library/react';
import { beforeEach, expect, it, vi } from 'vitest';
import { Around } from '../job/testing/openedJob.js';
import { serverAnswers } from '../wire/testing/serverAnswers.js';

// What this stand-in of a browser does not have.
vi.hoisted(() => vi.stubGlobal('matchMedia', () => new EventTarget()));

import { useWorkshop } from './useWorkshop.js';

let count = 0;
function line(part: Partial<DrawerHalf>, reserved = 0): DrawerLine {
  count += 1;
  const blank = { family: 'main', series: 'Osier', grade: 'Teal', half: 'upper', wall: 1_995_000, onHand: 4 };
  return {
    id: `00000000-0000-4000-8000-0000000003${String(count).padStart(2, '0')}`,
    version: 1,
    half: drawerHalfSchema.parse({ ...blank, ...part }),
    reservations:
      reserved === 0 ? [] : [{ job: '00000000-0000-4000-8000-000000000399', name: 'Reed 6', count: reserved }],
    used: 0,
    fittedHere: 0,
  } as DrawerLine;
}

let lines: DrawerLine[];
beforeEach(() => {
  count = 0;
  lines = [
    line({ series: 'Willow', grade: 'Plum', bin: 'B 4' }),
    line({ half: 'lower', least: 4 }, 1),
    line({ wall: nanometres(1_992_000), grade: 'Sand' }),
    line({ family: 'rod', grade: 'Rust', least: 2, onHand: 1, supplier: 'Creek' }),
  ];
  serverAnswers(() => [200, lines]);
});

async function open() {
  const { result } = renderHook(() => useWorkshop(), { wrapper: Around });
  await waitFor(() => expect(result.current.drawer.lines).toHaveLength(4));
  return result;
}
const grades = (all: readonly DrawerLine[]) => all.map(({ half }) => `${half.series} ${half.family} ${half.grade}`);

it('lists by series, family, side and wall', async () => {
  const workshop = await open();
  expect(grades(workshop.current.shown)).toEqual([
    'Osier main Sand',
    'Osier main Teal',
    'Osier rod Rust',
    'Willow main Plum',
  ]);
});

it('finds every word in what a fitter knows a shell by: its names, its bin, who has it reserved', async () => {
  const workshop = await open();
  act(() => workshop.current.setWords('b plum'));
  expect(grades(workshop.current.shown)).toEqual(['Willow main Plum']);
  act(() => workshop.current.setWords('REED'));
  expect(grades(workshop.current.shown)).toEqual(['Osier main Teal']);
  act(() => workshop.current.setWords('nowhere'));
  expect(workshop.current.shown).toEqual([]);
});

it('orders what is below its minimum once reservations are taken off', async () => {
  const workshop = await open();
  // By hand: 4 on hand, 1 reserved, minimum 4: one short; 1 on hand, minimum 2: one short.
  expect(grades(workshop.current.short)).toEqual(['Osier main Teal', 'Osier rod Rust']);
  act(() => workshop.current.setOnlyShort(true));
  expect(workshop.current.shown).toHaveLength(2);
  expect(workshop.current.orderTable().slice(1)).toEqual([
    ['1', 'Teal', 'lower', 'main', 'Osier', '', '', ''],
    ['1', 'Rust', 'upper', 'rod', 'Osier', '', 'Creek', ''],
  ]);
});

it('opens one thing beside the list, by its address', async () => {
  const workshop = await open();
  const [first] = workshop.current.sorted;
  act(() => workshop.current.setBeside({ kind: 'half', id: first!.id }));
  expect(workshop.current.opened?.half.grade).toBe('Sand');
  act(() => workshop.current.toggle('kits'));
  expect([workshop.current.beside, workshop.current.opened]).toEqual([{ kind: 'kits' }, undefined]);
  act(() => workshop.current.toggle('kits'));
  expect(workshop.current.beside).toBeNull();
});
